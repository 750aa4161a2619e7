import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    outDir: "../ripresa/web/static",
    emptyOutDir: true,
    // Fonts stay files: the content policy allows no data: addresses for them.
    assetsInlineLimit: 0,
  },
  // How long a test takes says how busy the machine is.
  test: { testTimeout: 60_000, maxWorkers: 2 },
  worker: { format: "es" },
  server: { proxy: { "/api": "http://localhost:8765" } },
});
