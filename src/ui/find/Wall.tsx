"use client";
// The wall of samples: virtualised rows of strips, gone through by keys alone.
import { useVirtualizer } from "@tanstack/react-virtual";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { useBench } from "../bench/BenchContext";
import { useGo } from "../bench/useGo";
import { isTyping } from "../bench/Bench";
import type { Ranges } from "../parts/CoreSample";
import { preloadFaces } from "../parts/faceLoader";
import { Beside } from "./Beside";
import { Strip, type StripLook } from "./Strip";
import { factsOf } from "./facts";
import { moveFocus } from "./select";
import { useSharedFit } from "./useSharedFit";
import { addressOfKept } from "../parts/sampleOf";
import { usePages, type FirstPage } from "./usePages";
import { addressOf } from "../parts/client";

const BASE_PX: Record<number, number> = { 1: 60, 2: 42, 3: 30, 4: 24, 5: 20, 6: 17 };
const DEFAULT_COLOURS = { ink: "#20262B", paper: "#F3EFE6" };

type Props = {
  total: number;
  columns: number;
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

export function Wall(props: Props) {
  const { total, columns, zoom, wrap, isLarge, ground, text, ranges, first, onZoom, resetKey } = props;
  const { brief, toggleKept, setAside, dispatch } = useBench();
  const go = useGo();
  const scroller = useRef<HTMLDivElement>(null);
  const [left] = useState(() => readPlace(resetKey));
  const [focus, setFocus] = useState(left.focus);
  const [last, setLast] = useState<number | null>(null);
  const [isBeside, setBeside] = useState(false);
  const basePx = ((BASE_PX[columns] ?? 42) * (isLarge ? 1.7 : 1) * zoom) / 100;
  const heightPx = Math.round(
    (wrap ? basePx * 0.55 * 1.3 * (columns > 2 ? 8 : 4.4) : basePx * 1.78) + (columns > 2 ? 62 : 46),
  );
  const picture =
    ground === "picture" && brief.picture
      ? `${addressOf("getBriefPicture", { params: { id: brief.briefId } })}?v=${brief.picture}`
      : null;
  const look: StripLook = useMemo(
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
      compact: columns > 2,
      dense: columns > 4,
      byLineWidth: brief.levelBy === "line-width" && !wrap,
    }),
    [basePx, wrap, heightPx, brief.ink, brief.paper, picture, columns, brief.levelBy],
  );
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
  const before = useRef(resetKey);
  useEffect(() => {
    if (before.current === resetKey) return;
    before.current = resetKey;
    setFocus(0);
    setLast(null);
    virtual.scrollToOffset(0);
  }, [resetKey, virtual]);
  useEffect(() => {
    const timer = setTimeout(
      () =>
        sessionStorage.setItem(
          placeKey(resetKey),
          JSON.stringify({ focus, scroll: scroller.current?.scrollTop ?? 0 } satisfies Place),
        ),
      150,
    );
    return () => clearTimeout(timer);
  }, [focus, from, resetKey]);
  // Fonts of the rows that come next are fetched while these are looked at; not in the middle of a long scroll.
  const { isScrolling } = virtual;
  const ahead = useRef(from);
  useEffect(() => {
    if (isScrolling) return;
    const down = from >= ahead.current;
    ahead.current = from;
    const next = Array.from({ length: 2 * columns + 6 }, (_, k) => item(down ? to + k : from - 1 - k));
    preloadFaces(next.flatMap((n) => (n?.owned ? [n.styleId] : [])));
  }, [isScrolling, from, to, columns, item]);

  const asked = { columns, basePx, isCompact: columns > 2, text, levelBy: brief.levelBy };
  const fit = useSharedFit(scroller, asked, item);

  const focused = item(Math.min(focus, Math.max(0, total - 1)));
  useEffect(() => {
    if (!focused) return dispatch({ type: "facts", facts: [], keys: [] });
    dispatch({ type: "facts", facts: factsOf(focused), keys: KEYS });
  }, [focused, dispatch]);

  const lookAt = useCallback((index: number) => {
    setFocus((now) => {
      if (now !== index) setLast(now);
      return index;
    });
  }, []);
  // A row that is not drawn yet takes the focus a frame later; of several keys within that frame only the last does.
  const wanted = useRef(0);
  const goTo = useCallback(
    (index: number) => {
      wanted.current = index;
      lookAt(index);
      virtual.scrollToIndex(Math.floor(index / columns));
      const strip = () => scroller.current?.querySelector<HTMLElement>(`[data-index="${index}"] [data-strip]`);
      const drawn = strip();
      if (drawn) return drawn.focus({ preventScroll: true });
      requestAnimationFrame(() => {
        if (wanted.current === index) strip()?.focus({ preventScroll: true });
      });
    },
    [columns, virtual, lookAt],
  );

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      const target = event.target as HTMLElement;
      const onWall = target === document.body || scroller.current?.contains(target);
      const moved = onWall
        ? moveFocus(
            event.key,
            focus,
            total,
            columns,
            Math.max(1, Math.floor((scroller.current?.clientHeight ?? 600) / heightPx)),
          )
        : null;
      const face = item(focus);
      const name = face ? `${face.family} ${face.style}` : "";
      if (moved !== null) goTo(moved);
      else if (event.key.toLowerCase() === "d" && last !== null) setBeside(true);
      else if (event.key === " " && onWall && face) toggleKept(face.styleId, name, { location: face.axisWanted });
      else if (event.key.toLowerCase() === "x" && onWall && face) {
        const isAside = brief.setAside.includes(face.styleId);
        setAside(face.styleId, name, !isAside);
        if (!isAside && focus + 1 < total) goTo(focus);
      } else if (event.key === "Enter" && target.matches("[data-strip]") && face)
        go(addressOfKept(brief.briefId, { styleId: face.styleId, location: face.axisWanted }));
      else if (event.key === "+" || event.key === "=") onZoom(Math.min(240, zoom + 10));
      else if (event.key === "-") onZoom(Math.max(50, zoom - 10));
      else return;
      event.preventDefault();
    };
    const onUp = (event: KeyboardEvent) => event.key.toLowerCase() === "d" && setBeside(false);
    const onBlur = () => setBeside(false);
    window.addEventListener("keydown", onKey);
    window.addEventListener("keyup", onUp);
    window.addEventListener("blur", onBlur);
    return () => {
      window.removeEventListener("keydown", onKey);
      window.removeEventListener("keyup", onUp);
      window.removeEventListener("blur", onBlur);
    };
  }, [
    last,
    focus,
    total,
    columns,
    heightPx,
    zoom,
    item,
    goTo,
    toggleKept,
    setAside,
    go,
    onZoom,
    brief.setAside,
    brief.briefId,
  ]);

  const kept = useMemo(() => new Set(brief.kept.map((k) => k.styleId)), [brief.kept]);
  const aside = useMemo(() => new Set(brief.setAside), [brief.setAside]);
  const [faceA, faceB] = isBeside && last !== null ? [item(last), item(focus)] : [undefined, undefined];
  const onKeep = useCallback(
    (face: ShownItem) => toggleKept(face.styleId, `${face.family} ${face.style}`, { location: face.axisWanted }),
    [toggleKept],
  );
  return (
    <div className="relative flex h-full flex-col">
      {faceA && faceB && <Beside a={faceA} b={faceB} text={text} ranges={ranges} />}
      {fit < 1 && !wrap && !look.byLineWidth && (
        <p
          className="pointer-events-none absolute right-3 bottom-1 z-10 bg-limestone px-2 text-[12px] text-basalt"
          data-shared-fit
        >
          Samples shown at {Math.round(fit * 100)} % so the line fits.
        </p>
      )}
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
            <div
              key={row.key}
              role="row"
              aria-rowindex={row.index + 1}
              className="absolute inset-x-0 grid"
              style={{
                transform: `translateY(${row.start}px)`,
                // A layer of its own: while the wall is scrolled a row is moved, not painted again.
                willChange: "transform",
                gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
              }}
            >
              {Array.from({ length: columns }, (_, c) => {
                const index = row.index * columns + c;
                if (index >= total) return null;
                const face = item(index);
                if (!face)
                  return (
                    <div
                      key={index}
                      role="gridcell"
                      aria-busy
                      className="border-r border-b border-rule"
                      style={{ height: heightPx }}
                    />
                  );
                return (
                  <div key={face.styleId} data-index={index} role="presentation" className="min-w-0">
                    <Strip
                      item={face}
                      text={text}
                      sizePx={basePx * levelFactor(face.traits, brief.levelBy) * (wrap ? 0.55 : 1)}
                      fit={wrap || look.byLineWidth ? undefined : fit}
                      look={look}
                      ranges={ranges}
                      isKept={kept.has(face.styleId)}
                      isAside={aside.has(face.styleId)}
                      isFocus={index === focus}
                      index={index}
                      briefId={brief.briefId}
                      isPassing={isScrolling}
                      onFocus={lookAt}
                      onKeep={onKeep}
                    />
                  </div>
                );
              })}
            </div>
          ))}
        </div>
      </div>
    </div>
  );
}

const KEYS = [
  { key: "Space", does: "keep" },
  { key: "X", does: "set aside" },
  { key: "Enter", does: "open" },
  { key: "Hold D", does: "compare with previous" },
  { key: "/", does: "search" },
];
