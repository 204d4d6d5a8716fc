"use client";
// How what is found is shown: as a wall or a map, set in which text, on what, in how many columns, in which order.
import type { SieveTrait } from "@/contracts/traits";
import { useKeys } from "../bench/useKeys";
import { Choice } from "../parts/Choice";
import { MOST_COLUMNS } from "./columns";
import type { FindAddress, SetAddress, Setting } from "./question";

export type Steered = { address: FindAddress; set: SetAddress };

const SORT_WORDS: Record<string, string> = {
  fit: "Best fit first",
  name: "By name",
  newest: "Newest first",
  popular: "Most often kept",
  styles: "Largest families first",
};
/** Each trait that can be sorted by: what comes first when small values do, and when large ones do. */
const TRAIT_SORT_WORDS: [SieveTrait, string, string][] = [
  ["weight", "Lightest first", "Heaviest first"],
  ["width", "Narrowest first", "Widest first"],
  ["contrast", "Lowest contrast first", "Highest contrast first"],
  ["xHeightEm", "Smallest x-height first", "Largest x-height first"],
  ["slantDeg", "Most upright first", "Most slanted first"],
  ["roundness", "Most angular first", "Roundest first"],
  ["stemEm", "Thinnest stems first", "Thickest stems first"],
  ["barEm", "Thinnest bars first", "Thickest bars first"],
  ["capHeightEm", "Shortest capitals first", "Tallest capitals first"],
  ["ascenderEm", "Shortest ascenders first", "Tallest ascenders first"],
];
const TRAIT_SORTS = TRAIT_SORT_WORDS.flatMap(([t, smallest, largest]) => [
  [t, smallest],
  [`-${t}`, largest],
]);
const SETTING_WORDS: Record<Setting, string> = {
  line: "The brief’s line",
  words: "Words",
  sentence: "Sentence",
  paragraph: "Paragraph",
  alphabet: "Alphabet",
  figures: "Figures",
  letters: "Single letters",
};

const VIEWS = [
  ["map", "Map"],
  ["wall", "Wall"],
] as const;

/** Map or wall: the same faces, near what they resemble or best first. M turns. */
export function ViewChoice({ view, set }: { view: FindAddress["view"]; set: SetAddress }) {
  const turn = (to: FindAddress["view"]) => set({ view: to === "wall" ? null : to });
  useKeys("View", [
    {
      keys: ["m"],
      legend: view === "map" ? "wall" : "map",
      isLesser: view === "wall",
      run: () => turn(view === "map" ? "wall" : "map"),
    },
  ]);
  return (
    <span role="group" aria-label="View" className="ml-auto flex gap-x-2">
      {VIEWS.map(([value, name]) => (
        <button
          key={value}
          type="button"
          aria-pressed={view === value}
          className={`btn-quiet ${view === value ? "font-semibold text-slate underline decoration-oxide decoration-2 underline-offset-4" : ""}`}
          onClick={() => turn(value)}
        >
          {name}
        </button>
      ))}
    </span>
  );
}

const GROUNDS = [
  { value: "colours" as const, name: "On paper" },
  { value: "picture" as const, name: "On your picture" },
];
const FOLDS = [
  { value: "fold", name: "One per family" },
  { value: "all", name: "All styles" },
];
const SETTINGS = (Object.keys(SETTING_WORDS) as Setting[]).map((value) => ({ value, name: SETTING_WORDS[value] }));
const COLUMNS = [
  { value: 0, name: "Columns to fit" },
  ...Array.from({ length: MOST_COLUMNS }, (_, k) => ({ value: k + 1, name: k ? `${k + 1} columns` : "1 column" })),
];

/** A word of a few letters is what a cell of the map holds. */
const MAP_SETTINGS = SETTINGS.filter(({ value }) => !["sentence", "paragraph", "alphabet"].includes(value));
export function MapLooks({ address, set }: Steered) {
  return (
    <span className="ml-auto flex flex-wrap items-center gap-x-3">
      <Choice
        label="Set in"
        value={address.set}
        options={MAP_SETTINGS}
        onChange={(v) => set({ set: v })}
        strong={false}
      />
    </span>
  );
}

/** How the wall is set and ordered. */
export function Looks({ address, set }: Steered) {
  const sorts = [
    ...Object.entries(SORT_WORDS),
    ...(address.near || /\b(like|similar)\b/i.test(address.q) ? [["near", "Nearest first"]] : []),
    ...TRAIT_SORTS,
  ].map(([value, name]) => ({ value: value!, name: name! }));
  return (
    <span className="ml-auto flex flex-wrap items-center gap-x-3">
      {address.set === "letters" && (
        <input
          aria-label="Letters to show"
          className="field w-24 font-semibold"
          value={address.letters}
          maxLength={12}
          onChange={(e) => set({ letters: e.target.value || null })}
        />
      )}
      <Choice label="Set in" value={address.set} options={SETTINGS} onChange={(v) => set({ set: v })} strong={false} />
      <Choice
        label="On"
        value={address.ground}
        options={GROUNDS}
        onChange={(ground) => set({ ground })}
        strong={false}
      />
      <Choice
        label="Families"
        value={address.fold ? "fold" : "all"}
        options={FOLDS}
        onChange={(v) => set({ fold: v === "fold", open: null })}
        strong={false}
      />
      <Choice
        label="Columns"
        value={address.columns}
        options={COLUMNS}
        onChange={(columns) => set({ columns })}
        strong={false}
      />
      <Choice label="Order" value={address.sort} options={sorts} onChange={(sort) => set({ sort })} strong={false} />
    </span>
  );
}
