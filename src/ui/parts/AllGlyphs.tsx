"use client";
// All glyphs of a face, virtualised: searched by character, name, code point, block, kind, or by what one looks like. What is done with one
// is said by who shows them.
import { useInfiniteQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useCallback, useEffect, useRef, useState, type ReactNode, type RefObject } from "react";
import { GLYPH_KINDS, type Glyph, type GlyphList } from "@/contracts/styles";
import { writeCodePoint } from "@/core/unicode/codePoint";
import { writeFeature } from "@/contracts/words";
import { useBench } from "../bench/BenchContext";
import { useCharacterNames } from "./characterNames";
import { ask } from "./client";
import { Tick } from "./Tick";
import { useCopy } from "./useCopy";

const CELL_PX = 64;

type Props = {
  styleId: string;
  blocks: readonly { name: string; have: number }[];
  /** A glyph whose look-alikes can be asked for, and its name. */
  like?: { glyphId: number; name: string } | undefined;
  /** What a click does: "Copy", "Choose". */
  pickName: string;
  onPick?: (glyph: Glyph) => void;
  /** Buttons of the glyph that is looked at. */
  deeds: (glyph: Glyph) => ReactNode;
};

export function AllGlyphs({ styleId, blocks, like, pickName, onPick, deeds }: Props) {
  const [query, setQuery] = useState<Query>({ q: "", block: "", kind: "", isAlike: false });
  const [picked, setPicked] = useState<Glyph | null>(null);
  // Looked at in passing: on the way to a button beside, what was picked is what counts.
  const [passed, setPassed] = useState<Glyph | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const columns = useColumns(scroller);
  const { first, all, total, more } = useGlyphPages(styleId, query, like?.glyphId);
  const rows = useVirtualizer({
    count: Math.ceil(total / columns),
    getScrollElement: () => scroller.current,
    estimateSize: () => CELL_PX,
    overscan: 4,
  });
  const shown = rows.getVirtualItems();
  const lastShown = ((shown[shown.length - 1]?.index ?? 0) + 1) * columns;
  useEffect(() => more(lastShown), [more, lastShown]);
  const cell = (g: Glyph | undefined) => {
    if (!g || !first) return null;
    const pick = () => {
      setPicked(g);
      onPick?.(g);
    };
    return (
      <Cell
        key={g.id}
        glyph={g}
        list={first}
        name={pickName}
        isPicked={g.id === picked?.id}
        onLook={() => setPassed(g)}
        onPick={pick}
      />
    );
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_168px] gap-6">
      <div>
        <Choices {...{ blocks, query, first, like }} onChange={setQuery} />
        <div
          ref={scroller}
          className="mt-2 h-[272px] overflow-y-auto border-t border-l border-rule"
          aria-label="Glyphs"
          role="group"
          onMouseLeave={() => setPassed(null)}
          onBlur={() => setPassed(null)}
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
      <Looked glyph={passed ?? picked ?? all[0] ?? null} list={first} deeds={deeds} />
    </div>
  );
}

type Query = { q: string; block: string; kind: string; isAlike: boolean };

/** Pages of glyphs, fetched as they come near. */
function useGlyphPages(styleId: string, { q, block, kind, isAlike }: Query, like: number | undefined) {
  const query = { q: q.trim(), block, kind, ...(isAlike && like !== undefined && { alike: String(like) }) };
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

/** Copies the character of a glyph, or says why it has none. */
export function useGlyphCopy() {
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

type ChoicesProps = Pick<Props, "blocks" | "like"> & {
  query: Query;
  onChange: (query: Query) => void;
  first: GlyphList | undefined;
};

function Choices({ blocks: all, like, query, onChange, first }: ChoicesProps) {
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
  const blocks = all.map((b) => (
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
      {like && (
        <Tick
          name={`Like ${like.name}`}
          checked={query.isAlike}
          onChange={(isAlike) => onChange({ ...query, isAlike })}
        />
      )}
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
  name,
  isPicked,
  onLook,
  onPick,
}: {
  glyph: Glyph;
  list: GlyphList;
  name: string;
  isPicked: boolean;
  onLook: () => void;
  onPick: () => void;
}) {
  const nameCharacter = useCharacterNames();
  return (
    <button
      type="button"
      aria-label={`${name} ${describe(glyph, nameCharacter)}`}
      onMouseEnter={onLook}
      onFocus={onLook}
      onClick={onPick}
      style={{ width: CELL_PX, height: CELL_PX }}
      className={`grid shrink-0 place-items-center overflow-hidden border-r border-b border-rule hover:bg-chalk ${isPicked ? "bg-chalk shadow-[inset_0_0_0_2px_var(--tide)]" : ""}`}
    >
      <Drawing glyph={glyph} list={list} sizePx={40} />
    </button>
  );
}

type LookedProps = { glyph: Glyph | null; list: GlyphList | undefined; deeds: Props["deeds"] };

function Looked({ glyph, list, deeds }: LookedProps) {
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
      <div className="mt-2 grid gap-1.5">{deeds(glyph)}</div>
    </div>
  );
}
