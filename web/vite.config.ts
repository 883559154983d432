import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { defineConfig, type Plugin } from "vite";

/** Scripts and styles are also laid down compressed, so that the server need not do it for each answer. */
function compressed(): Plugin {
  return {
    name: "compressed",
    apply: "build",
    // Only once all is written: before that the scripts still hold marks that the build replaces.
    writeBundle({ dir }, bundle) {
      for (const fileName of Object.keys(bundle)) {
        if (!dir || !/\.(js|css)$/.test(fileName)) continue;
        const path = join(dir, fileName);
        writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
      }
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), compressed()],
  build: {
    // Fonts stay files: the content policy allows none from data addresses.
    assetsInlineLimit: 0,
    target: "es2023",
    modulePreload: { polyfill: false },
    // By it the server knows which script an address needs.
    manifest: true,
  },
  server: { proxy: { "/api": "http://127.0.0.1:8420" } },
});
