// Takes files in, each with its line: what imports, syncs and deliveries share. A font's line and its row are written in one
// transaction, so that a job that is ended at any moment goes on where it was. A file that breaks its reader has its line; the others
// are read.
import pLimit from "p-limit";
import { FaultError, sentenceOf, type ArchiveFaultCode, type FaultCode } from "@/contracts/errors";
import type { ImportItem } from "@/contracts/jobs";
import type { Evidence } from "@/contracts/rights";
import type { StyleId } from "@/contracts/ids";
import { MAX_FONT_BYTES, sniffFormat, splitCollection } from "@/core/open/container";
import { FontFileError } from "@/core/open/fontFileError";
import { faultOfDisk } from "../db/diskFaults";
import { getDb } from "../db/open";
import { isStored, sha256Of, storeFile } from "../db/fileStore";
import { openArchive, type OpenArchive } from "../intake/archive";
import { evidenceFor, MAX_TEXT_BYTES, type FoundText } from "../intake/evidence";
import { isSystemJunk, isUnreadTerms, sortByName, sortFile } from "../intake/sort";
import { listImportItems, putImportItem } from "../queries/jobs";
import { listParts } from "../queries/parts";
import { isReadFirst } from "../queries/stages";
import { findStyle, findStyleBySha, putProvenance } from "../queries/styles";
import { rereadRights } from "../store/rightsOfStyle";
import type { Taken } from "../store/storeReading";
import { hasStyleFor, takeFont, takeOpened } from "../store/takeFont";
import { readFontInWorker, readTermsInWorker, readToImportInWorker } from "../workers/pool";
import type { JobContext } from "../queue/queue";

/** Richer formats first. */
const FORMAT_ORDER = [/\.otf$/i, /\.ttf$/i, /\.(ttc|otc)$/i, /\.woff2$/i, /\.woff$/i];
const orderOf = (path: string) => {
  const found = FORMAT_ORDER.findIndex((f) => f.test(path));
  return found < 0 ? FORMAT_ORDER.length : found;
};
/** Fonts read at the same time. */
const AT_ONCE = 3;

/** What one upload or one publication may hold, over all archives in archives. */
const IMPORT_BUDGET = { entries: 5_000, bytes: 1024 * 1024 * 1024 };

/** One file that was seen: where, and how to get its bytes when its turn comes. */
type Seen = {
  path: string;
  read: () => Promise<{ ok: true; value: Uint8Array } | { ok: false; code: FaultCode }>;
};

/** Writes what was read, when its turn comes. */
type Commit = () => void | Promise<void>;
type Progress = JobContext["progress"];

type ImportSettings = {
  jobId: string;
  libraryId: string;
  signal: AbortSignal;
  progress?: Progress;
  /** What the library itself says of all that comes in. */
  stated?: Evidence[];
  /** Lines that the job has already, where many runs of one job share them. */
  known?: Map<string, ImportItem>;
  /** The family as the library states it. */
  statedFamily?: string | null;
  /** Only what the wall needs is read: the other stages follow in a job of their own. */
  isFirst?: boolean;
  /** What may be one part of a face whose other files come later is left for another run: `hasWaiting` says so. */
  leavesParts?: boolean;
};

/** Lines that a job has written before a restart. */
export const linesOf = (jobId: string) => new Map(listImportItems(getDb(), jobId).map((i) => [i.path, i]));

/** One font at a time is compared with what is there and written, whoever reads: of two with the same letters the second finds the first. */
const oneByOne = pLimit(1);

export class ImportRun {
  private readonly db = getDb();
  private readonly known: Map<string, ImportItem>;
  /** Styles that came in or were there, in the order they were met. */
  readonly styleIds: StyleId[] = [];
  /** Whether files were left for another run (`leavesParts`). */
  hasWaiting = false;
  /** Lines of what was refused. */
  readonly refusals: ImportItem[] = [];
  private total = 0;
  private readonly left = { ...IMPORT_BUDGET };

