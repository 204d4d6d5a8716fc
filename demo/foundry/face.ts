// One design → every glyph of its face: letters, figures, signs, accented letters, small capitals, kerning.
import { bearingOf, counterOf, type Design } from "./design";
import { mapContour, type Contour, type Point } from "./pen";
import { bearing, moveStrokes, type Draw, type Drawing } from "./sketch";
import { CAPITALS } from "./skeleton/capitals";
import { FIGURES, oldStyle } from "./skeleton/figures";
import { MARKS, MORE_LETTERS } from "./skeleton/moreLetters";
import { SIGNS } from "./skeleton/signs";
import { DOTLESS, SMALL } from "./skeleton/small";
import { bridges, contoursOf, dots, flatten, innerLines, pixels, roughen } from "./treat";
import { clockwise, unite } from "./unite";

/** Drawn part of another glyph, moved. */
export type Part = { glyph: string; dx: number; dy: number };
export type DrawnGlyph = {
  name: string;
  codePoints: number[];
  advance: number;
  contours: Contour[];
  /** Set instead of contours for an accented letter. */
  parts?: Part[];
};
/** Glyph name → the name it becomes with a feature. */
export type Swap = Record<string, string>;
export type Face = {
  glyphs: DrawnGlyph[];
  features: Record<string, Swap>;
  ligatures: Record<string, string>;
  /** "left right" → units. */
  kerning: Record<string, number>;
  /** True mean advance of a–z as drawn. */
  meanAdvance: number;
};

export type FaceOptions = {
  smallCapitals?: boolean;
  oldStyleFigures?: boolean;
  /** Only these are drawn; all when absent. */
  characters?: string;
  /** These are left out, as makers forget them. */
  without?: string;
  /** Outlines stay as drawn, one a stroke: masters of a variable font must keep their points. */
  keepOverlaps?: boolean;
  /** Other skeletons for lowercase letters (a script's). */
  letters?: Record<string, Draw>;
  dotless?: Record<string, Draw>;
  extras?: { name: string; codePoints: number[]; how: Draw }[];
  swaps?: Record<string, Swap>;
};

const NAMES: Record<string, string> = {
  ".": "period",
  ",": "comma",
  ":": "colon",
  ";": "semicolon",
  "!": "exclam",
  "?": "question",
  "-": "hyphen",
  "&": "ampersand",
  "@": "at",
  "+": "plus",
  "/": "slash",
  "(": "parenleft",
  ")": "parenright",
  "'": "quotesingle",
  '"': "quotedbl",
  " ": "space",
};
const glyphName = (char: string) =>
  /^[A-Za-z]$/.test(char)
    ? char
    : (NAMES[char] ?? `uni${char.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`);
const FIGURE_NAMES = ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"];

/** Letters with an accent, by their Unicode decomposition. */
export const ACCENTED = [
  ..."ÀÁÂÃÄÅÇÈÉÊËÌÍÎÏÑÒÓÔÕÖÙÚÛÜÝàáâãäåçèéêëìíîïñòóôõöùúûüýÿĀāĂăĄąĆćČčĎĒēĖėĘęĚěĞğĪīĮįİŃńŇňŌōŘřŚśŞşŠšŪūŮůŲųŸŹźŻżŽž",
];

/** Leans what is drawn; a slanted face's stems were widened before, so that they keep their thickness. */
const lean = (d: Design) => {
  const tan = Math.tan((d.slantDeg * Math.PI) / 180);
  return (c: Contour) => (tan ? mapContour(c, (p) => ({ x: p.x + tan * p.y, y: p.y })) : c);
};

