// Tests of the core, bundled by scripts/bundleTests.mjs. The core keeps no state, so its tests share one set of modules in each worker,
// and nothing stands between them and Node.js: half the time of a context for each file, which has to load everything again.
export default {
  runner: "jest-light-runner",
  roots: ["<rootDir>/.cache/tests/src/core"],
  testMatch: ["**/*.test.mjs"],
  maxWorkers: "100%",
};