  private readonly jobId: string;
  private readonly libraryId: string;
  private readonly signal: AbortSignal;
  private readonly progress: Progress;
  private readonly stated: Evidence[];
  private readonly isFirst: boolean;
  private readonly statedFamily: string | null;
  private readonly leavesParts: boolean;
  /** Files that may be parts of faces and whose style is not there yet. */
  private waiting: Seen[] = [];

  constructor({
    jobId,
    libraryId,
    signal,
    progress = () => {},
    stated = [],
    known,
    statedFamily = null,
    isFirst = false,
    leavesParts = false,
  }: ImportSettings) {
    this.jobId = jobId;
    this.libraryId = libraryId;
    this.signal = signal;
    this.progress = progress;
    this.stated = stated;
    this.isFirst = isFirst;
    this.statedFamily = statedFamily;
    this.leavesParts = leavesParts;
    this.known = known ?? linesOf(jobId);
  }

  /** Files that came together: their texts are read first, since they speak for the fonts beside them. */
  async group(files: Seen[], around: FoundText[] = []): Promise<FoundText[]> {
    this.total += files.length;
    this.tell();
    const texts = [...around, ...(await this.readTexts(files))];
    // Richer formats first: of a pair the richer file is stored before the other is compared with it. Some are read ahead, yet lines
    // and rows are written in this order whatever is read first, so that the same files always give the same report.
    const ordered = [...files].sort((x, y) => orderOf(x.path) - orderOf(y.path)).filter((f) => !this.isDone(f.path));
    await this.readAll(ordered, texts, true);
    // Main parts are there now.
    if (this.leavesParts) this.hasWaiting ||= this.waiting.length > 0;
    else await this.readAll(this.waiting, texts, false);
    this.waiting = [];
    return texts;
  }

  /** @param waits - what may be one part of a face waits until the others were read. */
  private async readAll(files: Seen[], texts: FoundText[], waits: boolean) {
    const ahead: Promise<Commit>[] = [];
    const writeNext = async () => {
      const commit = await ahead.shift()!;
      if (!this.signal.aborted) await oneByOne(commit);
    };
    for (const f of files) {
      if (this.signal.aborted) break;
      ahead.push(this.readSafely(f, texts, waits));
      if (ahead.length >= AT_ONCE) await writeNext();
    }
    while (ahead.length) await writeNext();
  }

  /** @param around - texts of the archive that this one lies in: they speak for its fonts too. */
  async archive(name: string, source: string | Uint8Array, around: FoundText[] | null = null) {
    const opened = await openArchive(source);
    if (!opened.ok) return this.put(refusedArchive(name, opened.code, opened.details));
    try {
      const { entries } = opened.value;
      this.left.entries -= entries.length;
      this.left.bytes -= entries.reduce((sum, e) => sum + e.bytes, 0);
      if (this.left.entries < 0) return this.put(refusedArchive(name, "archive-too-many"));
      if (this.left.bytes < 0) return this.put(refusedArchive(name, "archive-too-large"));
      const texts = await this.group(seenIn(opened.value, name), around ?? []);
      if (around === null)
        for (const entry of entries.filter((e) => sortByName(e.path) === "archive")) {
          const path = `${name}/${entry.path}`;
          if (this.signal.aborted || this.known.has(path)) continue;
          const bytes = await opened.value.read(entry);
          if (bytes.ok) await this.archive(path, bytes.value, texts);
          else this.put(refusedArchive(path, bytes.code));
        }
    } finally {
      opened.value.close();
    }
  }

  private async readTexts(files: Seen[]): Promise<FoundText[]> {
    const date = new Date().toISOString();
    const texts: FoundText[] = [];
    for (const f of files.filter((x) => sortByName(x.path) === "evidence" && !isSystemJunk(x.path))) {
      const bytes = await f.read();
      if (!bytes.ok || !bytes.value.length || sortFile(f.path, bytes.value) !== "evidence") continue;
      const cut = bytes.value.slice(0, MAX_TEXT_BYTES);
      const read = await readTermsInWorker({ what: "texts", files: [{ path: f.path, bytes: cut }], date });
      if (read)
        texts.push(...read.map((t) => ({ ...t, evidence: { ...t.evidence, cameWith: this.cameWith(f.path) } })));
    }
    return texts;
  }