/** Strokes → the outline as it stands in the font: treated, united, leaned, moved to its bearing. */
function finish(drawn: Drawing, d: Design, name: string, keepOverlaps: boolean) {
  const left = bearing(d, drawn.left);
  const advance = Math.round(left + drawn.width + bearing(d, drawn.right));
  const moved: Drawing = { ...drawn, ...shift(drawn, left) };
  let contours: Contour[];
  if (d.treatment === "dotted") contours = dots(moved, d).map(clockwise);
  else if (keepOverlaps) contours = [...contoursOf({ ...moved, solids: [] }), ...moved.solids.map(clockwise)];
  else {
    const all = [...contoursOf({ ...moved, solids: [] }), ...moved.solids.map(clockwise)];
    const less = [
      ...[...moved.cuts, ...(d.treatment === "stencil" ? bridges(moved, d) : [])].map(clockwise),
      ...(d.treatment === "inline" ? innerLines(moved, d) : []),
    ];
    contours = unite(all, less);
    if (d.treatment === "rough") contours = roughen(contours, d, (d.seed ?? 7) * 1000 + hash(name));
    if (d.treatment === "pixel") contours = pixels(contours, d.stem);
  }
  return { advance, contours: contours.map(lean(d)) };
}
const shift = (drawn: Drawing, dx: number) => {
  const by = (p: Point) => ({ x: p.x + dx, y: p.y });
  return {
    strokes: moveStrokes(drawn.strokes, by),
    solids: drawn.solids.map((c) => mapContour(c, by)),
    cuts: drawn.cuts.map((c) => mapContour(c, by)),
  };
};
const hash = (s: string) => [...s].reduce((h, c) => (h * 31 + c.codePointAt(0)!) % 997, 7);

/** Draws a letter so that it fills one pitch: its width is found by trying, its stems stay. */
function fitPitch(draw: (d: Design) => Drawing, d: Design): Drawing {
  const pitch = d.monospaced!;
  const room = pitch * 0.82;
  let low = 0.2;
  let high = 2.2;
  let drawn = draw(d);
  if (drawn.width > 2 * d.stem)
    for (let i = 0; i < 14; i++) {
      const width = (low + high) / 2;
      drawn = draw({ ...d, width: d.width * width });
      if (drawn.width > room) high = width;
      else low = width;
    }
  // Narrow signs keep their own width.
  const usual = draw(d);
  const chosen = usual.width < room * 0.62 ? usual : drawn;
  const rest = pitch - chosen.width;
  return { ...chosen, left: Math.floor(rest / 2), right: Math.ceil(rest / 2) };
}

export function drawFace(d: Design, options: FaceOptions = {}): Face {
  const wanted = options.characters ? new Set(options.characters) : null;
  const glyphs: DrawnGlyph[] = [];
  const has = (char: string) => (!wanted || wanted.has(char)) && !options.without?.includes(char);
  const letters = options.letters ?? SMALL;
  const draw = (name: string, codePoints: number[], how: (d: Design) => Drawing, design = d) => {
    const drawn = d.monospaced ? fitPitch(how, design) : how(design);
    // What brings a bearing of its own needs no room for feet on its other side.
    const framed: Design = typeof drawn.left === "number" ? { ...design, serif: "none" } : design;
    const { advance, contours } = finish(drawn, framed, name, Boolean(options.keepOverlaps));
    glyphs.push({ name, codePoints, advance: d.monospaced ?? advance, contours });
  };
  glyphs.push(notdef(d));
  glyphs.push({
    name: "space",
    codePoints: [0x20, 0xa0],
    advance: d.monospaced ?? Math.round(spaceOf(d)),
    contours: [],
  });
  for (const [char, how] of Object.entries(CAPITALS)) if (has(char)) draw(char, [char.codePointAt(0)!], how);
  for (const char of Object.keys(letters))
    if (has(char)) draw(char, [char.codePointAt(0)!], d.capitalsOnly ? CAPITALS[char.toUpperCase()]! : letters[char]!);
  FIGURES.forEach((how, n) => {
    if (has(String(n))) draw(FIGURE_NAMES[n]!, [48 + n], (design) => how(design, design.capHeight));
  });
  for (const { name, codePoints, how } of options.extras ?? []) draw(name, codePoints, how);
  for (const table of [SIGNS, MORE_LETTERS, d.capitalsOnly ? {} : (options.dotless ?? DOTLESS)])
    for (const [char, how] of Object.entries(table)) if (has(char)) draw(glyphName(char), [char.codePointAt(0)!], how);
  const features: Record<string, Swap> = { ...options.swaps };
  if (!wanted) {
    for (const [char, how] of Object.entries(MARKS)) {
      const { contours } = finish(how(d), d, char, Boolean(options.keepOverlaps));
      glyphs.push({ name: glyphName(char), codePoints: [char.codePointAt(0)!], advance: 0, contours });
    }
    addAccented(glyphs, d);
    if (options.smallCapitals) features.smcp = addSmallCapitals(draw, d);
    if (options.smallCapitals)
      features.c2sc = Object.fromEntries(Object.entries(features.smcp!).map(([k, v]) => [k.toUpperCase(), v]));
    Object.assign(features, addFigures(glyphs, draw, d, Boolean(options.oldStyleFigures)));
  }
  const small = glyphs.filter((g) => /^[a-z]$/.test(g.name));
  return {
    glyphs,
    features,
    ligatures: {},
    kerning: d.monospaced || d.treatment === "pixel" ? {} : kern(glyphs, d, Boolean(options.letters)),
    meanAdvance: small.reduce((sum, g) => sum + g.advance, 0) / (small.length || 1),
  };
}

