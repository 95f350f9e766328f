import { useEffect, useRef } from "react";
import { useLocation } from "react-router";

/** Something that can have the hand: a part of a page that is told to, or what the keyboard stops at anyway. */
const stops =
  "[data-home], a[href], button:not([disabled]), input:not([disabled]), summary, [tabindex]:not([tabindex='-1'])";

/**
 * Keeps the hand where the work is. When what had it goes away (a remedy that was pressed, a row that was taken out, a
 * sheet that was opened by a key), the hand goes to the nearest part of the page that is still there, and never to the
 * top of everything.
 */
export function useKeptFocus(): void {
  useEffect(() => {
    let chain: Element[] = [];
    const note = (e: FocusEvent) => {
      chain = [];
      for (let el = e.target as Element | null; el; el = el.parentElement) chain.push(el);
    };
    const lost = () => document.activeElement === document.body || document.activeElement === null;
    const back = () => {
      if (!lost() || chain.length === 0 || chain[0]?.isConnected) return;
      const near = chain.find((el) => el.isConnected && el !== document.body && el !== document.documentElement);
      const home = near?.closest<HTMLElement>("[data-home]") ?? near?.querySelector<HTMLElement>(stops);
      home?.focus({ preventScroll: true });
    };
    const seen = new MutationObserver(() => requestAnimationFrame(back));
    seen.observe(document.body, { childList: true, subtree: true });
    document.addEventListener("focusin", note);
    return () => {
      seen.disconnect();
      document.removeEventListener("focusin", note);
    };
  }, []);
}

/** On another page the hand begins at its top, where nothing on it asks for the hand. */
export function useFocusOnPage(): void {
  const page = useLocation().pathname.split("/").slice(0, 3).join("/");
  const first = useRef(page);
  useEffect(() => {
    if (first.current === page) return; // the first page begins where the browser begins
    first.current = "";
    const soon = setTimeout(() => {
      if (document.activeElement === document.body)
        document.querySelector<HTMLElement>("main")?.focus({ preventScroll: true });
    }, 60);
    return () => clearTimeout(soon);
  }, [page]);
}

/** Names the page in the title of the window. */
export function useTitle(...parts: (string | undefined)[]): void {
  const title = [...parts.filter(Boolean), "Cold Ember"].join(" – ");
  useEffect(() => {
    document.title = title;
  }, [title]);
}
