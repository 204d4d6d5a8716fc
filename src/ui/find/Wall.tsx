"use client";
// The wall of samples: virtualised rows of strips, gone through by keys alone.
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useRef, useState } from "react";
import type { StyleListItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { useBench } from "../bench/BenchContext";
import { isTyping } from "../bench/Bench";
import type { Ranges } from "../parts/CoreSample";
import { Strip, type StripLook } from "./Strip";
import { moveFocus } from "./select";

export const BASE_PX: Record<number, number> = { 1: 60, 2: 42, 3: 30, 4: 24, 5: 20, 6: 17 };
const DEFAULT_COLOURS = { ink: "#20262B", paper: "#F3EFE6" };

type Props = {
  total: number;
  columns: number;
  zoom: number;
  wrap: boolean;
  text: string;
  ranges: Ranges;
  item: (index: number) => StyleListItem | undefined;
  onRange: (from: number, to: number) => void;
  onZoom: (zoom: number) => void;
  resetKey: string;
};

export function Wall({ total, columns, zoom, wrap, text, ranges, item, onRange, onZoom, resetKey }: Props) {
  const { brief, toggleKept, setAside, dispatch } = useBench();
  const router = useRouter();
  const scroller = useRef<HTMLDivElement>(null);
  const [focus, setFocus] = useState(0);
  const basePx = ((BASE_PX[columns] ?? 42) * zoom) / 100;
  const heightPx = Math.round(
    (wrap ? basePx * 0.55 * 1.3 * (columns > 2 ? 8 : 4.4) : basePx * 1.78) + (columns > 2 ? 62 : 46),
  );
  const look: StripLook = {
    basePx,
    wrap,
    heightPx,
    ink: brief.ink,
    paper: brief.paper,
    coloured: brief.ink.toUpperCase() !== DEFAULT_COLOURS.ink || brief.paper.toUpperCase() !== DEFAULT_COLOURS.paper,
    compact: columns > 2,
  };
  const rows = Math.ceil(total / columns);
  const virtual = useVirtualizer({
    count: rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => heightPx,
    overscan: 3,
  });
  const shown = virtual.getVirtualItems();
  const from = (shown[0]?.index ?? 0) * columns;
  const to = ((shown[shown.length - 1]?.index ?? 0) + 1) * columns;
  useEffect(() => onRange(from, to), [from, to, onRange]);
  useEffect(() => virtual.measure(), [heightPx, columns, virtual]);
  const before = useRef(resetKey);
  useEffect(() => {
    if (before.current === resetKey) return;
    before.current = resetKey;
    setFocus(0);
    virtual.scrollToOffset(0);
  }, [resetKey, virtual]);

  const focused = item(Math.min(focus, Math.max(0, total - 1)));
  useEffect(() => {
    if (!focused) return dispatch({ type: "facts", facts: [], keys: [] });
    dispatch({ type: "facts", facts: factsOf(focused), keys: KEYS });
  }, [focused, dispatch]);

  const goTo = useCallback(
    (index: number) => {
      setFocus(index);
      virtual.scrollToIndex(Math.floor(index / columns));
      requestAnimationFrame(() =>
        scroller.current
          ?.querySelector<HTMLElement>(`[data-index="${index}"] [data-strip]`)
          ?.focus({ preventScroll: true }),
      );
    },
    [columns, virtual],
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
      else if (event.key === " " && onWall && face) toggleKept(face.styleId, name);
      else if (event.key.toLowerCase() === "x" && face) {
        const isAside = brief.setAside.includes(face.styleId);
        setAside(face.styleId, name, !isAside);
        if (!isAside && focus + 1 < total) goTo(focus);
      } else if (event.key === "Enter" && target.matches("[data-strip]") && face)
        router.push(`/b/${brief.briefId}/style/${face.styleId}`);
      else if (event.key === "+" || event.key === "=") onZoom(Math.min(240, zoom + 10));
      else if (event.key === "-") onZoom(Math.max(50, zoom - 10));
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [
    focus,
    total,
    columns,
    heightPx,
    zoom,
    item,
    goTo,
    toggleKept,
    setAside,
    router,
    onZoom,
    brief.setAside,
    brief.briefId,
  ]);

  const kept = new Set(brief.kept.map((k) => k.styleId));
  const aside = new Set(brief.setAside);
  return (
    <div
      ref={scroller}
      className="group/wall h-full overflow-y-auto"
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
                    look={look}
                    ranges={ranges}
                    isKept={kept.has(face.styleId)}
                    isAside={aside.has(face.styleId)}
                    isFocus={index === focus}
                    href={`/b/${brief.briefId}/style/${face.styleId}`}
                    onFocus={() => setFocus(index)}
                    onKeep={() => toggleKept(face.styleId, `${face.family} ${face.style}`)}
                  />
                </div>
              );
            })}
          </div>
        ))}
      </div>
    </div>
  );
}

const KEYS = [
  { key: "Space", does: "keep" },
  { key: "X", does: "set aside" },
  { key: "Enter", does: "open" },
  { key: "/", does: "search" },
];

export function factsOf(item: StyleListItem): string[] {
  const { traits } = item;
  const needed = item.missing.length ? `lacks ${item.missing.join(" ")}` : "all characters";
  return [
    `${item.family} ${item.style}`,
    traits.stemEm === null ? "stem not measured" : `stem ${traits.stemEm.toFixed(3)} em`,
    traits.contrast === null ? "" : `contrast ${traits.contrast.toFixed(1)}`,
    traits.xHeightEm === null ? "" : `x-height ${traits.xHeightEm.toFixed(2)} em`,
    needed,
  ].filter(Boolean);
}
