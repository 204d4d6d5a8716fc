"use client";
// Find: the field that reads words, the sieve, and the wall set in the brief's words.
import { useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "next/navigation";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Understood } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { isTyping } from "../bench/Bench";
import { useActiveLine } from "../bench/BriefStrip";
import { useHealth } from "../bench/Rail";
import { Choice } from "../parts/Choice";
import { ApiFault } from "../parts/api";
import { writeFault } from "../messages";
import { NO_FILTERS, SETTING_TEXTS, useFindAddress, writeQuestion, type Setting } from "./address";
import { selectActive } from "./select";
import { Sieve } from "./Sieve";
import { usePages } from "./usePages";
import { Wall } from "./Wall";

const SORT_WORDS = {
  fit: "Best fit first",
  name: "By name",
  newest: "Newest first",
  weight: "Lightest first",
  width: "Narrowest first",
} as const;
const SETTING_WORDS: Record<Setting, string> = {
  line: "The brief’s line",
  words: "Words",
  sentence: "Sentence",
  paragraph: "Paragraph",
  alphabet: "Alphabet",
  figures: "Figures",
};

export function FindView() {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const [address, setAddress] = useFindAddress();
  const [range, setRange] = useState({ from: 0, to: 60 });
  const [sieveOpen, setSieveOpen] = useState(true);
  const question = writeQuestion(address, brief.briefId);
  const pages = usePages(question, range.from, range.to);
  useFreshWhileReading();
  const field = useRef<HTMLInputElement>(null);
  const params = useSearchParams();
  useEffect(() => {
    if (params.get("focus") === "search") field.current?.focus();
  }, [params]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "/" || isTyping(event)) return;
      event.preventDefault();
      field.current?.focus();
      field.current?.select();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  const onRange = useCallback(
    (from: number, to: number) => setRange((r) => (r.from === from && r.to === to ? r : { from, to })),
    [],
  );
  const onZoom = useCallback((zoom: number) => void setAddress({ zoom }), [setAddress]);
  const text = address.set === "line" ? brief.lines[active]?.text || " " : SETTING_TEXTS[address.set];
  const head = pages.head;
  const actives = selectActive(address);
  return (
    <div className={`grid h-full ${sieveOpen ? "grid-cols-[212px_minmax(0,1fr)]" : "grid-cols-1"}`}>
      {sieveOpen && (
        <Sieve
          address={address}
          set={(change) => void setAddress(change)}
          facets={head?.facets}
          ofAll={head?.ofAll ?? 0}
        />
      )}
      <section className="flex min-h-0 min-w-0 flex-col pt-3" aria-label="Wall">
        <h1 className="sr-only">Find</h1>
        <div className="mx-3.5 flex items-baseline gap-3 border-b-2 border-slate pb-1.5">
          <SearchField ref={field} value={address.q} onChange={(q) => void setAddress({ q: q || null })} />
          <span className="num shrink-0" data-count aria-live="polite">
            {head ? `${head.total} of ${head.ofAll} styles` : "…"}
          </span>
        </div>
        <div className="mx-3.5 flex min-h-[34px] items-center gap-x-3 border-b border-rule text-[12.5px]">
          <button
            type="button"
            className="btn-quiet -ml-1"
            aria-expanded={sieveOpen}
            onClick={() => setSieveOpen(!sieveOpen)}
          >
            {sieveOpen ? "Fold sieve" : "Sieve"}
          </button>
          <ActiveWords
            understood={head?.understood}
            actives={actives}
            onOff={(off) => void setAddress(off as never)}
            onWordOff={(from) => void setAddress({ q: removeWords(address.q, from) || null })}
          />
          <span className="ml-auto flex shrink-0 items-center gap-3">
            <Choice
              label="Set in"
              value={address.set}
              options={(Object.keys(SETTING_WORDS) as Setting[]).map((value) => ({
                value,
                name: SETTING_WORDS[value],
              }))}
              onChange={(set) => void setAddress({ set })}
              strong={false}
            />
            <Choice
              label="Columns"
              value={address.columns}
              options={[1, 2, 3, 4, 5, 6].map((n) => ({ value: n, name: n === 1 ? "1 column" : `${n} columns` }))}
              onChange={(columns) => void setAddress({ columns })}
              strong={false}
            />
            <Choice
              label="Order"
              value={address.sort}
              options={Object.entries(SORT_WORDS).map(([value, name]) => ({
                value: value as keyof typeof SORT_WORDS,
                name,
              }))}
              onChange={(sort) => void setAddress({ sort })}
              strong={false}
            />
          </span>
        </div>
        {brief.setAside.length > 0 && (
          <p className="mx-3.5 flex gap-3 border-b border-rule py-1 text-[12px] text-basalt">
            {address.aside === "only"
              ? "Only what is set aside is shown. X brings a face back."
              : `${brief.setAside.length} set aside for this brief.`}
            <button
              type="button"
              className="underline"
              onClick={() => void setAddress({ aside: address.aside === "only" ? null : "only" })}
            >
              {address.aside === "only" ? "Back to the wall" : "Show them"}
            </button>
          </p>
        )}
        <div className="min-h-0 flex-1 pl-0.5">
          {pages.error ? (
            <Broken error={pages.error} />
          ) : head && head.total === 0 ? (
            <Empty
              ofAll={head.ofAll}
              isFiltered={Boolean(address.q) || actives.length > 0}
              onClear={() => void setAddress(NO_FILTERS)}
            />
          ) : (
            <Wall
              total={head?.total ?? 0}
              columns={Math.min(6, Math.max(1, address.columns))}
              zoom={address.zoom}
              wrap={["sentence", "paragraph", "alphabet"].includes(address.set)}
              text={text}
              ranges={head?.ranges ?? {}}
              item={pages.item}
              onRange={onRange}
              onZoom={onZoom}
              resetKey={question}
            />
          )}
        </div>
      </section>
    </div>
  );
}

