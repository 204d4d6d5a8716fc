"use client";
// The wall of samples: virtualised rows of strips, gone through by keys alone.
import { useVirtualizer } from "@tanstack/react-virtual";
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ComponentProps,
  type ReactNode,
  type RefObject,
} from "react";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor, roomFactor } from "@/core/brief/level";
import { useBench } from "../bench/BenchContext";
import { useComparing } from "../bench/comparing";
import { useGo } from "../bench/useGo";
import { useKeys } from "../bench/useKeys";
import type { Ranges } from "../parts/CoreSample";
import { preloadFaces } from "../parts/faceLoader";
import { Beside } from "./Beside";
import { Strip, type StripLook } from "./Strip";
import { columnsIn, isNarrow, useWidthPx } from "./columns";
import { nameOf } from "./facts";
import { useFocusFacts } from "./useFocusFacts";
import { moveFocus } from "./select";
import { useSharedFit } from "./useSharedFit";
import { addressOfKept } from "../parts/sampleOf";
import { usePages, type FirstPage } from "./usePages";
import { addressOfPicture } from "../parts/briefPicture";

const BASE_PX: Record<number, number> = { 1: 60, 2: 42, 3: 34, 4: 30, 5: 26, 6: 22, 7: 19, 8: 17 };
const DEFAULT_COLOURS = { ink: "#20262B", paper: "#F3EFE6" };

type Props = {
  total: number;
  /** 0: as many as its width holds. */
  columns: number;
  isFolded: boolean;
  /** Families whose styles are all shown. */
  open: readonly string[];
  onOpen: (familyId: string) => void;
  zoom: number;
  wrap: boolean;
  /** Single letters: set large. */
  isLarge: boolean;
  ground: "colours" | "picture";
  text: string;
  ranges: Ranges;
  first: FirstPage | null;
  onZoom: (zoom: number) => void;
  resetKey: string;
};

/** Where the wall of each brief and question was left: the focus and the scroll come back with the view. */
const placeKey = (resetKey: string) => `wall ${resetKey}`;
type Place = { focus: number; scroll: number };
function readPlace(resetKey: string): Place {
  try {
    return JSON.parse(sessionStorage.getItem(placeKey(resetKey)) ?? "") as Place;
  } catch {
    return { focus: 0, scroll: 0 };
  }
}

export function Wall(given: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const widthPx = useWidthPx(scroller);
  const columns = given.columns || columnsIn(widthPx);
  const props = { ...given, columns };
  const { total, wrap, text, ranges, first, resetKey, isFolded, open, onOpen } = props;
  const { brief } = useBench();
  const [left] = useState(() => readPlace(resetKey));
  const { focus, last, lookAt, forgetFocus } = useFocus(left.focus);
  const [isBeside, setBeside] = useState(false);
  const look = useLook(props, widthPx);
  const { heightPx, basePx } = look;
  const rows = Math.ceil(total / columns);
  const virtual = useVirtualizer({
    count: rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => heightPx,
    overscan: 3,
    initialOffset: left.scroll,
  });
  const shown = virtual.getVirtualItems();
  const from = (shown[0]?.index ?? 0) * columns;
  const to = ((shown[shown.length - 1]?.index ?? 0) + 1) * columns;
  const { item } = usePages(resetKey, from, to, first);
  useEffect(() => virtual.measure(), [heightPx, columns, virtual]);
  const startOver = useCallback(() => {
    forgetFocus();
    virtual.scrollToOffset(0);
  }, [virtual, forgetFocus]);
  useOnChange(resetKey, startOver);
  useKeptPlace(resetKey, focus, from, scroller);
  usePreload(virtual.isScrolling, from, to, columns, item);
  const asked = { columns, basePx, isCompact: columns > 2, text, levelBy: brief.levelBy };
  const fit = useSharedFit(widthPx, asked, item);
  useFocusFacts(item(Math.min(focus, Math.max(0, total - 1))));
  const goTo = useGoTo(virtual, columns, scroller, lookAt);
  useWallKeys({ ...props, scroller, heightPx, focus, item, goTo, hasLast: last !== null, setBeside });

  const { kept, aside, onKeep } = useMarks();
  const [faceA, faceB] = isBeside && last !== null ? [item(last), item(focus)] : [undefined, undefined];
  const isFitted = !wrap && !look.byLineWidth;
  const size = basePx * (wrap ? 0.55 : 1);
  const cell = (index: number) => {
    const face = item(index);
    if (!face) return <EmptyCell key={index} heightPx={heightPx} />;
    const marks = { isKept: kept.has(face.styleId), isAside: aside.has(face.styleId), isFocus: index === focus };
    const opens = isFolded ? { isOpen: open.includes(face.familyId), onOpen } : {};
    const passed = { text, look, ranges, isPassing: virtual.isScrolling, onFocus: lookAt, onKeep, index, ...opens };
    return (
      <Cell key={face.styleId} item={face} sizePx={size} fit={isFitted ? fit : undefined} {...passed} {...marks} />
    );
  };
  return (
    <div className="relative flex h-full flex-col">
      {faceA && faceB && <Beside a={faceA} b={faceB} text={text} ranges={ranges} />}
      {fit < 1 && isFitted && <FitNote fit={fit} />}
      <div
        ref={scroller}
        className="group/wall min-h-0 flex-1 overflow-y-auto bg-limestone"
        role="grid"
        aria-label="Faces"
        aria-rowcount={rows}
        aria-colcount={columns}
        data-total={total}
      >
        <div style={{ height: virtual.getTotalSize() }} className="relative" role="presentation">
          {shown.map((row) => (
            <Row key={row.key} index={row.index} top={row.start} columns={columns} total={total} cell={cell} />
          ))}
        </div>
      </div>
    </div>
  );
}

