// SQL on signatures: of styles at their defaults, and of variable fonts at other settings.
import type { Db } from "../db/open";

export type SignedInstance = { coordinates: Record<string, number>; signature: Uint8Array };
/** One entry of the index that pictures are compared with. */
export type SignatureRow = {
  id: string;
  family: string;
  signature: Uint8Array;
  sfntSha256: string;
  coordinates: Record<string, number> | null;
};

/** Replaces the signed settings of a variable font. */
export function putInstances(db: Db, styleId: string, instances: readonly SignedInstance[]) {
  db.transaction(() => {
    db.prepare("DELETE FROM signed_instances WHERE style_id = ?").run(styleId);
    const insert = db.prepare("INSERT INTO signed_instances (style_id, coordinates, signature) VALUES (?, ?, ?)");
    for (const { coordinates, signature } of instances) insert.run(styleId, JSON.stringify(coordinates), signature);
  })();
}

/** Every entry: styles at their defaults, and variable fonts again at each signed setting. Of faces not bought yet: their trials. */
export const listSignatures = (db: Db): SignatureRow[] =>
  db
    .prepare<[], Omit<SignatureRow, "coordinates"> & { coordinates: string | null }>(
      `SELECT s.style_id AS id, s.family AS family, g.signature AS signature, s.sfnt_sha256 AS sfntSha256, g.coordinates AS coordinates
         FROM styles s JOIN (
           SELECT style_id, NULL AS coordinates, signature FROM signatures
           UNION ALL SELECT style_id, coordinates, signature FROM signed_instances
         ) g USING (style_id) WHERE s.hidden = 0`,
    )
    .all()
    .map((r) => ({ ...r, coordinates: r.coordinates ? (JSON.parse(r.coordinates) as Record<string, number>) : null }));
