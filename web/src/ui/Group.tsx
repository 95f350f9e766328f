import type { ReactNode } from "react";
import { Term } from "./Term";

/** Fields that belong together, under a line with their name. */
export function Group({ title, term, children }: { title: string; term?: string; children: ReactNode }) {
  return (
    <fieldset>
      <legend className="narrow mb-1.5 w-full border-b border-line text-lg">
        {term ? <Term code={term}>{title}</Term> : title}
      </legend>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">{children}</div>
    </fieldset>
  );
}
