"use client";
// All glyphs of the font, virtualised: search by character, name or U+, copy on click.
import { useInfiniteQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, useState } from "react";
import { GLYPH_KINDS, type Glyph, type GlyphList, type StyleDetail } from "@/contracts/styles";
import { nameCharacter, writeCodePoint } from "@/core/open/characterNames";
import { writeFeature } from "@/contracts/words";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { ask } from "../parts/client";

const CELL_PX = 64;

export function Glyphs({ style }: { style: StyleDetail }) {
  const [q, setQ] = useState("");
  const [block, setBlock] = useState("");
  const [kind, setKind] = useState("");
  const [looked, setLooked] = useState<Glyph | null>(null);
  const { say, brief, changeInStep } = useBench();
  const [active] = useActiveLine();
  const add = (g: Glyph) => {
    const c = String.fromCodePoint(g.codePoints[0]!);
    const lines = brief.lines.map((l, i) => (i === active ? { ...l, text: `${l.text}${c}` } : l));
    changeInStep({ lines }, `${c} added to the line`);
  };
  const query = { q: q.trim(), block, kind };
  const glyphs = useInfiniteQuery({
    queryKey: ["listGlyphs", style.styleId, query],
    queryFn: ({ pageParam, signal }) =>
      ask("listGlyphs", { params: { id: style.styleId }, query: { ...query, cursor: pageParam } }, { signal }),
    initialPageParam: "",
    getNextPageParam: (last) => last.cursor,
    placeholderData: (before) => before,
  });
  const first = glyphs.data?.pages[0];
  const all = glyphs.data?.pages.flatMap((p) => p.glyphs) ?? [];
  const scroller = useRef<HTMLDivElement>(null);
  const [columns, setColumns] = useState(12);
  useEffect(() => {
    const box = scroller.current;
    if (!box) return;
    const watch = new ResizeObserver(() => setColumns(Math.max(4, Math.floor(box.clientWidth / CELL_PX))));
    watch.observe(box);
    return () => watch.disconnect();
  }, []);
  const total = first?.total ?? 0;
  const rows = useVirtualizer({
    count: Math.ceil(total / columns),
    getScrollElement: () => scroller.current,
    estimateSize: () => CELL_PX,
    overscan: 4,
  });
  const shown = rows.getVirtualItems();
  const lastShown = ((shown[shown.length - 1]?.index ?? 0) + 1) * columns;
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = glyphs;
  useEffect(() => {
    if (lastShown > all.length - 40 && hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [lastShown, all.length, hasNextPage, isFetchingNextPage, fetchNextPage]);

  const copy = async (g: Glyph) => {
    setLooked(g);
    const c = g.codePoints[0];
    if (c === undefined)
      return say(
        `${g.name} has no character of its own${g.features.length ? `; the feature ${g.features.join(", ")} reaches it` : ""}.`,
      );
    try {
      await navigator.clipboard.writeText(String.fromCodePoint(c));
      say(`${String.fromCodePoint(c)} copied (${nameCharacter(c)}, ${writeCodePoint(c)})`);
    } catch {
      say("The browser does not allow copying here.", true);
    }
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_168px] gap-6">
      <div>
        <div className="flex items-baseline gap-4">
          <input
            type="search"
            aria-label="Find a glyph"
            className="field max-w-72"
            placeholder="&  or  ampersand  or  U+0026"
            value={q}
            onChange={(e) => setQ(e.target.value)}
          />
          <select
            aria-label="Block"
            className="border-b border-basalt bg-transparent py-1"
            value={block}
            onChange={(e) => setBlock(e.target.value)}
          >
            <option value="">All blocks</option>
            {style.coverage.blocks.map((b) => (
              <option key={b.name} value={b.name}>
                {b.name} ({b.have})
              </option>
            ))}
            <option value="Not encoded">Unencoded</option>
          </select>
          <select
            aria-label="Kind of glyph"
            className="border-b border-basalt bg-transparent py-1"
            value={kind}
            onChange={(e) => setKind(e.target.value)}
          >
            <option value="">All kinds</option>
            {GLYPH_KINDS.filter((k) => first?.kinds[k] || k === kind).map((k) => (
              <option key={k} value={k}>
                {k} ({first?.kinds[k] ?? 0})
              </option>
            ))}
          </select>
          <span className="num ml-auto">{total} glyphs</span>
        </div>
        <div
          ref={scroller}
          className="mt-2 h-[272px] overflow-y-auto border-t border-l border-rule"
          aria-label="Glyphs"
          role="group"
        >
          <div className="relative" style={{ height: rows.getTotalSize() }}>
            {shown.map((row) => (
              <div
                key={row.key}
                className="absolute inset-x-0 flex"
                style={{ transform: `translateY(${row.start}px)` }}
              >
                {Array.from({ length: columns }, (_, i) => {
                  const g = all[row.index * columns + i];
                  return g && first ? (
                    <Cell key={g.id} glyph={g} list={first} onLook={() => setLooked(g)} onCopy={() => void copy(g)} />
                  ) : null;
                })}
              </div>
            ))}
          </div>
          {first && !total && <p className="p-4 text-basalt">This font has no such glyph.</p>}
        </div>
      </div>
      <Looked glyph={looked ?? all[0] ?? null} list={first} onAdd={add} onCopy={(g) => void copy(g)} />
    </div>
  );
}

const describe = (g: Glyph) =>
  g.codePoints.length
    ? `${nameCharacter(g.codePoints[0]!)}, ${g.codePoints.map(writeCodePoint).join(" ")}`
    : `${g.name}, unencoded`;

function Drawing({ glyph, list, sizePx }: { glyph: Glyph; list: GlyphList; sizePx: number }) {
  const height = list.ascender - list.descender;
  const scale = sizePx / height;
  const width = Math.max(glyph.advance, 1);
  return (
    <svg
      width={Math.min(sizePx * 1.6, width * scale)}
      height={sizePx}
      viewBox={`0 ${-list.ascender} ${width} ${height}`}
      style={{ overflow: "visible" }}
      aria-hidden
    >
      <path d={glyph.path} fill="currentColor" />
    </svg>
  );
}

function Cell({
  glyph,
  list,
  onLook,
  onCopy,
}: {
  glyph: Glyph;
  list: GlyphList;
  onLook: () => void;
  onCopy: () => void;
}) {
  return (
    <button
      type="button"
      aria-label={`Copy ${describe(glyph)}`}
      onMouseEnter={onLook}
      onFocus={onLook}
      onClick={onCopy}
      style={{ width: CELL_PX, height: CELL_PX }}
      className="grid shrink-0 place-items-center overflow-hidden border-r border-b border-rule hover:bg-chalk"
    >
      <Drawing glyph={glyph} list={list} sizePx={40} />
    </button>
  );
}

function Looked({
  glyph,
  list,
  onAdd,
  onCopy,
}: {
  glyph: Glyph | null;
  list: GlyphList | undefined;
  onAdd: (g: Glyph) => void;
  onCopy: (g: Glyph) => void;
}) {
  if (!glyph || !list) return <div />;
  return (
    <div aria-live="polite">
      <div className="grid h-[150px] place-items-center overflow-hidden border border-rule bg-chalk">
        <Drawing glyph={glyph} list={list} sizePx={110} />
      </div>
      <p className="mt-2 font-semibold">{glyph.codePoints.length ? nameCharacter(glyph.codePoints[0]!) : glyph.name}</p>
      <p className="num">
        {glyph.codePoints.map(writeCodePoint).join(" ") || "no code point"}
        <br />
        glyph {glyph.id} · {glyph.name}
        <br />
        advance {(glyph.advance / list.unitsPerEm).toFixed(3)} em
        {glyph.features.length > 0 && (
          <>
            <br />
            by feature {glyph.features.map(writeFeature).join(", ")}
          </>
        )}
      </p>
      {glyph.codePoints.length > 0 && (
        <div className="mt-2 grid gap-1.5">
          <button type="button" className="btn" onClick={() => onCopy(glyph)}>
            Copy
          </button>
          <button type="button" className="btn" onClick={() => onAdd(glyph)}>
            Add to the line
          </button>
        </div>
      )}
    </div>
  );
}
