import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync } from "node:zlib";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** Puts a Brotli copy beside every built script and style: made once here, and not for every reader. */
const brotli = (): Plugin => ({
  name: "brotli",
  apply: "build",
  writeBundle({ dir }) {
    const assets = join(dir!, "assets");
    for (const name of readdirSync(assets).filter((n) => /\.(js|css)$/.test(n))) {
      const file = join(assets, name);
      if (statSync(file).size > 1024) writeFileSync(`${file}.br`, brotliCompressSync(readFileSync(file)));
    }
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), brotli()],
  build: { chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": "http://127.0.0.1:5180" } },
});
