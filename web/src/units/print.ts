/** Printing of stored figures in the smith's units. Reading them is the server's work alone. */
export type System = string;

/**
 * "mm" or "in", and after commas the finest fraction of an inch and how hot is told, where they are not as usual:
 * "in,64,C".
 */
export const inches = (s: System): boolean => s.startsWith("in");
const fahrenheit = (s: System): boolean => s.split(",").includes("F") || (inches(s) && !s.split(",").includes("C"));
const finest = (s: System) => (s.split(",").includes("64") ? 64 : 32);
const lb = 0.45359237;

function trim(v: number, places: number): string {
  const t = v.toFixed(places);
  const s = t.includes(".") ? t.replace(/0+$/, "").replace(/\.$/, "") : t;
  return s === "-0" ? "0" : s;
}

/** The nearest 1/den in lowest terms: "1 1/4", "3/8", "2". */
function fraction(v: number, den: number): string {
  const sign = v < 0 ? "-" : "";
  const n = Math.round(Math.abs(v) * den);
  const whole = Math.floor(n / den);
  let rest = n % den;
  let d = den;
  while (rest > 0 && rest % 2 === 0) {
    rest /= 2;
    d /= 2;
  }
  if (rest === 0) return whole === 0 ? "0" : sign + whole;
  return whole === 0 ? `${sign}${rest}/${d}` : `${sign}${whole} ${rest}/${d}`;
}

const length = (mm: number, s: System) => (inches(s) ? `${fraction(mm / 25.4, finest(s))} in` : `${trim(mm, 1)} mm`);
/** A length that is reckoned and not known to a millimetre, and between what it lies: whole millimetres, or sixteenths. */
function reckoned(mm: number, lowMm: number, highMm: number, s: System): string {
  const one = (v: number) => (inches(s) ? fraction(v / 25.4, 16) : trim(v, 0));
  const unit = inches(s) ? "in" : "mm";
  const from = one(lowMm);
  const to = one(highMm);
  return highMm > 0 && from !== to ? `${one(mm)} ${unit} (${from}–${to})` : `${one(mm)} ${unit}`;
}
/** A figure and between what it lies; a unit that all three have stands once. */
function ranged(figure: string, low: string, high: string): string {
  const unit = (text: string) => text.slice(text.lastIndexOf(" "));
  const same = unit(figure) === unit(low) && unit(figure) === unit(high);
  const bare = (text: string) => (same ? text.slice(0, text.lastIndexOf(" ")) : text);
  return `${figure} (${bare(low)}–${bare(high)})`;
}
/** At the fire no more is told than calipers and a rule tell there: half millimetres, or 1/32 in. */
const fireLength = (mm: number, s: System) =>
  inches(s) ? `${fraction(mm / 25.4, 32)} in` : `${trim(Math.round(mm * 2) / 2, 1)} mm`;
/** A thickness at the fire: fifths of a millimetre, or hundredths of an inch, rather thicker than too thin. */
const fireThickness = (mm: number, s: System) =>
  inches(s)
    ? `${(Math.ceil((mm / 25.4) * 100 - 1e-6) / 100).toFixed(2)} in`
    : `${trim(Math.ceil(mm * 5 - 1e-6) / 5, 1)} mm`;
/** A temperature at the fire: tens of degrees. */
const fireTemperature = (c: number, s: System) =>
  fahrenheit(s) ? `${Math.round((c * 1.8 + 32) / 20) * 20} °F` : `${Math.round(c / 10) * 10} °C`;
const thickness = (mm: number, s: System) => (inches(s) ? `${(mm / 25.4).toFixed(3)} in` : `${trim(mm, 2)} mm`);
const temperature = (c: number, s: System) =>
  fahrenheit(s) ? `${Math.round((c * 1.8 + 32) / 10) * 10} °F` : `${Math.round(c / 5) * 5} °C`;

/** A difference of temperatures. */
const apart = (k: number, s: System) => (fahrenheit(s) ? `${Math.round(k * 1.8)} °F` : `${Math.round(k)} °C`);

function mass(g: number, s: System): string {
  if (inches(s))
    return Math.abs(g) >= 1000 * lb ? `${trim(g / 1000 / lb, 2)} lb` : `${trim((g * 16) / 1000 / lb, 1)} oz`;
  return Math.abs(g) >= 1000 ? `${trim(g / 1000, 2)} kg` : `${trim(g, 0)} g`;
}

const volume = (mm3: number, s: System) =>
  inches(s) ? `${(mm3 / 16387.064).toFixed(3)} in³` : `${(mm3 / 1000).toFixed(2)} cm³`;

/** Second moment of area. */
const moment = (mm4: number, s: System) =>
  inches(s) ? `${(mm4 / 416231.4256).toPrecision(3)} in⁴` : `${mm4.toFixed(0)} mm⁴`;

function duration(seconds: number): string {
  // of less than three seconds every tenth counts
  if (seconds < 3) return `${trim(seconds, 1)} s`;
  if (seconds < 90) return `${Math.round(seconds)} s`;
  if (seconds >= 7200) return `${trim(seconds / 3600, 1)} h`;
  return `${Math.round(seconds / 60)} min`;
}

/** How many of what a field shows are one of what is stored: pounds, feet a second, money a pound. */
function perStored(name: string, s: System): number {
  if (!inches(s)) return 1;
  if (name.endsWith("KgPerH") || name.endsWith("Kg")) return 1 / lb;
  if (name.endsWith("MPerS")) return 1 / 0.3048;
  return isPrice(name) ? lb : 1;
}

