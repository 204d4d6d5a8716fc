"use client";
// One family as a system: title, heading, lead, text and caption on a modular scale, each in the style whose grey its role asks for.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { SystemContrast, TypeSystem } from "@/contracts/compare";
import type { Brief } from "@/contracts/brief";
import type { ShownItem } from "@/contracts/styles";
import { setLines } from "@/core/brief/words";
import { useBench } from "../bench/BenchContext";
import { writeFault } from "../messages";
import { Choice } from "../parts/Choice";
import { faultOf, queryOf } from "../parts/client";
import { FaultNote } from "../parts/FaultNote";
import { Sample } from "../parts/Sample";
import { sampleAt } from "../parts/sampleOf";
import { useFaces } from "./useCompared";

/** Ratios of the scale by the intervals that the trade calls them by. */
const SCALES = [
  { value: 1.125, name: "1.125, major second" },
  { value: 1.2, name: "1.2, minor third" },
  { value: 1.25, name: "1.25, major third" },
  { value: 1.333, name: "1.333, fourth" },
  { value: 1.5, name: "1.5, fifth" },
  { value: 1.618, name: "1.618, golden section" },
];
const CONTRASTS: { value: SystemContrast; name: string }[] = [
  { value: "strong", name: "Headings darker" },
  { value: "even", name: "Evenly grey" },
];
const TEXT_PX = 15;

type Step = TypeSystem["steps"][number];

export function FamilySystem({ of }: { of: ShownItem }) {
  const { brief, keep } = useBench();
  const [ratio, setRatio] = useState(1.25);
  const [contrast, setContrast] = useState<SystemContrast>("strong");
  const { data, error } = useQuery({
    ...queryOf("proposeSystem", { body: { styleId: of.styleId, ratio, contrast } }),
    placeholderData: keepPreviousData,
  });
  const steps = data?.steps ?? [];
  const faces = useFaces([...new Set(steps.map((s) => s.styleId))]);
  const isKept = (s: Step) => brief.kept.some((k) => k.styleId === s.styleId && isSame(k.location, s.location));
  const missing = [
    ...new Map(steps.filter((s) => !isKept(s)).map((s) => [JSON.stringify([s.styleId, s.location]), s])).values(),
  ];
  const keepAll = () => {
    for (const { styleId, style, location, role } of missing)
      keep(styleId, `${of.family} ${style}`, { role: ROLE_KEPT[role] }, { location });
  };
  if (error) return <FaultNote fault={writeFault(faultOf(error))} />;
  return (
    <section aria-label="The family as a system" className="border-b border-rule py-4">
      <div className="mb-3 flex flex-wrap items-baseline gap-x-5">
        <h2 className="text-[14px] font-semibold">{of.family} as a system</h2>
        <Choice label="Scale" value={ratio} options={SCALES} onChange={setRatio} strong={false} />
        <Choice label="Grey" value={contrast} options={CONTRASTS} onChange={setContrast} strong={false} />
        {steps.length > 0 && (
          <button type="button" className="btn ml-auto" disabled={!missing.length} onClick={keepAll}>
            {missing.length ? "Keep these styles" : "All are kept"}
          </button>
        )}
      </div>
      <ol className="grid gap-y-2" style={{ background: brief.paper }}>
        {steps.map((step) => (
          <StepLine key={step.role} step={step} brief={brief} face={faces?.find((f) => f.styleId === step.styleId)} />
        ))}
      </ol>
    </section>
  );
}

/** Roles as kept faces have them: a lead is a second line. */
const ROLE_KEPT: Record<Step["role"], string> = {
  title: "title",
  heading: "heading",
  lead: "second",
  text: "text",
  caption: "caption",
};

const isSame = (a: Record<string, number>, b: Record<string, number>) => JSON.stringify(a) === JSON.stringify(b);

function StepLine({ step, face, brief }: { step: Step; face: ShownItem | undefined; brief: Brief }) {
  const { role, style, weight, sizeRatio, leadingEm, grey, location } = step;
  const percent = (v: number) => `${Math.round(100 * v)} %`;
  return (
    <li
      className="grid grid-cols-[250px_minmax(0,1fr)] items-baseline gap-4 px-3 py-1"
      style={{ color: brief.ink }}
      data-step={role}
    >
      <p className="text-[12px]">
        <b>{role}</b> {style}
        {Object.keys(location).length > 0 && ` at ${weight}`}
        <br />
        <span className="num" title={`looked for: ${percent(step.wantedGrey)}`}>
          {sizeRatio.toFixed(2)} ×, leading {leadingEm}, grey {percent(grey)}
        </span>
      </p>
      {face && (
        <Sample
          {...sampleAt(face, { location, features: {} })}
          text={wordsFor(role, brief)}
          sizePx={TEXT_PX * sizeRatio}
          ink={brief.ink}
          wrap={role === "text"}
        />
      )}
    </li>
  );
}

/** Words of the brief for a role: the title is the first line, the text all of the others. */
function wordsFor(role: Step["role"], brief: Brief): string {
  const [first = brief.name, ...rest] = setLines(brief);
  if (role === "title" || !rest.length) return first;
  if (role === "text") return rest.join(". ");
  return (role === "caption" ? rest[rest.length - 1] : rest[0])!;
}
