"use client";
// One style: large in the brief's words, its family, measures, axes, glyphs, terms with their sentences, health and where it came from.
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from "@headlessui/react";
import Link from "next/link";
import { parseAsStringLiteral, useQueryState } from "nuqs";
import { useCallback, useEffect, useMemo, type ReactNode } from "react";
import type { StyleDetail } from "@/contracts/styles";
import { KIND_WORDS, TREATMENT_WORDS } from "@/contracts/words";
import type { KeptId } from "@/contracts/ids";
import { keptIdOf } from "@/core/brief/keptId";
import { levelFactor } from "@/core/brief/level";
import { useCharacterNames } from "@/ui/parts/characterNames";
import { useComparing } from "../bench/comparing";
import { useKeys } from "../bench/useKeys";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { CoreSample } from "../parts/CoreSample";
import { CareMark } from "../parts/CareMark";
import { Sample } from "../parts/Sample";
import { readSeen, writeSeen } from "../parts/sampleOf";
import { VerdictMark } from "../parts/VerdictMark";
import { Alike } from "./Alike";
import { Anatomy } from "./Anatomy";
import { FamilyTree } from "./FamilyTree";
import { Features, writeFeatures, type Tried } from "./Features";
import { Glyphs } from "./Glyphs";
import { InUse, Waterfall } from "./InUse";
import { Languages } from "./Languages";
import { FileFacts } from "./FileFacts";
import { Measures } from "./Measures";
import { Offer } from "./Offer";
import { SaveLine } from "./SaveLine";
import { Terms } from "./Terms";

const PARTS = [
  "glyphs",
  "anatomy",
  "in-use",
  "sizes",
  "family",
  "measures",
  "alike",
  "languages",
  "terms",
  "file",
] as const;
const PART_WORDS: Record<(typeof PARTS)[number], string> = {
  glyphs: "Glyphs",
  anatomy: "Anatomy",
  "in-use": "In use",
  sizes: "Sizes",
  family: "Family",
  measures: "Measures",
  alike: "Similar",
  languages: "Languages",
  terms: "Terms",
  file: "File",
};

export function StyleView({ style }: { style: StyleDetail }) {
  const [axes, setAxes, tried, setTried] = useSeenAt();
  const at = useMemo(() => ({ location: moved(style, axes), features: valuesOf(tried) }), [style, axes, tried]);
  const looks = {
    style,
    axes: { ...Object.fromEntries(style.axes.map((a) => [a.tag, a.default])), ...axes },
    features: writeFeatures(tried),
  };
  return (
    <div className="h-full overflow-y-auto">
      <Head style={style} at={at} />
      <Lines {...looks} />
      {style.offer && <Offer style={style} />}
      {style.axes.length > 0 && <Axes style={style} values={axes} onChange={setAxes} />}
      <Features style={style} tried={tried} onChange={setTried} />
      <Tabs {...looks} />
    </div>
  );
}

type Looks = { style: StyleDetail; axes: Record<string, number>; features: string | undefined };
type SeenAt = { location: Record<string, number>; features: Record<string, number> };

/** Keeps and lets go of the face as it is shown. */
function useKeeping(style: StyleDetail, at: SeenAt) {
  const { brief, keep, letGo, dispatch } = useBench();
  const name = `${style.family} ${style.style}`;
  const keptId = keptIdOf(style.styleId, at.location, at.features);
  const isKept = brief.kept.some((k) => k.keptId === keptId);
  const isKeptElsewhere = !isKept && brief.kept.some((k) => k.styleId === style.styleId);
  // What is shown is what is kept: another setting of a kept face is kept beside it.
  const toggle = () => (isKept ? letGo(keptId as KeptId, name) : keep(style.styleId, name, {}, at));
  useEffect(() => {
    const { glyphCount, coverage, parts, rights } = style;
    const size = parts.length ? `${parts.length + 1} files` : `${glyphCount} glyphs`;
    const facts = [size, `${coverage.count} characters`, rights.spdx ?? "no licence recognised"];
    dispatch({ type: "facts", facts: [name, ...facts] });
  }, [dispatch, name, style]);
  useKeys("Style", [
    {
      keys: [" "],
      legend: isKept ? "remove" : "keep",
      run: (event) => ((event.target as HTMLElement).closest("button, a, [tabindex='0']") ? false : toggle()),
    },
  ]);
  return { name, isKept, isKeptElsewhere, toggle };
}

