// SQL on letterings: their documents step by step.
import type { Lettering, LetteringDocument, LetteringId } from "@/contracts/lettering";
import type { Db } from "../db/open";

type Row = Omit<Lettering, "document"> & { document: string };
/** Steps are numbered without gaps, so those before and after the one in force are counted by their ends. */
const SELECT = `SELECT l.lettering_id AS letteringId, l.brief_id AS briefId, l.name, s.document, l.changed_at AS changedAt, l.version,
    l.place - (SELECT MIN(place) FROM lettering_steps WHERE lettering_id = l.lettering_id) AS stepsBack,
    (SELECT MAX(place) FROM lettering_steps WHERE lettering_id = l.lettering_id) - l.place AS stepsForward
  FROM letterings l JOIN lettering_steps s ON s.lettering_id = l.lettering_id AND s.place = l.place`;
const toLettering = (row: Row): Lettering => ({ ...row, document: JSON.parse(row.document) as LetteringDocument });

export const listLetterings = (db: Db, briefId: string): Lettering[] =>
  db
    .prepare<[string], Row>(
      `${SELECT} WHERE l.brief_id = ? AND l.deleted_at IS NULL ORDER BY l.created_at, l.lettering_id`,
    )
    .all(briefId)
    .map(toLettering);

export const findLettering = (db: Db, letteringId: string): Lettering | null => {
  const row = db.prepare<[string], Row>(`${SELECT} WHERE l.lettering_id = ? AND l.deleted_at IS NULL`).get(letteringId);
  return row ? toLettering(row) : null;
};

export function insertLettering(
  db: Db,
  {
    letteringId,
    briefId,
    name,
    document,
  }: Pick<Lettering, "briefId" | "name" | "document"> & { letteringId: LetteringId },
  at: string,
) {
  db.prepare(
    "INSERT INTO letterings (lettering_id, brief_id, name, place, created_at, changed_at) VALUES (?, ?, ?, 0, ?, ?)",
  ).run(letteringId, briefId, name, at, at);
  putStep(db, letteringId, 0, document, at);
}

const putStep = (db: Db, letteringId: string, place: number, document: LetteringDocument, at: string) =>
  db
    .prepare("INSERT INTO lettering_steps (lettering_id, place, document, at) VALUES (?, ?, ?, ?)")
    .run(letteringId, place, JSON.stringify(document), at);

/** More steps back than anybody takes. */
const MAX_STEPS = 500;

/** A new state after the one in force. What was undone cannot be done again after it. */
export function addStep(db: Db, letteringId: string, document: LetteringDocument, at: string) {
  const place = placeOf(db, letteringId) + 1;
  db.prepare("DELETE FROM lettering_steps WHERE lettering_id = ? AND place >= ?").run(letteringId, place);
  putStep(db, letteringId, place, document, at);
  db.prepare("DELETE FROM lettering_steps WHERE lettering_id = ? AND place < ?").run(letteringId, place - MAX_STEPS);
  db.prepare("UPDATE letterings SET place = ? WHERE lettering_id = ?").run(place, letteringId);
}

const placeOf = (db: Db, letteringId: string): number =>
  db.prepare<[string], { place: number }>("SELECT place FROM letterings WHERE lettering_id = ?").get(letteringId)!
    .place;

/** @param by - minus one back, one forward. @returns whether there was such a step. */
export function moveStep(db: Db, letteringId: string, by: 1 | -1): boolean {
  const place = placeOf(db, letteringId) + by;
  const isThere = db
    .prepare("SELECT 1 FROM lettering_steps WHERE lettering_id = ? AND place = ?")
    .get(letteringId, place);
  if (!isThere) return false;
  db.prepare("UPDATE letterings SET place = ? WHERE lettering_id = ?").run(place, letteringId);
  return true;
}

export const renameLettering = (db: Db, letteringId: string, name: string) =>
  db.prepare("UPDATE letterings SET name = ? WHERE lettering_id = ?").run(name, letteringId);

/** Counts a change. */
export const raiseLettering = (db: Db, letteringId: string, at: string) =>
  db.prepare("UPDATE letterings SET version = version + 1, changed_at = ? WHERE lettering_id = ?").run(at, letteringId);

/** @param at - null brings it back. @returns whether there is one. */
export const setLetteringDeleted = (db: Db, letteringId: string, at: string | null): boolean =>
  db.prepare("UPDATE letterings SET deleted_at = ? WHERE lettering_id = ?").run(at, letteringId).changes > 0;
