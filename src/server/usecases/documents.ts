// The fonts of a document and what of the libraries answers to each: by embedded letters first, by name second; else the nearest.
import { MAX_DOCUMENT_BYTES } from "@/contracts/limits";
import type { DocumentFont, DocumentFonts } from "@/contracts/documents";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { FamilyId, StyleId } from "@/contracts/ids";
import { SLANTED_FROM_DEG } from "@/contracts/traits";
import type { FoundFont } from "@/core/documents/found";
import { readStyleWords } from "@/core/documents/fontNames";
import type { FindIndex, FindRow } from "@/core/find/findIndex";
import { squash } from "@/core/find/nameIndex";
import { fullNameRows } from "@/core/find/predicates";
import { dataFolder, type Db } from "../db/open";
import type { NearReply } from "../workers/identify.worker";
import { nearFacesInWorker, readDocumentInWorker, takeDocumentPictureInWorker } from "../workers/pool";
import { lastSignatureVersion } from "../queries/signatures";
import { getRows } from "./findings";

/** Fonts of one document that are answered; a page that names more is made to tire. */
const MAX_FONTS = 300;

/** @param name - the file's, for its error. */
export async function listDocumentFonts(
  db: Db,
  name: string,
  bytes: Uint8Array,
  signal?: AbortSignal,
): Promise<Outcome<DocumentFonts>> {
  const say = (code: Parameters<typeof refuse>[0]) => refuse(code, `${name}: ${refuse(code).message}`);
  if (!bytes.length) return say("document-empty");
  if (bytes.length > MAX_DOCUMENT_BYTES) return say("document-too-large");
  const started = Date.now();
  const reply = await readDocumentInWorker({ name, bytes }, signal);
  if (!reply.ok) return say(reply.code);
  const fonts = reply.fonts.slice(0, MAX_FONTS);
  const near = await nearFacesInWorker(
    {
      near: fonts.map(({ signature, advancesEm }) => ({ signature, advancesEm })),
      dataFolder: dataFolder(),
      version: lastSignatureVersion(db),
    },
    signal,
  );
  if (!near.ok) return say(near.code === "busy" || near.code === "let-go" ? near.code : "document-too-long");
  const { index, findRow } = getRows(db);
  return succeed({
    kind: reply.kind,
    name,
    fonts: fonts.map((font, i) => answerTo(font, near.value[i]!, index, findRow)),
    pictures: reply.pictures,
    tookMs: Date.now() - started,
  });
}

/** One picture of a document. @param at - its place in the list of its pictures. */
export async function readDocumentPicture(
  { name, bytes }: { name: string; bytes: Uint8Array },
  at: number,
  signal?: AbortSignal,
): Promise<Outcome<{ picture: Uint8Array; type: string }>> {
  if (bytes.length > MAX_DOCUMENT_BYTES) return refuse("document-too-large");
  const reply = await takeDocumentPictureInWorker({ name, bytes, at }, signal);
  return reply.ok ? succeed(reply) : refuse(reply.code, `${name}: ${refuse(reply.code).message}`);
}

function answerTo(
  font: FoundFont,
  near: NearReply[number],
  index: FindIndex,
  findRow: (styleId: string) => FindRow | null,
): DocumentFont {
  const same = near.faces.filter((f) => f.isSame).flatMap((f) => findRow(f.styleId) ?? []);
  const named = byName(font, index);
  // Several styles may have the same letters: then the name tells which.
  const match = same.find((r) => r.styleId === named?.row.styleId) ?? same[0] ?? named?.row;
  const matchedBy = !match ? undefined : same.includes(match) ? "outlines" : named!.by;
  return {
    name: font.name,
    ...(font.family && { family: font.family }),
    ...(font.style && { style: font.style }),
    embedded: font.embedded,
    subset: font.subset,
    ...(font.usedFor && { usedFor: font.usedFor }),
    ...(font.characters && { sample: font.characters }),
    ...(match && { styleId: match.styleId as StyleId, familyId: match.familyId as FamilyId, matchedBy }),
    ...((!match || matchedBy === "family") &&
      near.faces.length > 0 && { alike: nearest(near, findRow), alikeBy: near.by }),
  };
}

const SHOWN_ALIKE = 4;
/** One style per family, its nearest. */
function nearest(
  { faces }: NearReply[number],
  findRow: (styleId: string) => FindRow | null,
): NonNullable<DocumentFont["alike"]> {
  const seen = new Set<string>();
  return faces
    .flatMap(({ styleId, steps }) => {
      const row = findRow(styleId);
      if (!row || seen.has(row.familyId)) return [];
      seen.add(row.familyId);
      return [
        {
          styleId: row.styleId as StyleId,
          familyId: row.familyId as FamilyId,
          family: row.family,
          style: row.style,
          steps: Number(steps.toFixed(2)),
        },
      ];
    })
    .slice(0, SHOWN_ALIKE);
}

/** The style of exactly this name, or of the family of this name the one whose weight and slant the style's words tell. */
function byName({ name, family, style }: FoundFont, index: FindIndex): { row: FindRow; by: "name" | "family" } | null {
  const bare = squash(name.replace(/^[A-Z]{6}\+/, ""));
  const asked = family ? squash(`${family}${style ?? ""}`) : bare;
  for (const full of [asked, bare, `${asked}regular`]) {
    const [row] = fullNameRows(index, full);
    if (row !== undefined) return { row: index.rows[row]!, by: "name" };
  }
  const at = index.names.at.get(squash(family ?? name)) ?? index.names.at.get(bare);
  if (at === undefined) return null;
  const wanted = readStyleWords(style);
  const off = (i: number) => {
    const { traits } = index.rows[i]!;
    const isSlanted = Math.abs(traits.slantDeg ?? 0) > SLANTED_FROM_DEG;
    return Math.abs((traits.weight ?? 400) - wanted.weight) + (isSlanted === wanted.isSlanted ? 0 : 1000);
  };
  const best = index.families[at]!.rows.reduce((a, b) => (off(b) < off(a) ? b : a));
  const row = index.rows[best]!;
  // A variable font holds what lies between its ends; so near a weight is the one that was meant.
  const reach = row.reach?.weight;
  const isThere =
    off(best) < 60 ||
    (off(best) < 1000 && reach !== undefined && wanted.weight >= reach[0] - 30 && wanted.weight <= reach[1] + 30);
  return { row, by: isThere ? "name" : "family" };
}
