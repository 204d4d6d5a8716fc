"use client";
// Find: the field that reads words, the sieve, and the wall set in the brief's words.
import { useQueryClient } from "@tanstack/react-query";
import Link from "next/link";
import { useSearchParams } from "next/navigation";
import { memo, Suspense, useCallback, useEffect, useRef, useState } from "react";

import { useBench } from "../bench/BenchContext";
import { useKeys } from "../bench/useKeys";
import { useActiveLine } from "../bench/BriefStrip";
import { useHealth } from "../bench/Rail";
import { faultOf, readAgain } from "../parts/client";
import { useMedia } from "../parts/useMedia";
import { writeFault } from "../messages";
import { BeginPass } from "../pass/BeginPass";
import { ActiveWords } from "./ActiveWords";
import { SETTING_TEXTS, useFindAddress } from "./address";
import { NO_FILTERS, writeQuestion, type FindAddress, type SetAddress } from "./question";
import { SavedSearches } from "./SavedSearches";
import { removeWords, SearchField } from "./SearchField";
import { SystemFolders } from "../libraries/SystemFolders";
import { selectActive } from "./select";
import { LearnToggle } from "./LearnToggle";
import { Looks, MapLooks, ViewChoice, type Steered } from "./Looks";
import { NamedRow } from "./NamedRow";
import { NearestNote } from "./NearestNote";
import { nameLanguage, Sieve, useLibraryNames } from "./Sieve";
import { usePages, type FirstPage } from "./usePages";
import { MapView } from "../map/MapView";
import { Wall } from "./Wall";
import { MOST_COLUMNS } from "./columns";

/** Drawn again only when its own question or counts change: not at every key typed into the brief. */
const SteadySieve = memo(Sieve);

export function FindView({ first }: { first: FirstPage | null }) {
  const { brief } = useBench();
  const [address, setAddress] = useFindAddress();
  const [chosenOpen, setSieveOpen] = useState<boolean | null>(null);
  const sieveOpen = useIsWide() ? (chosenOpen ?? true) : (chosenOpen ?? false);
  const question = writeQuestion(address, brief.briefId);
  // The first page alone: further ones are the wall's own affair, so that scrolling draws nothing but the wall.
  const { head, error, isAsking } = usePages(question, 0, 0, first);
  const libraries = useLibraryNames();
  useFreshWhileReading(head?.ofAll);
  const field = useRef<HTMLInputElement>(null);
  useFieldFocus(field);
  const set = useCallback((change: object) => void setAddress(change as never), [setAddress]);
  const languages = Object.fromEntries(address.languages.map((l) => [l, nameLanguage(l)]));
  const actives = selectActive(address, { libraries, languages });
  const titleNow = [...(head?.understood.words.map((w) => w.label) ?? []), ...actives.map((a) => a.label)].join(", ");
  return (
    <div
      className={`grid h-full ${sieveOpen ? "grid-cols-[212px_minmax(0,1fr)] grid-rows-[minmax(0,1fr)]" : "grid-cols-1"}`}
    >
      <section className="flex min-h-0 min-w-0 flex-col pt-3" aria-label="Wall">
        <h1 className="sr-only">Find</h1>
        <div className="mx-3.5 flex items-baseline gap-3 border-b-2 border-slate pb-1.5">
          <SearchField ref={field} value={address.q} onChange={(q) => set({ q: q || null })} />
          <FoundCount head={head} isFolded={address.fold} isAsking={isAsking} />
        </div>
        <div className="mx-3.5 flex min-h-[34px] flex-wrap items-center gap-x-3 border-b border-rule text-[12.5px]">
          <button
            type="button"
            className="btn-quiet -ml-1"
            aria-expanded={sieveOpen}
            onClick={() => setSieveOpen(!sieveOpen)}
          >
            {sieveOpen ? "Hide sieve" : "Show sieve"}
          </button>
          <ActiveWords
            understood={head?.understood}
            actives={actives}
            onOff={set}
            onWordOff={(from) => set({ q: removeWords(address.q, from) || null })}
          />
          <ViewChoice view={address.view} set={set} />
        </div>
        <div className="mx-3.5 flex min-h-[30px] flex-wrap items-center gap-x-3 border-b border-rule text-[12.5px]">
          <BeginPass question={question} title={titleNow || "All faces"} total={head?.total ?? 0} />
          <SavedSearches nameNow={titleNow} />
          <LearnToggle isOn={address.learn} taste={head?.taste} onTurn={(learn) => set({ learn })} />
          {address.view === "wall" ? <Looks address={address} set={set} /> : <MapLooks address={address} set={set} />}
        </div>
        {head && head.named.length > 0 && <NamedRow faces={head.named} ranges={head.ranges} />}
        {head?.understood.nearest && <NearestNote nearest={head.understood.nearest} address={address} set={set} />}
        {address.ground === "picture" && <PictureHint />}
        <AsideNote isOnly={address.aside === "only"} set={set} />
        <div className="min-h-0 flex-1 pl-0.5">
          <Shown
            {...{ address, set, head, first, question, error }}
            isFiltered={address.q !== "" || actives.length > 0}
          />
        </div>
      </section>
      {/* Behind the wall for Tab, left of it for the eye. A boundary of its own: the wall asks for its fonts before the sieve starts. */}
      {sieveOpen && (
        <div className="order-first min-h-0">
          <Suspense fallback={<div />}>
            <SteadySieve address={address} set={set} facets={head?.facets} />
          </Suspense>
        </div>
      )}
    </div>
  );
}

type CountProps = { head: FirstPage["list"] | undefined; isFolded: boolean; isAsking: boolean };
const FoundCount = ({ head, isFolded, isAsking }: CountProps) => (
  <span
    className={`num shrink-0 ${isAsking ? "opacity-60" : ""}`}
    data-count
    aria-live="polite"
    aria-busy={isAsking || !head}
  >
    {head ? countFound(head, isFolded) : "…"}
  </span>
);

