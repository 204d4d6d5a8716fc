// Identifications kept with a brief: given back as they were, in order, removed and brought back; nothing of another brief.
import { beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { openDataFolder } from "../../../tests/fixtures/dataFolder";
import { BriefCreate } from "@/contracts/brief";
import type { IdentificationState } from "@/contracts/identifications";
import sharp from "sharp";
import { openDatabase, type Db } from "../db/open";
import { createBrief } from "./briefs";
import {
  getIdentification,
  listSavedIdentifications,
  readIdentifiedPicture,
  removeIdentification,
  saveIdentification,
} from "./identifications";
import { MAX_PICTURE_BYTES } from "@/contracts/limits";

openDataFolder("kept");

let db: Db;
let briefId = "";
beforeEach(() => {
  db = openDatabase(":memory:");
  briefId = createBrief(db, BriefCreate.parse({ name: "Hull letters" }))!.briefId;
});
const state = (text: string): IdentificationState => ({
  ...{ frame: null, corners: null, baseline: null, ink: null, text, isTyped: false },
  result: {
    reading: { text: "Wren & Tern", confidence: 0.9, given: false, letters: [] },
    matches: [],
    notInLibraries: { chance: 0.8 },
    byLook: null,
    strip: {
      png: "data:image/png;base64,",
      widthPx: 9,
      heightPx: 9,
      slopeDeg: 0,
      cut: "letters",
      reading: "plain",
      taper: 0,
      setAs: "plain" as const,
      leanTan: 0,
    },
    ...{ areas: [], taken: null, compared: 844, tookMs: 200 },
  },
});
let picture: Uint8Array;
beforeAll(async () => {
  const grey = { create: { width: 12, height: 8, channels: 3 as const, background: "#48525a" } };
  picture = new Uint8Array(await sharp(grey).png().toBuffer());
});
const keep = (name: string, more: { type?: string; bytes?: Uint8Array; text?: string } = {}) =>
  saveIdentification(
    db,
    briefId,
    { name, type: more.type ?? "image/png", bytes: more.bytes ?? picture },
    state(more.text ?? ""),
  );
const idOf = (saved: Awaited<ReturnType<typeof keep>>) => (saved.ok ? saved.value.identificationId : "");

describe("kept identifications", () => {
  test("come back as they were, the newest first", async () => {
    const first = idOf(await keep("hull.png", { text: "Wren" }));
    const second = idOf(await keep("stern.png"));
    expect(listSavedIdentifications(db, briefId).map((i) => [i.identificationId, i.text])).toEqual([
      [second, "Wren & Tern"],
      [first, "Wren"],
    ]);
    expect(getIdentification(db, briefId, first)).toMatchObject({ name: "hull.png", state: state("Wren") });
    expect(readIdentifiedPicture(db, briefId, first)).toEqual({
      bytes: expect.anything(),
      type: "image/png",
    });
    expect(Buffer.from(readIdentifiedPicture(db, briefId, first)!.bytes).toString()).toBe(
      Buffer.from(picture).toString(),
    );
  });

  test("a summary tells the first match, or that there is none", async () => {
    await keep("hull.png");
    expect(listSavedIdentifications(db, briefId)[0]).toMatchObject({ first: null, noneChance: 0.8 });
  });

  test("removed it is not listed, brought back it is", async () => {
    const id = idOf(await keep("hull.png"));
    expect(removeIdentification(db, briefId, id, true)).toBe(true);
    expect(listSavedIdentifications(db, briefId)).toEqual([]);
    expect(removeIdentification(db, briefId, id, false)).toBe(true);
    expect(listSavedIdentifications(db, briefId)).toHaveLength(1);
    expect(removeIdentification(db, briefId, "d_nothing0", true)).toBe(false);
  });

  test("belongs to its brief alone", async () => {
    const id = idOf(await keep("hull.png"));
    const other = createBrief(db, BriefCreate.parse({ name: "Tide tables" }))!.briefId;
    expect(getIdentification(db, other, id)).toBeNull();
    expect(readIdentifiedPicture(db, other, id)).toBeNull();
    expect(removeIdentification(db, other, id, true)).toBe(false);
  });

  test.each(["image/svg+xml", "text/html", "application/pdf", ""])(
    "a picture of type %j is given back as bytes only",
    async (type) => {
      const id = idOf(await keep("evil", { type }));
      expect(readIdentifiedPicture(db, briefId, id)!.type).toBe("application/octet-stream");
    },
  );

  test("what is no picture of pixels is not kept as one", async () => {
    const text = new TextEncoder().encode("a text that calls itself a picture");
    const svg = new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>');
    for (const bytes of [text, svg, picture.slice(0, 40)])
      expect(await keep("x", { bytes })).toMatchObject({ ok: false, code: "picture-broken" });
    expect(listSavedIdentifications(db, briefId)).toEqual([]);
  });

  test("what cannot be kept is refused with its code", async () => {
    expect(await keep("x", { bytes: new Uint8Array(0) })).toMatchObject({ ok: false, code: "picture-empty" });
    expect(await keep("x", { bytes: new Uint8Array(MAX_PICTURE_BYTES + 1) })).toMatchObject({
      code: "picture-too-large",
    });
    briefId = "b_nothing";
    expect(await keep("x")).toMatchObject({ ok: false, code: "not-found" });
  });

  test("a name is kept short, and never empty", async () => {
    expect(idOf(await keep(""))).not.toBe("");
    await keep("n".repeat(500));
    expect(listSavedIdentifications(db, briefId).map((i) => i.name.length)).toEqual([200, "picture".length]);
  });
});