const isPrice = (name: string) => name.endsWith("steelPrice") || name.endsWith("fuelPrice");
const speed = (v: number, s: System) => (inches(s) ? `${trim(v / 0.3048, 1)} ft/s` : `${trim(v, 2)} m/s`);
const massRate = (v: number, s: System) => `${trim(v * perStored("KgPerH", s), 2)} ${inches(s) ? "lb/h" : "kg/h"}`;
const massPrice = (v: number, s: System) => `${trim(v * perStored("steelPrice", s), 2)} ${inches(s) ? "/lb" : "/kg"}`;

/** What a printed length leaves out: "+0.006 in", or nothing where it is less than half a thousandth. */
function rest(mm: number, s: System): string {
  if (!inches(s)) return "";
  const over = mm / 25.4 - Math.round((mm / 25.4) * finest(s)) / finest(s);
  return Math.abs(over) < 0.0005 ? "" : `${over < 0 ? "−" : "+"}${Math.abs(over).toFixed(3)} in`;
}

/** What is said for a millimetre, or a hundred of them, is no length. */
const isLength = (name: string) => name.endsWith("Mm") && !/Per(100)?Mm$/.test(name);

/** A figure by the unit its name ends in. */
function figure(name: string, v: number, s: System): string {
  if (isLength(name)) return v < 10 ? thickness(v, s) : length(v, s);
  if (name.endsWith("C")) return temperature(v, s);
  if (name.endsWith("Fraction") || name.endsWith("Share")) return `${(v * 100).toFixed(1)} %`;
  if (name.endsWith("KgPerH")) return massRate(v, s);
  if (name.endsWith("Kg")) return mass(v * 1000, s);
  if (name.endsWith("MPerS")) return speed(v, s);
  if (isPrice(name)) return massPrice(v, s);
  if (name.endsWith("S")) return duration(v);
  return trim(v, 2);
}

/** The text a field opens with: what was stored, short, and read back within its last digit. */
function edit(name: string, v: number, s: System): string {
  if (isLength(name)) {
    if (!inches(s)) return trim(v, 3);
    const short = fraction(v / 25.4, 64);
    const parts = short.split(/[ /]/).map(Number);
    const back =
      parts.length === 3
        ? (parts[0] ?? 0) + (parts[1] ?? 0) / (parts[2] ?? 1)
        : parts.length === 2
          ? (parts[0] ?? 0) / (parts[1] ?? 1)
          : (parts[0] ?? 0);
    return Math.abs(back - v / 25.4) < 1e-9 ? short : trim(v / 25.4, 4);
  }
  if (name.endsWith("C")) return fahrenheit(s) ? trim(v * 1.8 + 32, 0) : trim(v, 0);
  if (name.endsWith("Fraction") || name.endsWith("Share")) return trim(v * 100, 2);
  return trim(v * perStored(name, s), 3);
}

/** A sum in the shop's own money. */
const money = (v: number): string => (v < 100 ? v.toFixed(2) : v.toFixed(0));

/** The unit that stands behind a field. */
function unit(name: string, s: System): string {
  if (isLength(name)) return inches(s) ? "in" : "mm";
  if (name.endsWith("KgPerH")) return inches(s) ? "lb/h" : "kg/h";
  if (name.endsWith("Kg")) return inches(s) ? "lb" : "kg";
  if (name.endsWith("MPerS")) return inches(s) ? "ft/s" : "m/s";
  if (name.endsWith("SPerMm")) return "s/mm";
  if (name.endsWith("PerS")) return "/s";
  if (name.endsWith("C")) return fahrenheit(s) ? "°F" : "°C";
  if (name.endsWith("Fraction") || name.endsWith("Share")) return "%";
  if (name.endsWith("S")) return "s";
  if (isPrice(name)) return inches(s) ? "/lb" : "/kg";
  return "";
}

let decimal = ".";

/** The sign before tenths, as the language writes it. */
export function setDecimal(sign: "." | ","): void {
  decimal = sign;
}

/** Figures in a text as the language writes them; what else has points in it (an address, a version) keeps them. */
export const localNumber = (text: string): string =>
  decimal === "."
    ? text
    : text.replace(/[A-Za-z0-9_.:/\\-]+/g, (w) => w.replace(/^(-?\d+)\.(\d+[A-Za-z]*[.:]*)$/, `$1${decimal}$2`));

/** A length as a page types it for the smith: in millimetres, whatever the units are. */
export const typedMm = (mm: number, places = 5): string => localNumber(`${Number(mm.toFixed(places))}mm`);

/** What came with a point or a comma (a caliper that types), as the language writes it: a decimal sign, never thousands. */
export const decimalText = (figure: string): string => figure.replace(/[.,]/, decimal);

const local =
  <A extends unknown[]>(f: (...of: A) => string) =>
  (...of: A): string =>
    localNumber(f(...of));

export const print = {
  ranged,
  fireLength,
  fireThickness,
  fireTemperature,
  rest: local(rest),
  speed: local(speed),
  massRate: local(massRate),
  massPrice: local(massPrice),
  moment: local(moment),
  length: local(length),
  reckoned,
  thickness: local(thickness),
  temperature: local(temperature),
  apart: local(apart),
  mass: local(mass),
  volume: local(volume),
  duration: local(duration),
  figure: local(figure),
  edit: local(edit),
  unit,
  money: local(money),
};
