// The parts of letters found on the real outlines, by rays: where stem, bowl, crossbar, ear, terminal and the rest lie.
// Terms are the trade's; a part that a face does not have is left out.
import type { Anatomy, AnatomyMark } from "@/contracts/anatomy";
import type { Traits } from "@/contracts/traits";
import { writePath } from "../geometry/outline";
import { spansAtX, spansAtY, type Span } from "../geometry/rays";
import type { OpenFace } from "../outlines/openFace";
import { lettersOf, type Letter, type Letters } from "./letters";

const { max, min } = Math;

/** @returns letters with their parts and the heights; empty letters where the face has none of them. */
export function readAnatomy(face: OpenFace, traits: Traits): Anatomy {
  const letters = lettersOf(face);
  const flip = { a: 1, b: 0, c: 0, d: -1, e: 0, f: 0 };
  const drawn = [...READERS].flatMap(([char, read]) => {
    const letter = letters.get(char);
    if (!letter) return [];
    const marks = read(letter, traits, letters).filter((m): m is AnatomyMark => m !== null);
    return [
      {
        char,
        path: writePath(face.outline(letter.glyphId), flip),
        advance: letter.advanceFu,
        bounds: letter.bounds,
        marks,
      },
    ];
  });
  const em = letters.em;
  const line = (term: string, value: number | null) => (value === null ? [] : [{ term, y: Math.round(value * em) }]);
  return {
    unitsPerEm: em,
    lines: [
      ...line("ascender", traits.ascenderEm),
      ...line("capital height", traits.capHeightEm),
      ...line("x-height", traits.xHeightEm),
      { term: "baseline", y: 0 },
      ...line("descender", traits.descenderEm),
    ],
    letters: drawn,
  };
}

type Reader = (l: Letter, t: Traits, all: Letters) => (AnatomyMark | null)[];

const yAt = (l: Letter, share: number) => l.bounds.yMin + share * (l.bounds.yMax - l.bounds.yMin);
const xAt = (l: Letter, share: number) => l.bounds.xMin + share * (l.bounds.xMax - l.bounds.xMin);
const rows = (l: Letter, share: number) => spansAtY(l.polygons, yAt(l, share));
const columns = (l: Letter, share: number) => spansAtX(l.polygons, xAt(l, share));
const middle = (s: Span) => (s.from + s.to) / 2;
const mark = (term: string, x: number, y: number, says: string): AnatomyMark => ({
  term,
  x: Math.round(x),
  y: Math.round(y),
  says,
});
const em = (v: number | null) => (v === null ? "not measured" : `${v.toFixed(3)} em`);

/** In the order they are drawn in. */
const READERS = new Map<string, Reader>([
  ["h", readH],
  ["x", () => []],
  ["g", readG],
  ["e", readE],
  ["a", readA],
  ["c", readC],
  ["p", readP],
  ["s", readS],
  ["R", readR],
  ["E", readCapitalE],
  ["Q", readQ],
]);

function readH(l: Letter, t: Traits, all: Letters): (AnatomyMark | null)[] {
  const body = (t.xHeightEm ?? 0.5) * all.em;
  const y = 0.4 * body;
  const stem = spansAtY(l.polygons, y)[0];
  const arch = spansAtX(l.polygons, xAt(l, 0.66)).filter((s) => s.to < body * 1.2);
  const shoulder = arch[arch.length - 1];
  const foot = spansAtY(l.polygons, 0.012 * all.em)[0];
  return [
    stem ? mark("stem", middle(stem), y, `vertical stroke, ${em(t.stemEm)}`) : null,
    mark("ascender", xAt(l, 0.12), l.bounds.yMax, `rises to ${em(t.ascenderEm)}`),
    shoulder ? mark("shoulder", xAt(l, 0.66), shoulder.to, "the arch that leaves the stem") : null,
    foot && stem && (t.serif ?? 0) > 0.45
      ? mark(
          "serif",
          foot.from,
          0.012 * all.em,
          `${t.serifForm ?? "foot"}, ${Math.round(100 * (t.serifThickness ?? 0))} % of the stem`,
        )
      : null,
  ];
}

