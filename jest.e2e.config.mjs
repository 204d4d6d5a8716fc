// Browser and server flows, in two workers that each have a server with the whole demo library (tests/e2e/globalSetup.mjs).
import { swcSettings } from "./jest.config.mjs";

export default {
  roots: ["<rootDir>/tests/e2e"],
  testMatch: ["**/*.e2e.ts"],
  extensionsToTreatAsEsm: [".ts"],
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/src/$1" },
  // Functions go from here into pages: their globals stay as they are written.
  transform: { "^.+\\.tsx?$": ["@swc/jest", swcSettings] },
  globalSetup: "<rootDir>/tests/e2e/globalSetup.mjs",
  globalTeardown: "<rootDir>/tests/e2e/globalTeardown.mjs",
  testTimeout: 300_000,
  maxWorkers: 2,
};
