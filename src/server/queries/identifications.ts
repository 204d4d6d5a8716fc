// SQL on identifications that are kept with briefs.
import { IdentificationState, type IdentificationId, type SavedIdentification } from "@/contracts/identifications";
import type { Db } from "../db/open";

type Row = {
  identification_id: IdentificationId;
  brief_id: SavedIdentification["briefId"];
  name: string;
  sha256: string;
  type: string;
  state: string;
  saved_at: string;
};
export type StoredIdentification = SavedIdentification & { sha256: string };

function toStored(r: Row): StoredIdentification {
  // Read by its schema: what was kept earlier lacks what came later.
  const state = IdentificationState.parse(JSON.parse(r.state));
  const [first] = state.result.matches;
  return {
    identificationId: r.identification_id,
    briefId: r.brief_id,
    name: r.name,
    sha256: r.sha256,
    type: r.type,
    text: state.text || state.result.reading.text,
    savedAt: r.saved_at,
    first: first ? { family: first.family, style: first.style, chance: first.chance } : null,
    noneChance: state.result.notInLibraries.chance,
    state,
  };
}

export const insertIdentification = (
  db: Db,
  i: {
    id: string;
    briefId: string;
    name: string;
    sha256: string;
    type: string;
    state: IdentificationState;
    at: string;
  },
) =>
  db
    .prepare("INSERT INTO identifications VALUES (?, ?, ?, ?, ?, ?, ?, NULL)")
    .run(i.id, i.briefId, i.name, i.sha256, i.type, JSON.stringify(i.state), i.at);

/** Newest first. */
export const listIdentifications = (db: Db, briefId: string): StoredIdentification[] =>
  db
    .prepare<[string], Row>(
      "SELECT * FROM identifications WHERE brief_id = ? AND removed_at IS NULL ORDER BY saved_at DESC, rowid DESC",
    )
    .all(briefId)
    .map(toStored);

export function findIdentification(db: Db, briefId: string, id: string): StoredIdentification | null {
  const row = db
    .prepare<[string, string], Row>("SELECT * FROM identifications WHERE brief_id = ? AND identification_id = ?")
    .get(briefId, id);
  return row ? toStored(row) : null;
}

/** @param at - ISO, or null to bring it back. @returns false when there is no such identification. */
export const setIdentificationRemoved = (db: Db, briefId: string, id: string, at: string | null): boolean =>
  db
    .prepare("UPDATE identifications SET removed_at = ? WHERE brief_id = ? AND identification_id = ?")
    .run(at, briefId, id).changes > 0;
