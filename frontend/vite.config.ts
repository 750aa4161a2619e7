import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    outDir: "../ripresa/web/static",
    emptyOutDir: true,
    // Fonts stay files: the content policy allows no data: addresses for them.
    assetsInlineLimit: 0,
  },
  worker: { format: "es" },
  server: { proxy: { "/api": "http://localhost:8765" } },
});
