// Letterings of a brief: kept, changed step by step, undone; documents laid out, checked and written by a process of their own.
import { randomBytes } from "node:crypto";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { BriefId } from "@/contracts/ids";
import {
  DOCUMENT_VERSION,
  MOST_LETTERS,
  type Lettering,
  type LetteringCheck,
  type LetteringDocument,
  type LetteringId,
  type LetteringLayout,
  type Material,
} from "@/contracts/lettering";
import type { LetteringCreate, LetteringFileRequest, LetteringPatch } from "@/contracts/operations/letterings";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import {
  addStep,
  findLettering,
  insertLettering,
  listLetterings,
  moveStep,
  raiseLettering,
  renameLettering,
  setLetteringDeleted,
} from "../queries/letterings";
import { findStyle } from "../queries/styles";
import { askLettering } from "../workers/pool";
import { storedAs } from "./styleDetail";

/** What no document may be, whoever sends it. */
function checkDocument({ version = DOCUMENT_VERSION, blocks }: LetteringDocument): Outcome<null> {
  if (version !== DOCUMENT_VERSION) return refuse("lettering-newer");
  const letters = blocks.reduce((sum, b) => sum + b.text.length, 0);
  if (letters > MOST_LETTERS)
    return refuse(
      "letters-too-many",
      `The text has ${letters.toLocaleString("en-GB")} letters; ${MOST_LETTERS.toLocaleString("en-GB")} can be set at once. Shorten it.`,
    );
  const ids = new Set(blocks.map((b) => b.id));
  return ids.size === blocks.length ? succeed(null) : refuse("bad-request", "Two blocks have the same id.");
}

export function listBriefLetterings(db: Db, briefId: string): Outcome<{ letterings: Lettering[] }> {
  return findBrief(db, briefId) ? succeed({ letterings: listLetterings(db, briefId) }) : refuse("not-found");
}

export function createLettering(db: Db, briefId: BriefId, { name, document }: LetteringCreate): Outcome<Lettering> {
  if (!findBrief(db, briefId)) return refuse("not-found");
  const checked = checkDocument(document);
  if (!checked.ok) return checked;
  const letteringId = `n_${randomBytes(8).toString("hex")}` as LetteringId;
  db.transaction(() =>
    insertLettering(db, { letteringId, briefId, name, document }, new Date().toISOString()),
  ).immediate();
  return succeed(findLettering(db, letteringId)!);
}

/** A change of the document is one step. @returns `changed-meanwhile` with the present state where an older version was changed. */
export function changeLettering(
  db: Db,
  letteringId: string,
  { name, document, version, deleted }: LetteringPatch,
): Outcome<Lettering> {
  if (document) {
    const checked = checkDocument(document);
    if (!checked.ok) return checked;
  }
  return db
    .transaction((): Outcome<Lettering> => {
      if (deleted === false) setLetteringDeleted(db, letteringId, null);
      const lettering = findLettering(db, letteringId);
      if (!lettering) return refuse("not-found");
      if (version !== undefined && version !== lettering.version)
        return refuse("changed-meanwhile", undefined, { lettering });
      const at = new Date().toISOString();
      if (name !== undefined) renameLettering(db, letteringId, name);
      if (document) {
        addStep(db, letteringId, document, at);
        raiseLettering(db, letteringId, at);
      }
      return succeed(findLettering(db, letteringId)!);
    })
    .immediate();
}

export function deleteLettering(db: Db, letteringId: LetteringId): Outcome<{ letteringId: LetteringId }> {
  if (!findLettering(db, letteringId)) return refuse("not-found");
  setLetteringDeleted(db, letteringId, new Date().toISOString());
  return succeed({ letteringId });
}

/** One step back or forward. */
export function stepLettering(db: Db, letteringId: string, by: 1 | -1): Outcome<Lettering> {
  return db
    .transaction((): Outcome<Lettering> => {
      if (!findLettering(db, letteringId)) return refuse("not-found");
      if (!moveStep(db, letteringId, by))
        return refuse("nothing-to-undo", by < 0 ? "Nothing to undo." : "Nothing to redo.");
      raiseLettering(db, letteringId, new Date().toISOString());
      return succeed(findLettering(db, letteringId)!);
    })
    .immediate();
}

/** The bare fonts of all faces of a document. @returns not-found or not-owned for a face that cannot be set. */
function gatherFonts(db: Db, { blocks }: LetteringDocument): Outcome<Record<string, string[]>> {
  const fonts: Record<string, string[]> = {};
  for (const { styleId, id } of blocks) {
    if (fonts[styleId]) continue;
    const record = findStyle(db, styleId);
    if (!record) return refuse("not-found", `The face of block ${id} is not in the library.`);
    if (!record.owned) return refuse("not-owned");
    fonts[styleId] = storedAs(db, record).sfntSha256s;
  }
  return succeed(fonts);
}

/** What every question about a document begins with: its form, and the bare fonts of its faces. */
export function prepareDocument(db: Db, document: LetteringDocument): Outcome<Record<string, string[]>> {
  const checked = checkDocument(document);
  return checked.ok ? gatherFonts(db, document) : checked;
}

export async function layOutLettering(
  db: Db,
  document: LetteringDocument,
  signal?: AbortSignal,
): Promise<Outcome<LetteringLayout>> {
  const fonts = prepareDocument(db, document);
  return fonts.ok ? askLettering({ what: "layout", document, fonts: fonts.value }, signal) : fonts;
}

export async function checkLetteringIn(
  db: Db,
  document: LetteringDocument,
  material: Material,
  signal?: AbortSignal,
): Promise<Outcome<LetteringCheck>> {
  const fonts = prepareDocument(db, document);
  return fonts.ok ? askLettering({ what: "check", document, material, fonts: fonts.value }, signal) : fonts;
}

export async function writeLetteringFile(
  db: Db,
  { document, ...options }: LetteringFileRequest,
  signal?: AbortSignal,
): Promise<Outcome<Uint8Array>> {
  const fonts = prepareDocument(db, document);
  if (!fonts.ok) return fonts;
  const title = document.blocks
    .map((b) => b.text.replace(/\s+/g, " "))
    .join(" / ")
    .slice(0, 200);
  return askLettering({ what: "write", document, title, options, fonts: fonts.value }, signal);
}
