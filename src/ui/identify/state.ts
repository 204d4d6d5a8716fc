// Identify: the picture, the frame, the reading, the answer, the match in focus. One reducer.
import {
  PROBABLY_NOT_HERE,
  type Corner,
  type HandInk,
  type Identification,
  type IdentifyMatch,
  type IdentifyStep,
  type LayoutStep,
} from "@/contracts/identify";
import { hearLayout, lineAt, NO_LINES, putLine, type Layout } from "./layout";

export type Picture = { file: File; url: string; widthPx: number; heightPx: number };
export type Frame = { x: number; y: number; width: number; height: number };

export type IdentifyState = {
  picture: Picture | null;
  /** In picture pixels; null = the whole picture. */
  frame: Frame | null;
  /** Four corners in picture pixels, clockwise from the top left; null = not straightened by hand. */
  corners: Corner[] | null;
  /** Three points of a curved baseline; null = it is straight. Either this or corners. */
  baseline: Corner[] | null;
  /** What is taken for ink by hand; null = as it is found. */
  ink: HandInk | null;
  /** As it was before each correction, the last at the end. */
  inkBefore: (HandInk | null)[];
  /** Lines of lettering that were found in the picture. */
  areas: Frame[];
  text: string;
  /** Whether the text was typed or corrected by the person. */
  isTyped: boolean;
  busy: boolean;
  /** How far the question has come that is being answered; null = nothing is known of it yet, or none is asked. */
  progress: Progress | null;
  result: Identification | null;
  fault: { what: string; now: string } | null;
  focus: number;
  /** 0 = picture alone, 100 = face alone. */
  lay: number;
  /** Faces that were tried by name on the same picture, the last first. */
  tried: IdentifyMatch[];
  /** Its id, when it is kept with the brief as it stands. */
  savedAs: string | null;
  /** What the answer in view was asked with: words that were changed since are no part of it. */
  answered: Asked | null;
  /** How often it was answered: what was cut by hand belongs to one answer. */
  asks: number;
  /** All lines of the picture, where they were asked about; and whether they are in view, or one of them. */
  layout: Layout | null;
  isLayoutShown: boolean;
};

/** @property seen - what is taken for ink. @property nearest - what comes nearest so far, the nearest first. */
export type Progress = {
  share: number;
  text: string;
  seen: Extract<IdentifyStep, { step: "seen" }>["strip"] | null;
  nearest: Extract<IdentifyStep, { step: "nearer" }>["nearest"];
};
const BEGUN: Progress = { share: 0, text: "", seen: null, nearest: [] };

/** A picture's frame and words as they were when the answer in view was asked for. */
export type Asked = Pick<IdentifyState, "frame" | "corners" | "baseline" | "ink" | "text" | "isTyped">;

export type IdentifyAction =
  | { type: "picture chosen"; picture: Picture }
  | { type: "framed"; frame: Frame | null }
  | { type: "corners"; corners: Corner[] | null }
  | { type: "baseline"; baseline: Corner[] | null }
  | { type: "inked"; ink: HandInk | null }
  | { type: "ink undone" }
  | { type: "typed"; text: string }
  | { type: "asked" }
  | { type: "told"; step: IdentifyStep }
  | { type: "layout asked" }
  | { type: "layout told"; step: LayoutStep }
  | { type: "line chosen"; at: number }
  | { type: "layout shown" }
  | { type: "given up" }
  | { type: "answered"; result: Identification; asked: Asked }
  | { type: "tried"; result: Identification }
  /** keepsAnswer: only a face that was tried was refused. */
  | { type: "refused"; fault: IdentifyState["fault"]; keepsAnswer: boolean }
  | { type: "kept"; id: string }
  | { type: "focused"; index: number }
  | { type: "laid"; lay: number }
  | { type: "cleared" };

export const NOTHING: IdentifyState = {
  picture: null,
  frame: null,
  corners: null,
  baseline: null,
  ink: null,
  inkBefore: [],
  areas: [],
  text: "",
  isTyped: false,
  busy: false,
  progress: null,
  result: null,
  fault: null,
  focus: 0,
  lay: 50,
  tried: [],
  savedAs: null,
  answered: null,
  asks: 0,
  layout: null,
  isLayoutShown: false,
};

