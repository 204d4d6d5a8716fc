// Draws every family and writes the fonts with their true parameters beside them: what the stand-in libraries offer.
// node scripts/runScript.mjs demo/foundry/build.ts [folder]. Same input, same bytes.
import { mkdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Design } from "./design";
import { drawFace, type Face } from "./face";
import { FAMILIES, type FamilyPlan, type StylePlan } from "./families";
import { drawPictures, drawScript } from "./specialFaces";
import { drawVariable } from "./variableFace";
import type { FontFacts } from "./write/tables";
import { writeOpenType, writeTrueType, writeVariable } from "./write/writeFont";

/** The true parameters of one style: lengths in em, angles in degrees. Null where the face has no such thing. */
export type Truth = {
  family: string;
  style: string;
  library: FamilyPlan["library"];
  stemEm: number | null;
  widthEm: number | null;
  slantDeg: number | null;
  xHeightEm: number | null;
  capHeightEm: number | null;
  serif: boolean | null;
  connected: boolean;
  monospaced: boolean;
  picture: boolean;
  treatment: Design["treatment"] | null;
};

/** Characters of a trial font: enough to judge and to measure by, too few to work with. */
export const TRIAL_CHARACTERS = " HAMBURGEFONSTIVhamburgefonstivcdlpqxy";

export const slugOf = (name: string) =>
  name
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
export const fileNameOf = (family: string, style: string) => `${family.replace(/\s/g, "")}-${style.replace(/\s/g, "")}`;

const factsOf = (plan: FamilyPlan, { style, weightClass, widthClass, design }: StylePlan): FontFacts => ({
  family: plan.family,
  style,
  weightClass,
  widthClass,
  slantDeg: design.slantDeg,
  ascender: Math.max(design.ascender + 180, 900),
  descender: Math.min(design.descender - 30, -220),
  xHeight: design.xHeight,
  capHeight: design.capHeight,
  isMonospaced: Boolean(design.monospaced),
  fsType: plan.fsType,
  manufacturer: plan.maker,
  designer: plan.designer,
  version: "1.100",
  vendor: plan.vendor,
  ...(plan.copyright && { copyright: plan.copyright }),
  ...(plan.licence && { licence: plan.licence }),
  ...(plan.licenceUrl && { licenceUrl: plan.licenceUrl }),
});

/** Draws one style. @param characters - for a trial font; all when absent. */
export function drawStyle(plan: FamilyPlan, s: StylePlan, characters?: string): Face {
  const options = { ...s.options, ...(characters && { characters }) };
  if (plan.draws === "script") return drawScript(s.design, options);
  if (plan.draws === "letters" || plan.draws === "variable") return drawFace(s.design, options);
  return drawPictures(plan.draws, s.design);
}

const isPicture = (plan: FamilyPlan) => ["sea", "rail", "weather"].includes(plan.draws);

function truthOf(plan: FamilyPlan, { style, design }: StylePlan, face: Face): Truth {
  const picture = isPicture(plan);
  const letters = <T>(value: T) => (picture ? null : value);
  return {
    family: plan.family,
    style,
    library: plan.library,
    stemEm: letters(design.stem / 1000),
    widthEm: letters(face.meanAdvance / 1000),
    slantDeg: letters(design.slantDeg),
    xHeightEm: letters(design.xHeight / 1000),
    capHeightEm: letters(design.capHeight / 1000),
    serif: letters(design.serif !== "none"),
    connected: plan.draws === "script",
    monospaced: Boolean(design.monospaced),
    picture,
    treatment: design.treatment ?? null,
  };
}

/** Draws and writes everything. The folder appears whole or not at all. */
export function buildFoundry(folder: string, say: (line: string) => void = () => {}) {
  const half = `${folder}.part`;
  rmSync(half, { recursive: true, force: true });
  mkdirSync(half, { recursive: true });
  for (const plan of FAMILIES) {
    for (const s of plan.styles) {
      const facts = factsOf(plan, s);
      const base = join(half, fileNameOf(plan.family, s.style));
      const drawn = plan.draws === "variable" ? drawVariable(s.design) : null;
      const face = drawn?.face ?? drawStyle(plan, s);
      writeFileSync(`${base}.ttf`, drawn ? writeVariable(drawn.face, facts, drawn.plan) : writeTrueType(face, facts));
      if (!drawn) writeFileSync(`${base}.otf`, writeOpenType(face, facts));
      writeFileSync(`${base}.json`, JSON.stringify(truthOf(plan, s, face), null, 1));
      if (plan.library === "halyard")
        writeFileSync(`${base}.trial.ttf`, writeTrueType(trialOf(face), { ...facts, family: facts.family }));
    }
    say(plan.family);
  }
  rmSync(folder, { recursive: true, force: true });
  renameSync(half, folder);
}

/** The few glyphs of a trial font, cut out of the whole face. */
export function trialOf(face: Face): Face {
  const wanted = new Set([...TRIAL_CHARACTERS].map((c) => c.codePointAt(0)!));
  const glyphs = face.glyphs.filter((g) => g.name === ".notdef" || g.codePoints.some((c) => wanted.has(c)));
  const names = new Set(glyphs.map((g) => g.name));
  const kerning = Object.fromEntries(
    Object.entries(face.kerning).filter(([pair]) => pair.split(" ").every((n) => names.has(n))),
  );
  return { ...face, glyphs, kerning, features: {}, ligatures: {} };
}

if (process.argv[1]?.endsWith("build.mjs")) buildFoundry(process.argv[2] ?? join(".cache", "foundry"));
