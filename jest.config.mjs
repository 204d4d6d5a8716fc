// Unit tests stand beside their files. ESM throughout: the shaper's package uses top-level await. `npm test` runs those of the core by
// jest.core.config.mjs instead.
export default {
  roots: ["<rootDir>/src", "<rootDir>/tests/unit"],
  testMatch: ["**/*.test.ts", "**/*.test.tsx"],
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/src/$1" },
  transform: { "^.+\\.tsx?$": "<rootDir>/tests/transform.mjs" },
  testTimeout: 60_000,
  // Jest keeps a core free for who watches; nobody does.
  maxWorkers: "100%",
  // A worker whose memory has grown spends its time on clearing it: it is started afresh.
  workerIdleMemoryLimit: "900MB",
};