const spaceOf = (d: Design) => counterOf(d) * 0.72 + bearingOf(d) * 0.4;

function notdef(d: Design): DrawnGlyph {
  const w = d.monospaced ?? 500;
  const ring = (x0: number, y0: number, x1: number, y1: number): [number, number][] => [
    [x0, y0],
    [x0, y1],
    [x1, y1],
    [x1, y0],
  ];
  const line = (points: [number, number][]): Contour => {
    const p = points.map(([x, y]) => ({ x, y }));
    return { start: p[0]!, curves: p.map((_, i) => [p[i]!, p[(i + 1) % 4]!, p[(i + 1) % 4]!]) };
  };
  const outer = line(ring(60, 0, w - 60, d.capHeight));
  const inner = line(ring(100, 40, w - 100, d.capHeight - 40).reverse());
  return { name: ".notdef", codePoints: [], advance: w, contours: [outer, inner] };
}

/** Accented letters as parts: the letter and the mark, moved over its middle. */
function addAccented(glyphs: DrawnGlyph[], d: Design) {
  const byChar = new Map(glyphs.flatMap((g) => g.codePoints.map((c) => [String.fromCodePoint(c), g] as const)));
  const tan = Math.tan((d.slantDeg * Math.PI) / 180);
  for (const char of ACCENTED) {
    const [plain, mark] = [...char.normalize("NFD")] as [string, string];
    const isBelow = mark === "\u0327" || mark === "\u0328";
    const dotless = !d.capitalsOnly && !isBelow ? { i: "ı", j: "ȷ" }[plain] : undefined;
    const base = byChar.get(dotless ?? plain);
    const accent = byChar.get(mark);
    if (!base || !accent) continue;
    const isTall = plain === plain.toUpperCase() || d.capitalsOnly || "bdhkl".includes(plain);
    const dy = isBelow || !isTall ? 0 : d.capHeight - d.xHeight;
    const middle = inkMiddle(base, tan);
    glyphs.push({
      name: glyphName(char),
      codePoints: [char.codePointAt(0)!],
      advance: base.advance,
      contours: [],
      parts: [
        { glyph: base.name, dx: 0, dy: 0 },
        { glyph: accent.name, dx: Math.round(middle + tan * dy), dy: Math.round(dy) },
      ],
    });
  }
}

/** Middle of a glyph's ink, taken back upright so that the mark, which leans too, stands over it. */
function inkMiddle(glyph: DrawnGlyph, tan: number): number {
  const points = glyph.contours.flatMap((c) => [c.start, ...c.curves.map((k) => k[2])]);
  const xs = points.map((p) => p.x - tan * p.y);
  return (Math.min(...xs) + Math.max(...xs)) / 2;
}

type DrawInto = (name: string, codePoints: number[], how: (d: Design) => Drawing, design?: Design) => void;

function addSmallCapitals(draw: DrawInto, d: Design): Swap {
  const small: Design = {
    ...d,
    capHeight: Math.round(d.xHeight * 1.06),
    stem: d.stem * 0.95,
    thin: d.thin * 0.97,
    width: d.width * 1.08,
    serifLength: d.serifLength * 0.9,
  };
  const swap: Swap = {};
  for (const char of Object.keys(SMALL)) {
    draw(`${char}.sc`, [], CAPITALS[char.toUpperCase()]!, small);
    swap[char] = `${char}.sc`;
  }
  return swap;
}