/** While fonts are being read, the wall fills: asks again when the count has grown. */
function useFreshWhileReading() {
  const queries = useQueryClient();
  const count = useHealth().data?.styles;
  const asked = useRef({ count, at: 0 });
  useEffect(() => {
    if (count === undefined || count === asked.current.count) return;
    const wait = Math.max(0, 2500 - (Date.now() - asked.current.at));
    const timer = setTimeout(() => {
      asked.current = { count, at: Date.now() };
      void queries.invalidateQueries({ queryKey: ["styles"] });
    }, wait);
    return () => clearTimeout(timer);
  }, [count, queries]);
}

function SearchField({
  value,
  onChange,
  ref,
}: {
  value: string;
  onChange: (q: string) => void;
  ref: React.Ref<HTMLInputElement>;
}) {
  const [typed, setTyped] = useState(value);
  const [given, setGiven] = useState(value);
  // The address changed elsewhere (back, a word removed): the field follows.
  if (given !== value) {
    setGiven(value);
    if (value !== typed.trim()) setTyped(value);
  }
  return (
    <input
      ref={ref}
      type="search"
      aria-label="Find by name, kind or shape"
      placeholder="sturdy slab with an ampersand, to sell with"
      value={typed}
      onChange={(e) => {
        setTyped(e.target.value);
        onChange(e.target.value.trim());
      }}
      onKeyDown={(e) => {
        if (e.key === "Escape") e.currentTarget.blur();
        if (e.key === "Enter" || e.key === "ArrowDown") {
          e.preventDefault();
          document.querySelector<HTMLElement>("[data-index='0'] [data-strip]")?.focus();
        }
      }}
      className="min-w-0 flex-1 bg-transparent text-[18px] leading-6 outline-none placeholder:text-basalt/70"
    />
  );
}

/** The sentence without one of its phrases; joining words that are left alone at an end go too. */
export function removeWords(q: string, from: string): string {
  const escaped = from.replace(/[.*+?^${}()|[\]\\]/g, "\\$&").replace(/ /g, "[\\s,;]+");
  return q
    .replace(new RegExp(`(^|[\\s,;])${escaped}(?=$|[\\s,;])`, "i"), "$1")
    .replace(/^[\s,;]*(?:(?:and|or|with|an?|the)\b[\s,;]*)*$/i, "")
    .replace(/\s+/g, " ")
    .trim();
}

type Actives = ReturnType<typeof selectActive>;
function ActiveWords({
  understood,
  actives,
  onOff,
  onWordOff,
}: {
  understood: Understood | undefined;
  actives: Actives;
  onOff: (off: Actives[number]["off"]) => void;
  onWordOff: (from: string) => void;
}) {
  const word = (key: string, label: string, onClick: () => void) => (
    <button
      key={key}
      type="button"
      onClick={onClick}
      title="Take away"
      className="border-b border-dashed border-tide font-medium text-tide hover:line-through"
    >
      {label}
    </button>
  );
  const any = Boolean(understood?.words.length || actives.length);
  return (
    <span className="flex min-w-0 flex-wrap items-center gap-x-3 py-1" data-understood>
      {any && <span className="text-basalt">Understood:</span>}
      {understood?.words.map((w) => word(`w ${w.from}`, w.label, () => onWordOff(w.from)))}
      {actives.map((a) => word(`a ${a.label}`, a.label, () => onOff(a.off)))}
      {understood && understood.ignored.length > 0 && (
        <span className="text-ochre">not understood: {understood.ignored.join(", ")}</span>
      )}
    </span>
  );
}

function Empty({ ofAll, isFiltered, onClear }: { ofAll: number; isFiltered: boolean; onClear: () => void }) {
  const { brief } = useBench();
  if (!ofAll)
    return (
      <div className="p-8">
        <p className="text-[16px] font-semibold">The library is still empty.</p>
        <p className="mt-1 text-basalt">Fonts appear here as they are read. Drop your own under Libraries.</p>
        <a className="btn mt-4 inline-block" href={`/b/${brief.briefId}/libraries`}>
          Open Libraries
        </a>
      </div>
    );
  return (
    <div className="p-8">
      <p className="text-[16px] font-semibold">No face is all of this.</p>
      <p className="mt-1 text-basalt">Take a word away above, or begin anew.</p>
      {isFiltered && (
        <button type="button" className="btn mt-4" onClick={onClear}>
          Take everything away
        </button>
      )}
    </div>
  );
}

function Broken({ error }: { error: unknown }) {
  const { what, now } = writeFault(
    error instanceof ApiFault ? error.fault : { code: "internal", message: String((error as Error).message) },
  );
  return (
    <div className="p-8" role="alert">
      <p className="text-[16px] font-semibold text-madder">{what}</p>
      <p className="mt-1 text-basalt">{now}</p>
    </div>
  );
}
