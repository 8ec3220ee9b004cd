import { fileURLToPath } from "node:url";
import type { NextConfig } from "next";

const root = fileURLToPath(new URL("..", import.meta.url));

const config: NextConfig = {
  turbopack: {
    root,
    // a decoder of photos asks for these where it runs under Node.js, which it never does here
    resolveAlias: Object.fromEntries(["fs", "path", "crypto"].map((m) => [m, { browser: "./src/workers/nothing.ts" }])),
  },
  typescript: { ignoreBuildErrors: true }, // `npm run types` checks them, which is part of `npm test`
  outputFileTracingRoot: root,
  serverExternalPackages: ["pdfkit", "postgres", "elkjs", "piscina", "rate-limiter-flexible", "@node-rs/argon2"],
  // packages that only gather others: a page takes what it uses of them
  experimental: { optimizePackageImports: ["@rc-component/form", "@rc-component/util"] },
  poweredByHeader: false,
  // browsers ask for it by this name too, whatever the page says
  rewrites: async () => [{ source: "/favicon.ico", destination: "/icon.svg" }],
  headers: async () => [
    {
      source: "/:path*",
      headers: [
        { key: "X-Content-Type-Options", value: "nosniff" },
        { key: "X-Frame-Options", value: "DENY" },
        { key: "Referrer-Policy", value: "same-origin" },
      ],
    },
  ],
};
export default config;