export function identifyReducer(state: IdentifyState, action: IdentifyAction): IdentifyState {
  switch (action.type) {
    case "picture chosen":
      return { ...state, picture: action.picture };
    case "framed":
      return { ...state, frame: action.frame };
    case "corners":
      return { ...state, corners: action.corners, baseline: null };
    case "baseline":
      return { ...state, baseline: action.baseline, corners: null };
    case "inked":
      return { ...state, ink: action.ink, inkBefore: [...state.inkBefore, state.ink] };
    case "ink undone":
      return { ...state, ink: state.inkBefore.at(-1) ?? null, inkBefore: state.inkBefore.slice(0, -1) };
    case "typed":
      return { ...state, text: action.text, isTyped: action.text.trim() !== "" };
    case "asked":
      return { ...state, busy: true, progress: null, fault: null, isLayoutShown: false };
    case "layout asked":
      return { ...state, busy: true, progress: null, fault: null, layout: NO_LINES, isLayoutShown: true };
    case "layout told": {
      const layout = hearLayout(state.layout ?? NO_LINES, action.step);
      const areas = layout.areas.length ? [...layout.areas] : state.areas;
      return { ...state, layout, areas, busy: !layout.isWhole };
    }
    case "line chosen":
      return chooseLine(state, action.at);
    case "layout shown":
      return { ...state, isLayoutShown: true };
    case "told": {
      const { step } = action;
      const before = state.progress ?? BEGUN;
      if (step.step === "seen") return { ...state, progress: { ...before, seen: step.strip } };
      if (step.step !== "nearer") return state;
      const { share, text, nearest } = step;
      return { ...state, progress: { ...before, share: Math.max(share, before.share), text, nearest } };
    }
    case "given up":
      return { ...state, busy: false, progress: null };
    case "answered":
      return {
        ...state,
        busy: false,
        progress: null,
        layout: correctLine(state.layout, action.asked, action.result),
        result: action.result,
        // A framed line is asked about alone: what was found before stands.
        areas: action.result.areas.length ? action.result.areas : state.areas,
        focus: 0,
        tried: [],
        savedAs: null,
        ...takeFrame(state, action),
        asks: state.asks + 1,
        text: state.isTyped ? state.text : action.result.reading.text,
      };
    case "refused":
      return {
        ...state,
        busy: false,
        progress: null,
        fault: action.fault,
        ...(!action.keepsAnswer && { result: null, tried: [] }),
      };
    case "tried": {
      const [match] = action.result.matches;
      if (!match) return { ...state, busy: false, progress: null };
      const tried = [match, ...state.tried.filter((t) => t.styleId !== match.styleId)];
      return { ...state, busy: false, progress: null, tried, focus: state.result?.matches.length ?? 0 };
    }
    case "kept":
      return { ...state, savedAs: action.id };
    case "focused":
      return { ...state, focus: action.index };
    case "laid":
      return { ...state, lay: action.lay };
    case "cleared":
      return NOTHING;
  }
}

/** A line of the layout by itself, with its own answer. */
function chooseLine(state: IdentifyState, at: number): IdentifyState {
  const { layout } = state;
  const [frame, line] = [layout?.areas[at], layout?.lines[at]];
  if (!layout || !frame) return state;
  const shape = { frame, corners: null, baseline: null, ink: null };
  const result = line && typeof line !== "string" ? line : null;
  const text = result?.reading.text ?? "";
  const answered = result && { ...shape, text, isTyped: false };
  const fault = typeof line === "string" ? { what: line, now: "Type what it says, or correct its ink." } : null;
  return {
    ...state,
    ...shape,
    ...{ inkBefore: [], text, isTyped: false, result, answered, fault, focus: 0, tried: [], savedAs: null },
    ...{ asks: state.asks + 1, isLayoutShown: false },
  };
}

/** The line that was taken of a picture without a frame is framed, so that it is seen and may be moved. */
function takeFrame({ frame: now }: IdentifyState, { asked, result }: { asked: Asked; result: Identification }) {
  const isUnframed = !asked.frame && !asked.corners && !asked.baseline;
  const frame = isUnframed ? result.taken : asked.frame;
  return {
    frame: isUnframed && !now ? frame : now,
    answered: { ...asked, frame, text: result.reading.text },
  };
}

