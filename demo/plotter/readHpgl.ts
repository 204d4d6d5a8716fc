// Reads HPGL for cutting: tool up and down, absolute and relative moves, comments that say what is kept together. 40 units a millimetre.
import { closeLine, refuseFile, type CutFile, type CutLine } from "./cutFile";

const UNITS_PER_MM = 40;
/** What says nothing of lines. */
const PASSED_OVER = new Set(["IN", "DF", "SP", "VS", "FS", "IP", "SC", "PT", "WU", "PW", "LT", "PG", "EC"]);

export function readHpgl(text: string): CutFile {
  const lines: CutLine[] = [];
  let [x, y, isDown, isRelative] = [0, 0, false, false];
  let group: string | null = null;
  let line: number[] = [];
  const lift = () => {
    if (line.length > 2) lines.push(closeLine(line, false, group));
    line = [];
  };
  for (const { name, rest } of split(text)) {
    if (name === "CO") {
      lift();
      group = /^\s*"keep together: (.{1,80})"/.exec(rest)?.[1] ?? null;
      continue;
    }
    if (PASSED_OVER.has(name)) continue;
    if (!["PU", "PD", "PA", "PR"].includes(name)) return refuseFile("unread", `The plotter does not know “${name}”.`);
    if (name === "PA" || name === "PR") isRelative = name === "PR";
    if (name === "PU") {
      lift();
      isDown = false;
    } else if (name === "PD") {
      isDown = true;
      line = line.length ? line : [x, y];
    }
    const values = rest
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number);
    if (values.length % 2 || values.some((v) => !Number.isFinite(v)))
      return refuseFile("unread", `A move after “${name}” cannot be read.`);
    for (let i = 0; i < values.length; i += 2) {
      const [dx, dy] = isRelative ? [x, y] : [0, 0];
      [x, y] = [dx + values[i]! / UNITS_PER_MM, dy + values[i + 1]! / UNITS_PER_MM];
      if (isDown) line.push(x, y);
    }
  }
  lift();
  return { ok: true, lines: turnOver(lines) };
}

/** Instructions with what follows them; semicolons within quotes belong to a comment. */
function* split(text: string): Generator<{ name: string; rest: string }> {
  for (const part of text.match(/(?:[^;"]|"[^"]*")+/g) ?? []) {
    const one = part.trim();
    if (one) yield { name: one.slice(0, 2).toUpperCase(), rest: one.slice(2) };
  }
}

/** From y up to y down, the topmost at 0. */
export function turnOver(lines: readonly CutLine[]): CutLine[] {
  let top = -Infinity;
  for (const { points } of lines) for (let i = 1; i < points.length; i += 2) top = Math.max(top, points[i]!);
  return lines.map((l) => ({ ...l, points: l.points.map((v, i) => (i % 2 ? top - v : v)) }));
}
