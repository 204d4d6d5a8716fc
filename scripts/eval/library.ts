// The demo library read straight from the packages, for evaluation and fitting without a server.
import { readFileSync } from "node:fs";
import { listDemoFonts } from "../../src/server/libraries/demoPackages";
import { openFont } from "../../src/core/open/openFont";
import { openFace, type OpenFace } from "../../src/core/outlines/openFace";
import { measureLegibility } from "../../src/core/measure/forms";
import { lettersOf } from "../../src/core/measure/letters";
import { SignatureIndex, signFont } from "../../src/core/identify/signature";
import type { EvalStyle } from "./pictures";

export type EvalLibrary = {
  styles: EvalStyle[];
  index: SignatureIndex;
  load: (styleId: string) => OpenFace | null;
  secondsToRead: number;
};

export async function readEvalLibrary(): Promise<EvalLibrary> {
  const styles: EvalStyle[] = [];
  const rows: { id: string; family: string; signature: Uint8Array }[] = [];
  const sfnts = new Map<string, Uint8Array>();
  const started = Date.now();
  for (const entry of listDemoFonts(process.cwd())) {
    const font = await openFont(readFileSync(entry.path));
    const face = openFace(font.sfnt);
    const family = font.family ?? entry.family;
    const styleId = entry.name;
    styles.push({
      styleId,
      family: entry.family,
      name: `${family} ${font.style}`,
      sfnt: font.sfnt,
      has: (c) => font.characters.has(c.codePointAt(0)!),
      picture: (measureLegibility(lettersOf(face)) ?? 0) < 0.42,
    });
    rows.push({ id: styleId, family: entry.family, signature: signFont(face) });
    sfnts.set(styleId, font.sfnt);
  }
  return {
    styles,
    index: SignatureIndex.of(rows),
    load: (id) => {
      const sfnt = sfnts.get(id);
      return sfnt ? openFace(sfnt) : null;
    },
    secondsToRead: (Date.now() - started) / 1000,
  };
}
