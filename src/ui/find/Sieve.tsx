"use client";
// The sieve left of the wall: every part narrows it, each with counts of what would be there; measured traits over histograms.
import { useQuery } from "@tanstack/react-query";
import { ChevronRight } from "lucide-react";
import { useState, type ReactNode } from "react";
import type { Facets } from "@/contracts/styles";
import { KINDS, SIEVE_TRAITS, TREATMENTS, VERDICTS, VOX } from "@/contracts/traits";
import { FEATURE_WORDS, KIND_WORDS, TREATMENT_WORDS } from "@/contracts/words";
import { MOODS } from "@/core/kind/moods";
import { queryOf } from "../parts/client";
import { VerdictMark } from "../parts/VerdictMark";
import type { FindAddress, SetAddress } from "./question";
import { TraitRangeField } from "./TraitRangeField";
import { putRange } from "./select";

type Props = { address: FindAddress; set: SetAddress; facets: Facets | undefined; ofAll: number };
const FIRST_TRAITS = 4;
const languageNames = new Intl.DisplayNames(["en"], { type: "language" });
export const nameLanguage = (code: string) => languageNames.of(code) ?? code;

export const useLibraryNames = (): Record<string, string> => {
  const libraries = useQuery({ ...queryOf("listLibraries", {}), staleTime: 30_000 });
  return Object.fromEntries(libraries.data?.libraries.map((l) => [l.libraryId, l.name]) ?? []);
};

export function Sieve({ address, set, facets, ofAll }: Props) {
  const libraries = useLibraryNames();
  const [more, setMore] = useState(false);
  const shownTraits = SIEVE_TRAITS.filter(
    (t, i) => more || i < FIRST_TRAITS || address.traits.some((r) => r.trait === t),
  );
  /** A part of several values, in the order given; those without a count and not chosen are left out. */
  const several = (
    title: string,
    key:
      | "kinds"
      | "vox"
      | "treatments"
      | "moods"
      | "verdicts"
      | "features"
      | "axes"
      | "languages"
      | "formats"
      | "health"
      | "libraries"
      | "figures"
      | "cases",
    counts: Record<string, number> | undefined,
    values: readonly string[],
    write: (value: string) => ReactNode,
    open = false,
  ) => {
    const chosen = address[key] as string[];
    const shown = values.filter((v) => (counts?.[v] ?? 0) > 0 || chosen.includes(v));
    if (!shown.length) return null;
    return (
      <Group title={title} open={open || chosen.length > 0} chosen={chosen.length} count={shown.length}>
        {shown.map((v) => (
          <Toggle
            key={v}
            on={chosen.includes(v)}
            count={counts?.[v] ?? 0}
            onClick={() => set({ [key]: chosen.includes(v) ? chosen.filter((c) => c !== v) : [...chosen, v] })}
          >
            {write(v)}
          </Toggle>
        ))}
      </Group>
    );
  };
  const byCount = (counts: Record<string, number> | undefined) =>
    Object.keys(counts ?? {}).sort((a, b) => (counts![b] ?? 0) - (counts![a] ?? 0));
  const moodGroup = (title: string, group: string) =>
    several(
      title,
      "moods",
      facets?.moods,
      MOODS.filter((m) => m.group === group).map((m) => m.word),
      (m) => m,
    );
  const ownTags = byCount(facets?.moods).filter((m) => !MOODS.some((k) => k.word === m));
  return (
    <section aria-label="Sieve" className="h-full overflow-y-auto border-r border-rule px-4 py-3">
      {shownTraits.map((trait) => {
        const facet = facets?.traits[trait];
        const own = address.traits.find((t) => t.trait === trait);
        return (
          <TraitRangeField
            key={trait}
            trait={trait}
            facet={facet}
            low={own?.low ?? null}
            high={own?.high ?? null}
            onChange={(low, high) => set({ traits: putRange(address.traits, { trait, low, high }) })}
          />
        );
      })}
      <button type="button" className="btn-quiet -ml-1 underline" aria-expanded={more} onClick={() => setMore(!more)}>
        {more ? "Fewer measures" : `${SIEVE_TRAITS.length - FIRST_TRAITS} more measures`}
      </button>
      {several(
        "Kind",
        "kinds",
        facets?.kinds,
        KINDS.filter((k) => k !== "picture"),
        (k) => KIND_WORDS[k as (typeof KINDS)[number]],
        true,
      )}
      {several(
        "For the brief’s use",
        "verdicts",
        facets?.verdicts,
        VERDICTS,
        (v) => (
          <VerdictMark verdict={v as (typeof VERDICTS)[number]} />
        ),
        true,
      )}
      {several(
        "Treatment",
        "treatments",
        facets?.treatments,
        TREATMENTS,
        (t) => TREATMENT_WORDS[t as (typeof TREATMENTS)[number]],
      )}
      {moodGroup("Mood", "mood")}
      {moodGroup("Period", "period")}
      {moodGroup("Occasion", "occasion")}
      {several("Your own words", "moods", facets?.moods, ownTags, (m) => m)}
      {several("Class (Vox-ATypI)", "vox", facets?.vox, VOX, (v) => v.replace("-", " "))}
      <Group title="Characters" open chosen={Number(address.complete)} count={2}>
        <Toggle
          on={address.complete}
          count={facets?.complete ?? 0}
          onClick={() => set({ complete: !address.complete })}
        >
          Has all characters
        </Toggle>
        <li>
          <label className="flex items-center gap-2 py-[2px]">
            <span className="w-[7px]" aria-hidden />
            Has
            <input
              aria-label="Characters that the face must have"
              className="field w-24 font-semibold"
              value={address.chars}
              maxLength={40}
              placeholder="& + é"
              onChange={(e) => set({ chars: e.target.value.replace(/\s/g, "") || null })}
            />
          </label>
        </li>
      </Group>
      {several("Languages", "languages", facets?.languages, byCount(facets?.languages), nameLanguage)}
      {several("Cases", "cases", facets?.cases, ["both", "capitals-only", "small-capitals"], (c) =>
        c === "both" ? "upper- and lowercase" : c.replace("-", " "),
      )}
      {several("Figures", "figures", facets?.figures, ["lining", "old-style", "tabular", "proportional"], (f) => f)}
      {several(
        "Features",
        "features",
        facets?.features,
        byCount(facets?.features).filter((f) => FEATURE_WORDS[f]),
        (f) => FEATURE_WORDS[f],
      )}
      {several("Axes", "axes", facets?.axes, ["any", ...byCount(facets?.axes).filter((a) => a !== "any")], (a) =>
        a === "any" ? "any (variable)" : a,
      )}
      <FamilyParts address={address} set={set} facets={facets} />
      <Group title="Price" open={address.priceMax !== null} chosen={Number(address.priceMax !== null)} count={5}>
        {([0, 20, 40, 60, 100] as const).map((max, i) => (
          <Toggle
            key={max}
            on={address.priceMax === max}
            count={facets?.price[i] ?? 0}
            onClick={() => set({ priceMax: address.priceMax === max ? null : max })}
          >
            {max === 0 ? "at no charge" : `up to ${max}`}
          </Toggle>
        ))}
      </Group>
      <Group title="Availability" open={address.owned !== "all"} chosen={Number(address.owned !== "all")} count={2}>
        {(
          [
            ["here", "On this machine", facets?.owned.here ?? 0],
            ["to-buy", "For sale", facets?.owned.toBuy ?? 0],
          ] as const
        ).map(([value, name, count]) => (
          <Toggle
            key={value}
            on={address.owned === value}
            count={count}
            onClick={() => set({ owned: address.owned === value ? null : value })}
          >
            {name}
          </Toggle>
        ))}
      </Group>
      {several("Library", "libraries", facets?.libraries, byCount(facets?.libraries), (l) => libraries[l] ?? l)}
      {several("Health", "health", facets?.health, ["fine", "with-care"], (h) =>
        h === "fine" ? "fine" : "usable with care",
      )}
      {several("Format", "formats", facets?.formats, byCount(facets?.formats), (f) => f.toUpperCase())}
      <Group title="Picture fonts" open chosen={Number(address.pictures !== "in")} count={3}>
        {(
          [
            ["in", "Include", ofAll],
            ["out", "Exclude", facets?.pictures.out ?? 0],
            ["only", "Only these", facets?.pictures.in ?? 0],
          ] as const
        ).map(([value, name, count]) => (
          <Toggle
            key={value}
            on={address.pictures === value}
            count={value === "in" ? null : count}
            onClick={() => set({ pictures: value })}
          >
            {name}
          </Toggle>
        ))}
      </Group>
    </section>
  );
}