/** Tabular figures always; old-style ones where asked for. */
function addFigures(glyphs: DrawnGlyph[], draw: DrawInto, d: Design, withOldStyle: boolean): Record<string, Swap> {
  const features: Record<string, Swap> = {};
  const lining = FIGURE_NAMES.map((name) => glyphs.find((g) => g.name === name)!);
  if (!d.monospaced) {
    const pitch = Math.max(...lining.map((g) => g.advance));
    features.tnum = {};
    for (const g of lining) {
      const dx = Math.round((pitch - g.advance) / 2);
      glyphs.push({
        name: `${g.name}.tf`,
        codePoints: [],
        advance: pitch,
        contours: [],
        parts: [{ glyph: g.name, dx, dy: 0 }],
      });
      features.tnum[g.name] = `${g.name}.tf`;
    }
  }
  if (withOldStyle) {
    features.onum = {};
    FIGURES.forEach((how, n) => {
      const { height, drop } = oldStyle(d, n);
      const lower = (p: Point) => ({ x: p.x, y: p.y - drop });
      draw(`${FIGURE_NAMES[n]}.os`, [], (design) => {
        const drawn = how(design, height);
        return {
          ...drawn,
          strokes: moveStrokes(drawn.strokes, lower),
          solids: drawn.solids.map((c) => mapContour(c, lower)),
        };
      });
      features.onum![FIGURE_NAMES[n]!] = `${FIGURE_NAMES[n]}.os`;
    });
  }
  return features;
}

const KERN_LEFT = "AFKLPRTVWYXfrtvwyxkoec.,-";
const KERN_RIGHT = "ATVWYXJCGOQaceosvwyxtdgq.,-";

/** Pairs whose white differs from that of usual pairs are drawn together or apart: by the profiles of the outlines. */
function kern(glyphs: DrawnGlyph[], d: Design, isJoined: boolean): Record<string, number> {
  const byName = new Map(glyphs.map((g) => [g.name, g]));
  const heights = Array.from({ length: 15 }, (_, i) => (d.capHeight * (i + 0.5)) / 15);
  const edges = new Map<string, { left: number[]; right: number[] }>();
  const tan = Math.tan((d.slantDeg * Math.PI) / 180);
  const edgesOf = (name: string) => {
    let found = edges.get(name);
    if (!found) {
      const g = byName.get(name)!;
      const points = g.contours.flatMap((c) => flatten(c, 12)).map((p) => ({ x: p.x - tan * p.y, y: p.y }));
      const band = d.capHeight / 15;
      const near = (y: number) => points.filter((p) => Math.abs(p.y - y) < band * 0.75).map((p) => p.x);
      const cap = d.xHeight * 0.34;
      found = {
        left: heights.map((y) => Math.min(cap, ...near(y))),
        right: heights.map((y) => Math.min(cap, g.advance - Math.max(g.advance - cap, ...near(y)))),
      };
      edges.set(name, found);
    }
    return found;
  };
  const white = (l: string, r: string) => {
    const [a, b] = [edgesOf(l).right, edgesOf(r).left];
    const gaps = heights.map((_, i) => a[i]! + b[i]!);
    const tight = Math.min(...gaps);
    return gaps.reduce((s, v) => s + Math.min(v, tight + d.xHeight * 0.4), 0) / gaps.length;
  };
  if (["n", "o", "H", "O"].some((name) => !byName.has(name))) return {};
  // What is usual depends on who meets whom: above lowercase letters there is white that says nothing.
  const plain = (char: string) => (/[A-Z]/.test(char) || d.capitalsOnly ? ["H", "O"] : ["n", "o"]);
  const known = new Map<string, number>();
  const usualOf = (l: string, r: string) => {
    const key = plain(l)[0]! + plain(r)[0]!;
    if (!known.has(key)) {
      const all = plain(l).flatMap((x) => plain(r).map((y) => white(x, y)));
      known.set(key, all.reduce((sum, v) => sum + v, 0) / all.length);
    }
    return known.get(key)!;
  };
  const pairs: Record<string, number> = {};
  for (const l of KERN_LEFT)
    for (const r of KERN_RIGHT) {
      // Joined letters stand where their strokes meet.
      if (isJoined && /[a-z]/.test(l + r)) continue;
      const [a, b] = [glyphName(l), glyphName(r)];
      if (!byName.has(a) || !byName.has(b)) continue;
      const by = Math.round(Math.max(-0.16 * d.capHeight, Math.min(20, (usualOf(l, r) - white(a, b)) * 0.62)));
      if (by < -9) pairs[`${a} ${b}`] = by;
    }
  return pairs;
}
