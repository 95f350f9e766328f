import { setDecimal } from "../units/print";
import { say, speak } from "./say";

/** The other languages there are, a file of internal/text each. English is what is built in. */
const others = import.meta.glob<Record<string, string>>(
  ["../../../internal/text/??.json", "!../../../internal/text/en.json"],
  { import: "default" },
);
const codeOf = (path: string) => path.slice(-7, -5);

/** Every language, by its two letters. */
export const languages = ["en", ...Object.keys(others).map(codeOf)];

const key = "coldember.language";

const known = (l: string | undefined) => (l && languages.includes(l) ? l : undefined);

/** The language of the browser, where there is one of it. */
export const ofBrowser = (): string =>
  navigator.languages.map((l) => known(l.slice(0, 2).toLowerCase())).find((l) => l) ?? "en";

/** What this browser spoke last, or else its own. */
export const spoken = (): string => known(localStorage.getItem(key) ?? undefined) ?? ofBrowser();

/** The words of the pages that come later. */
export const moreWords = async (): Promise<void> => {
  if (spoken() === "en" && localStorage.getItem(key) !== longer)
    speak("en", (await import("../../../internal/text/en.json?later")).default);
};

/** A language that nobody speaks: English, every word longer by two fifths, to see what is too narrow for another language. */
const longer = "qlong";

const lengthened = (words: Record<string, string>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(words).map(([code, said]) => [
      code,
      said.replace(/\{\w+\}|\p{L}{3,}/gu, (w) => (w.startsWith("{") ? w : w + "o".repeat(Math.round(w.length * 0.4)))),
    ]),
  );

/** Speaks from the first page on; words that a language has not yet are said in English. */
export async function begin(): Promise<void> {
  if (localStorage.getItem(key) === longer) {
    const [first, more] = await Promise.all([
      import("../../../internal/text/en.json"),
      import("../../../internal/text/en.json?later"),
    ]);
    return speak("en", lengthened({ ...first.default, ...more.default }));
  }
  const lang = spoken();
  document.documentElement.lang = lang;
  const load = others[`../../../internal/text/${lang}.json`];
  if (!load) return;
  speak(lang, (await import("../../../internal/text/en.json?later")).default);
  speak(lang, await load());
  setDecimal(say("number.decimal") === "," ? "," : ".");
}

/** Takes another language from now on: the page is loaded anew in it. */
export function change(lang: string): void {
  if (lang === spoken() || !known(lang) || localStorage.getItem(key) === longer) return;
  localStorage.setItem(key, lang);
  location.reload();
}

/** What a language calls itself. */
export function nameOf(lang: string): string {
  const name = new Intl.DisplayNames([lang], { type: "language" }).of(lang) ?? lang;
  return name.charAt(0).toLocaleUpperCase(lang) + name.slice(1);
}
