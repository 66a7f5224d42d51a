import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";
import { type GenerateSWOptions, generateSW } from "workbox-build";

// Writes the workers that keep the app on a device, so that it opens without a connection:
// the page and what it needs at once are kept beforehand, the rest when it is first used, and
// of the API what was last seen, marked as kept.
function workers(): Plugin {
  const needed: Record<string, string[]> = {}; // files of each page
  const kept = (name: string, api: RegExp, most: number): GenerateSWOptions["runtimeCaching"] => [
    {
      urlPattern: ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith("/assets/"),
      handler: "CacheFirst", // names hold a hash
      options: { cacheName: `${name}-assets`, expiration: { maxEntries: 80 } },
    },
    {
      urlPattern: api,
      handler: "NetworkFirst",
      options: {
        cacheName: `${name}-api`,
        expiration: { maxEntries: most },
        plugins: [
          {
            cachedResponseWillBeUsed: async ({ cachedResponse }) => {
              if (!cachedResponse) return cachedResponse;
              const headers = new Headers(cachedResponse.headers);
              headers.set("x-kept", "1");
              return new Response(cachedResponse.body, { headers, status: cachedResponse.status });
            },
          },
        ],
      },
    },
  ];
  const write = (page: string, name: string, options: Partial<GenerateSWOptions>) =>
    generateSW({
      globDirectory: "dist",
      globPatterns: [`${page}.html`, "mark.svg", ...(needed[page] ?? [])],
      swDest: `dist/${name}-worker.js`,
      navigateFallback: `/${page}.html`,
      inlineWorkboxRuntime: true,
      sourcemap: false,
      skipWaiting: true,
      clientsClaim: true,
      cleanupOutdatedCaches: true,
      dontCacheBustURLsMatching: /^assets\//,
      ...options,
    });
  return {
    name: "workers",
    apply: "build",
    generateBundle(_, bundle) {
      const chunks = Object.values(bundle).filter((f) => f.type === "chunk");
      for (const entry of chunks.filter((c) => c.isEntry)) {
        const files = new Set<string>();
        const take = (name: string) => {
          const chunk = chunks.find((c) => c.fileName === name);
          if (!chunk || files.has(name)) return;
          files.add(name);
          for (const css of chunk.viteMetadata?.importedCss ?? []) files.add(css);
          for (const asset of chunk.viteMetadata?.importedAssets ?? []) {
            if (!/woff2$/.test(asset) || /-latin-wght/.test(asset)) files.add(asset); // other scripts' letters when they are met
          }
          for (const next of chunk.imports) take(next);
        };
        take(entry.fileName);
        for (const next of entry.dynamicImports) {
          const chunk = chunks.find((c) => c.fileName === next);
          const words = /words\/made\/.*\.(studio|family)\.js$/.exec(chunk?.facadeModuleId ?? "");
          // the app itself, and its words in every language
          if (!words || words[1] === (entry.name === "index" ? "studio" : "family")) take(next);
        }
        if (entry.name === "index")
          // a student's places open without a connection too
          for (const place of ["WeekScreen", "RecordScreen", "SettingsScreen"])
            take(chunks.find((c) => c.name === place)?.fileName ?? "");
        needed[entry.name] = [...files];
      }
    },
    closeBundle: {
      sequential: true,
      async handler() {
        await write("family", "family", {
          navigateFallbackAllowlist: [/^\/family\//],
          runtimeCaching: kept("family", /\/api\/family\/[^/]+\/(sounds|notes)/, 60),
        });
        await write("index", "studio", {
          navigateFallbackDenylist: [/^\/api\//, /^\/family\//, /^\/reset/],
          runtimeCaching: kept(
            "studio",
            /\/api\/(day|today|sheets|instruments|calendar|account|students\/[^/]+(\/(ladder|lesson|week|record|approach))?)($|\?)/,
            300,
          ),
        });
      },
    },
  };
}

// Writes a brotli and a gzip twin of each text file, so that the server only
// hands them out.
function precompress(): Plugin {
  return {
    name: "precompress",
    apply: "build",
    enforce: "post",
    closeBundle: {
      sequential: true,
      order: "post",
      handler() {
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
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), workers(), precompress()],
  build: {
    chunkSizeWarningLimit: 12_000,
    rolldownOptions: { input: ["index.html", "family.html"] }, // a family's phone does not load the studio
  },
  server: { proxy: { "/api": process.env.LADDER_API ?? "http://127.0.0.1:8080" } },
});
