// Asking people, against a desk that answers, is silent, breaks or lies. A real database in memory, a real server; only the writing of
// the sheet is left out (its own test has it).
import { afterAll, beforeAll, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer, type Server } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { BriefCreate } from "@/contracts/brief";
import type { IdentificationState } from "@/contracts/identifications";
import type { IdentifyMatch } from "@/contracts/identify";
import { valueOf } from "../../../tests/fixtures/outcomes";
import { Desk } from "../../../demo/libraries/desk";

const data = mkdtempSync(join(tmpdir(), "fond-quarry-people-"));
process.env.FOND_QUARRY_DATA = data;
const pool = await import("../workers/pool");
jest.unstable_mockModule("../workers/pool", () => ({
  ...pool,
  writeQuestionSheetInWorker: (request: { kind: string }) =>
    Promise.resolve({ ok: true, value: new TextEncoder().encode(request.kind) }),
  preparePictureInWorker: () => Promise.resolve({ ok: true, jpeg: new Uint8Array(1), widthPx: 1, heightPx: 1 }),
}));
const { openDatabase } = await import("../db/open");
const { createBrief } = await import("./briefs");
const { saveIdentification } = await import("./identifications");
const { askPeople, getPeople, withdrawQuestion, writeQuestionSheetFor, writeTried, writeWhy } =
  await import("./people");

type Db = ReturnType<typeof openDatabase>;
let desk = new Desk();
/** What goes wrong at the desk: a status, or a body that is none of its own. */
let fault: { status?: number; body?: string } = {};
let server: Server;
let db: Db;
let id = "";
let briefId = "";
const match = (family: string, score: number): IdentifyMatch =>
  ({
    ...{ styleId: `s_${family.padEnd(8, "0")}`, familyId: `f_${family}`, family, style: "Bold", score, chance: 0.2 },
    letters: [
      { char: "Q", agreement: 0.9 },
      { char: "g", agreement: 0.41 },
    ],
    ...{ coordinates: null, besideFirst: null, overlay: { path: "M0,0L1,1Z", widthPx: 9, heightPx: 9 } },
  }) as unknown as IdentifyMatch;
const state = (): IdentificationState => ({
  ...{
    frame: { x: 1, y: 2, width: 30, height: 10 },
    corners: null,
    baseline: null,
    ink: null,
    text: "Qg",
    isTyped: true,
  },
  result: {
    reading: { text: "Qg", confidence: 1, given: true, letters: [] },
    matches: [match("lora", 0.9), match("gelasio", 0.7)],
    notInLibraries: { chance: 0.64 },
    byLook: null,
    strip: {
      ...{ png: "data:image/png;base64,AA==", widthPx: 9, heightPx: 9, slopeDeg: 0 },
      ...{ cut: "letters" as const, reading: "plain", taper: 0, setAs: "plain" as const, leanTan: 0 },
    },
    ...{ areas: [], taken: null, compared: 844, tookMs: 300 },
  },
});

beforeAll(async () => {
  server = createServer((request, response) => {
    const parts: Buffer[] = [];
    request.on("data", (part: Buffer) => parts.push(part));
    request.on("end", () => {
      const asked = request.url!.split("/").pop()!;
      const reply =
        request.method === "POST"
          ? desk.leave(JSON.parse(Buffer.concat(parts).toString()))
          : request.method === "DELETE"
            ? desk.withdraw(asked)
            : desk.look(asked);
      response.writeHead(fault.status ?? (reply ? 200 : 404));
      response.end(fault.body ?? JSON.stringify(reply));
    });
  });
  await new Promise<void>((r) => server.listen(0, "127.0.0.1", r));
  process.env.FOND_QUARRY_DESK = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
});
afterAll(() => {
  server.close();
  rmSync(data, { recursive: true, force: true });
});
beforeEach(async () => {
  db = openDatabase(":memory:");
  briefId = createBrief(db, BriefCreate.parse({ name: "Open Night" }))!.briefId;
  const saved = await saveIdentification(
    db,
    briefId,
    { name: "quay.png", type: "image/png", bytes: new Uint8Array([1]) },
    state(),
  );
  id = saved.ok ? saved.value.identificationId : "";
  desk = new Desk();
  fault = {};
});
const look = async () => (await getPeople(db, briefId, id))!.question;

