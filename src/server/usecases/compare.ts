// Faces beside each other, and faces that go with one.
import {
  type Companion,
  type CompanionList,
  type CompareRequest,
  type Comparison,
  type PairRequest,
  type PairRole,
  type SystemRequest,
  type TypeSystem,
} from "@/contracts/compare";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { FamilyId, StyleId } from "@/contracts/ids";
import { convertLength } from "@/contracts/units";
import { charactersOf, findMissing } from "@/core/brief/characters";
import { levelFactor } from "@/core/brief/level";
import { findBoldAndItalic, type Member } from "@/core/compare/boldAndItalic";
import { compareTraits } from "@/core/compare/compareTraits";
import type { FindIndex } from "@/core/find/findIndex";
import { seenBy, type FoundRow } from "@/core/find/findStyles";
import { membersOfVariable, proposeSystem, type SystemMember } from "@/core/pair/proposeSystem";
import { pairFaceOf, proposeSetting, ratePair, scorePair, weightForGrey } from "@/core/pair/scorePair";
import { strictestVerdict, verdictsOf } from "@/core/rights/verdicts";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import { findStyle, listFamilyStyles, type StyleRecord } from "../queries/styles";
import { askFace } from "../workers/pool";
import { getHeld } from "./findings";
import { setLines } from "@/core/brief/words";
import { isSlanted, storedAs } from "./styleDetail";

const DEFAULT_TEXT = "Hamburgefonstiv";

/** Names that tell faces apart in a sentence: the family's alone where that is enough. */
function namesFor(faces: readonly { family: string; style: string }[]): string[] {
  const isOnly = (family: string) => faces.filter((f) => f.family === family).length === 1;
  return faces.map(({ family, style }) => (isOnly(family) ? family : `${family} ${style}`));
}

/** Answers POST /compare. */
export async function compare(
  db: Db,
  { styleIds, briefId, text: given, levelBy: wantedLevel }: CompareRequest,
  signal?: AbortSignal,
): Promise<Outcome<Comparison>> {
  const records = styleIds.map((id) => findStyle(db, id));
  const brief = briefId ? findBrief(db, briefId) : null;
  if (!records.every((r) => r !== null && !r.hidden) || (briefId && !brief)) return refuse("not-found");
  const faces = records as StyleRecord[];
  const text = given ?? (brief && setLines(brief)[0]) ?? DEFAULT_TEXT;
  const levelBy = wantedLevel ?? brief?.levelBy ?? "x-height";
  // A trial is no font: its letters are not here to be drawn.
  const here = faces.filter((f) => f.owned);
  const drawn = await askFace(
    {
      what: "compare",
      text,
      faces: here.map((f) => ({ ...storedAs(db, f), level: levelFactor(f.traits, levelBy) })),
    },
    signal,
  );
  if (!drawn.ok) return drawn;
  const needed = charactersOf({ lines: [{ text, role: "title" }], wanted: "" });
  const { differences, same } = compareTraits(namesFor(faces).map((name, i) => ({ name, traits: faces[i]!.traits })));
  return succeed({
    text,
    faces: faces.map((f) => {
      const line = f.owned ? drawn.value.faces[here.indexOf(f)]! : null;
      const sizeMm = brief && convertLength(brief.size, brief.unit, "mm") * levelFactor(f.traits, levelBy);
      return {
        styleId: f.styleId as StyleId,
        familyId: f.familyId as FamilyId,
        family: f.family,
        style: f.style,
        traits: f.traits,
        lineWidthEm: line?.lineWidthEm ?? null,
        ...(line && sizeMm && { lineWidthMm: Number((line.lineWidthEm * sizeMm).toFixed(2)) }),
        missing: line?.missing ?? findMissing(needed, f.coverage),
        verdict: strictestVerdict(verdictsOf(f.rights), brief?.uses ?? []),
        ...siblingsOf(db, f),
      };
    }),
    differences,
    same,
    letters: drawn.value.letters,
  });
}

function siblingsOf(db: Db, record: StyleRecord) {
  const memberOf = ({ styleId, facts, traits, style, axes }: StyleRecord): Member => ({
    styleId,
    weight: facts.statedWeight ?? traits.weight ?? 400,
    isSlanted: isSlanted(traits, style),
    isVariable: axes.length > 0,
    width: traits.width,
  });
  const { bold, italic } = findBoldAndItalic(
    memberOf(record),
    listFamilyStyles(db, record.familyId)
      .filter((s) => s.owned)
      .map(memberOf),
  );
  return { bold: bold as StyleId | null, italic: italic as StyleId | null };
}

/** What the other face is used for, where one is wanted for a role. */
const OTHER_ROLE: Record<PairRole, PairRole> = { heading: "text", text: "heading", caption: "text" };

/** Styles that are rated in one go: others are served in between. */
const RATED_AT_ONCE = 2_000;