function Head({ style, at }: { style: StyleDetail; at: SeenAt }) {
  const nameCharacter = useCharacterNames();
  const { name, isKept, isKeptElsewhere, toggle } = useKeeping(style, at);
  return (
    <header className="flex items-start gap-5 px-6 pt-4">
      <CoreSample traits={style.traits} ranges={style.ranges} width={34} band={13} />
      <div className="min-w-0 flex-1">
        <h1 className="text-[20px] leading-6 font-bold">{name}</h1>
        <p className="mt-0.5 flex flex-wrap gap-x-4 text-basalt">
          <span>{style.kinds.map((k) => KIND_WORDS[k.value]).join(", ")}</span>
          {style.treatments.length > 0 && (
            <span>{style.treatments.map((t) => TREATMENT_WORDS[t.value].toLowerCase()).join(", ")}</span>
          )}
          <span className="text-slate">
            <VerdictMark verdict={style.verdict} price={style.price} />
          </span>
          <CareMark health={style.health.degree} />
          <span>{style.libraryName}</span>
          {style.missing.length > 0 && (
            <span className="font-semibold text-madder">
              lacks {style.missing.map((c) => `${c} (${nameCharacter(c.codePointAt(0)!)})`).join(", ")}
            </span>
          )}
        </p>
      </div>
      {style.owned && <SaveLine style={style} {...at} />}
      <Beside style={style} name={name} />
      <button type="button" aria-pressed={isKept} className={isKept ? "btn" : "btn btn-act"} onClick={toggle}>
        {isKept ? "Remove from kept" : isKeptElsewhere ? "Keep this setting too" : "Keep"}
      </button>
    </header>
  );
}

/** From here to what it can be seen beside: other faces, and those that go with it. */
function Beside({ style, name }: { style: StyleDetail; name: string }) {
  const { brief } = useBench();
  const comparing = useComparing();
  const isIn = comparing.ids.includes(style.styleId);
  const turn = () => comparing.turn(style.styleId, name);
  useKeys("Beside others", [{ keys: ["c"], legend: "compare", run: turn }]);
  return (
    <>
      <Link className="btn" href={`/b/${brief.briefId}/compare/companions?of=${style.styleId}`} prefetch={false}>
        Companions
      </Link>
      <button type="button" className="btn" aria-pressed={isIn} onClick={turn}>
        {isIn ? "In the comparison" : "Compare"}
      </button>
    </>
  );
}

/** The brief's lines in the face. */
function Lines({ style, axes, features }: Looks) {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const lines = brief.lines.length ? brief.lines : [{ text: style.family, role: "title" as const }];
  return (
    <div className="mt-3 border-y border-rule px-6 py-3" style={{ background: brief.paper }}>
      {lines.map((line, i) => (
        <Sample
          key={i}
          styleId={style.styleId}
          coverage={style.codePoints}
          own={style.ownWords}
          parts={style.parts.length}
          text={line.text || " "}
          sizePx={(i === active ? 68 : 32) * levelFactor(style.traits, brief.levelBy)}
          widthEm={style.traits.widthEm}
          owned={style.owned}
          ink={brief.ink}
          axes={axes}
          features={features}
        />
      ))}
    </div>
  );
}

