/** A figure with its name, in a list of them. */
export const Figure = ({ name, value }: { name: string; value: string }) => (
  <div className="flex justify-between gap-2">
    <dt className="text-quiet">{name}</dt>
    <dd className="narrow whitespace-nowrap">{value}</dd>
  </div>
);
