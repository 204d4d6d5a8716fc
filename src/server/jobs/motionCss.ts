// The archive of a motion in CSS: page, style sheet, the web fonts cut to its letters, their licences.
import { FaultError } from "@/contracts/errors";
import { NamesOnce } from "@/core/write/fileNames";
import { getDb } from "../db/open";
import { findStyle } from "../queries/styles";
import type { MotionPayload } from "../queue/payloads";
import { charactersOfText, cutForWeb } from "../usecases/webkit";
import { askMotion } from "../workers/pool";
import type { CssFont } from "../workers/motion.worker";
import { addLicences, startArchive } from "./archiveFile";

type About = MotionPayload & { fonts: Record<string, string[]> };

export async function writeCssArchive(about: About, jobId: string, signal: AbortSignal): Promise<void> {
  const { document } = about;
  const archive = startArchive();
  const faces: CssFont[] = [];
  const records = [];
  const names = new NamesOnce();
  for (const styleId of new Set(document.blocks.map((b) => b.styleId))) {
    const record = findStyle(getDb(), styleId);
    if (!record) throw new FaultError("not-found");
    records.push({ record });
    const text = document.blocks
      .filter((b) => b.styleId === styleId)
      .map((b) => b.text)
      .join("");
    const asked = {
      codePoints: charactersOfText(text),
      held: {},
      formats: ["woff2" as const],
      calledInside: `Title ${records.length}`,
    };
    const { fonts: made } = await cutForWeb(record, asked, signal);
    if (signal.aborted) return;
    if (!made.ok) throw new FaultError(made.code, made.message);
    const rest = Object.fromEntries(record.axes.map((a) => [a.tag, a.default]));
    for (const font of made.value) {
      const path = `fonts/${names.take(`${record.family} ${record.style}`).replaceAll(/\s+/g, "-")}.woff2`;
      archive.add(path, font.files.woff2!);
      faces.push({ styleId, rest, codePoints: font.codePoints, family: `title-${faces.length + 1}`, file: path });
    }
  }
  const written = await askMotion({ what: "css", ...about, faces }, signal);
  if (signal.aborted) return;
  if (!written.ok) throw new FaultError(written.code, written.message);
  archive.add("index.html", written.value.html);
  archive.add("title.css", written.value.css);
  addLicences(records, archive.add);
  await archive.finish("motion", jobId);
}
