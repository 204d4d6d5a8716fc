// A brief out into one JSON file and back, and its typography as design tokens.
import type { Brief, Kept } from "@/contracts/brief";
import type { BriefFile, BriefRead, FaceRef } from "@/contracts/briefFile";
import type { StyleId } from "@/contracts/ids";
import { keptIdOf } from "@/core/brief/keptId";
import { genericOf } from "@/core/webkit/fallbacks";
import { writeDesignTokens } from "@/core/write/designTokens";
import type { Db } from "../db/open";
import { findBrief, putKept } from "../queries/briefs";
import { insertDecision, listDecisions } from "../queries/rounds";
import { findStyle, findStyleByNames, findStyleBySha, type StyleRecord } from "../queries/styles";
import { familyIdOf } from "../store/storeReading";
import { changeBrief, createBrief } from "./briefs";
import { cssLookOf } from "./webkit";

const refOf = ({ family, style, sha256 }: StyleRecord): FaceRef => ({ family, style, sha256 });

/** @returns null when there is no such brief. */
export function writeBriefFile(db: Db, briefId: string): BriefFile | null {
  const brief = findBrief(db, briefId);
  if (!brief) return null;
  const { kept, pairs, setAside: _aside, picture: _picture, ...rest } = brief;
  const { briefId: _id, createdAt: _made, changedAt: _changed, version: _version, ...fields } = rest;
  return {
    format: "fond-quarry-brief",
    version: 1,
    writtenAt: new Date().toISOString(),
    brief: fields,
    kept: kept.flatMap(({ styleId, location, features, role, group, note, favourite }) => {
      const record = findStyle(db, styleId);
      return record ? [{ face: refOf(record), location, features, role, group, note, favourite }] : [];
    }),
    pairs: pairs.flatMap(({ faces: [first, second], sizeRatio, note }) => {
      const [a, b] = [findStyle(db, first.styleId), findStyle(db, second.styleId)];
      if (!a || !b) return [];
      return [
        {
          faces: [
            { face: refOf(a), role: first.role },
            { face: refOf(b), role: second.role },
          ] as BriefFile["pairs"][number]["faces"],
          sizeRatio,
          note,
        },
      ];
    }),
    decisions: listDecisions(db, briefId),
  };
}

/** Makes a new brief of a file. Faces are found by their file, else by their names; those that are not here are named. */
export function readBriefFile(db: Db, file: BriefFile): BriefRead {
  const notHere = new Set<string>();
  const find = (face: FaceRef): StyleId | null => {
    const { family, style, sha256 } = face;
    const styleId = findStyleBySha(db, sha256) ?? findStyleByNames(db, familyIdOf(family), family, style);
    if (!styleId) notHere.add(`${family} ${style}`);
    return styleId as StyleId | null;
  };
  const brief = db.transaction(() => {
    const made = createBrief(db, { ...file.brief })!;
    const now = new Date().toISOString();
    let place = 0;
    for (const { face, ...entry } of file.kept) {
      const styleId = find(face);
      if (!styleId) continue;
      const keptId = keptIdOf(styleId, entry.location, entry.features) as Kept["keptId"];
      putKept(db, made.briefId, { ...entry, styleId, keptId, place: place++, keptAt: now });
    }
    const pairs = file.pairs.flatMap(({ faces: [a, b], ...pair }, i) => {
      const [first, second] = [find(a.face), find(b.face)];
      if (!first || !second) return [];
      const faces: Brief["pairs"][number]["faces"] = [
        { styleId: first, role: a.role },
        { styleId: second, role: b.role },
      ];
      return [{ ...pair, id: `p_${i + 1}`, faces }];
    });
    if (pairs.length) changeBrief(db, made.briefId, { pairs });
    // The log goes on where it ended: the first first.
    for (const decision of [...file.decisions].reverse()) insertDecision(db, made.briefId, decision);
    return findBrief(db, made.briefId)!;
  })();
  return { brief, notHere: [...notHere] };
}

const PX_OF_ROLE: Record<string, number> = { title: 64, second: 40, heading: 28, text: 16, caption: 13, figures: 16 };
const TEXT_LEADING = 1.45;
const HEADING_LEADING = 1.15;

/** @returns null when there is no such brief. */
export function writeTokensFor(db: Db, briefId: string): { name: string; json: string } | null {
  const brief = findBrief(db, briefId);
  if (!brief) return null;
  const faces = brief.kept.flatMap(({ styleId, role, note, location, features }) => {
    const record = findStyle(db, styleId);
    if (!record) return [];
    const { weight, isItalic, fallback } = cssLookOf(record, location);
    const sizePx = PX_OF_ROLE[role] ?? 16;
    return [
      {
        name: role || `${record.family} ${record.style}`,
        family: record.family,
        fallback: genericOf(fallback),
        weight,
        isItalic,
        sizePx,
        leading: sizePx > 20 ? HEADING_LEADING : TEXT_LEADING,
        note,
        location,
        features,
      },
    ];
  });
  return { name: brief.name, json: writeDesignTokens(brief.name, brief, faces) };
}
