// The stand-in for an editing program: a folder that it watches, a project of one rate and size, fonts that it knew when it was started. It
// takes a clip as such a program would, or says why it cannot.
import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync } from "node:fs";
import { basename, join } from "node:path";
import type { ClipReport, CuttingRoom as Room } from "../../src/contracts/cuttingRoom";
import { openFont } from "../../src/core/open/openFont";
import { readFrames, readHead, type Refusal } from "./readFrames";
import { readMp4, readWebm } from "./readVideo";

type Read = Pick<ClipReport, "kind" | "widthPx" | "heightPx" | "frames" | "fps" | "durationMs" | "hasAlpha" | "codec">;
type Taken = ({ ok: true } & Read) | Refusal;
const no = (code: string, message: string): Refusal => ({ ok: false, code, message });

const CLIPS_KEPT = 50;
const MOST_BYTES = 2_000_000_000;
/** Rates are the same to within this: 23.976 is told with three digits. */
const NEAR_FPS = 0.01;

export class CuttingRoom {
  private project = { name: "Bench 2", fps: 25, widthPx: 1920, heightPx: 1080 };
  private clips: ClipReport[] = [];
  private known: string[] = [];
  private readonly clipsFolder: string;
  private readonly fontsFolder: string;

  constructor(folder: string) {
    this.clipsFolder = join(folder, "clips");
    this.fontsFolder = join(folder, "fonts");
    for (const path of [this.clipsFolder, this.fontsFolder]) mkdirSync(path, { recursive: true });
  }

  about = (): Room => ({ ...this.project, folder: this.clipsFolder, fonts: this.known, clips: this.clips });
  set = (project: Partial<typeof this.project>) => (this.project = { ...this.project, ...project });

  /** Fonts are read once, when the program starts. */
  async start() {
    const files = existsSync(this.fontsFolder) ? readdirSync(this.fontsFolder) : [];
    const families = await Promise.all(
      files.map(async (file) => {
        try {
          return (await openFont(new Uint8Array(readFileSync(join(this.fontsFolder, file))))).family ?? [];
        } catch {
          return [];
        }
      }),
    );
    this.known = [...new Set(families.flat())];
  }

  /** @param name - of what was laid into the folder. @param fonts - families that its text is set in. */
  async take(name: string, fonts: readonly string[]): Promise<ClipReport> {
    const read = await this.read(name);
    const missingFonts = fonts.filter((family) => !this.known.includes(family));
    const nothing = {
      kind: null,
      widthPx: null,
      heightPx: null,
      frames: null,
      fps: null,
      durationMs: null,
      hasAlpha: null,
      codec: null,
    };
    const base = { clipId: `c_${randomBytes(6).toString("hex")}`, name, missingFonts };
    const report: ClipReport = read.ok
      ? { ...base, ...factsOf(read), isTaken: true, code: null, message: "Taken in." }
      : { ...base, ...nothing, isTaken: false, code: read.code, message: read.message };
    this.clips = [report, ...this.clips.filter((c) => c.name !== name)].slice(0, CLIPS_KEPT);
    return report;
  }

  private async read(name: string): Promise<Taken> {
    if (basename(name) !== name || name.startsWith(".")) return no("wrong-name", "That is no name of a clip.");
    const path = join(this.clipsFolder, name);
    if (!existsSync(path)) return no("not-there", `“${name}” does not lie in the folder.`);
    if (statSync(path).isDirectory()) return this.fits({ kind: "frames", codec: "png" }, readFrames(path));
    if (statSync(path).size > MOST_BYTES) return no("too-large", `“${name}” is larger than two gigabytes.`);
    const bytes = readFileSync(path);
    const extension = name.split(".").pop()!.toLowerCase();
    if (extension === "webm" || extension === "mp4") {
      const film = extension === "webm" ? readWebm(bytes) : await readMp4(bytes);
      return film
        ? this.fits({ kind: "video" }, { ok: true, ...film })
        : no("unread", `“${name}” is no film that can be read.`);
    }
    if (extension !== "png" && extension !== "apng")
      return no("unknown-form", `Clips are WebM, MP4, PNG or folders of frames; “${name}” is none of them.`);
    const head = readHead(bytes);
    if (!head) return no("unread", `“${name}” is no picture that can be read.`);
    const control = bytes.indexOf("acTL");
    const frames = control > 0 ? bytes.readUInt32BE(control + 4) : 1;
    return { ok: true, kind: "picture", codec: "png", ...head, frames, fps: null, durationMs: null };
  }

  /** A clip of another rate would run too fast or too slow: it is not taken. */
  private fits(
    base: Pick<Read, "kind"> & Partial<Read>,
    read:
      | ({
          ok: true;
          widthPx: number;
          heightPx: number;
          frames: number;
          fps: number | null;
          hasAlpha: boolean;
        } & Partial<Read>)
      | Refusal,
  ): Taken {
    if (!read.ok) return read;
    const { fps } = this.project;
    if (read.fps !== null && Math.abs(read.fps - fps) > NEAR_FPS)
      return no(
        "other-rate",
        `The project runs at ${fps} frames a second, the clip at ${Number(read.fps.toFixed(3))}.`,
      );
    const durationMs = read.durationMs ?? (read.frames * 1000) / (read.fps ?? fps);
    return { codec: null, ...base, ...read, durationMs };
  }
}

const factsOf = ({ kind, widthPx, heightPx, frames, fps, durationMs, hasAlpha, codec }: Read): Read => ({
  ...{ kind, widthPx, heightPx, frames, fps, durationMs, hasAlpha, codec },
});
