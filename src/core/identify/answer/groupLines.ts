// Lines of one picture that are set in the same face, answered together: what each says alone is weighed against what all say.
const { exp, log, max, min } = Math;

/** What one line says: faces by their scores (0–1, share of ink that agrees) and chances, the nearest first. */
export type LineAnswer = {
  matches: readonly { styleId: string; score: number; chance: number }[];
  noneChance: number;
};
type LineGroup = {
  /** Places of its lines, in their order. */
  lines: number[];
  /** The likeliest first. */
  matches: { styleId: string; score: number; chance: number }[];
  noneChance: number;
};

/** Score that a line may lose for being set like another. */
const SPARED = 0.045;
/** A face that a line did not name comes as much behind the last it named, and behind the first. */
const BEHIND_LAST = 0.02;
const BEHIND_FIRST = 0.06;
/** A chance is never none, and lines of one picture share its faults: each further one counts as so much of a line. */
const LEAST_CHANCE = 1e-4;
const FURTHER_LINE = 0.6;
const MATCHES_TOLD = 12;

/**
 * Lines grouped by face: two groups become one while their lines lose little by it.
 * @returns groups, the one with the first line first; a line of which nothing is known is in none.
 */
export function groupLines(lines: readonly LineAnswer[]): LineGroup[] {
  let groups = lines.flatMap((line, i) => (line.matches.length ? [[i]] : []));
  for (;;) {
    const [nearest] = groups
      .flatMap((a, i) => groups.slice(i + 1).map((b) => ({ a, b, loss: lossOf([...a, ...b], lines) })))
      .sort((p, q) => p.loss - q.loss);
    if (!nearest || nearest.loss > SPARED) break;
    const joined = [...nearest.a, ...nearest.b].sort((p, q) => p - q);
    groups = [...groups.filter((g) => g !== nearest.a && g !== nearest.b), joined];
  }
  return groups.sort((p, q) => p[0]! - q[0]!).map((group) => answerTogether(group, lines));
}

const facesOf = (group: readonly number[], lines: readonly LineAnswer[]) => [
  ...new Set(group.flatMap((i) => lines[i]!.matches.map((m) => m.styleId))),
];

function scoreOf({ matches }: LineAnswer, styleId: string): number {
  const match = matches.find((m) => m.styleId === styleId);
  if (match) return match.score;
  return max(0, min(matches[matches.length - 1]!.score - BEHIND_LAST, matches[0]!.score - BEHIND_FIRST));
}

/** What the line that loses most loses by the face that suits all best. */
function lossOf(group: readonly number[], lines: readonly LineAnswer[]): number {
  return min(
    ...facesOf(group, lines).map((styleId) =>
      max(...group.map((i) => lines[i]!.matches[0]!.score - scoreOf(lines[i]!, styleId))),
    ),
  );
}

function answerTogether(group: number[], lines: readonly LineAnswer[]): LineGroup {
  const own = group.map((i) => lines[i]!);
  const weight = (1 + FURTHER_LINE * (group.length - 1)) / group.length;
  const together = (chanceOf: (line: LineAnswer) => number) =>
    exp(weight * own.reduce((sum, line) => sum + log(max(LEAST_CHANCE, chanceOf(line))), 0));
  const faces = facesOf(group, lines).map((styleId) => ({
    styleId,
    score: own.reduce((sum, line) => sum + scoreOf(line, styleId), 0) / own.length,
    weight: together((line) => line.matches.find((m) => m.styleId === styleId)?.chance ?? 0),
  }));
  const none = together((line) => line.noneChance);
  const all = faces.reduce((sum, f) => sum + f.weight, none);
  return {
    lines: group,
    matches: faces
      .sort((p, q) => q.weight - p.weight || q.score - p.score)
      .slice(0, MATCHES_TOLD)
      .map(({ styleId, score, weight: w }) => ({ styleId, score, chance: w / all })),
    noneChance: none / all,
  };
}
