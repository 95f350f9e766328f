import { describe, expect, it } from "vitest";
import messages from "../../../internal/text/en.json";
import { speak } from "../text/say";
import { drawings } from "./drawings";
import { search, words } from "./words";

const catalogue: Record<string, string> = messages;

/** What a word of the trade looks like in a sentence, and which entry is of it. */
const trade: [RegExp, string][] = [
  [/\bplung/i, "plunge"],
  [/false edge/i, "falseEdge"],
  [/\bplanish/i, "planish"],
  [/\bpeen/i, "peen"],
  [/\bupset/i, "upset"],
  [/\bscarf/i, "scarf"],
  [/\bhardy\b/i, "hardy"],
  [/\bheld stub|\bstub\b/i, "heldStub"],
  [/\bfuller/i, "fullerTool"],
  [/\bdistal/i, "distalTaper"],
  [/\bricasso/i, "ricasso"],
  [/\bkerf/i, "kerf"],
  [/\bflux\b/i, "flux"],
  [/\bpreform/i, "preform"],
  [/\bbolster/i, "bolster"],
  [/\bpommel/i, "pommel"],
  [/\bquench/i, "quench"],
  [/\btemper(ing|ed)?\b/i, "temper"],
  [/\banneal/i, "anneal"],
  [/\bnormalis/i, "cycle"],
  [/\bsoak/i, "soak"],
  [/\bcoupon/i, "coupon"],
  [/\bdies?\b/i, "dies"],
  [/\bstriker/i, "striker"],
  [/\bflow stress/i, "flowStress"],
  [/\bremnant/i, "remnant"],
  [/\bbevel/i, "bevel"],
  [/\btang\b/i, "tang"],
  [/\bshoulder/i, "shoulder"],
  [/\bheel\b/i, "heel"],
  [/\bspine\b/i, "spine"],
  [/\bhorn\b/i, "horn"],
  [/\blip\b/i, "lip"],
  [/\bedgewise|on edge\b/i, "edgewise"],
  [/\bgrain\b/i, "grain"],
  [/\bchalk/i, "chalk"],
  [/\bbite\b/i, "bite"],
];

describe("words of the trade", () => {
  it("are said as they are known when they are asked for, and not when this file came", () => {
    const name = catalogue["term.temper.name"] ?? "";
    speak("en", { "term.temper.name": "Said later" });
    expect(words().map((w) => w.name)).toContain("Said later");
    speak("en", { "term.temper.name": name });
    expect(words().map((w) => w.name)).toContain(name);
  });
  it("have a name, a sentence and a drawing each, and nothing is drawn that is not said", () => {
    const said = Object.keys(catalogue).filter((k) => /^term\.\w+$/.test(k));
    expect(said.map((k) => k.slice(5)).sort()).toEqual(Object.keys(drawings).sort());
    for (const w of words()) {
      expect(w.name, w.id).not.toContain("term.");
      expect(w.says, w.id).not.toContain("term.");
      for (const [, d] of drawings[w.id] ?? []) expect(d, w.id).toMatch(/^M[-\d. A-Za-z]+$/);
    }
    expect(new Set(words().map((w) => w.name)).size).toBe(words().length);
  });
  it.each(trade)("%s is used somewhere, and has its entry", (pattern, id) => {
    expect(Object.entries(catalogue).some(([k, v]) => pattern.test(v) && !k.startsWith(`term.${id}`))).toBe(true);
    expect(words().some((w) => w.id === id)).toBe(true);
  });
  it("are found by a few letters, names first", () => {
    expect(search("upse")[0]?.id).toBe("upset");
    expect(search("zzz")).toEqual([]);
    expect(search("").length).toBe(words().length);
  });
});
