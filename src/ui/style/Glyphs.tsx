"use client";
// All glyphs of the font, virtualised: search by character, name or U+, copy on click.
import { useInfiniteQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useCallback, useEffect, useRef, useState, type ReactNode, type RefObject } from "react";
import { GLYPH_KINDS, type Glyph, type GlyphList, type StyleDetail } from "@/contracts/styles";
import { writeCodePoint } from "@/core/unicode/codePoint";
import { useCharacterNames } from "@/ui/parts/characterNames";
import { writeFeature } from "@/contracts/words";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { ask } from "../parts/client";
import { useCopy } from "../parts/useCopy";

const CELL_PX = 64;

export function Glyphs({ style }: { style: StyleDetail }) {
  const [query, setQuery] = useState<Query>({ q: "", block: "", kind: "" });
  const [looked, setLooked] = useState<Glyph | null>(null);
  const { brief, changeInStep } = useBench();
  const [active] = useActiveLine();
  const scroller = useRef<HTMLDivElement>(null);
  const columns = useColumns(scroller);
  const { first, all, total, more } = useGlyphPages(style.styleId, query);
  const rows = useVirtualizer({
    count: Math.ceil(total / columns),
    getScrollElement: () => scroller.current,
    estimateSize: () => CELL_PX,
    overscan: 4,
  });
  const shown = rows.getVirtualItems();
  const lastShown = ((shown[shown.length - 1]?.index ?? 0) + 1) * columns;
  useEffect(() => more(lastShown), [more, lastShown]);
  const copy = useGlyphCopy();
  const add = (g: Glyph) => {
    const c = String.fromCodePoint(g.codePoints[0]!);
    const lines = brief.lines.map((l, i) => (i === active ? { ...l, text: `${l.text}${c}` } : l));
    changeInStep({ lines }, `${c} added to the line`);
  };
  const cell = (g: Glyph | undefined) => {
    if (!g || !first) return null;
    const onCopy = () => {
      setLooked(g);
      void copy(g);
    };
    return <Cell key={g.id} glyph={g} list={first} onLook={() => setLooked(g)} onCopy={onCopy} />;
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_168px] gap-6">
      <div>
        <Choices style={style} query={query} onChange={setQuery} first={first} />
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
                {Array.from({ length: columns }, (_, i) => cell(all[row.index * columns + i]))}
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

type Query = { q: string; block: string; kind: string };

/** Pages of glyphs, fetched as they come near. */
function useGlyphPages(styleId: string, { q, block, kind }: Query) {
  const query = { q: q.trim(), block, kind };
  const glyphs = useInfiniteQuery({
    queryKey: ["listGlyphs", styleId, query],
    queryFn: ({ pageParam, signal }) =>
      ask("listGlyphs", { params: { id: styleId }, query: { ...query, cursor: pageParam } }, { signal }),
    initialPageParam: "",
    getNextPageParam: (last) => last.cursor,
    placeholderData: (before) => before,
  });
  const first = glyphs.data?.pages[0];
  const all = glyphs.data?.pages.flatMap((p) => p.glyphs) ?? [];
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = glyphs;
  const count = all.length;
  const more = useCallback(
    (lastShown: number) => {
      if (lastShown > count - 40 && hasNextPage && !isFetchingNextPage) void fetchNextPage();
    },
    [count, hasNextPage, isFetchingNextPage, fetchNextPage],
  );
  return { first, all, total: first?.total ?? 0, more };
}

/** As many as there is room for. */
function useColumns(scroller: RefObject<HTMLDivElement | null>): number {
  const [columns, setColumns] = useState(12);
  useEffect(() => {
    const box = scroller.current;
    if (!box) return;
    const watch = new ResizeObserver(() => setColumns(Math.max(4, Math.floor(box.clientWidth / CELL_PX))));
    watch.observe(box);
    return () => watch.disconnect();
  }, [scroller]);
  return columns;
}

function useGlyphCopy() {
  const nameCharacter = useCharacterNames();
  const { say } = useBench();
  const copy = useCopy();
  return async (g: Glyph) => {
    const c = g.codePoints[0];
    if (c === undefined)
      return say(
        `${g.name} has no character of its own${g.features.length ? `; the feature ${g.features.join(", ")} reaches it` : ""}.`,
      );
    const character = String.fromCodePoint(c);
    await copy(character, `${character} copied (${nameCharacter(c)}, ${writeCodePoint(c)})`);
  };
}

type ChoicesProps = {
  style: StyleDetail;
  query: Query;
  onChange: (query: Query) => void;
  first: GlyphList | undefined;
};

function Choices({ style, query, onChange, first }: ChoicesProps) {
  const select = (label: string, key: "block" | "kind", options: ReactNode) => (
    <select
      aria-label={label}
      className="border-b border-basalt bg-transparent py-1"
      value={query[key]}
      onChange={(e) => onChange({ ...query, [key]: e.target.value })}
    >
      {options}
    </select>
  );
  const blocks = style.coverage.blocks.map((b) => (
    <option key={b.name} value={b.name}>
      {b.name} ({b.have})
    </option>
  ));
  const kinds = GLYPH_KINDS.filter((k) => first?.kinds[k] || k === query.kind).map((k) => (
    <option key={k} value={k}>
      {k} ({first?.kinds[k] ?? 0})
    </option>
  ));
  return (
    <div className="flex flex-wrap items-baseline gap-x-4">
      <input
        type="search"
        aria-label="Find a glyph"
        className="field max-w-72"
        placeholder="&  or  ampersand  or  U+0026"
        value={query.q}
        onChange={(e) => onChange({ ...query, q: e.target.value })}
      />
      {select("Block", "block", [
        <option key="" value="">
          All blocks
        </option>,
        ...blocks,
        <option key="Not encoded" value="Not encoded">
          Unencoded
        </option>,
      ])}
      {select("Kind of glyph", "kind", [
        <option key="" value="">
          All kinds
        </option>,
        ...kinds,
      ])}
      <span className="num ml-auto">{first?.total ?? 0} glyphs</span>
    </div>
  );
}

const describe = (g: Glyph, nameCharacter: (codePoint: number) => string) =>
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
  const nameCharacter = useCharacterNames();
  return (
    <button
      type="button"
      aria-label={`Copy ${describe(glyph, nameCharacter)}`}
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
  const nameCharacter = useCharacterNames();
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
