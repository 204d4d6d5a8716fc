// Briefs, what is kept for them and what is set aside.
import { BriefFields, type Brief, type Kept } from "@/contracts/brief";
import type { Db } from "../db/open";

type BriefRow = { brief_id: string; fields: string; created_at: string; changed_at: string; version: number };

function toBrief(db: Db, row: BriefRow): Brief {
  const fields = BriefFields.parse(JSON.parse(row.fields));
  return {
    ...fields,
    // Lines of earlier versions have no ids: their places serve until they are changed.
    lines: fields.lines.map((line, i) => ({ ...line, id: line.id ?? `l_${i}` })),
    briefId: row.brief_id as Brief["briefId"],
    createdAt: row.created_at,
    changedAt: row.changed_at,
    version: row.version,
    kept: listKept(db, row.brief_id),
    setAside: db
      .prepare<[string], { style_id: string }>("SELECT style_id FROM set_aside WHERE brief_id = ? ORDER BY at")
      .all(row.brief_id)
      .map((r) => r.style_id) as Brief["setAside"],
    picture: findBriefPicture(db, row.brief_id)?.sha256 ?? null,
  };
}

export const listBriefs = (db: Db): Brief[] =>
  db
    .prepare<[], BriefRow>("SELECT * FROM briefs WHERE deleted_at IS NULL ORDER BY created_at")
    .all()
    .map((r) => toBrief(db, r));

export const findBrief = (db: Db, briefId: string): Brief | null => {
  const row = db
    .prepare<[string], BriefRow>("SELECT * FROM briefs WHERE brief_id = ? AND deleted_at IS NULL")
    .get(briefId);
  return row ? toBrief(db, row) : null;
};

/** Also finds what was deleted, so that undo can bring it back. */
export const isBriefKnown = (db: Db, briefId: string): boolean =>
  Boolean(db.prepare("SELECT 1 FROM briefs WHERE brief_id = ?").get(briefId));

export const insertBrief = (db: Db, briefId: string, fields: BriefFields, at: string) =>
  db
    .prepare("INSERT INTO briefs (brief_id, fields, created_at, changed_at) VALUES (?, ?, ?, ?)")
    .run(briefId, JSON.stringify(fields), at, at);

/** Counts a change. @returns the new version. */
export const raiseVersion = (db: Db, briefId: string, at: string): number =>
  db
    .prepare<[string, string], { version: number }>(
      "UPDATE briefs SET version = version + 1, changed_at = ? WHERE brief_id = ? RETURNING version",
    )
    .get(at, briefId)!.version;

export const updateBrief = (db: Db, briefId: string, fields: BriefFields, at: string) =>
  db
    .prepare("UPDATE briefs SET fields = ?, changed_at = ? WHERE brief_id = ?")
    .run(JSON.stringify(fields), at, briefId);

export const setBriefDeleted = (db: Db, briefId: string, at: string | null) =>
  db.prepare("UPDATE briefs SET deleted_at = ? WHERE brief_id = ?").run(at, briefId);

type KeptRow = Omit<Kept, "favourite" | "location" | "features"> & {
  favourite: number;
  location: string;
  features: string;
};
export const listKept = (db: Db, briefId: string): Kept[] =>
  db
    .prepare<[string], KeptRow>(
      `SELECT kept_id AS keptId, style_id AS styleId, location, features, role, group_name AS "group", note, favourite, place, kept_at AS keptAt
       FROM kept WHERE brief_id = ? ORDER BY place, kept_at`,
    )
    .all(briefId)
    .map((k) => ({
      ...k,
      location: JSON.parse(k.location) as Kept["location"],
      features: JSON.parse(k.features) as Kept["features"],
      favourite: k.favourite !== 0,
    }));

