// Job: a web kit: fonts for the web cut to the characters asked for, the style sheet that loads them, a sample page, licences. What may not
// become a web font is left out with the sentence that says so.
import { FaultError } from "@/contracts/errors";
import type { WebkitRequest } from "@/contracts/webkit";
import { NamesOnce } from "@/core/write/fileNames";
import { writeFontsCss, writeSamplePage, type WebFace } from "@/core/webkit/fontsCss";
import type { WebFont } from "@/core/webkit/makeWebFont";
import { getDb } from "../db/open";
import { findBrief } from "../queries/briefs";
import { findStyle, type StyleRecord } from "../queries/styles";
import type { JobContext } from "../queue/queue";
import { charactersFor, cssLookOf, cutForWeb, refusalForWeb } from "../usecases/webkit";
import { setLines } from "@/core/brief/words";
import { addLicences, startArchive, type Add } from "./archiveFile";

/** A face of the kit: one style, at the place on its axes where it is kept. */
type Chosen = { record: StyleRecord; location: Record<string, number>; features: Record<string, number> };

export async function makeWebkit({ job, signal, progress }: JobContext): Promise<void> {
  const { briefId, request } = JSON.parse(job.payload) as { briefId: string; request: WebkitRequest };
  const db = getDb();
  const brief = findBrief(db, briefId);
  if (!brief) throw new FaultError("not-found");
  const characters = charactersFor(request.characters, brief);
  if (!characters.ok) throw new FaultError(characters.code);
  const chosen = request.styleIds.flatMap((styleId): Chosen[] => {
    const record = findStyle(db, styleId);
    if (!record) return [];
    const kept = brief.kept.find((k) => k.styleId === styleId);
    return [{ record, location: kept?.location ?? {}, features: kept?.features ?? {} }];
  });
  const total = chosen.length + 1;
  progress({ total, done: 0 });
  const archive = startArchive();
  const [notes, faces, inside]: [string[], WebFace[], StyleRecord[]] = [[], [], []];
  const names = new NamesOnce();
  for (const [i, one] of chosen.entries()) {
    if (signal.aborted) return;
    const name = `${one.record.family} ${one.record.style}`;
    const { says, quote } = refusalForWeb(one.record);
    if (says !== null) notes.push(`Left out: ${name}. ${says}${quote ? ` Its terms say: “${quote}”` : ""}`);
    else {
      const made = await makeFace(one, request, characters.value, `Kit ${i + 1}`, signal);
      if (made.ok) {
        faces.push(addFace(one, request, made.fonts, names.take(name), archive.add));
        inside.push(one.record);
      }
      notes.push(...made.notes.map((note) => (made.ok ? `${name}: ${note}` : `Left out: ${name}. ${note}`)));
    }
    progress({ done: i + 1, total });
  }
  if (!faces.length) throw new FaultError("not-for-web", notes.join(" "));
  archive.add("fonts.css", writeFontsCss(brief.name, faces));
  archive.add("sample.html", writeSamplePage(brief.name, setLines(brief), faces));
  addLicences(
    inside.map((record) => ({ record })),
    archive.add,
  );
  if (notes.length) archive.add("notes.txt", `${notes.join("\n")}\n`);
  if (signal.aborted) return;
  const filePath = await archive.finish("webkit", job.jobId);
  const leftOut = notes.filter((note) => note.startsWith("Left out:"));
  const told = leftOut.length < notes.length ? "; notes.txt says what is particular about some" : "";
  const message = [`${faces.length} ${faces.length === 1 ? "face" : "faces"} inside${told}`, ...leftOut].join(". ");
  progress({ done: total, total, filePath, message });
}

type Made = { ok: true; fonts: WebFont[]; notes: string[] } | { ok: false; notes: string[] };

async function makeFace(
  { record, location }: Chosen,
  request: WebkitRequest,
  codePoints: number[] | null,
  calledInside: string,
  signal: AbortSignal,
): Promise<Made> {
  const notes: string[] = [];
  const { isWhole, reserved, fonts } = await cutForWeb(
    record,
    {
      codePoints,
      held: request.hold ? heldAt(record, location) : {},
      formats: request.formats,
      calledInside,
    },
    signal,
  );
  if (isWhole && codePoints)
    notes.push("It states that it may not be cut (fsType), so it is in the kit with all its characters.");
  if (reserved)
    notes.push(
      `Its licence reserves the name “${reserved}” for the unchanged font: the cut one is called “${calledInside}” inside. Pages go on using its own name.`,
    );
  if (!fonts.ok) return { ok: false, notes: [fonts.message] };
  if (!fonts.value.length) return { ok: false, notes: ["It has none of these characters."] };
  const has = new Set(fonts.value.flatMap((f) => f.codePoints));
  const lacking = (codePoints ?? []).filter((c) => !has.has(c)).map((c) => String.fromCodePoint(c));
  if (lacking.length) notes.push(`It lacks ${lacking.slice(0, 40).join(" ")}${lacking.length > 40 ? " …" : ""}`);
  return { ok: true, fonts: fonts.value, notes };
}

/** Every axis at a value: where the face is kept, else at its default. */
const heldAt = (record: StyleRecord, location: Record<string, number>): Record<string, number> =>
  Object.fromEntries(record.axes.map((a) => [a.tag, location[a.tag] ?? a.default]));

function addFace(
  { record, location, features }: Chosen,
  request: WebkitRequest,
  fonts: WebFont[],
  name: string,
  add: Add,
): WebFace {
  const slug = name.replaceAll(/\s+/g, "-");
  const files = fonts.map((font, k) => {
    const paths: WebFace["files"][number]["paths"] = {};
    for (const format of request.formats) {
      const bytes = font.files[format];
      if (!bytes) continue;
      paths[format] = `fonts/${slug}${k ? `-${k + 1}` : ""}.${format}`;
      add(paths[format], bytes);
    }
    return { codePoints: font.codePoints, paths };
  });
  const axisOf = (tag: string) => (request.hold ? undefined : record.axes.find((a) => a.tag === tag));
  const [weight, width] = [axisOf("wght"), axisOf("wdth")];
  const look = cssLookOf(record, location);
  return {
    family: record.family,
    style: record.style,
    ...look,
    weight: weight ? [weight.min, weight.max] : look.weight,
    stretch: width ? [width.min, width.max] : null,
    metrics: fonts[0]!.metrics,
    files,
    variation: request.hold ? {} : location,
    features,
  };
}
