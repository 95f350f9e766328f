import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { loadEnv } from "vite";
import { defineConfig } from "vitest/config";

// The development server hands the API to a running `coldember serve`.
const api = loadEnv("development", ".", "COLDEMBER_").COLDEMBER_API ?? "http://127.0.0.1:7420";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  server: {
    port: 7430,
    strictPort: true,
    proxy: { "/api": { target: api, headers: { origin: api }, changeOrigin: true } },
  },
  build: { target: "es2022", assetsInlineLimit: 0, chunkSizeWarningLimit: 800 },
  test: { environment: "jsdom", setupFiles: ["src/test/setup.ts"] },
});
