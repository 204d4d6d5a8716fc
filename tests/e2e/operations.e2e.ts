// Every operation of the table, asked over HTTP with right and with wrong input on the demo data. The server of these tests holds each
// answer against the table and fails on any difference; here the answers are read by the table once more.
import { zipSync } from "fflate";
import { beforeAll, describe, expect, test } from "@jest/globals";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathOf, type Operation } from "@/contracts/operations/operation";
import { OPERATIONS, type OperationName } from "@/contracts/operations/table";
import { makeFont } from "../fixtures/makeFont";
import { api, drawByBrowser, fetchAgain, makeBrief, openBrowser, styleNamed, url, waitUntil } from "./browser";
import { find, settled } from "./standIns";

type Sent = {
  params?: Record<string, string>;
  query?: Record<string, string>;
  body?: unknown;
  form?: Record<string, string | Blob>;
};
type Reply = { status: number; type: string; body: unknown };

const browser = openBrowser();
const ids: Record<string, string> = {};
let picture: Blob;
/** A text document with that picture in it. */
let writing: Blob;
let identification: unknown;

async function call(name: OperationName, { params, query, body, form }: Sent = {}): Promise<Reply> {
  const op: Operation = OPERATIONS[name];
  const data = new FormData();
  for (const [field, value] of Object.entries(form ?? {})) data.append(field, value);
  const address = `${url()}/api/v1${pathOf(op, params)}?${new URLSearchParams(query)}`;
  const stop = new AbortController();
  const response = await fetchAgain(address, {
    method: op.method.toUpperCase(),
    signal: stop.signal,
    ...(body !== undefined && { body: JSON.stringify(body), headers: { "content-type": "application/json" } }),
    ...(form && { body: data }),
  });
  const type = response.headers.get("content-type")?.split(";")[0] ?? "";
  if (type !== "application/json") {
    const first = await response.body?.getReader().read();
    stop.abort();
    return { status: response.status, type, body: first?.value };
  }
  return { status: response.status, type, body: await response.json() };
}

const ofBrief = (): Sent => ({ params: { id: ids.brief! } });
const ofStyle = (): Sent => ({ params: { id: ids.style! } });
const ofReview = (): Sent => ({ params: { id: ids.brief!, passId: ids.review! } });
const ofIdentification = (): Sent => ({ params: { id: ids.brief!, identificationId: ids.identification! } });
const ofLibrary = (): Sent => ({ params: { id: ids.library! } });
const ofRound = (): Sent => ({ params: { id: ids.round! } });
const ofJob = (): Sent => ({ params: { id: ids.job! } });
/** Takes an id out of an answer, for what follows. */
const note = (as: string, field: string) => (body: unknown) => {
  ids[as] = (body as Record<string, string>)[field]!;
};

const ofLettering = () => ({ params: { id: ids.lettering! } });
const lettering = (text = "Wren") => ({
  sheet: { widthMm: 300, heightMm: 160, ground: null },
  blocks: [{ id: "line-1", text, styleId: ids.style!, size: { emMm: 60 }, at: { xMm: 20, yMm: 90 }, fill: "#20262b" }],
});

const fade = () => ({
  durationMs: 200,
  fps: 25,
  tracks: [
    {
      target: "line-1",
      property: "opacity",
      keys: [
        { timeMs: 0, value: 0, ease: "out" },
        { timeMs: 200, value: 1 },
      ],
    },
  ],
});

type Case = { ask: () => Sent; then?: (body: unknown) => unknown };
const plain = (ask: () => Sent = () => ({})): Case => ({ ask });