const STEPS = [2, 4, 8, 16];
function FamilyParts({ address, set, facets }: Omit<Props, "ofAll">) {
  const chosen = Number(address.stylesMin !== null) + Number(address.weightsMin !== null) + Number(address.italics);
  const step = (key: "stylesMin" | "weightsMin", counts: number[] | undefined, what: string) =>
    STEPS.map((n, i) => (
      <Toggle
        key={`${key} ${n}`}
        on={address[key] === n}
        count={counts?.[i + 1] ?? 0}
        onClick={() => set({ [key]: address[key] === n ? null : n })}
      >
        {n} {what} or more
      </Toggle>
    ));
  return (
    <Group title="Family" open={chosen > 0} chosen={chosen} count={9}>
      <Toggle
        on={address.italics}
        count={facets?.italics ?? 0}
        onClick={() => set({ italics: address.italics ? null : true })}
      >
        has italics
      </Toggle>
      {step("weightsMin", facets?.weights, "weights")}
      {step("stylesMin", facets?.styles, "styles")}
    </Group>
  );
}

function Group({
  title,
  open,
  chosen,
  count,
  children,
}: {
  title: string;
  open: boolean;
  chosen: number;
  count: number;
  children: ReactNode;
}) {
  return (
    <details className="group/part mt-2.5 border-t border-rule pt-1.5" open={open}>
      <summary className="head flex items-baseline justify-between py-0.5">
        <span className="flex items-center gap-1">
          <ChevronRight size={11} aria-hidden className="group-open/part:rotate-90" />
          {title}
        </span>
        <span className="num">{chosen ? `${chosen} on` : count}</span>
      </summary>
      <ul className="pt-0.5">{children}</ul>
    </details>
  );
}

function Toggle({
  on,
  count,
  onClick,
  children,
}: {
  on: boolean;
  count: number | null;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={on}
        onClick={onClick}
        className={`flex w-full items-center justify-between py-[2px] text-left hover:text-tide ${on ? "font-semibold text-tide" : ""}`}
      >
        <span className="flex items-center gap-1.5">
          <span aria-hidden className={`inline-block w-[7px] ${on ? "" : "opacity-0"}`}>
            ›
          </span>
          {children}
        </span>
        {count !== null && <span className="num">{count}</span>}
      </button>
    </li>
  );
}