function Tabs(looks: Looks) {
  const { style } = looks;
  const [tab, setTab] = useQueryState("part", parseAsStringLiteral(PARTS).withDefault("glyphs"));
  const panels: Record<(typeof PARTS)[number], ReactNode> = {
    glyphs: <Glyphs style={style} />,
    anatomy: <Anatomy style={style} />,
    "in-use": <InUse {...looks} />,
    sizes: <Waterfall {...looks} />,
    family: <FamilyTree style={style} />,
    measures: <Measures style={style} />,
    alike: <Alike style={style} />,
    languages: <Languages style={style} />,
    terms: <Terms style={style} />,
    file: <FileFacts style={style} />,
  };
  return (
    <TabGroup className="px-6 pt-3 pb-8" selectedIndex={PARTS.indexOf(tab)} onChange={(i) => void setTab(PARTS[i]!)}>
      <TabList className="flex flex-wrap gap-x-5 border-b border-rule">
        {PARTS.map((p) => (
          <Tab
            key={p}
            className="-mb-px min-w-6 border-b-2 border-transparent pb-1.5 font-semibold whitespace-nowrap text-basalt data-selected:border-oxide data-selected:text-slate"
          >
            {PART_WORDS[p]}
            {p === "family" && ` (${style.siblings.length})`}
          </Tab>
        ))}
      </TabList>
      <TabPanels className="pt-3">
        {PARTS.map((p) => (
          <TabPanel key={p} tabIndex={-1}>
            {panels[p]}
          </TabPanel>
        ))}
      </TabPanels>
    </TabGroup>
  );
}

/** Where the face stands and what is switched, in the address: back, reload and a sent link show the same. */
function useSeenAt() {
  const [at, setAt] = useQueryState("at", { defaultValue: "", history: "replace", throttleMs: 200 });
  const [switched, setSwitched] = useQueryState("features", { defaultValue: "", history: "replace" });
  const axes = useMemo(() => readSeen(at), [at]);
  const tried = useMemo((): Tried => mapValues(readSeen(switched), (v) => v > 0), [switched]);
  const setAxes = useCallback((values: Record<string, number>) => void setAt(writeSeen(values) || null), [setAt]);
  const setTried = useCallback((t: Tried) => void setSwitched(writeSeen(valuesOf(t)) || null), [setSwitched]);
  return [axes, setAxes, tried, setTried] as const;
}

const mapValues = <A, B>(record: Record<string, A>, to: (value: A) => B): Record<string, B> =>
  Object.fromEntries(Object.entries(record).map(([key, value]) => [key, to(value)]));
const valuesOf = (tried: Tried) => mapValues(tried, (on) => (on ? 1 : 0));

/** The axes that stand elsewhere than at their defaults. */
const moved = (style: StyleDetail, values: Record<string, number>) =>
  Object.fromEntries(
    style.axes.filter((a) => (values[a.tag] ?? a.default) !== a.default).map((a) => [a.tag, values[a.tag]!]),
  );

const isAtInstance = (style: StyleDetail, values: Record<string, number>, at: Record<string, number>) =>
  style.axes.every((a) => Math.abs((values[a.tag] ?? a.default) - (at[a.tag] ?? a.default)) < 0.01);

function Axes({
  style,
  values,
  onChange,
}: {
  style: StyleDetail;
  values: Record<string, number>;
  onChange: (v: Record<string, number>) => void;
}) {
  return (
    <section aria-label="Axes" className="flex flex-wrap items-center gap-x-8 gap-y-2 border-b border-rule px-6 py-2.5">
      {style.axes
        // A hidden axis that was moved shows, so that it can be moved back.
        .filter((a) => !a.hidden || values[a.tag] !== undefined)
        .map((axis) => (
          <label key={axis.tag} className="flex items-center gap-2">
            <span>{axis.name}</span>
            <input
              type="range"
              aria-label={axis.name}
              className="w-28"
              min={axis.min}
              max={axis.max}
              step={(axis.max - axis.min) / 200 || 1}
              value={values[axis.tag] ?? axis.default}
              onChange={(e) => onChange({ ...values, [axis.tag]: Number(e.target.value) })}
            />
            <span className="num w-12">{Number((values[axis.tag] ?? axis.default).toFixed(1))}</span>
          </label>
        ))}
      <button type="button" className="btn-quiet underline" onClick={() => onChange({})}>
        Reset axes
      </button>
      {style.instances.length > 0 && (
        <select
          aria-label="Preset"
          className="border-b border-basalt bg-transparent py-0.5"
          value={style.instances.findIndex((s) => isAtInstance(style, values, s.coordinates))}
          onChange={(e) => {
            const instance = style.instances[Number(e.target.value)];
            if (instance) onChange(instance.coordinates);
          }}
        >
          <option value={-1}>Preset …</option>
          {style.instances.map((s, i) => (
            <option key={i} value={i}>
              {s.name}
            </option>
          ))}
        </select>
      )}
    </section>
  );
}
