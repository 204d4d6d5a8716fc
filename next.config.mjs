// What the Next.js build needs to know: native and wasm packages stay outside the bundle, security headers are set here.
const wasmShims = { module: "./src/ui/parts/emptyModule.ts" };

/** @type {import("next").NextConfig} */
export default {
  reactStrictMode: true,
  // `npm test` checks types; a build need not check them again.
  typescript: { ignoreBuildErrors: true },
  // Served on this machine: packing an answer takes longer than handing it over.
  compress: false,
  poweredByHeader: false,
  // Minifying folds functions into one another, and what runs over a hundred thousand rows is then half as fast.
  experimental: { serverMinification: false },
  serverExternalPackages: [
    "better-sqlite3",
    "harfbuzzjs",
    "sharp",
    "undici",
    "tesseract.js",
    "woff2-encoder",
    "pdf-lib",
    "@pdf-lib/fontkit",
    "yauzl",
    "yazl",
  ],
  turbopack: { resolveAlias: Object.fromEntries(Object.entries(wasmShims).map(([k, v]) => [k, { browser: v }])) },
  async headers() {
    return [
      {
        source: "/:path*",
        headers: [
          { key: "X-Content-Type-Options", value: "nosniff" },
          { key: "Referrer-Policy", value: "no-referrer" },
          { key: "X-Frame-Options", value: "DENY" },
          { key: "Cross-Origin-Resource-Policy", value: "same-origin" },
          { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
          { key: "Permissions-Policy", value: "camera=(), microphone=(), geolocation=(), payment=(), usb=()" },
        ],
      },
    ];
  },
};