/** What is kept and set aside for the brief, and how a face is kept by hand. */
function useMarks() {
  const { brief, toggleKept } = useBench();
  const kept = useMemo(() => new Set(brief.kept.map((k) => k.styleId)), [brief.kept]);
  const aside = useMemo(() => new Set(brief.setAside), [brief.setAside]);
  const onKeep = useCallback(
    (face: ShownItem) => toggleKept(face.styleId, nameOf(face), { location: face.axisWanted }),
    [toggleKept],
  );
  return { kept, aside, onKeep };
}

/** Which face is looked at, and which was before it. */
function useFocus(first: number) {
  const [focus, setFocus] = useState(first);
  const [last, setLast] = useState<number | null>(null);
  const lookAt = useCallback((index: number) => {
    setFocus((now) => {
      if (now !== index) setLast(now);
      return index;
    });
  }, []);
  const forgetFocus = useCallback(() => {
    setFocus(0);
    setLast(null);
  }, []);
  return { focus, last, lookAt, forgetFocus };
}

type CellProps = Omit<ComponentProps<typeof Strip>, "briefId">;

/** @param sizePx - before the face is levelled with its neighbours. */
function Cell({ sizePx, ...props }: CellProps) {
  const { brief } = useBench();
  const { traits, kinds } = props.item;
  const level = Math.min(
    levelFactor(traits, brief.levelBy),
    roomFactor(traits, kinds.includes("script"), sizePx, props.look.basePx),
  );
  return (
    <div data-index={props.index} role="presentation" className="min-w-0">
      <Strip {...props} sizePx={sizePx * level} briefId={brief.briefId} />
    </div>
  );
}

type RowProps = { index: number; top: number; columns: number; total: number; cell: (index: number) => ReactNode };

function Row({ index, top, columns, total, cell }: RowProps) {
  const cells = Array.from({ length: Math.min(columns, total - index * columns) }, (_, c) => index * columns + c);
  return (
    <div
      role="row"
      aria-rowindex={index + 1}
      className="absolute inset-x-0 grid"
      style={{
        transform: `translateY(${top}px)`,
        // A layer of its own: while the wall is scrolled a row is moved, not painted again.
        willChange: "transform",
        gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
      }}
    >
      {cells.map(cell)}
    </div>
  );
}

const EmptyCell = ({ heightPx }: { heightPx: number }) => (
  <div role="gridcell" aria-busy className="border-r border-b border-rule" style={{ height: heightPx }} />
);

const FitNote = ({ fit }: { fit: number }) => (
  <p
    className="pointer-events-none absolute right-3 bottom-1 z-10 bg-limestone px-2 text-[12px] text-basalt"
    data-shared-fit
  >
    Samples shown at {Math.round(fit * 100)} % so the line fits.
  </p>
);

/** How every strip of the wall looks. */
function useLook({ columns, zoom, wrap, isLarge, ground }: Props, widthPx: number): StripLook {
  const { brief } = useBench();
  const isCompact = columns > 2 || isNarrow(widthPx, columns);
  const basePx = ((BASE_PX[columns] ?? 42) * (isLarge ? 1.7 : 1) * zoom) / 100;
  const heightPx = Math.round(
    (wrap ? basePx * 0.55 * 1.3 * (columns > 2 ? 8 : 4.4) : basePx * 1.78) + (isCompact ? 62 : 46),
  );
  const picture = ground === "picture" && brief.picture ? addressOfPicture(brief) : null;
  return useMemo(
    () => ({
      basePx,
      wrap,
      heightPx,
      ink: brief.ink,
      paper: brief.paper,
      picture,
      coloured:
        picture !== null ||
        brief.ink.toUpperCase() !== DEFAULT_COLOURS.ink ||
        brief.paper.toUpperCase() !== DEFAULT_COLOURS.paper,
      compact: isCompact,
      dense: columns > 4,
      byLineWidth: brief.levelBy === "line-width" && !wrap,
    }),
    [basePx, wrap, heightPx, brief.ink, brief.paper, picture, columns, isCompact, brief.levelBy],
  );
}

/** Runs when a value is another than before; not at first. */
function useOnChange(value: string, run: () => void) {
  const before = useRef(value);
  useEffect(() => {
    if (before.current === value) return;
    before.current = value;
    run();
  }, [value, run]);
}