/** What was answered anew counts among the lines. */
function correctLine(layout: Layout | null, asked: Asked, result: Identification): Layout | null {
  const at = lineAt(layout, asked.frame);
  return layout && at >= 0 ? putLine(layout, at, result) : layout;
}

/** Whether what stands in the view is what was answered: only that can be kept. */
export const isAnswered = (state: IdentifyState): boolean =>
  !state.busy &&
  state.result !== null &&
  state.answered !== null &&
  state.text.trim() === state.answered.text.trim() &&
  JSON.stringify(shapeOf(state)) === JSON.stringify(shapeOf(state.answered));

/** What is asked about: a frame, four corners or a curved baseline, and what is ink there. */
export type Shape = Pick<IdentifyState, "frame" | "corners" | "baseline" | "ink">;
export const shapeOf = ({ frame, corners, baseline, ink }: Shape): Shape => ({ frame, corners, baseline, ink });

/** What can be laid over the picture: the matches, then the faces that were tried by name. */
export const selectMatches = ({ result, tried }: IdentifyState): IdentifyMatch[] => [
  ...(result ? matchesInOrder(result) : []),
  ...tried,
];

/** The nearest first; where the face is probably not here, those first that look alike. */
export function matchesInOrder({ matches, byLook }: Identification): IdentifyMatch[] {
  if (!byLook) return matches;
  const placeOf = new Map(byLook.styleIds.map((id, i) => [id, i]));
  return [...matches].sort((a, b) => (placeOf.get(a.styleId) ?? Infinity) - (placeOf.get(b.styleId) ?? Infinity));
}

/** The place of a picture that a pointer is over. @param shown - the box in which the whole picture is shown. */
export const placeUnder = (pointer: { clientX: number; clientY: number }, shown: DOMRect, of: Picture): Corner => ({
  x: Math.round(((pointer.clientX - shown.left) / shown.width) * of.widthPx),
  y: Math.round(((pointer.clientY - shown.top) / shown.height) * of.heightPx),
});

/** Where four corners begin: at the frame, or a little inside the picture. */
export function cornersOf({ widthPx, heightPx }: Picture, frame: Frame | null): Corner[] {
  const { x, y, width, height } = frame ?? {
    x: Math.round(0.06 * widthPx),
    y: Math.round(0.06 * heightPx),
    width: Math.round(0.88 * widthPx),
    height: Math.round(0.88 * heightPx),
  };
  return [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ];
}

/** Where a curved baseline begins: an arch through the frame, or through the picture. */
export function baselineOf(picture: Picture, frame: Frame | null): Corner[] {
  const [topLeft, , bottomRight] = cornersOf(picture, frame) as [Corner, Corner, Corner, Corner];
  const [left, right] = [topLeft.x, bottomRight.x];
  const low = bottomRight.y;
  return [
    { x: left, y: low },
    { x: Math.round((left + right) / 2), y: Math.round(low - 0.3 * (low - topLeft.y)) },
    { x: right, y: low },
  ];
}

/** From here on letters grow along the line as they do on no straight sheet. */
const TAPERED = 0.07;
/** Whether four corners would tell more: the line is seen from the side and was not straightened by hand. */
export const isTapered = ({ result, corners, baseline }: IdentifyState) =>
  !corners && !baseline && Math.abs(result?.strip.taper ?? 0) > TAPERED;

/** The answer as a sentence: how sure, and when it is none. */
export function writeAnswer(result: Identification): string {
  const [first] = result.matches;
  if (!first) return "Nothing of yours comes near.";
  const family = result.matches.filter((m) => m.familyId === first.familyId).reduce((a, m) => a + m.chance, 0);
  if (result.notInLibraries.chance > PROBABLY_NOT_HERE) return "Probably not in your libraries.";
  if (first.chance > 0.8) return `${first.family} ${first.style}, very likely.`;
  if (family > 0.8) return `${first.family}, very likely; which style is less sure.`;
  if (family > 0.4) return `Perhaps ${first.family} ${first.style}.`;
  return `Not sure. ${first.family} ${first.style} comes nearest.`;
}
