// SQL on signatures: of styles at their defaults, and of variable fonts at other settings.
import type { CodePointRanges } from "@/contracts/traits";
import type { Db } from "../db/open";

type DescribedInstance = { coordinates: Record<string, number>; signature: Uint8Array };
/** One entry of the index that pictures are compared with. */
export type SignatureRow = {
  id: string;
  family: string;
  signature: Uint8Array;
  sfntSha256: string;
  coordinates: Record<string, number> | null;
};

/** Replaces the descriptors of a variable font at its locations. */
export function putInstances(db: Db, styleId: string, instances: readonly DescribedInstance[]) {
  db.transaction(() => {
    db.prepare("DELETE FROM signed_instances WHERE style_id = ?").run(styleId);
    const insert = db.prepare("INSERT INTO signed_instances (style_id, coordinates, signature) VALUES (?, ?, ?)");
    for (const { coordinates, signature } of instances) insert.run(styleId, JSON.stringify(coordinates), signature);
  })();
}

/** What characters each style has, as ranges. */
export const listCoverages = (db: Db): Map<string, CodePointRanges> =>
  new Map(
    db
      .prepare<[], { id: string; coverage: string }>("SELECT style_id AS id, coverage FROM styles WHERE hidden = 0")
      .all()
      .map(({ id, coverage }) => [id, JSON.parse(coverage) as CodePointRanges]),
  );

/** Grows whenever an entry of the index appears, changes or goes. Tags and terms leave it as it is. */
export const lastSignatureVersion = (db: Db): number =>
  db.prepare<[], { value: number }>("SELECT value FROM counters WHERE name = 'signatures'").get()!.value;

/**
 * Entries of the styles that changed after a version: styles at their defaults, and variable fonts again at each of its locations. Of
 * faces not bought yet: their trials.
 * @returns every entry of a changed style, `isGone` for one that is hidden; all styles for version 0.
 */
export const listSignaturesSince = (db: Db, version: number): (SignatureRow & { isGone: boolean })[] =>
  db
    .prepare<[{ version: number }], Omit<SignatureRow, "coordinates"> & { coordinates: string | null; hidden: number }>(
      `SELECT s.style_id AS id, s.family AS family, g.signature AS signature, s.sfnt_sha256 AS sfntSha256, g.coordinates AS coordinates,
         s.hidden AS hidden
         FROM styles s JOIN (
           SELECT style_id, NULL AS coordinates, signature FROM signatures WHERE seq > @version
           UNION ALL
           SELECT style_id, i.coordinates, i.signature FROM signed_instances i JOIN signatures g USING (style_id) WHERE g.seq > @version
         ) g USING (style_id)`,
    )
    .all({ version })
    .map(({ hidden, coordinates, ...r }) => ({
      ...r,
      coordinates: coordinates ? (JSON.parse(coordinates) as Record<string, number>) : null,
      isGone: hidden === 1,
    }));