/** In the order in which they are asked: what is made first is used further on. */
const RIGHT: Record<OperationName, Case> = {
  getHealth: plain(),
  getOpenApi: plain(),
  getSession: plain(),
  listJobs: plain(),
  findStyles: plain(() => ({
    query: { q: "round sans", limit: "5", briefId: ids.brief!, kinds: "sans", fold: "true" },
  })),
  suggest: plain(() => ({ query: { q: "ro" } })),
  getStyle: plain(() => ({ ...ofStyle(), query: { briefId: ids.brief! } })),
  listParts: plain(ofStyle),
  getFaceMap: plain(() => ({})),
  findOnMap: plain(() => ({ query: { q: "slab", briefId: ids.brief! } })),
  listMapFaces: plain(() => ({ query: { ids: ids.style!, briefId: ids.brief! } })),
  getStyleFile: plain(ofStyle),
  listGlyphs: plain(() => ({ ...ofStyle(), query: { kind: "capitals", limit: "9" } })),
  listAlike: plain(() => ({ ...ofStyle(), query: { limit: "4", sameFirst: "true" } })),
  getAnatomy: plain(ofStyle),
  getBeside: plain(() => ({ ...ofStyle(), query: { other: ids.other!, letter: "a", at: '{"wght":500}' } })),
  tagStyle: plain(() => ({ ...ofStyle(), body: { tag: "harbour", holds: true } })),
  setLine: plain(() => ({ params: { id: ids.forSale! }, query: { text: "Skerrow" } })),
  addEvidence: {
    ask: () => ({ ...ofStyle(), body: { kind: "user", text: "The maker wrote: you may use it." } }),
    then: note("evidence", "evidenceId"),
  },
  removeEvidence: plain(() => ({ params: { id: ids.style!, evidenceId: ids.evidence! } })),
  changeEvidence: plain(() => ({ params: { id: ids.style!, evidenceId: ids.evidence! }, body: { removed: false } })),
  correctTheme: plain(() => ({ params: { phrase: "quiet harbour" }, body: { looks: { slab: 1, "pen hand": 0 } } })),
  listThemes: plain(),
  forgetTheme: plain(() => ({ params: { phrase: "quiet harbour" } })),
  saveSearch: { ask: () => ({ body: { name: "Round", address: "q=round" } }), then: note("search", "searchId") },
  listSearches: plain(),
  removeSearch: plain(() => ({ params: { id: ids.search! } })),
  listBriefs: plain(),
  createBrief: { ask: () => ({ body: { name: "Another" } }), then: note("otherBrief", "briefId") },
  getBrief: plain(ofBrief),
  changeBrief: plain(() => ({ ...ofBrief(), body: { note: "Seen from the pier", step: true } })),
  writeBriefFile: plain(ofBrief),
  writeTokens: plain(ofBrief),
  readBriefFile: plain(() => ({
    body: {
      format: "fond-quarry-brief",
      version: 1,
      writtenAt: "2026-11-28",
      brief: { name: "From a file", lines: [{ text: "Skerrow Light", role: "title" }] },
      kept: [],
    },
  })),
  undo: plain(ofBrief),
  redo: plain(ofBrief),
  hearBrief: plain(ofBrief),
  putBriefPicture: plain(() => ({ ...ofBrief(), form: { image: picture } })),
  getBriefPicture: plain(ofBrief),
  removeBriefPicture: plain(ofBrief),
  keep: plain(() => ({ params: { id: ids.brief!, keptId: ids.style! }, body: { note: "first" } })),
  keepAt: {
    ask: () => ({ ...ofBrief(), body: { styleId: ids.other!, location: {}, features: { liga: 0 } } }),
    then: note("kept", "keptId"),
  },
  changeKept: plain(() => ({
    params: { id: ids.brief!, keptId: ids.kept! },
    body: { role: "title", favourite: true },
  })),
  listKept: plain(ofBrief),
  checkStyle: plain(() => ({ ...ofBrief(), query: { styleId: ids.style! } })),
  setAside: plain(() => ({ params: { id: ids.brief!, styleId: ids.third! } })),
  bringBack: plain(() => ({ params: { id: ids.brief!, styleId: ids.third! } })),
  writeContactSheet: plain(ofBrief),
  writeShortlist: plain(ofBrief),
  writeSpdx: plain(ofBrief),
  writeCredits: plain(ofBrief),
  planHandover: plain(ofBrief),
  startHandover: { ask: () => ({ ...ofBrief(), body: { web: false } }), then: note("job", "jobId") },
  createShare: {
    ask: () => ({ ...ofBrief(), body: { styleIds: [ids.style!], mayComment: true, days: 7 } }),
    then: note("share", "shareId"),
  },
  listShares: plain(ofBrief),
  createLettering: {
    ask: () => ({ ...ofBrief(), body: { name: "Hull letters", document: lettering() } }),
    then: note("lettering", "letteringId"),
  },
  listLetterings: plain(ofBrief),
  getLettering: plain(ofLettering),
  changeLettering: plain(() => ({ ...ofLettering(), body: { document: lettering("No. 7"), version: 1 } })),
  undoLettering: plain(ofLettering),
  redoLettering: plain(ofLettering),
  deleteLettering: plain(ofLettering),
  getPlotter: plain(),
  sendToPlotter: plain(() => ({ body: { document: lettering(), format: "svg" } })),
  layoutLettering: plain(() => ({ body: { document: lettering() } })),
  checkLettering: plain(() => ({
    body: { document: lettering(), material: { minStrokeMm: 1, minGapMm: 1, minPieceMm2: 4 } },
  })),
  writeLettering: plain(() => ({ body: { document: lettering(), format: "svg" } })),
  listMotionFormats: plain(),
  writeMotionStrip: plain(() => ({ body: { document: lettering(), motion: fade(), moments: 2, widthPx: 64 } })),
  startMotion: {
    ask: () => ({
      body: { document: lettering(), motion: fade(), format: "png-frames", widthPx: 64, briefId: ids.brief! },
    }),
    async then(body) {
      note("motion", "jobId")(body);
      const isDone = async () => (await api<{ state: string }>(`/jobs/${ids.motion}`)).body.state === "done";
      await waitUntil(isDone, 120_000);
    },
  },
  getCuttingRoom: plain(),
  handToCuttingRoom: plain(() => ({ body: { jobId: ids.motion!, name: "Wren" } })),
  getShare: plain(() => ({ params: { id: ids.share! } })),
  endShare: plain(() => ({ params: { id: ids.share! } })),
  planWebkit: plain(ofBrief),
  startWebkit: plain(() => ({
    ...ofBrief(),
    body: { styleIds: [ids.style!], characters: "brief", formats: ["woff2"] },
  })),
  getJob: plain(ofJob),
  getJobFile: plain(ofJob),
  startReview: {
    ask: () => ({ ...ofBrief(), body: { question: "q=round", title: "Round" } }),
    then: note("review", "passId"),
  },
  listReviews: plain(ofBrief),
  getReview: plain(ofReview),
  listReviewItems: plain(() => ({ ...ofReview(), query: { from: "0", count: "3" } })),
  putMark: plain(() => ({ params: { ...ofReview().params, place: "1" }, body: { mark: "kept" } })),
  removeMark: plain(() => ({ params: { ...ofReview().params, place: "1" } })),
  changeReview: plain(() => ({ ...ofReview(), body: { ended: true } })),
  removeReview: plain(ofReview),
  compare: plain(() => ({ body: { styleIds: [ids.style, ids.other, ids.forSale], briefId: ids.brief } })),
  findCompanions: plain(() => ({ body: { styleId: ids.style, role: "heading", limit: 3, briefId: ids.brief } })),
  proposeSystem: plain(() => ({ body: { styleId: ids.style, ratio: 1.333, contrast: "even" } })),
  beginRounds: {
    ask: () => ({ ...ofBrief(), body: { styleIds: [ids.style, ids.other, ids.third] } }),
    then: note("round", "roundId"),
  },
  getRounds: plain(ofRound),
  choose: plain(() => ({ ...ofRound(), body: { left: ids.style, right: ids.other, chosen: ids.style } })),
  takeOrder: plain(ofRound),
  unchoose: plain(ofRound),
  listDecisions: plain(ofBrief),
  removeKept: plain(() => ({ params: { id: ids.brief!, keptId: ids.kept! } })),
  identify: {
    ask: () => ({ form: { image: picture, text: "Harbour", limit: "5", box: "", styleId: "" } }),
    then: (body) => (identification = body),
  },
  identifyInSteps: plain(() => ({ form: { image: picture, text: "Harbour", limit: "5" } })),
  identifyLayout: plain(() => ({ form: { image: picture } })),
  listDocumentFonts: plain(() => ({ form: { document: new File(["<p style='font-family:Lora'>x</p>"], "a.html") } })),
  readDocumentPicture: plain(() => ({ form: { document: writing, at: "0" } })),
  describeFace: plain(() => ({ body: { answers: [] } })),
  keepIdentification: {
    ask: () => ({
      ...ofBrief(),
      form: {
        image: picture,
        state: JSON.stringify({ frame: null, corners: null, text: "Harbour", isTyped: true, result: identification }),
      },
    }),
    then: note("identification", "identificationId"),
  },
  listIdentifications: plain(ofBrief),
  getIdentification: plain(ofIdentification),
  getIdentifiedPicture: plain(ofIdentification),
  writeQuestionSheet: plain(() => ({ ...ofIdentification(), query: { as: "html" } })),
  askPeople: plain(ofIdentification),
  getSurvey: plain(ofIdentification),
  withdrawQuestion: plain(ofIdentification),
  removeIdentification: plain(() => ({ ...ofIdentification(), body: { removed: true } })),
  listLibraries: plain(),
  listSystemFolders: plain(),
  addLibrary: {
    ask: () => ({ body: { kind: "folder", address: ids.folder!, name: "A folder" } }),
    then: note("library", "libraryId"),
  },
  getLibrary: plain(ofLibrary),
  syncLibrary: plain(ofLibrary),
  listRefused: plain(ofLibrary),
  changeLibrary: plain(() => ({ ...ofLibrary(), body: { name: "Another name", state: "paused" } })),
  removeLibrary: plain(ofLibrary),
  searchLibrary: plain(() => ({ params: { id: "halyard-and-lens" }, query: { q: "moor" } })),
  getBasket: plain(),
  fillBasket: plain(() => ({ params: { styleId: ids.forSale! }, body: { uses: ["client-print"] } })),
  emptyFromBasket: plain(() => ({ params: { styleId: ids.forSale! } })),
  placeOrder: {
    ask: () => ({ body: { libraryId: ids.seller!, key: "a1b2c3d4e5f6a7b8c9" } }),
    then: note("order", "orderId"),
  },
  listOrders: plain(),
  resumeOrder: plain(() => ({ params: { id: ids.order! } })),
  listLog: plain(() => ({ query: { q: "lora", limit: "3" } })),
  startImport: {
    ask: () => ({
      form: {
        files: new File([makeFont({ family: "Slipway Test" }) as BlobPart], "slipway.otf"),
        paths: '["a/slipway.otf"]',
      },
    }),
    then: note("import", "importId"),
  },
  getImport: plain(() => ({ params: { id: ids.import! } })),
  cancelJob: plain(ofJob),
  retryJob: plain(() => ({ params: { id: ids.import!.replace("i_", "j_") } })),
  deleteBrief: plain(() => ({ params: { id: ids.otherBrief! } })),
  changeAccess: plain(() => ({ body: { role: "reader", passcode: "harbour-lamp-07" } })),
  signIn: plain(() => ({ body: { passcode: "harbour-lamp-07" } })),
  signOut: plain(),
};