function readG(l: Letter, t: Traits, all: Letters): (AnatomyMark | null)[] {
  const top = 0.82 * (t.xHeightEm ?? 0.5) * all.em;
  const zone = spansAtY(l.polygons, top);
  const bowl = spansAtY(l.polygons, 0.55 * (t.xHeightEm ?? 0.5) * all.em);
  const right = (list: Span[]) => list[list.length - 1]?.to ?? -Infinity;
  const hasEar =
    t.storeysG === 2 && max(right(zone), right(spansAtY(l.polygons, top * 1.1))) > right(bowl) + 0.02 * all.em;
  return [
    hasEar ? mark("ear", right(zone), top, "the small stroke at the bowl of g") : null,
    mark(
      t.storeysG === 2 ? "loop" : "tail",
      xAt(l, 0.5),
      l.bounds.yMin,
      t.storeysG === 2 ? "g of two storeys closes below" : "g of one storey hangs open",
    ),
    mark("descender", xAt(l, 0.15), l.bounds.yMin * 0.55, `falls to ${em(t.descenderEm)}`),
  ];
}

function readE(l: Letter, t: Traits): (AnatomyMark | null)[] {
  const strokes = columns(l, 0.5);
  if (strokes.length < 3) return [];
  const [low, bar, high] = strokes;
  return [
    mark("crossbar", xAt(l, 0.5), middle(bar!), `horizontal stroke, ${em(t.barEm)}`),
    mark("eye", xAt(l, 0.5), (bar!.to + high!.from) / 2, "the closed white of e"),
    mark("finial", xAt(l, 0.9), low!.to, "where the last stroke runs out"),
  ];
}

function readA(l: Letter, t: Traits): (AnatomyMark | null)[] {
  const strokes = columns(l, 0.45);
  if (t.storeysA === 2 && strokes.length >= 3)
    return [
      mark("bowl", xAt(l, 0.2), (strokes[0]!.to + strokes[1]!.from) / 2, "the round part of a, of two storeys"),
      mark("terminal", xAt(l, 0.12), strokes[2]!.from, "where the upper stroke ends"),
    ];
  return strokes.length >= 2 ? [mark("bowl", xAt(l, 0.1), yAt(l, 0.5), "the round part of a, of one storey")] : [];
}

function readC(l: Letter, t: Traits): (AnatomyMark | null)[] {
  for (let share = 0.98; share > 0.6; share -= 0.02) {
    const spans = columns(l, share);
    if (spans.length < 2) continue;
    const [low, high] = spans;
    return [
      mark("terminal", xAt(l, share), middle(high!), "where the stroke of c ends"),
      mark(
        "aperture",
        xAt(l, share),
        (low!.to + high!.from) / 2,
        `opening, ${Math.round(100 * (t.aperture ?? 0))} % of the height`,
      ),
    ];
  }
  return [];
}

function readP(l: Letter, t: Traits, all: Letters): (AnatomyMark | null)[] {
  const y = 0.5 * (t.xHeightEm ?? 0.5) * all.em;
  const spans = spansAtY(l.polygons, y);
  if (spans.length < 2) return [];
  const [stem, bowl] = [spans[0]!, spans[spans.length - 1]!];
  return [
    mark("bowl", bowl.to, y, "the round stroke"),
    mark("counter", (stem.to + bowl.from) / 2, y, "the white inside"),
  ];
}

function readS(l: Letter): (AnatomyMark | null)[] {
  const spine = columns(l, 0.5);
  return spine.length >= 3 ? [mark("spine", xAt(l, 0.5), middle(spine[1]!), "the stroke through the middle of s")] : [];
}

function readR(l: Letter): (AnatomyMark | null)[] {
  const feet = rows(l, 0.14);
  return feet.length >= 2
    ? [mark("leg", middle(feet[feet.length - 1]!), yAt(l, 0.14), "the stroke that R stands out on")]
    : [];
}

function readCapitalE(l: Letter, t: Traits): (AnatomyMark | null)[] {
  const arms = columns(l, 0.75);
  const top = arms[arms.length - 1];
  return top ? [mark("arm", min(l.bounds.xMax, xAt(l, 0.98)), middle(top), `horizontal stroke, ${em(t.barEm)}`)] : [];
}

function readQ(l: Letter, _t: Traits, all: Letters): (AnatomyMark | null)[] {
  const under = spansAtY(l.polygons, min(-0.03 * all.em, l.bounds.yMin * 0.5));
  const tail = under[under.length - 1];
  return l.bounds.yMin < -0.05 * all.em && tail
    ? [mark("tail", tail.to, min(-0.03 * all.em, l.bounds.yMin * 0.5), "what makes Q of O")]
    : [];
}