/** Answers POST /pair. */
export async function findCompanions(
  db: Db,
  { styleId, role, by, limit, briefId }: PairRequest,
): Promise<Outcome<CompanionList>> {
  const { index } = getHeld(db, [styleId]);
  const row = index.rowOf.get(styleId);
  const brief = briefId ? findBrief(db, briefId) : null;
  if (row === undefined || (briefId && !brief)) return refuse("not-found");
  const own = pairFaceOf(index.rows[row]!);
  /** By family: of a hundred thousand styles only these are held. */
  const best = new Map<number, Rated>();
  for (let from = 0; from < index.rows.length; from += RATED_AT_ONCE) {
    if (from) await new Promise<void>((next) => setImmediate(next));
    for (let i = from; i < Math.min(from + RATED_AT_ONCE, index.rows.length); i++) {
      const other = index.rows[i]!;
      // Its own style beside it is no companion, and neither is one that no text can be set in.
      if (i === row || other.traits.picture) continue;
      const rated = { i, ...ratePair(own, pairFaceOf(other), role) };
      if (by && rated.by !== by) continue;
      const held = best.get(index.family[i]!);
      if (!held || rated.score > held.score || (rated.score === held.score && isPlainer(index, i, held.i)))
        best.set(index.family[i]!, rated);
    }
  }
  const see = seenBy(index, brief);
  const items = [...best.values()]
    .sort((a, b) => b.score - a.score || a.i - b.i)
    .slice(0, limit)
    .map(({ i }) => toCompanion(index, row, { i, ...scorePair(own, pairFaceOf(index.rows[i]!), role) }, see(i), role));
  return succeed({ items });
}
type Rated = { i: number } & ReturnType<typeof ratePair>;

/** Answers POST /pair/system. */
export function proposeFamilySystem(db: Db, { styleId, ratio, contrast }: SystemRequest): Outcome<TypeSystem> {
  const record = findStyle(db, styleId);
  if (!record || record.hidden) return refuse("not-found");
  const own = systemMemberOf(record);
  if (!own) return refuse("not-measured");
  const slanted = isSlanted(record.traits, record.style);
  const others = listFamilyStyles(db, record.familyId).filter(
    (s) =>
      s.owned &&
      isSlanted(s.traits, s.style) === slanted &&
      Math.abs((s.traits.width ?? 5) - (record.traits.width ?? 5)) < SAME_WIDTH,
  );
  const members = others.flatMap((s) => {
    const member = systemMemberOf(s);
    const weights = s.axes.find((a) => a.tag === "wght");
    if (!member) return [];
    return weights ? [member, ...membersOfVariable(member, weights)] : [member];
  });
  const steps = proposeSystem(textAmong(members, own), members, { ratio, contrast });
  return succeed({
    family: record.family,
    steps: steps.map(({ member: { styleId: id, style, location, weight }, ...step }) => ({
      ...{ styleId: id as StyleId, style, location, weight: Math.round(weight) },
      ...step,
    })),
  });
}
/** What text is set in: the face itself, unless it is plainly light or bold; then of its family what is nearest to regular. */
function textAmong(members: readonly SystemMember[], own: SystemMember): SystemMember {
  if (own.weight >= TEXT_WEIGHTS.min && own.weight <= TEXT_WEIGHTS.max) return own;
  const off = ({ weight }: SystemMember) => Math.abs(weight - REGULAR);
  return members.reduce((best, m) => (off(m) < off(best) ? m : best), own);
}
const TEXT_WEIGHTS = { min: 300, max: 540 };
const REGULAR = 400;
/** Classes of width within which styles stand in one system. */
const SAME_WIDTH = 0.8;

function systemMemberOf({ styleId, style, traits, facts }: StyleRecord): SystemMember | null {
  const { stemEm, widthEm } = traits;
  if (!stemEm || !widthEm) return null;
  return { styleId, style, location: {}, weight: traits.weight ?? facts.statedWeight ?? 400, stemEm, widthEm };
}

const isPlainer = (index: FindIndex, a: number, b: number) => index.plainness[a]! < index.plainness[b]!;

function toCompanion(
  index: FindIndex,
  row: number,
  { i, score, by, reasons }: { i: number } & ReturnType<typeof scorePair>,
  { row: other, verdict, missing }: FoundRow,
  role: PairRole,
): Companion {
  const own = index.rows[row]!;
  const weights = index.families[index.family[i]!]!.rows.flatMap((k) => index.rows[k]!.traits.weight ?? []);
  const weight = role === "heading" ? null : weightForGrey(own.traits, other.traits, weights);
  return {
    styleId: other.styleId as StyleId,
    familyId: other.familyId as FamilyId,
    family: other.family,
    style: other.style,
    score,
    by,
    reasons: reasons.map(({ weight: _weight, good, ...r }) => ({ ...r, good: Number(good.toFixed(3)) })),
    proposal: {
      ...proposeSetting(own.traits, other.traits, OTHER_ROLE[role], role),
      ...(weight !== null && { weight }),
    },
    verdict,
    missing,
  };
}
