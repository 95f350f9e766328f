import type { Code } from "../text/say";
import { codes, say, told } from "../text/say";

/** Something that can be found: a place to go to, or something to do. */
export interface Found {
  id: string;
  label: string;
  kind: string;
  /** More that it is found by, less well. */
  also?: string;
  to?: string;
  act?: () => void;
}

const plain = (t: string) => t.toLowerCase().normalize("NFD").replace(/\p{M}/gu, "");

/** How well a text is found by letters: 0 begins so, 1 has a word that does, 2 has them, 3 elsewhere; undefined not at all. */
export function rank(f: Pick<Found, "label" | "also">, wanted: string): number | undefined {
  const parts = plain(wanted).split(/\s+/).filter(Boolean);
  const label = plain(f.label);
  const first = parts[0];
  if (!first) return 0;
  if (parts.every((p) => label.includes(p))) {
    if (label.startsWith(first)) return 0;
    return label.split(/[\s,·(]+/).some((w) => w.startsWith(first)) ? 1 : 2;
  }
  const all = `${label} ${plain(f.also ?? "")}`;
  return parts.every((p) => all.includes(p)) ? 3 : undefined;
}

/** What letters find, the best first; what is found as well stays in its order. */
export const sought = (all: Found[], wanted: string): Found[] =>
  all
    .flatMap((f) => {
      const r = rank(f, wanted);
      return r === undefined ? [] : [{ f, r }];
    })
    .sort((a, b) => a.r - b.r)
    .map(({ f }) => f);

/** Fields of the shop by their codes: where in the catalogue, and where on the page. */
const families: [string, (rest: string) => string][] = [
  ["field.name.smith.", (rest) => `smiths.0.${rest}`],
  ["field.name.fire.", (rest) => `fire.${rest}`],
  ["field.name.prices.", (rest) => `prices.${rest}`],
];

const own: [Code, string][] = [
  ["shop.units", "units"],
  ["shop.theme", "theme"],
  ["shop.language", "language"],
  ["shop.paper", "paper"],
];

const sets = ["hammers", "hearths", "tongs", "baths", "ovens", "blocks"] as const;

/** Every setting of the shop. */
export function settings(): Found[] {
  const to = (field: string) => `/shop?at=${field}`;
  const kind = say("nav.setting");
  return [
    ...own.map(([code, field]) => ({ id: `set-${field}`, label: told(code), kind, to: to(field) })),
    ...sets.map((s) => ({ id: `set-${s}`, label: told(`shop.${s}`), kind, to: to(`${s}.add`) })),
    ...families.flatMap(([family, field]) =>
      codes(family).map((code) => ({
        id: `set-${code}`,
        label: told(code),
        kind,
        to: to(field(code.slice(family.length))),
      })),
    ),
  ];
}
