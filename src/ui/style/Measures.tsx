"use client";
// Every measured trait: value, unit, how sure, where it stands in the library, how it was measured; and the words that rest on them.
import { useState } from "react";
import type { StyleDetail } from "@/contracts/styles";
import { TRAIT_WORDS, writeTrait } from "@/contracts/words";
import { useBench } from "../bench/BenchContext";
import { call } from "../bench/commands";

export function Measures({ style }: { style: StyleDetail }) {
  const t = style.traits;
  const facts: [string, string | null][] = [
    ["Monospaced", t.monospaced ? "yes" : "no"],
    ["Figures", [t.figures.height, t.figures.spacing].filter(Boolean).join(", ") || null],
    ["Cases", t.cases],
    ["Serif form", t.serifForm],
    [
      "Storeys of a and g",
      [t.storeysA, t.storeysG].map((n) => (n === 1 ? "single" : n === 2 ? "double" : "–")).join(", "),
    ],
  ];
  return (
    <div className="grid max-w-[1060px] grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)] gap-x-12">
      <section>
        <h2 className="head mb-1">Measurements compared with your library</h2>
        <ul>
          {Object.keys(TRAIT_WORDS).map((trait) => (
            <TraitLine key={trait} trait={trait} style={style} />
          ))}
        </ul>
      </section>
      <section>
        <h2 className="head mb-1">Also</h2>
        <dl>
          {facts.map(([label, value]) => (
            <div key={label} className="flex justify-between border-b border-rule py-[3px]">
              <dt>{label}</dt>
              <dd className="num">{value ?? "–"}</dd>
            </div>
          ))}
        </dl>
        {Object.keys(style.notes.reach).length > 0 && <Reach style={style} />}
        <h2 className="head mt-4 mb-1">Why these kinds</h2>
        <ul>
          {!style.kinds.length && <li className="text-basalt">Kinds are not told apart in this script.</li>}
          {[...style.kinds, ...style.treatments].map((k) => (
            <li key={k.value}>
              <b>{k.value}</b> <span className="num">{Math.round(k.confidence * 100)} %</span> {k.because}
            </li>
          ))}
          {style.vox && (
            <li className="text-basalt">
              Vox-ATypI: <b>{style.vox.value.replace("-", " ")}</b>{" "}
              <span className="num">{Math.round(style.vox.confidence * 100)} %</span> {style.vox.because}
            </li>
          )}
        </ul>
        <Words style={style} />
      </section>
    </div>
  );
}

function TraitLine({ trait, style }: { trait: string; style: StyleDetail }) {
  const value = style.traits[trait as keyof typeof style.traits] as number | null;
  const words = TRAIT_WORDS[trait]!;
  const spread = style.spread[trait];
  const sure = style.notes.confidence[trait];
  // Of scripts without upper- and lowercase alone.
  if (trait === "bodyEm" && typeof value !== "number") return null;
  if (value === null || value === undefined)
    return (
      <li
        className="grid grid-cols-[112px_92px_minmax(0,1fr)] items-center gap-3 border-b border-rule py-[3px]"
        title={words.method}
      >
        <span>{words.name}</span>
        <span className="num">–</span>
        <span className="truncate text-[12px] text-basalt">{style.notes.absent[trait] ?? "not measured"}</span>
      </li>
    );
  const bins = spread?.bins ?? [];
  const tallest = Math.max(1, ...bins);
  const place = spread ? Math.min(1, Math.max(0, (value - spread.range[0]) / (spread.range[1] - spread.range[0]))) : 0;
  return (
    <li
      className="grid grid-cols-[112px_92px_minmax(0,1fr)_52px] items-center gap-3 border-b border-rule py-[3px]"
      title={words.method}
      data-measure={trait}
    >
      <span>{words.name}</span>
      <span className={sure !== undefined && sure < 0.5 ? "num opacity-60" : "num"}>
        {sure !== undefined && sure < 0.5 ? "about " : ""}
        {writeTrait(trait, value)}
      </span>
      <svg
        viewBox={`0 0 ${Math.max(1, bins.length) * 10} 16`}
        preserveAspectRatio="none"
        className="block h-4 w-full"
        role="img"
        aria-label={`more than ${Math.round((spread?.above ?? 0) * 100)} % of the library`}
      >
        {bins.map((n, i) => (
          <rect
            key={i}
            x={i * 10}
            width={9.4}
            y={16 - (n / tallest) * 15}
            height={(n / tallest) * 15 || 0.4}
            fill="var(--rule)"
          />
        ))}
        <rect x={Math.max(0, place * bins.length * 10 - 1.2)} width={2.4} y={0} height={16} fill="var(--oxide)" />
      </svg>
      <span className="num text-right" title="of the library's styles have less">
        {Math.round((spread?.above ?? 0) * 100)} %
      </span>
    </li>
  );
}

