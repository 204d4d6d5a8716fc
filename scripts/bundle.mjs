// How TypeScript is bundled for Node.js: modules of ours together, packages as they are.
/** @type {import("esbuild").BuildOptions & { alias: Record<string, string> }} */
export const bundleOptions = {
  outExtension: { ".js": ".mjs" },
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  packages: "external",
  // Read as data, so bundled: Node takes no JSON without an attribute.
  alias: { "@": "./src", "spdx-license-list/licenses": "./node_modules/spdx-license-list/licenses" },
  logLevel: "error",
};
