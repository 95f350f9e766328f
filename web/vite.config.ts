import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { loadEnv, type Plugin } from "vite";
import { defineConfig } from "vitest/config";

// The development server hands the API to a running `coldember serve`.
const api = loadEnv("development", ".", "COLDEMBER_").COLDEMBER_API ?? "http://127.0.0.1:7420";

/** Families of words that only the server and the command line say: a page need not wait for them. */
const serverOnly = /^(serve|pair|cli|starter|calc|csv|patternFile)\./;

/** Leaves those out of the catalogue that the pages are built with. */
const pageWords: Plugin = {
  name: "page-words",
  apply: "build",
  enforce: "pre",
  transform(text, id) {
    if (!id.endsWith("internal/text/en.json")) return;
    const all = JSON.parse(text) as Record<string, string>;
    return JSON.stringify(Object.fromEntries(Object.entries(all).filter(([code]) => !serverOnly.test(code))));
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
