/** Printing of stored figures in the smith's units. Reading them is the server's work alone. */
export type System = "mm" | "in";

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

const length = (mm: number, s: System) => (s === "in" ? `${fraction(mm / 25.4, 32)} in` : `${trim(mm, 1)} mm`);
const thickness = (mm: number, s: System) => (s === "in" ? `${(mm / 25.4).toFixed(3)} in` : `${trim(mm, 2)} mm`);
const temperature = (c: number, s: System) =>
  s === "in" ? `${Math.round((c * 1.8 + 32) / 10) * 10} °F` : `${Math.round(c / 5) * 5} °C`;

function mass(g: number, s: System): string {
  if (s === "in") return `${trim(g / 28.349523125, 1)} oz`;
  return Math.abs(g) >= 1000 ? `${trim(g / 1000, 2)} kg` : `${trim(g, 0)} g`;
}

const volume = (mm3: number, s: System) =>
  s === "in" ? `${(mm3 / 16387.064).toFixed(3)} in³` : `${(mm3 / 1000).toFixed(2)} cm³`;

/** Second moment of area. */
const moment = (mm4: number, s: System) =>
  s === "in" ? `${(mm4 / 416231.4256).toPrecision(3)} in⁴` : `${mm4.toFixed(0)} mm⁴`;

function duration(seconds: number): string {
  if (seconds < 90) return `${Math.round(seconds)} s`;
  return `${Math.round(seconds / 60)} min`;
}

/** A figure by the unit its name ends in. */
function figure(name: string, v: number, s: System): string {
  if (name.endsWith("Mm")) return v < 10 ? thickness(v, s) : length(v, s);
  if (name.endsWith("C")) return temperature(v, s);
  if (name.endsWith("Fraction") || name.endsWith("Share")) return `${(v * 100).toFixed(1)} %`;
  if (name.endsWith("S")) return duration(v);
  return trim(v, 2);
}

/** The text a field opens with: what was stored, short, and read back within its last digit. */
function edit(name: string, v: number, s: System): string {
  if (name.endsWith("Mm")) {
    if (s === "mm") return trim(v, 3);
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
  if (name.endsWith("C")) return s === "in" ? trim(v * 1.8 + 32, 0) : trim(v, 0);
  if (name.endsWith("Fraction") || name.endsWith("Share")) return trim(v * 100, 2);
  return trim(v, 3);
}

/** A sum in the shop's own money. */
const money = (v: number): string => (v < 100 ? v.toFixed(2) : v.toFixed(0));

/** The unit that stands behind a field. */
function unit(name: string, s: System): string {
  if (name.endsWith("Mm")) return s;
  if (name.endsWith("KgPerH")) return "kg/h";
  if (name.endsWith("Kg")) return "kg";
  if (name.endsWith("MPerS")) return "m/s";
  if (name.endsWith("SPerMm")) return "s/mm";
  if (name.endsWith("PerS")) return "/s";
  if (name.endsWith("C")) return s === "in" ? "°F" : "°C";
  if (name.endsWith("Fraction") || name.endsWith("Share")) return "%";
  if (name.endsWith("S")) return "s";
  return "";
}

export const print = { moment, length, thickness, temperature, mass, volume, duration, figure, edit, unit, money };
