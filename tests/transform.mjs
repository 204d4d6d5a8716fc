// Turns TypeScript into what Jest runs for unit tests. In a context of its own, as each test file has one, a global is looked up by its name
// at every use, ten times slower than outside: each module takes those of hot loops once.
import swc from "@swc/jest";

const GLOBALS = [
  ...["Math", "Number", "Array", "Object", "Map", "Set", "String", "DataView"],
  ...["Float32Array", "Float64Array", "Int8Array", "Int16Array", "Int32Array"],
  ...["Uint8Array", "Uint8ClampedArray", "Uint16Array", "Uint32Array"],
];
const taken = (name) => `global${name}`;
const head = `const { ${GLOBALS.map((name) => `${name}: ${taken(name)}`).join(", ")} } = globalThis; `;

const inner = swc.createTransformer({
  jsc: {
    target: "es2022",
    parser: { syntax: "typescript", tsx: true },
    transform: {
      react: { runtime: "automatic" },
      optimizer: { globals: { vars: Object.fromEntries(GLOBALS.map((name) => [name, taken(name)])) } },
    },
    experimental: { keepImportAttributes: true },
  },
  module: { type: "es6" },
});
const withHead = ({ code, ...rest }) => ({ ...rest, code: head + code });

export default {
  process: (...asked) => withHead(inner.process(...asked)),
  processAsync: async (...asked) => withHead(await inner.processAsync(...asked)),
  getCacheKey: (...asked) => inner.getCacheKey(...asked),
};