describe("a question", () => {
  test("is left, waits, and its answers are kept when the desk forgets them", async () => {
    expect(await askPeople(db, briefId, id)).toMatchObject({
      ok: true,
      value: { question: { state: "waiting", answers: [] } },
    });
    // Twelve seconds of the desk, of the ninety that it waits.
    desk.setPace(200);
    await new Promise((r) => setTimeout(r, 60));
    const answered = (await look())!;
    expect(answered.answers[0]).toMatchObject({ by: "Inka Sollberg" });
    expect(["lora", "gelasio"]).toContain(answered.answers[0]!.family);
    desk = new Desk();
    expect((await look())!.answers).toEqual(answered.answers);
  });

  test("closes after a while; one designer never says anything", async () => {
    await askPeople(db, briefId, id);
    desk.setPace(1e6);
    await new Promise((r) => setTimeout(r, 5));
    const question = (await look())!;
    expect(question.state).toBe("closed");
    expect(question.answers.map((a) => a.by)).not.toContain("Reto Calandra");
    expect(question.answers.length).toBeGreaterThanOrEqual(2);
  });

  test("that waits is not left twice", async () => {
    const first = await askPeople(db, briefId, id);
    const second = await askPeople(db, briefId, id);
    expect(second).toEqual(first);
  });

  test("taken back is gone, and can be asked again", async () => {
    await askPeople(db, briefId, id);
    const before = (await look())!.questionId;
    expect(await withdrawQuestion(db, briefId, id)).toEqual({ hasDesk: true, question: null });
    await askPeople(db, briefId, id);
    expect((await look())!.questionId).not.toBe(before);
  });
});

describe("a desk that fails", () => {
  test.each([
    ["an error", { status: 500 }, "The desk answered with an error."],
    ["a refusal", { status: 403 }, "The desk refused the question."],
    ["nonsense", { body: "<html>" }, "The desk answered with something that cannot be read."],
    [
      "a lie",
      { body: '{"questionId":"q_12345678","state":"open","answers":"all"}' },
      "The desk answered with something that cannot be read.",
    ],
  ])("%s: the question is kept and sent again under the same id", async (_what, broken, sentence) => {
    fault = broken;
    const failed = await askPeople(db, briefId, id);
    expect(failed).toMatchObject({ ok: true, value: { question: { state: "not-sent", fault: sentence } } });
    fault = {};
    const again = await askPeople(db, briefId, id);
    const idOf = (o: typeof again) => (o.ok ? o.value.question!.questionId : null);
    expect(again).toMatchObject({ ok: true, value: { question: { state: "waiting", fault: null } } });
    expect(idOf(again)).toBe(idOf(failed));
  });

  test("later: what was said stays, and why there is no news is told", async () => {
    await askPeople(db, briefId, id);
    // Twelve seconds of the desk, of the ninety that it waits.
    desk.setPace(200);
    await new Promise((r) => setTimeout(r, 60));
    const { answers } = (await look())!;
    fault = { status: 500 };
    expect(await look()).toMatchObject({ state: "waiting", fault: "The desk answered with an error.", answers });
  });

  test("none connected", async () => {
    const { FOND_QUARRY_DESK: url } = process.env;
    delete process.env.FOND_QUARRY_DESK;
    expect(await askPeople(db, briefId, id)).toMatchObject({ ok: false, code: "no-desk" });
    expect(await getPeople(db, briefId, id)).toEqual({ hasDesk: false, question: null });
    process.env.FOND_QUARRY_DESK = url;
  });
});

describe("the sheet", () => {
  test("is named after the text; of what is not there is none", async () => {
    const sheet = await writeQuestionSheetFor(db, briefId, id, "png");
    expect(valueOf(sheet).name).toBe("Which face is this - Qg.png");
    expect(await writeQuestionSheetFor(db, briefId, "d_nothing", "png")).toMatchObject({ code: "not-found" });
    expect(await askPeople(db, "b_other", id)).toMatchObject({ ok: false, code: "not-found" });
  });

  test("says what was tried and why not", () => {
    const tried = writeTried({ state: state() });
    expect(tried[0]).toBe("The words were typed. The line was compared letter by letter.");
    expect(tried[1]).toContain("844 styles");
    expect(tried[1]).toContain("64 %");
    expect(writeWhy(match("lora", 0.9))).toBe("Its g speaks most against it (41 %).");
    const same = { ...match("lora", 0.9), besideFirst: { isSameHere: true, tellingLetter: "R" } };
    expect(writeWhy(same)).toBe("The same in these letters as the first; R would tell.");
  });
});
