import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync } from "node:zlib";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";

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
  plugins: [
    react(),
    tailwindcss(),
    brotli(),
    // The pages themselves, those that are opened later too, stay on the device: with no network none of them goes blank. What people
    // wrote never does: the server says so of every answer, and nothing here keeps one.
    VitePWA({
      registerType: "prompt",
      injectRegister: null,
      manifest: false,
      workbox: {
        globPatterns: ["index.html", "assets/*.{js,css,woff2}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/(api|openapi|join|healthz)/],
        cleanupOutdatedCaches: true,
        // From the first visit on, not only from the second.
        clientsClaim: true,
      },
    }),
  ],
  build: { chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": "http://127.0.0.1:5180" } },
});
