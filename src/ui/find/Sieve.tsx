"use client";
// The sieve left of the wall: every part narrows it, each with counts of what would be there; measured traits over histograms.
import { useQuery } from "@tanstack/react-query";
import { ChevronRight } from "lucide-react";
import { useState, type ReactNode } from "react";
import type { Facets } from "@/contracts/styles";
import {
  KINDS,
  SIEVE_TRAITS,
  TREATMENTS,
  VERDICTS,
  VOX,
  type Kind,
  type Treatment,
  type Verdict,
} from "@/contracts/traits";
import { FEATURE_WORDS, KIND_WORDS, TREATMENT_WORDS } from "@/contracts/words";
import { MOODS } from "@/core/kind/moods";
import { queryOf } from "../parts/client";
import { VerdictMark } from "../parts/VerdictMark";
import type { FindAddress, SetAddress } from "./question";
import { TraitRangeField } from "./TraitRangeField";
import { putRange } from "./select";

type Props = { address: FindAddress; set: SetAddress; facets: Facets | undefined };
const FIRST_TRAITS = 4;
const languageNames = new Intl.DisplayNames(["en"], { type: "language" });
export const nameLanguage = (code: string) => languageNames.of(code) ?? code;

export const useLibraryNames = (): Record<string, string> => {
  const libraries = useQuery({ ...queryOf("listLibraries", {}), staleTime: 30_000 });
  return Object.fromEntries(libraries.data?.libraries.map((l) => [l.libraryId, l.name]) ?? []);
};

export function Sieve(props: Props) {
  const { address, set, facets } = props;
  const libraries = useLibraryNames();
  const part = { address, set, facets };
  const count = (key: Listed) => byCount(facets?.[key]);
  return (
    <section aria-label="Sieve" className="h-full overflow-y-auto border-r border-rule px-4 py-3">
      <Measures {...part} />
      <Several {...part} title="Kind" of="kinds" values={SHOWN_KINDS} write={(k) => KIND_WORDS[k as Kind]} isOpen />
      <Several
        {...part}
        title="For the brief’s use"
        of="verdicts"
        values={VERDICTS}
        write={(v) => <VerdictMark verdict={v as Verdict} />}
        isOpen
      />
      <Several
        {...part}
        title="Treatment"
        of="treatments"
        values={TREATMENTS}
        write={(t) => TREATMENT_WORDS[t as Treatment]}
      />
      <Moods {...part} />
      <Several {...part} title="Class (Vox-ATypI)" of="vox" values={VOX} write={(v) => v.replace("-", " ")} />
      <Characters {...part} />
      <Several {...part} title="Languages" of="languages" values={count("languages")} write={nameLanguage} />
      <Several {...part} title="Cases" of="cases" values={CASES} write={writeCase} />
      <Several {...part} title="Figures" of="figures" values={FIGURES} />
      <Several
        {...part}
        title="Features"
        of="features"
        values={count("features").filter((f) => FEATURE_WORDS[f])}
        write={(f) => FEATURE_WORDS[f]}
      />
      <Several {...part} title="Axes" of="axes" values={anyFirst(count("axes"))} write={writeAxis} />
      <FamilyParts {...part} />
      <Price {...part} />
      <Availability {...part} />
      <Several {...part} title="Library" of="libraries" values={count("libraries")} write={(l) => libraries[l] ?? l} />
      <Several {...part} title="Health" of="health" values={["fine", "with-care"]} write={writeHealth} />
      <Several {...part} title="Format" of="formats" values={count("formats")} write={(f) => f.toUpperCase()} />
      <PictureFonts {...props} />
    </section>
  );
}

type Part = Props;
/** Parts of the sieve that are lists of values. */
type Listed =
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
  | "cases";

const SHOWN_KINDS = KINDS.filter((k) => k !== "picture");
const CASES = ["both", "capitals-only", "small-capitals"];
const FIGURES = ["lining", "old-style", "tabular", "proportional"];
const writeCase = (c: string) => (c === "both" ? "upper- and lowercase" : c.replace("-", " "));
const writeAxis = (tag: string) => (tag === "any" ? "any (variable)" : tag);
const writeHealth = (h: string) => (h === "fine" ? "fine" : "usable with care");
const anyFirst = (tags: string[]) => ["any", ...tags.filter((t) => t !== "any")];
const byCount = (counts: Record<string, number> | undefined) =>
  Object.keys(counts ?? {}).sort((a, b) => (counts![b] ?? 0) - (counts![a] ?? 0));

