import { locale, say } from "../text/say";

/** Lets the page be installed: where the application does not run then, it is told so, in these words. */
export function installable(): void {
  if (!("serviceWorker" in navigator) || !isSecureContext || import.meta.env.DEV) return;
  void navigator.serviceWorker
    .register("/sw.js")
    .then(() => navigator.serviceWorker.ready)
    .then((r) =>
      r.active?.postMessage({
        lang: locale(),
        title: say("notRunning.title"),
        words: say("notRunning.words"),
        again: say("notRunning.again"),
      }),
    )
    .catch(() => {}); // a browser that will not have it has a page in a tab
}