/** Keeps where the wall was left. */
function useKeptPlace(resetKey: string, focus: number, from: number, scroller: RefObject<HTMLDivElement | null>) {
  useEffect(() => {
    const timer = setTimeout(() => {
      const place: Place = { focus, scroll: scroller.current?.scrollTop ?? 0 };
      sessionStorage.setItem(placeKey(resetKey), JSON.stringify(place));
    }, 150);
    return () => clearTimeout(timer);
  }, [focus, from, resetKey, scroller]);
}

type Item = (index: number) => ShownItem | undefined;

/** What is looked at is fetched before what comes next. */
const PRELOAD_AFTER_MS = 250;
/** Fonts of the rows that come next are fetched while these are looked at; not in the middle of a long scroll. */
function usePreload(isScrolling: boolean, from: number, to: number, columns: number, item: Item) {
  const ahead = useRef(from);
  useEffect(() => {
    if (isScrolling) return;
    const down = from >= ahead.current;
    ahead.current = from;
    const next = Array.from({ length: 2 * columns + 6 }, (_, k) => item(down ? to + k : from - 1 - k));
    const timer = setTimeout(() => preloadFaces(next.flatMap((n) => (n?.owned ? [n.styleId] : []))), PRELOAD_AFTER_MS);
    return () => clearTimeout(timer);
  }, [isScrolling, from, to, columns, item]);
}

/** Moves the focus. A row that is not drawn yet takes it a frame later; of several keys within that frame only the last does. */
function useGoTo(
  virtual: { scrollToIndex: (row: number) => void },
  columns: number,
  scroller: RefObject<HTMLDivElement | null>,
  lookAt: (index: number) => void,
) {
  const wanted = useRef(0);
  return (index: number) => {
    wanted.current = index;
    lookAt(index);
    virtual.scrollToIndex(Math.floor(index / columns));
    const strip = () => scroller.current?.querySelector<HTMLElement>(`[data-index="${index}"] [data-strip]`);
    const drawn = strip();
    if (drawn) return drawn.focus({ preventScroll: true });
    requestAnimationFrame(() => {
      if (wanted.current === index) strip()?.focus({ preventScroll: true });
    });
  };
}

type KeysProps = Pick<Props, "total" | "columns" | "zoom" | "onZoom"> & {
  scroller: RefObject<HTMLDivElement | null>;
  heightPx: number;
  focus: number;
  item: Item;
  goTo: (index: number) => void;
  /** There is a face that was looked at before. */
  hasLast: boolean;
  setBeside: (isBeside: boolean) => void;
};

function useWallKeys({ total, columns, zoom, onZoom, ...p }: KeysProps) {
  const { brief, toggleKept, setAside } = useBench();
  const comparing = useComparing();
  const go = useGo();
  const isOnWall = ({ target }: KeyboardEvent) =>
    target === document.body || Boolean(p.scroller.current?.contains(target as Node));
  const face = p.item(p.focus);
  /** Does something with the face in focus, when the key was meant for the wall. */
  const withFace = (run: (face: ShownItem) => void) => (event: KeyboardEvent) =>
    face && isOnWall(event) ? run(face) : false;
  const move = (event: KeyboardEvent) => {
    const page = Math.max(1, Math.floor((p.scroller.current?.clientHeight ?? 600) / p.heightPx));
    const moved = isOnWall(event) ? moveFocus(event.key, p.focus, total, columns, page) : null;
    if (moved === null) return false;
    p.goTo(moved);
  };
  const turnAside = (of: ShownItem) => {
    const isAside = brief.setAside.includes(of.styleId);
    setAside(of.styleId, nameOf(of), !isAside);
    if (!isAside && p.focus + 1 < total) p.goTo(p.focus);
  };
  const turnCompared = (of: ShownItem) => comparing.turn(of.styleId, nameOf(of));
  const open = ({ target }: KeyboardEvent) => {
    if (!face || !(target as HTMLElement).matches("[data-strip]")) return false;
    go(addressOfKept(brief.briefId, { styleId: face.styleId, location: face.axisWanted }));
  };
  const keep = withFace((of) => toggleKept(of.styleId, nameOf(of), { location: of.axisWanted }));
  const compare = () => (p.hasLast ? p.setBeside(true) : false);
  const zoomBy = (step: number) => () => onZoom(Math.max(50, Math.min(240, zoom + step)));
  useKeys("Wall", [
    { keys: [" "], legend: "keep", run: keep },
    { keys: ["x"], legend: "set aside", run: withFace(turnAside) },
    { keys: ["c"], legend: "compare", run: withFace(turnCompared) },
    { keys: ["Enter"], legend: "open", run: open },
    {
      keys: ["d"],
      legend: "compare with previous",
      shown: "Hold D",
      run: compare,
      release: () => p.setBeside(false),
    },
    { keys: MOVES, legend: "move over the wall", shown: "← → ↑ ↓", isLesser: true, run: move },
    { keys: ["+", "="], legend: "larger samples", shown: "+", isLesser: true, run: zoomBy(10) },
    { keys: ["-"], legend: "smaller samples", shown: "−", isLesser: true, run: zoomBy(-10) },
  ]);
}

const MOVES = ["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", "PageUp", "PageDown", "Home", "End"];