type SeveralProps = Part & {
  title: string;
  of: Listed;
  values: readonly string[];
  write?: (value: string) => ReactNode;
  isOpen?: boolean;
};

/** A part of several values, in the order given; those without a count and not chosen are left out. */
function Several({ address, set, facets, title, of, values, write = (v) => v, isOpen = false }: SeveralProps) {
  const counts: Record<string, number> | undefined = facets?.[of];
  const chosen = address[of] as string[];
  const shown = values.filter((v) => (counts?.[v] ?? 0) > 0 || chosen.includes(v));
  if (!shown.length) return null;
  return (
    <Group title={title} open={isOpen || chosen.length > 0} chosen={chosen.length} count={shown.length}>
      {shown.map((v) => (
        <Toggle
          key={v}
          on={chosen.includes(v)}
          count={counts?.[v] ?? 0}
          onClick={() => set({ [of]: chosen.includes(v) ? chosen.filter((c) => c !== v) : [...chosen, v] })}
        >
          {write(v)}
        </Toggle>
      ))}
    </Group>
  );
}

/** Ranges of what was measured: a few, and all of them on request. */
function Measures({ address, set, facets }: Part) {
  const [isMore, setMore] = useState(false);
  const shown = SIEVE_TRAITS.filter((t, i) => isMore || i < FIRST_TRAITS || address.traits.some((r) => r.trait === t));
  return (
    <>
      {shown.map((trait) => {
        const own = address.traits.find((t) => t.trait === trait);
        return (
          <TraitRangeField
            key={trait}
            trait={trait}
            facet={facets?.traits[trait]}
            low={own?.low ?? null}
            high={own?.high ?? null}
            onChange={(low, high) => set({ traits: putRange(address.traits, { trait, low, high }) })}
          />
        );
      })}
      <button
        type="button"
        className="btn-quiet -ml-1 underline"
        aria-expanded={isMore}
        onClick={() => setMore(!isMore)}
      >
        {isMore ? "Fewer measures" : `${SIEVE_TRAITS.length - FIRST_TRAITS} more measures`}
      </button>
    </>
  );
}

function Moods(part: Part) {
  const of = (group: string) => MOODS.filter((m) => m.group === group).map((m) => m.word);
  const own = byCount(part.facets?.moods).filter((m) => !MOODS.some((k) => k.word === m));
  return (
    <>
      <Several {...part} title="Mood" of="moods" values={of("mood")} />
      <Several {...part} title="Period" of="moods" values={of("period")} />
      <Several {...part} title="Occasion" of="moods" values={of("occasion")} />
      <Several {...part} title="Tags" of="moods" values={own} />
    </>
  );
}

function Characters({ address, set, facets }: Part) {
  return (
    <Group title="Characters" open chosen={Number(address.complete)} count={2}>
      <Toggle on={address.complete} count={facets?.complete ?? 0} onClick={() => set({ complete: !address.complete })}>
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
  );
}

const PRICES = [0, 20, 40, 60, 100] as const;

function Price({ address, set, facets }: Part) {
  const isOn = address.priceMax !== null;
  return (
    <Group title="Price" open={isOn} chosen={Number(isOn)} count={PRICES.length}>
      {PRICES.map((max, i) => (
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
  );
}

function Availability({ address, set, facets }: Part) {
  const isOn = address.owned !== "all";
  const toggle = (value: "here" | "to-buy", name: string, count: number | undefined) => (
    <Toggle
      on={address.owned === value}
      count={count ?? 0}
      onClick={() => set({ owned: address.owned === value ? null : value })}
    >
      {name}
    </Toggle>
  );
  return (
    <Group title="Availability" open={isOn} chosen={Number(isOn)} count={2}>
      {toggle("here", "On this machine", facets?.owned.here)}
      {toggle("to-buy", "For sale", facets?.owned.toBuy)}
    </Group>
  );
}

function PictureFonts({ address, set, facets }: Props) {
  const toggle = (value: FindAddress["pictures"], name: string, count: number | null) => (
    <Toggle on={address.pictures === value} count={count} onClick={() => set({ pictures: value })}>
      {name}
    </Toggle>
  );
  return (
    <Group title="Picture fonts" open chosen={Number(address.pictures !== "in")} count={3}>
      {toggle("in", "Include", null)}
      {toggle("out", "Exclude", facets?.pictures.out ?? 0)}
      {toggle("only", "Only these", facets?.pictures.in ?? 0)}
    </Group>
  );
}

const STEPS = [2, 4, 8, 16];
function FamilyParts({ address, set, facets }: Part) {
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
