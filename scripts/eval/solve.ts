// One thread of the evaluation: asks about pictures as the server does, and says how near the answers came.
import sharp from "sharp";
import type { AnswerEvidence } from "../../src/core/identify/answer/chance";
import { inlineExecutor } from "../../src/core/identify/executor";
import { facesInTurn, fitText, identifyLine } from "../../src/core/identify/identifyLine";
import type { SignatureIndex } from "../../src/core/descriptors/extractDescriptors";
import { partByShape } from "../../src/core/descriptors/leaders";
import { likenessOf } from "../../src/core/descriptors/twins";
import { findAreas } from "../../src/core/picture/areas";
import { readPhotograph } from "../../src/core/picture/readPicture";
import { readWords } from "../../src/core/identify/hypotheses/readShapes";
import { inkNet } from "../../src/server/workers/inkNet";
import { openMovingFace } from "../../src/core/outlines/openFace";
import { relieve } from "../../src/server/workers/relieve";
import { readLetters } from "../../src/server/workers/readText";
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
  familyOfPicture: string;
  heldOut: boolean;
  /** Place of the right family among those named, 0 = first; −1 when it is not there. */
  familyRank: number;
  styleRank: number;
  /** The face named first cannot be told from the right one. */
  isTwinFirst: boolean;
  familyChance: number;
  noneChance: number;
  /** The right family was kept out of the index: the right answer is "none". */
  isAbsent: boolean;
  evidence: AnswerEvidence | null;
  /** Costs and families of the first matches, for fitting. */
  ranked: { cost: number; family: string }[];
  ms: number;
  note: string;
};

/** Families that are kept out of the index when "not in the libraries" is evaluated: two of five, by their name alone. */
export function isKeptAway(family: string): boolean {
  let h = 5381;
  for (const c of family) h = (Math.imul(h, 33) + c.charCodeAt(0)) >>> 0;
  return (h >>> 4) % 5 < 2;
}

/** @property parted - the index is parted by shape, as a large one is. */
export type Slice = { pictures: EvalPicture[]; modes: Mode[]; fonts: string; absent: boolean; parted: boolean };
/** So few to a leader that as small a share of the index is looked at as of a large one. */
const TO_A_LEADER = 10;

/** @param absent - some families are taken out of the index, so that the right answer is "none". */
export async function answerPictures(
  { pictures, modes, fonts, absent, parted }: Slice,
  say: (a: Answered) => void,
): Promise<void> {
  const { styles } = await readEvalStyles(fonts);
  const library = indexOf(styles.filter((s) => !absent || !isKeptAway(s.family)));
  if (parted) library.index.leaders = partByShape(library.index, TO_A_LEADER);
  const executor = inlineExecutor(library.index, library.load);
  const sfntOf = new Map(styles.map((s) => [s.styleId, s.sfnt]));
  const faceIn = facesInTurn((id) => openMovingFace(sfntOf.get(id)!));
  const faceWith = (entry: number, char: string) => {
    const face = faceIn(library.index.ids[entry]!, library.index.coordinates[entry]!);
    return face?.glyphOf(char.codePointAt(0)!) ? face : null;
  };
  for (const p of pictures)
    for (const mode of modes) {
      const { data, info } = await sharp(p.file)
        .toColourspace("srgb")
        .ensureAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      const rgba = new Uint8Array(data.buffer, data.byteOffset, data.length);
      const started = performance.now();
      await library.index.describeMore(p.text, faceWith, relieve);
      await relieve();
      const picture = { widthPx: info.width, heightPx: info.height, rgba };
      const found = p.at ? null : findAreas(picture);
      const box = p.at ?? (found?.isPlain ? undefined : found?.areas[0]);
      const lines = await readPhotograph(picture, box ? { box } : {}, null, inkNet);
      let read = p.text;
      let byReader = p.text;
      if (mode === "unread" && lines)
        ({ text: read, byReader } = await readWords(
          lines,
          library.index,
          (l, t, by) => fitText(l, t, library.index, executor, by),
          readLetters,
        ));
      const result = lines && read ? await identifyLine(lines, read, library.index, executor, 20) : null;
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
        isOcrRight: byReader.replace(/\s/g, "") === p.text.replace(/\s/g, ""),
        styleId: p.styleId,
        familyOfPicture: p.family,
        heldOut: p.heldOut,
        familyRank: families.indexOf(p.family),
        styleRank: matches.findIndex((m) => m.styleId === p.styleId),
        isTwinFirst: isTwin(library.index, first?.styleId, p.styleId, p.text),
        familyChance: first ? matches.filter((m) => m.family === first.family).reduce((s, m) => s + m.chance, 0) : 0,
        noneChance: result?.noneChance ?? 1,
        isAbsent: absent && isKeptAway(p.family),
        evidence: result?.evidence ?? null,
        ranked: matches.map((m) => ({ cost: 1 - m.score, family: m.family })),
        ms,
        note: `${result?.line.reading} cuts ${result?.line.letters.length}/${p.text.replace(/\s/g, "").length} first ${first?.styleId} ${first?.score.toFixed(3)} right ${matches.find((m) => m.family === p.family)?.score.toFixed(3)}`,
      });
    }
}

/** Whether no letter of the text tells two styles apart. */
function isTwin(index: SignatureIndex, a: string | undefined, b: string, text: string): boolean {
  const [i, j] = [a === undefined ? -1 : index.ids.indexOf(a), index.ids.indexOf(b)];
  return i >= 0 && j >= 0 && likenessOf(index, i, j, [...text.replace(/\s/g, "")]).isSameHere;
}