beforeAll(async () => {
  ids.brief = await makeBrief();
  ids.style = (await styleNamed("lora bold")).styleId;
  ids.other = (await styleNamed("arvo bold")).styleId;
  ids.third = (await styleNamed("anton")).styleId;
  const forSale = (await find("Moorline")).items.find((i) => !i.owned && i.price)!;
  ids.forSale = forSale.styleId;
  ids.seller = (await api<{ library: string }>(`/styles/${forSale.styleId}`)).body.library;
  ids.folder = mkdtempSync(join(tmpdir(), "fond-quarry-folder-"));
  writeFileSync(join(ids.folder, "one.otf"), makeFont({ family: "Capstan Test" }));
  picture = new File([(await drawByBrowser(browser.context, ids.style, "Harbour")) as BlobPart], "line.png", {
    type: "image/png",
  });
  writing = new File(
    [
      zipSync({
        "content.xml": new TextEncoder().encode("<office:document-content/>"),
        "Pictures/line.png": new Uint8Array(await picture.arrayBuffer()),
      }),
    ],
    "letter.odt",
  );
}, 60_000);

/** What has to be awaited before an operation can be asked, beside what was asked before it. */
const BEFORE: Partial<Record<OperationName, () => Promise<unknown>>> = {
  getJobFile: () => jobEnded(ids.job!),
  placeOrder: () => call("fillBasket", RIGHT.fillBasket.ask()),
  resumeOrder: () => settled(ids.seller!),
  syncLibrary: () => settled(ids.library!),
  retryJob: async () => {
    await jobEnded(ids.import!.replace("i_", "j_"));
  },
};
async function jobEnded(id: string) {
  for (let i = 0; i < 300; i++) {
    const { body } = await api<{ state: string }>(`/jobs/${id}`);
    if (body.state !== "waiting" && body.state !== "running") return;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error(`${id} did not end`);
}

/** Right in form, and refused by what is so: a job that ended well is not tried again. */
const REFUSED_HERE: Partial<Record<OperationName, number>> = { retryJob: 404 };

describe("with right input, in order", () => {
  test.each(Object.keys(RIGHT) as OperationName[])("%s", async (name) => {
    await BEFORE[name]?.();
    const op: Operation = OPERATIONS[name];
    const { status, type, body } = await call(name, RIGHT[name].ask());
    if (REFUSED_HERE[name])
      return expect({ status, body }).toMatchObject({ status: REFUSED_HERE[name], body: { error: {} } });
    expect({ status, body: status < 300 ? null : body }).toEqual({ status: op.status ?? 200, body: null });
    if (type === "application/json" && op.output) {
      expect(op.output.safeParse(body).error).toBeUndefined();
      await RIGHT[name].then?.(body);
    } else {
      expect(op.file?.some((t) => t === type || (t === "image/*" && type.startsWith("image/")))).toBe(true);
      expect(type === "application/json" ? body : (body as Uint8Array | undefined)?.length).toBeTruthy();
    }
  });
});

const named = (test: (op: Operation) => unknown) =>
  (Object.keys(OPERATIONS) as OperationName[]).filter((name) => test(OPERATIONS[name]));
/** A path whose names are of nobody. */
const nowhere = (op: Operation) =>
  Object.fromEntries([...op.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => [name!, name === "place" ? "0" : "nobody"]));
const codeOf = ({ body }: Reply) => (body as { error?: { code?: string } }).error?.code;

describe("with wrong input", () => {
  test.each(named((op) => op.params))("%s of nothing that is there: not found", async (name) => {
    const op: Operation = OPERATIONS[name];
    const reply = await call(name, { params: nowhere(op), ...(op.body && { body: {} }) });
    expect([reply.status, codeOf(reply)]).toEqual([404, "not-found"]);
  });
  test.each(named((op) => op.body))("%s with a body of another form: malformed", async (name) => {
    const { params } = RIGHT[name].ask();
    for (const body of [null, 7, []]) {
      const reply = await call(name, { params, body });
      expect([reply.status, codeOf(reply)]).toEqual([400, "bad-request"]);
    }
  });
  test.each(named((op) => op.form))("%s without its file: refused", async (name) => {
    const { params } = RIGHT[name].ask();
    const reply = await call(name, { params, form: { other: "x" } });
    expect([reply.status, codeOf(reply)]).toEqual([400, "no-file"]);
  });
  test.each(named((op) => op.query && "limit" in op.query.shape))(
    "%s with a limit that is none: malformed",
    async (name) => {
      const reply = await call(name, { params: RIGHT[name].ask().params, query: { limit: "many" } });
      expect([reply.status, codeOf(reply)]).toEqual([400, "bad-request"]);
    },
  );
  test("a method that no operation of a path has is told", async () => {
    const reply = await fetchAgain(`${url()}/api/v1/health`, { method: "DELETE" });
    expect(reply.status).toBe(405);
  });
});