/** Puts one kept entry at its place; the others close up around it so that places stay 0, 1, 2 … */
export function putKept(db: Db, briefId: string, entry: Kept) {
  db.transaction(() => {
    db.prepare(
      `INSERT INTO kept (brief_id, kept_id, style_id, location, features, role, group_name, note, favourite, place, kept_at)
       VALUES (@briefId, @keptId, @styleId, @location, @features, @role, @group, @note, @favourite, @place, @keptAt)
       ON CONFLICT(brief_id, kept_id) DO UPDATE SET role = excluded.role, group_name = excluded.group_name, note = excluded.note,
         favourite = excluded.favourite`,
    ).run({
      ...entry,
      // Steps of earlier versions know of no groups.
      group: entry.group ?? "",
      briefId,
      location: JSON.stringify(entry.location),
      features: JSON.stringify(entry.features),
      favourite: entry.favourite ? 1 : 0,
    });
    const others = listKept(db, briefId).filter((k) => k.keptId !== entry.keptId);
    const order = [...others.slice(0, entry.place), entry, ...others.slice(entry.place)];
    placeKept(
      db,
      briefId,
      order.map((k) => k.keptId),
    );
  })();
}

function placeKept(db: Db, briefId: string, order: string[]) {
  const put = db.prepare("UPDATE kept SET place = ? WHERE brief_id = ? AND kept_id = ?");
  order.forEach((keptId, place) => put.run(place, briefId, keptId));
}

export function removeKept(db: Db, briefId: string, keptId: string): boolean {
  return db.transaction(() => {
    const { changes } = db.prepare("DELETE FROM kept WHERE brief_id = ? AND kept_id = ?").run(briefId, keptId);
    placeKept(
      db,
      briefId,
      listKept(db, briefId).map((k) => k.keptId),
    );
    return changes > 0;
  })();
}

/** Replaces all that is kept: what undo gives back. Faces that are gone are left out. */
export function replaceKept(db: Db, briefId: string, kept: readonly Kept[]) {
  db.transaction(() => {
    db.prepare("DELETE FROM kept WHERE brief_id = ?").run(briefId);
    const isThere = db.prepare("SELECT 1 FROM styles WHERE style_id = ?");
    for (const entry of kept.filter((k) => isThere.get(k.styleId)))
      putKept(db, briefId, { ...entry, place: Number.MAX_SAFE_INTEGER });
  })();
}

export function replaceAside(db: Db, briefId: string, styleIds: readonly string[], at: string) {
  db.transaction(() => {
    db.prepare("DELETE FROM set_aside WHERE brief_id = ?").run(briefId);
    const isThere = db.prepare("SELECT 1 FROM styles WHERE style_id = ?");
    for (const styleId of styleIds.filter((id) => isThere.get(id))) putAside(db, briefId, styleId, at);
  })();
}

export const putAside = (db: Db, briefId: string, styleId: string, at: string) =>
  db.prepare("INSERT OR IGNORE INTO set_aside VALUES (?, ?, ?)").run(briefId, styleId, at);

export const bringBack = (db: Db, briefId: string, styleId: string) =>
  db.prepare("DELETE FROM set_aside WHERE brief_id = ? AND style_id = ?").run(briefId, styleId);

type BriefPicture = { sha256: string; widthPx: number; heightPx: number; name: string };
export const findBriefPicture = (db: Db, briefId: string): BriefPicture | null =>
  db
    .prepare<[string], BriefPicture>(
      "SELECT sha256, width_px AS widthPx, height_px AS heightPx, name FROM brief_pictures WHERE brief_id = ?",
    )
    .get(briefId) ?? null;
export const putBriefPicture = (db: Db, briefId: string, p: BriefPicture, at: string) =>
  db
    .prepare(
      `INSERT INTO brief_pictures VALUES (@briefId, @sha256, @widthPx, @heightPx, @name, @at) ON CONFLICT(brief_id) DO UPDATE SET
         sha256 = excluded.sha256, width_px = excluded.width_px, height_px = excluded.height_px, name = excluded.name, added_at = excluded.added_at`,
    )
    .run({ ...p, briefId, at });
export const removeBriefPicture = (db: Db, briefId: string): boolean =>
  db.prepare("DELETE FROM brief_pictures WHERE brief_id = ?").run(briefId).changes > 0;
