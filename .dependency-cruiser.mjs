// The rooms and their arrows: contracts ← core ← server ← app → ui, folders inside core and server, and no circles. `npm run arrows`.

/** What each folder of core may import of core; its README names the same. */
export const CORE_MAY = {
  geometry: [],
  unicode: [],
  open: ["unicode"],
  outlines: ["geometry"],
  typeset: ["outlines", "geometry", "unicode"],
  measure: ["outlines", "typeset", "geometry"],
  kind: ["measure", "descriptors"],
  descriptors: ["outlines", "measure", "geometry"],
  rights: [],
  health: ["open", "outlines", "geometry"],
  brief: ["unicode", "rights"],
  find: ["brief", "unicode", "rights", "geometry", "kind", "theme"],
  theme: [],
  compare: ["find", "geometry", "outlines", "typeset", "unicode"],
  pair: ["find", "kind"],
  map: ["geometry"],
  picture: ["geometry"],
  identify: ["picture", "descriptors", "geometry", "outlines", "typeset", "measure"],
  read: ["open", "outlines", "measure", "kind", "health", "descriptors", "unicode"],
  write: ["geometry", "letter", "motion", "outlines", "typeset", "unicode", "webkit"],
  motion: ["geometry", "letter", "outlines", "typeset"],
  letter: ["geometry", "outlines", "typeset"],
  webkit: ["open", "outlines"],
  describe: [],
  documents: ["open", "outlines", "descriptors", "geometry"],
};

/** What each folder of core/identify may import of it. */
const IDENTIFY_MAY = {
  ranking: [],
  hypotheses: ["ranking"],
  registration: ["ranking"],
  answer: [],
};

/** What each folder of the server may import of the server. */
const SERVER_MAY = {
  db: [],
  events: [],
  intake: [],
  queries: ["db"],
  access: ["db", "queries"],
  libraries: ["db", "queries", "intake"],
  queue: ["db", "queries"],
  workers: ["db", "queries", "intake", "libraries"],
  store: ["db", "queries", "workers"],
  usecases: ["db", "queries", "access", "events", "intake", "libraries", "queue", "workers", "store"],
  jobs: ["db", "queries", "intake", "libraries", "queue", "workers", "store", "usecases"],
  operations: ["db", "queries", "access", "events", "queue", "usecases"],
  start: ["db", "queries", "access", "queue", "jobs", "usecases"],
};

const ROOMS_MAY = {
  contracts: [],
  core: ["contracts"],
  server: ["contracts", "core"],
  ui: ["contracts", "core"],
  app: ["contracts", "core", "server", "ui"],
};

const TESTS = "\\.test\\.tsx?$";
const folders = (room, may) =>
  Object.entries(may).map(([folder, allowed]) => ({
    name: `${room}/${folder}`,
    comment: allowed.length ? `may import ${allowed.join(", ")}` : "imports no other folder of its room",
    severity: "error",
    from: { path: `^src/${room}/${folder}/`, pathNot: TESTS },
    to: { path: `^src/${room}/`, pathNot: `^src/${room}/(?:${[folder, ...allowed].join("|")})/` },
  }));

export default {
  forbidden: [
    { name: "no-circles", severity: "error", from: { pathNot: TESTS }, to: { circular: true } },
    ...Object.entries(ROOMS_MAY).map(([room, may]) => ({
      name: room,
      severity: "error",
      from: { path: `^src/${room}/`, pathNot: TESTS },
      to: { path: "^(?:src|demo)/", pathNot: `^src/(?:${[room, ...may].join("|")})/` },
    })),
    ...folders("core", CORE_MAY),
    ...folders("core/identify", IDENTIFY_MAY),
    ...folders("server", SERVER_MAY),
    {
      name: "core-is-pure",
      comment: "core knows no React, Next, files or SQL",
      severity: "error",
      from: { path: "^src/core/", pathNot: TESTS },
      to: { path: "node_modules/(?:react|next|better-sqlite3|sharp|tesseract)", dependencyTypesNot: ["type-only"] },
    },
    {
      name: "core-has-no-machine",
      severity: "error",
      from: { path: "^src/core/", pathNot: TESTS },
      to: { dependencyTypes: ["core"] },
    },
    { name: "nothing-unresolved", severity: "error", from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "types", "node", "default"] },
  },
};
