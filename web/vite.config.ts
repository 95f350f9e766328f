import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { loadEnv, type Plugin } from "vite";
import { defineConfig } from "vitest/config";

// The development server hands the API to a running `coldember serve`.
const api = loadEnv("development", ".", "COLDEMBER_").COLDEMBER_API ?? "http://127.0.0.1:7420";

/** Families of words that only the server and the command line say: a page need not wait for them. */
const serverOnly = /^(serve|pair|cli|doctor|starter|calc|csv|patternFile)\./;

/** Families of words of pages that come when they are opened: they come with the first of these. */
const later =
  /^(practice|walk|news|help|do|notRunning|coach|exercise|eye|billet|wish|finish|replan|learned|treat|mend|sheet|coupon|test|day|access|ear|customer|copies|log|grain|temperColour|see|hand|log|note|reading|inside|largest|hope|rank|sure|term|anvil|shelf|cuts|cutplan|gauges|book|replay|final|treatment|spine|oven|bath|block|material|tongs|fittings|cover|belt|edgeBit)\./;

let building = false;

/** Builds the pages with the words that they say: those of the first page, the others (`?later`), and of another language all. */
const pageWords: Plugin = {
  name: "page-words",
  enforce: "pre",
  configResolved(config) {
    building = config.command === "build";
  },
  transform(text, id) {
    const file = /internal\/text\/([a-z]{2})\.json(\?later)?$/.exec(id);
    if (!file || (!building && !file[2])) return;
    const said = Object.entries(JSON.parse(text) as Record<string, string>).filter(([code]) => !serverOnly.test(code));
    const wanted = file[1] !== "en" ? said : said.filter(([code]) => later.test(code) === !!file[2]);
    const words = JSON.stringify(Object.fromEntries(wanted));
    return file[2] ? { code: `export default ${words}`, moduleType: "js" } : words;
  },
};

export default defineConfig({
  plugins: [pageWords, react(), tailwindcss()],
  server: {
    port: 7430,
    strictPort: true,
    proxy: { "/api": { target: api, headers: { origin: api }, changeOrigin: true } },
  },
  build: { target: "es2022", assetsInlineLimit: 0, chunkSizeWarningLimit: 800 },
  test: { environment: "jsdom", setupFiles: ["src/test/setup.ts"] },
});
