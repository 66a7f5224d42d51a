import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

// Writes a brotli and a gzip twin of each text file, so that the server only
// hands them out.
function precompress(): Plugin {
  return {
    name: "precompress",
    apply: "build",
    closeBundle() {
      const walk = (dir: string) => {
        for (const name of readdirSync(dir)) {
          const file = join(dir, name);
          if (statSync(file).isDirectory()) walk(file);
          else if (/\.(js|css|html|svg|wasm)$/.test(name)) {
            const data = readFileSync(file);
            const quality = data.length > 2_000_000 ? 6 : 11; // the engraver: seconds instead of a minute
            writeFileSync(
              `${file}.br`,
              brotliCompressSync(data, { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }),
            );
            writeFileSync(`${file}.gz`, gzipSync(data, { level: 9 }));
          }
        }
      };
      walk("dist");
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), precompress()],
  build: {
    chunkSizeWarningLimit: 12_000,
    rolldownOptions: { input: ["index.html", "family.html"] }, // a family's phone does not load the studio
  },
  server: { proxy: { "/api": process.env.LADDER_API ?? "http://127.0.0.1:8080" } },
});
