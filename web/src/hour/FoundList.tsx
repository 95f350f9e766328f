import { useShop } from "../api/hooks";
import { say, told } from "../text/say";
import { localNumber, print, type System } from "../units/print";
import type { Hour } from "./HourPage";

const tenth = 1.2816;
const times = (v: number) => localNumber(`× ${v.toFixed(2)}`);

/** What an hour tells, each with between what it lies in four of five cases. */
export function FoundList({
  h,
  units,
  onSend,
}: {
  h: Hour;
  units: System;
  onSend: (edits: { field: string; text: string }[]) => Promise<void>;
}) {
  const shop = useShop();
  const fire = shop.data?.fire;
  const smith = shop.data?.smiths.find((s) => s.name === h.hour.smith);
  const f = h.found;
  const factor = (code: "hour.blow" | "hour.spread" | "hour.scaled", v?: { factor: number; sdLog: number }) =>
    v
      ? [
          say(code, {
            is: times(v.factor),
            low: times(v.factor * Math.exp(-tenth * v.sdLog)),
            high: times(v.factor * Math.exp(tenth * v.sdLog)),
          }),
        ]
      : [];
  const lines = [
    ...(f.tempC && fire
      ? [
          say("hour.temp", {
            is: print.fireTemperature(f.tempC.is, units),
            by: print.apart(tenth * f.tempC.sd, units),
            shop: print.temperature(fire.tempC, units),
          }),
        ]
      : []),
    ...(f.hotLengthMm && fire
      ? [
          say("hour.long", {
            is: print.length(f.hotLengthMm.is, units),
            shop: print.length(fire.hotLengthMm, units),
          }),
        ]
      : []),
    ...(f.fuelKgPerH && fire
      ? [
          say("hour.burns", {
            is: print.massRate(f.fuelKgPerH.is, units),
            shop: print.massRate(fire.fuelKgPerH, units),
          }),
        ]
      : []),
    ...factor("hour.blow", f.blow),
    ...factor("hour.spread", f.spread),
    ...factor("hour.scaled", f.scale),
    ...(f.ratePerS && smith
      ? [
          say("hour.pace", {
            is: localNumber(f.ratePerS.is.toFixed(1)),
            shop: localNumber(smith.ratePerS.toFixed(1)),
          }),
        ]
      : []),
    ...(f.doubtful ?? []).map((k) => told(`hour.doubtful.${k}`)),
    ...(h.hour.hardMm ? [say("hour.hardens", { at: print.length(h.hour.hardMm, units) })] : []),
    ...(f.coupon ? [told(`hour.coupon.${f.coupon}`)] : []),
  ];
  if (lines.length === 0) return <p className="text-quiet">{say("hour.nothing")}</p>;
  const take = [
    ...(f.tempC ? [{ field: "fire.tempC", text: `${Math.round(f.tempC.is / 10) * 10} C` }] : []),
    ...(f.hotLengthMm ? [{ field: "fire.hotLengthMm", text: `${f.hotLengthMm.is}mm` }] : []),
    ...(f.fuelKgPerH ? [{ field: "fire.fuelKgPerH", text: `${f.fuelKgPerH.is.toFixed(3)} kg/h` }] : []),
  ];
  return (
    <>
      <ul className="grid gap-1.5">
        {lines.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </ul>
      {take.length > 0 && (
        <button
          type="button"
          className="press justify-self-start"
          data-testid="hour-take"
          onClick={() => void onSend(take)}
        >
          {say("hour.take")}
        </button>
      )}
    </>
  );
}

/** What became narrower by it: a usual knife before and now. */
export function Narrower({ h, units }: { h: Hour; units: System }) {
  if (!h.found.blow && !h.found.scale && !h.found.spread) return null;
  const between = (low: string, high: string) => `${low}–${high}`;
  const rows = [
    { what: "learned.kind.heats", of: "heats" as const, as: (v: number) => String(Math.round(v)) },
    { what: "learned.kind.time", of: "timeS" as const, as: (v: number) => print.duration(v) },
    { what: "hour.task.fuel", of: "fuelG" as const, as: (v: number) => print.mass(v, units) },
  ];
  return (
    <section className="border-t border-line pt-2" data-testid="hour-narrower">
      <h3 className="narrow text-xl">{say("hour.narrower")}</h3>
      <p className="text-sm text-quiet">{say("hour.knife")}</p>
      <ul className="mt-1 grid gap-1">
        {rows.map((r) => (
          <li key={r.what}>
            {say("hour.narrow", {
              what: told(r.what),
              before: between(r.as(h.before[r.of].low), r.as(h.before[r.of].high)),
              after: between(r.as(h.after[r.of].low), r.as(h.after[r.of].high)),
            })}
          </li>
        ))}
      </ul>
    </section>
  );
}