function Reach({ style }: { style: StyleDetail }) {
  return (
    <>
      <h2 className="head mt-4 mb-1">What its axes reach</h2>
      <dl>
        {Object.entries(style.notes.reach)
          .filter(([, [low, high]]) => high > low)
          .map(([trait, [low, high]]) => (
            <div key={trait} className="flex justify-between border-b border-rule py-[3px]">
              <dt>{TRAIT_WORDS[trait]?.name ?? trait}</dt>
              <dd className="num">
                {writeTrait(trait, low)} to {writeTrait(trait, high)}
              </dd>
            </div>
          ))}
      </dl>
    </>
  );
}

/** Moods, periods, occasions: those that were measured or that a library says can be denied, own ones added. They hold for the family. */
function Words({ style }: { style: StyleDetail }) {
  const put = usePutTag(style.styleId);
  const denied = new Set(style.tags.filter((t) => !t.holds).map((t) => t.tag));
  const isSaid = (word: string) => style.tags.some((t) => t.holds && t.tag === word);
  const byLibraries = new Map(style.keywords.map((k) => [k.keyword, `said by ${k.libraryName}`]));
  const guesses = [
    ...[...byLibraries].map(([value, because]) => ({ value, because })),
    ...style.moods
      .filter((m) => !byLibraries.has(m.value))
      .map((m) => ({ value: m.value, because: `${m.because} (${Math.round(m.confidence * 100)} %)` })),
  ].filter((g) => !isSaid(g.value));
  return (
    <>
      <h2 className="head mt-4 mb-1">Tags</h2>
      <ul className="flex flex-wrap gap-x-3 gap-y-1" data-words>
        {guesses.map((g) => (
          <GivenTag key={g.value} {...g} isDenied={denied.has(g.value)} put={put} />
        ))}
        {style.tags
          .filter((t) => t.holds)
          .map((t) => (
            <li key={t.tag} className="font-semibold text-tide" title="said by you">
              {t.tag}
              <button
                type="button"
                className="btn-quiet"
                aria-label={`Take ${t.tag} away`}
                onClick={() => put(t.tag, null, `${t.tag} removed`, true)}
              >
                ×
              </button>
            </li>
          ))}
      </ul>
      <AddTag put={put} />
      <p className="mt-1 text-[12px] text-basalt">They hold for the whole family, and the find field knows them.</p>
    </>
  );
}

/** Says or denies a tag. @param back - what undo says of it again. */
type PutTag = (tag: string, holds: boolean | null, summary: string, back: boolean | null) => void;

function usePutTag(styleId: string): PutTag {
  const { perform } = useBench();
  const set = (tag: string, holds: boolean | null) =>
    call("tagStyle", { params: { id: styleId }, body: { tag, holds } });
  return (tag, holds, summary, back) => perform(summary, set(tag, holds), set(tag, back));
}

type GivenProps = { value: string; because: string; isDenied: boolean; put: PutTag };

/** A word that was measured, or that a library says. */
function GivenTag({ value, because, isDenied, put }: GivenProps) {
  const turn = () =>
    isDenied ? put(value, null, `${value} said again`, false) : put(value, false, `Not ${value}`, null);
  return (
    <li className={isDenied ? "text-basalt line-through" : ""} title={because}>
      {value}
      <button
        type="button"
        className="btn-quiet"
        aria-label={isDenied ? `It is ${value} after all` : `It is not ${value}`}
        onClick={turn}
      >
        {isDenied ? "↺" : "×"}
      </button>
    </li>
  );
}

function AddTag({ put }: { put: PutTag }) {
  const [typed, setTyped] = useState("");
  return (
    <form
      className="mt-1 flex gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const tag = typed.trim().toLowerCase();
        if (tag.length < 2) return;
        setTyped("");
        put(tag, true, `${tag} added`, null);
      }}
    >
      <input
        className="field max-w-48"
        aria-label="A word of your own"
        placeholder="a word of your own"
        maxLength={40}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      <button type="submit" className="btn-quiet underline" disabled={typed.trim().length < 2}>
        Add
      </button>
    </form>
  );
}