const countFound = ({ total, families, ofAll, understood }: NonNullable<FirstPage["list"]>, isFolded: boolean) =>
  understood.nearest
    ? `0 of ${ofAll} styles`
    : isFolded
      ? `${families} ${families === 1 ? "family" : "families"} of ${ofAll} styles`
      : `${total} of ${ofAll} styles`;

type ShownProps = Steered & { head: FirstPage["list"] | undefined; first: FirstPage | null; question: string } & {
  error: unknown;
  isFiltered: boolean;
};
/** The wall or the map, or why there is none. */
function Shown({ address, set, head, first, question, error, isFiltered }: ShownProps) {
  if (error) return <Broken error={error} />;
  if (head?.total === 0) return <Empty ofAll={head.ofAll} isFiltered={isFiltered} onClear={() => set(NO_FILTERS)} />;
  if (address.view === "map") return <MapOf address={address} question={question} />;
  return <WallOf address={address} set={set} head={head} first={first} question={question} />;
}

function MapOf({ address, question }: { address: FindAddress; question: string }) {
  // A cell holds one word.
  const [word = " "] = useTextOf(address).trim().split(/\s+/);
  return <MapView question={question} text={word || " "} />;
}

/** What samples are set in. */
function useTextOf(address: FindAddress): string {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const letters = [...(address.letters || "Rg4&")].filter((c) => c !== " ").join(" ");
  const line = brief.lines[active]?.text || " ";
  return address.set === "line" ? line : address.set === "letters" ? letters : SETTING_TEXTS[address.set];
}

function WallOf(props: Steered & { head: FirstPage["list"] | undefined; first: FirstPage | null; question: string }) {
  const { address, set, head, first, question } = props;
  const text = useTextOf(address);
  const onZoom = useCallback((zoom: number) => set({ zoom }), [set]);
  const { open } = address;
  const onOpen = useCallback(
    (familyId: string) =>
      set({ open: open.includes(familyId) ? open.filter((id) => id !== familyId) : [...open, familyId] }),
    [set, open],
  );
  return (
    <Wall
      total={head?.total ?? 0}
      columns={Math.min(MOST_COLUMNS, Math.max(0, address.columns))}
      isFolded={address.fold}
      open={address.open}
      onOpen={onOpen}
      zoom={address.zoom}
      wrap={["sentence", "paragraph", "alphabet"].includes(address.set)}
      isLarge={address.set === "letters"}
      ground={address.ground}
      text={text}
      ranges={head?.ranges ?? {}}
      first={first}
      onZoom={onZoom}
      resetKey={question}
    />
  );
}

function AsideNote({ isOnly, set }: { isOnly: boolean; set: SetAddress }) {
  const { brief } = useBench();
  if (!brief.setAside.length) return null;
  return (
    <p className="mx-3.5 flex gap-3 border-b border-rule py-1 text-[12px] text-basalt">
      {isOnly
        ? "Only what is set aside is shown. X brings a face back."
        : `${brief.setAside.length} set aside for this brief.`}
      <button type="button" className="underline" onClick={() => set({ aside: isOnly ? null : "only" })}>
        {isOnly ? "Back to the wall" : "Show them"}
      </button>
    </p>
  );
}

const WIDE = "(min-width: 760px)";
/** Whether the sieve has room beside the wall. */
const useIsWide = () => useMedia(WIDE, true);

/** The field takes the focus when another view asked for it, or at "/". */
function useFieldFocus(field: React.RefObject<HTMLInputElement | null>) {
  const params = useSearchParams();
  useEffect(() => {
    if (params.get("focus") === "search") field.current?.focus();
  }, [params, field]);
  useKeys("Find", [
    {
      keys: ["/"],
      legend: "search",
      run: () => {
        field.current?.focus();
        field.current?.select();
      },
    },
  ]);
}

/** While fonts are being read, the wall fills: asks again when the count has grown. @param shown - styles that the answer is out of. */
function useFreshWhileReading(shown: number | undefined) {
  const queries = useQueryClient();
  const count = useHealth().data?.styles;
  const asked = useRef<{ count?: number; at: number }>({ at: 0 });
  useEffect(() => {
    if (count === undefined || shown === undefined || count === (asked.current.count ?? shown)) return;
    const wait = Math.max(0, 2500 - (Date.now() - asked.current.at));
    const timer = setTimeout(() => {
      asked.current = { count, at: Date.now() };
      void readAgain(queries, "styles");
    }, wait);
    return () => clearTimeout(timer);
  }, [count, shown, queries]);
}

function PictureHint() {
  const { brief } = useBench();
  if (brief.picture) return null;
  return (
    <p className="mx-3.5 border-b border-rule py-1 text-[12px] text-basalt">
      This brief has no picture yet.{" "}
      <Link className="underline" href={`/b/${brief.briefId}/brief`}>
        Add one to the brief
      </Link>
    </p>
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
        <SystemFolders />
      </div>
    );
  return (
    <div className="p-8">
      <p className="text-[16px] font-semibold">No faces match all of these.</p>
      <p className="mt-1 text-basalt">Remove a filter above or start over.</p>
      {isFiltered && (
        <button type="button" className="btn mt-4" onClick={onClear}>
          Clear all
        </button>
      )}
    </div>
  );
}

function Broken({ error }: { error: unknown }) {
  const { what, now } = writeFault(faultOf(error));
  return (
    <div className="p-8" role="alert">
      <p className="text-[16px] font-semibold text-madder">{what}</p>
      <p className="mt-1 text-basalt">{now}</p>
    </div>
  );
}