  /** What a file came with: its archive or first folder, or the upload itself. */
  private cameWith(path: string): string {
    const slash = path.indexOf("/");
    return `${this.libraryId}: ${slash < 0 ? this.jobId : path.slice(0, slash)}`;
  }

  /** Whatever goes wrong over one file is that file's line. A full disk is the whole job's. */
  private async readSafely(f: Seen, texts: FoundText[], waits: boolean): Promise<Commit> {
    const failed = (error: unknown) => {
      if (faultOfDisk(error)) throw error;
      console.error(`${f.path}:`, error);
      const code = error instanceof FaultError ? error.code : "reader-failed";
      this.put({
        name: nameOf(f.path),
        path: f.path,
        outcome: "refused",
        code,
        reason: reasonOf(nameOf(f.path), code),
      });
    };
    try {
      const commit = await this.read(f, texts, waits);
      return async () => {
        try {
          await commit();
        } catch (error) {
          failed(error);
        }
      };
    } catch (error) {
      return () => failed(error);
    }
  }

  /** Reads one file. @returns what writes its line, and its row, when its turn comes. */
  private async read(f: Seen, texts: FoundText[], waits: boolean): Promise<Commit> {
    const name = nameOf(f.path);
    const say =
      (code: FaultCode, outcome: ImportItem["outcome"] = "refused", detail?: string) =>
      () =>
        this.put({ name, path: f.path, outcome, code, reason: reasonOf(name, code, detail) });
    if (isSystemJunk(f.path)) return say("system-junk", "ignored");
    const byName = sortByName(f.path);
    if (byName === "archive") return this.isNested(f.path) ? say("archive-nested", "ignored") : () => {};
    if (byName === "junk") return say(isUnreadTerms(f.path) ? "evidence-unread" : "not-for-us", "ignored");
    // Its text was read before the fonts; it is not unpacked again.
    if (texts.some((t) => t.path === f.path)) return say("evidence", "ignored");
    const bytes = await f.read();
    if (!bytes.ok) return say(bytes.code);
    if (!bytes.value.length) return say("empty-file");
    const sort = sortFile(f.path, bytes.value);
    if (sort === "evidence") return say("evidence", "ignored");
    if (sort !== "font") return say("not-for-us", "ignored");
    if (bytes.value.length > MAX_FONT_BYTES * (sniffFormat(bytes.value) === "ttc" ? 4 : 1)) return say("too-large");
    const evidence = [...evidenceFor(f.path, texts), ...this.stated];
    if (sniffFormat(bytes.value) !== "ttc") return this.readFont(f.path, bytes.value, evidence, waits ? f : null);
    try {
      const members = splitCollection(bytes.value);
      const commits: Commit[] = [];
      for (const [i, member] of members.entries())
        if (!this.isDone(`${f.path}#${i + 1}`))
          commits.push(await this.readFont(`${f.path}#${i + 1}`, member, evidence));
      return async () => {
        this.total += members.length - 1;
        for (const commit of commits) await commit();
      };
    } catch (error) {
      if (!(error instanceof FontFileError)) throw error;
      return say(error.code, "refused", error.message);
    }
  }

  /** A zip in a zip in a zip: two archives' names stand before it. */
  private isNested = (path: string) => path.split("/").filter((part) => /\.zip$/i.test(part)).length > 2;

