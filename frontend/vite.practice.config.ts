import { fileURLToPath } from "node:url";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { viteSingleFile } from "vite-plugin-singlefile";

/** The page of a practice file: all of it in one file, for a browser that opens it from a disk. */
export default defineConfig({
  plugins: [react(), tailwindcss(), viteSingleFile()],
  resolve: {
    alias: [
      {
        // What the player has from a server elsewhere lies in the file here.
        find: /^\.\/outside$/,
        replacement: fileURLToPath(new URL("./src/audio/outside.inline.ts", import.meta.url)),
      },
    ],
  },
  publicDir: false,
  build: {
    outDir: "../ripresa/web/practice",
    emptyOutDir: true,
    assetsInlineLimit: Number.MAX_SAFE_INTEGER,
    rollupOptions: { input: "practice.html" },
  },
  worker: { format: "es" },
});
