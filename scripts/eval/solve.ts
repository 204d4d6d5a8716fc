// One thread of the evaluation: asks about pictures as the server does, and says how near the answers came.
import sharp from "sharp";
import { identifyPicture } from "../../src/core/identify/identifyPicture";
import { readPicture } from "../../src/core/picture/readPicture";
import { readText } from "../../src/server/jobs/readText";
import { indexOf, readEvalStyles } from "./library";
import type { Condition, EvalPicture, Renderer } from "./pictures";

export type Mode = "given" | "unread";
export type Answered = {
  condition: Condition;
  renderer: Renderer;
  mode: Mode;
  file: string;
  text: string;
  read: string;
  isReadRight: boolean;
  isOcrRight: boolean;
  styleId: string;
  heldOut: boolean;
  /** Place of the right family among those named, 0 = first; −1 when it is not there. */
  familyRank: number;
  styleRank: number;
  /** The face named first cannot be told from the right one. */
  isTwinFirst: boolean;
  familyChance: number;
  noneChance: number;
  ms: number;
  note: string;
};

/** @param without - families that are taken out of the index, so that the right answer is "none". */
export async function answerPictures(
  { pictures, modes, fonts, without }: { pictures: EvalPicture[]; modes: Mode[]; fonts: string; without: string[] },
  say: (a: Answered) => void,
): Promise<void> {
  const { styles } = await readEvalStyles(fonts);
  const library = indexOf(styles.filter((s) => !without.includes(s.family)));
  for (const p of pictures)
    for (const mode of modes) {
      const { data, info } = await sharp(p.file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      const rgba = new Uint8Array(data.buffer, data.byteOffset, data.length);
      const started = performance.now();
      const lines = readPicture({ widthPx: info.width, heightPx: info.height, rgba }, p.at ? { box: p.at } : {});
      const line = lines?.plain;
      let read = p.text;
      if (mode === "unread" && line) {
        const { widthPx, heightPx, ink } = line.strip;
        const grey = Buffer.from(Uint8Array.from(ink, (v) => 255 - Math.round(v * 255)));
        read = (
          await readText(
            await sharp(grey, { raw: { width: widthPx, height: heightPx, channels: 1 } })
              .png()
              .toBuffer(),
          )
        ).text;
      }
      const result = lines && read ? identifyPicture(lines, read, library.index, library.load, 20) : null;
      const ms = performance.now() - started;
      const matches = result?.matches ?? [];
      const families = [...new Set(matches.map((m) => m.family))];
      const [first] = matches;
      say({
        condition: p.condition,
        renderer: p.renderer,
        mode,
        file: p.file,
        text: p.text,
        read,
        isReadRight: read.replace(/\s/g, "") === p.text.replace(/\s/g, ""),
        isOcrRight: read.replace(/\s/g, "") === p.text.replace(/\s/g, ""),
        styleId: p.styleId,
        heldOut: p.heldOut,
        familyRank: families.indexOf(p.family),
        styleRank: matches.findIndex((m) => m.styleId === p.styleId),
        isTwinFirst: false,
        familyChance: first ? matches.filter((m) => m.family === first.family).reduce((s, m) => s + m.chance, 0) : 0,
        noneChance: result?.noneChance ?? 1,
        ms,
        note: `${result?.line.reading} cuts ${result?.line.letters.length}/${p.text.replace(/\s/g, "").length} first ${first?.styleId} ${first?.score.toFixed(3)} right ${matches.find((m) => m.family === p.family)?.score.toFixed(3)}`,
      });
    }
}