  /** @param mayWait - the file, where it may wait for the style that it is a part of. */
  private async readFont(
    path: string,
    bytes: Uint8Array,
    evidence: Evidence[],
    mayWait: Seen | null = null,
  ): Promise<Commit> {
    const name = nameOf(path);
    const sha256 = sha256Of(bytes);
    if (this.findSame(sha256)) return () => this.putSame(path, sha256, bytes, evidence);
    const fallbackFamily = name.replace(/\.[a-z0-9]{1,8}(#\d+)?$/i, "");
    const refuse = ({ code, detail }: { code: FaultCode; detail: string }) =>
      this.put({ name, path, outcome: "refused", code, reason: reasonOf(name, code, detail) });
    const putLine = (taken: Taken) =>
      this.put({
        name,
        path,
        outcome: taken.outcome,
        styleId: taken.styleId,
        ...(taken.code && { code: taken.code, reason: reasonOf(name, taken.code, taken.as) }),
      });
    const source = { libraryId: this.libraryId, path, statedFamily: this.statedFamily, evidence };
    const request = { bytes, fallbackFamily, isFirst: this.isFirst };
    const read = (mayBePart: boolean) => readToImportInWorker({ ...request, mayBePart }, this.signal);
    const reply = await read(true);
    if (!reply.ok) return () => refuse(reply);
    const isAlone = reply.isOpenedOnly && !mayWait && !hasStyleFor(this.db, reply.reading, source);
    const ahead = isAlone ? await read(false) : null;
    return async () => {
      // It may have come in while this one was read.
      if (this.findSame(sha256)) return this.putSame(path, sha256, bytes, evidence);
      if (!reply.isOpenedOnly) {
        await takeFont(this.db, bytes, reply.reading, source, putLine);
        return;
      }
      if (await takeOpened(this.db, bytes, reply.reading, source, putLine)) return;
      if (mayWait) {
        this.waiting.push(mayWait);
        return;
      }
      const whole = ahead ?? (await read(false));
      if (!whole.ok) refuse(whole);
      else if (!whole.isOpenedOnly) await takeFont(this.db, bytes, whole.reading, source, putLine);
    };
  }

  /** The style these very bytes belong to, read with the newest methods. */
  private findSame(sha256: string): StyleId | null {
    const known = findStyleBySha(this.db, sha256);
    return known && isReadFirst(this.db, known) ? (known as StyleId) : null;
  }

  private async putSame(path: string, sha256: string, bytes: Uint8Array, evidence: Evidence[]) {
    const styleId = this.findSame(sha256)!;
    const name = nameOf(path);
    // A file that the store lost, or that was changed there, is put right by the same bytes.
    if (!isStored(sha256)) storeFile(bytes);
    await this.mendUnpacked(styleId, bytes);
    this.db.transaction(() => {
      const importedAt = new Date().toISOString();
      putProvenance(this.db, styleId, { library: this.libraryId, path, importedAt, sha256 });
      const reason = reasonOf(name, "same-bytes");
      this.put({ name, path, outcome: "already-there", code: "same-bytes", reason, styleId });
    })();
    await rereadRights(this.db, styleId, evidence);
  }

  /** The bare font of a packed file lies apart: where it is lost, the file is unpacked again. */
  private async mendUnpacked(styleId: StyleId, bytes: Uint8Array) {
    const record = findStyle(this.db, styleId);
    if (!record || [record, ...listParts(this.db, styleId)].every((r) => isStored(r.sfntSha256))) return;
    const reply = await readFontInWorker({ bytes, fallbackFamily: record.family }, this.signal);
    if (reply.ok) storeFile(reply.reading.opened.sfnt);
  }

  /** Whether a file has its line from before a restart; its style counts as met. */
  private isDone(path: string): boolean {
    const item = this.known.get(path);
    if (item?.styleId) this.styleIds.push(item.styleId);
    return item !== undefined;
  }

  private put(item: ImportItem) {
    putImportItem(this.db, this.jobId, item);
    this.known.set(item.path, item);
    if (item.styleId) this.styleIds.push(item.styleId);
    if (item.outcome === "refused") this.refusals.push(item);
    this.tell();
  }
  private tell() {
    this.progress({
      done: Math.min(this.known.size, this.total || this.known.size),
      total: Math.max(this.total, this.known.size),
    });
  }
}

const nameOf = (path: string) => path.split("/").pop() ?? path;
const reasonOf = (name: string, code: FaultCode, detail?: string) =>
  `${name}: ${sentenceOf(code)}${detail ? ` (${detail})` : ""}`;

const refusedArchive = (path: string, code: ArchiveFaultCode, detail?: unknown): ImportItem => ({
  name: nameOf(path),
  path,
  outcome: "refused",
  code,
  reason: reasonOf(nameOf(path), code, typeof detail === "string" ? detail : undefined),
});

const seenIn = (archive: OpenArchive, name: string): Seen[] =>
  archive.entries.map((e) => ({ path: `${name}/${e.path}`, read: () => archive.read(e) }));
