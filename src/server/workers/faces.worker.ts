// Worker entry: glyphs, anatomy and neighbours of faces that are in the store. The faces last asked for are kept open.
import { LRUCache } from "lru-cache";
import type { Anatomy } from "@/contracts/anatomy";
import type { Beside } from "@/contracts/identify";
import type { Traits } from "@/contracts/traits";
import { compareFaces, type FacesCompared } from "@/core/compare/compareFaces";
import { tellApart } from "@/core/identify/answer/tellApart";
import { readAnatomy } from "@/core/measure/anatomy";
import { joinParts } from "@/core/outlines/joinParts";
import { openFace, type OpenFace } from "@/core/outlines/openFace";
import { readStored } from "../db/fileStore";
import { buildGlyphTable, pageGlyphs, type GlyphPage, type GlyphQuery, type GlyphTable } from "./glyphTable";

/** A face by the digests of its bare fonts, the main part first: what replaces one has another digest. */
type FaceAsked = { sfntSha256s: string[]; features: string[] };
type Located = FaceAsked & { location: Record<string, number> | null };
export type FaceRequest =
  | ({ what: "glyphs"; query: GlyphQuery } & FaceAsked)
  | ({ what: "anatomy"; traits: Traits } & FaceAsked)
  | { what: "beside"; one: Located; other: Located; letter: string }
  | { what: "compare"; faces: (FaceAsked & { level: number })[]; text: string };
type Replies = { glyphs: GlyphPage; anatomy: Anatomy; beside: Beside | null; compare: FacesCompared };
export type FaceReply<R extends FaceRequest> = Replies[R["what"]];
type Asked<W extends FaceRequest["what"]> = Extract<FaceRequest, { what: W }>;

const MAX_TABLES = 12;
const tables = new LRUCache<string, Promise<GlyphTable>>({ max: MAX_TABLES });

function tableOf({ sfntSha256s, features }: FaceAsked): Promise<GlyphTable> {
  const key = sfntSha256s.join();
  let table = tables.get(key);
  if (!table) {
    table = buildGlyphTable(
      sfntSha256s.map((sha256) => readStored(sha256)),
      features,
    );
    tables.set(key, table);
    // What failed is tried again at the next request.
    table.catch(() => tables.delete(key));
  }
  return table;
}

export const glyphs = async (asked: Asked<"glyphs">): Promise<GlyphPage> =>
  pageGlyphs(await tableOf(asked), asked.query);

export const anatomy = async (asked: Asked<"anatomy">): Promise<Anatomy> =>
  readAnatomy((await tableOf(asked)).face, asked.traits);

export const compare = async ({ faces, text }: Asked<"compare">): Promise<FacesCompared> =>
  compareFaces(
    faces.map(({ sfntSha256s, level }) => ({ face: openWhole(sfntSha256s), level })),
    text,
  );

/** Faces that are only set and drawn: no table of their glyphs is needed. */
const MAX_FACES = 24;
const opened = new LRUCache<string, OpenFace>({ max: MAX_FACES });

function openWhole(sfntSha256s: readonly string[]): OpenFace {
  const key = sfntSha256s.join();
  let face = opened.get(key);
  if (!face) opened.set(key, (face = joinParts(sfntSha256s.map((sha256) => openFace(readStored(sha256))))));
  return face;
}

export async function beside({ one, other, letter }: Asked<"beside">): Promise<Beside | null> {
  const faceOf = async (f: Located) =>
    f.location ? openFace(readStored(f.sfntSha256s[0]!), f.location) : (await tableOf(f)).face;
  return tellApart(await faceOf(one), await faceOf(other), letter);
}
