// Browser and server flows, bundled by scripts/bundleTests.mjs, in two workers that each have a server with the whole demo library
// (tests/e2e/globalSetup.mjs).
export default {
  runner: "jest-light-runner",
  roots: ["<rootDir>/.cache/tests/tests/e2e"],
  testMatch: ["**/*.e2e.mjs"],
  globalSetup: "<rootDir>/tests/e2e/globalSetup.mjs",
  globalTeardown: "<rootDir>/tests/e2e/globalTeardown.mjs",
  maxWorkers: 2,
};
