"use client";
// The lettering in its material: what would go wrong, numbered as on the sheet, and what mends it.
import { useState } from "react";
import { useQuery } from "@tanstack/react-query";
import {
  CUT_MM_PER_S,
  type Block,
  type Finding,
  type LetteringCheck,
  type LetteringDocument,
  type Material,
} from "@/contracts/lettering";
import { keepTogether, replaceBlock } from "@/core/letter/editBlock";
import { writeFault } from "../messages";
import { FaultNote } from "../parts/FaultNote";
import { faultOf, queryOf } from "../parts/client";
import { KeepAs } from "./KeepAs";
import { mendOf } from "./mends";
import { NumberField } from "./NumberField";
import { Tick } from "../parts/Tick";
import { useOwn } from "./useOwn";
import { writeSeconds } from "../parts/words";

/** `bridgeMm`: how wide bridges and strips are that mend; 0: as suits each place. */
type Named = Material & { name: string; bridgeMm?: number };
const MATERIALS: Named[] = [
  { name: "Vinyl film", minStrokeMm: 1, minGapMm: 0.8, minPieceMm2: 4 },
  { name: "Fine vinyl film", minStrokeMm: 0.6, minGapMm: 0.5, minPieceMm2: 2 },
  { name: "Heat transfer film", minStrokeMm: 1.2, minGapMm: 1, minPieceMm2: 6 },
  { name: "Stencil card", minStrokeMm: 2, minGapMm: 2, minPieceMm2: 10, isStencil: true },
  { name: "Acrylic, 3 mm", minStrokeMm: 3, minGapMm: 2, minPieceMm2: 40 },
];

/** The material that was chosen last, and one's own beside those that come with it. */
export function useMaterial() {
  const { own, keep } = useOwn<Named>("lettering-materials");
  const [material, setMaterial] = useState<Named>(() => MATERIALS[0]!);
  const all = [...MATERIALS, ...own];
  const keepAs = (name: string) => {
    keep({ ...material, name });
    setMaterial({ ...material, name });
  };
  return { all, material, setMaterial, keep: keepAs };
}
type MaterialChoice = ReturnType<typeof useMaterial>;

export function useCheck(document: LetteringDocument, material: Named, isOn: boolean) {
  const { name: _, bridgeMm: __, ...asked } = material;
  return useQuery({
    ...queryOf("checkLettering", { body: { document, material: asked } }),
    enabled: isOn && document.blocks.some((b) => b.text.trim()),
    placeholderData: (before) => before,
    retry: false,
  });
}

type Props = {
  document: LetteringDocument;
  choice: MaterialChoice;
  check: { data?: LetteringCheck | undefined; error: unknown; isFetching: boolean };
  onGo: (finding: Finding) => void;
  onChange: (document: LetteringDocument) => void;
};

export function CheckPanel({ document, choice, check, onGo, onChange }: Props) {
  return (
    <div
      className="grid gap-x-8 gap-y-2 py-2 text-[12.5px] lg:grid-cols-[320px_1fr]"
      data-check
      aria-busy={check.isFetching}
    >
      <MaterialFields choice={choice} />
      {check.error ? (
        <FaultNote fault={writeFault(faultOf(check.error))} />
      ) : (
        check.data && (
          <Findings {...{ document, onGo, onChange }} check={check.data} bridgeMm={choice.material.bridgeMm} />
        )
      )}
    </div>
  );
}

function MaterialFields({ choice: { all, material, setMaterial, keep } }: { choice: MaterialChoice }) {
  const field = (
    label: string,
    key: "minStrokeMm" | "minGapMm" | "minPieceMm2" | "cutMmPerS" | "bridgeMm",
    unit: string,
  ) => (
    <NumberField
      label={label}
      unit={unit}
      step={key === "cutMmPerS" ? 10 : 0.1}
      least={key === "cutMmPerS" ? 1 : 0}
      value={material[key] ?? (key === "cutMmPerS" ? CUT_MM_PER_S : 0)}
      onChange={(v) => setMaterial({ ...material, [key]: v })}
    />
  );
  return (
    <div className="grid content-start gap-1.5">
      <label className="flex items-baseline gap-1.5">
        <span className="text-basalt">Material</span>
        <select
          className="border-b border-slate bg-transparent font-semibold"
          value={material.name}
          onChange={(e) => setMaterial(all.find((m) => m.name === e.target.value)!)}
        >
          {all.map((m) => (
            <option key={m.name}>{m.name}</option>
          ))}
        </select>
      </label>
      {field("Thinnest stroke", "minStrokeMm", "mm")}
      {field("Smallest gap", "minGapMm", "mm")}
      {field("Smallest piece", "minPieceMm2", "mm²")}
      {field("Cut at", "cutMmPerS", "mm/s")}
      {field("Bridges", "bridgeMm", "mm wide; 0: as suits the place")}
      <Tick
        name="Stencil: what letters enclose falls out"
        checked={material.isStencil ?? false}
        onChange={(isStencil) => setMaterial({ ...material, isStencil })}
      />
      <KeepAs label="Name of your material" onKeep={keep} />
    </div>
  );
}

const KIND_WORDS: Record<Finding["kind"], string> = {
  thin: "Thin stroke",
  gap: "Narrow gap",
  overlap: "Letters overlap and would be cut into each other",
  island: "Enclosed part",
  "small-piece": "Piece too small to weed",
  "filled-counter": "Counter filled by the join",
  apart: "Letters do not meet",
};

/** What was found, in words. */
function sayFinding({ kind, measuredMm, wantedMm }: Finding): string {
  const mm = (v: number) => `${v.toFixed(2)} mm`;
  const measured = measuredMm === undefined ? "" : `: ${mm(measuredMm)}`;
  return `${KIND_WORDS[kind]}${measured}${wantedMm === undefined ? "" : `, ${mm(wantedMm)} needed`}`;
}

const SHOWN = 40;

function Findings({
  document,
  check,
  onGo,
  bridgeMm,
  onChange,
}: Pick<Props, "document" | "onGo" | "onChange"> & { check: LetteringCheck; bridgeMm: number | undefined }) {
  const { findings, pieces, islands, areaMm2, cutLengthMm, thinnestMm, smallestGapMm, cutSeconds } = check;
  const isLoose = pieces > 1 && document.blocks.some((b) => b.keepTogether === undefined);
  return (
    <div className="min-w-0">
      <p className="font-semibold" role="status">
        {findings.length === 0
          ? "Nothing would go wrong in this material."
          : `${findings.length} ${findings.length === 1 ? "place" : "places"} would go wrong in this material.`}
      </p>
      <p className="num text-basalt">
        {pieces} {pieces === 1 ? "piece" : "pieces"}, {islands} enclosed · {(areaMm2 / 100).toFixed(1)} cm² ·{" "}
        {(cutLengthMm / 1000).toFixed(2)} m to cut, {writeSeconds(cutSeconds)}
        {thinnestMm !== null && ` · thinnest stroke ${thinnestMm.toFixed(2)} mm`}
        {smallestGapMm !== null && ` · smallest gap ${smallestGapMm.toFixed(2)} mm`}
      </p>
      {isLoose && (
        <p className="flex items-center gap-3" data-loose>
          Cutting programs pack single pieces to save film, so the spacing can be lost.
          <button type="button" className="btn-quiet underline" onClick={() => onChange(keepTogether(document))}>
            Keep together
          </button>
        </p>
      )}
      <ol className="mt-1 max-h-44 overflow-y-auto">
        {findings.slice(0, SHOWN).map((finding, i) => {
          const block = document.blocks.find((b) => b.id === finding.blockId);
          const deed = block && mendOf(block, finding, bridgeMm || undefined);
          return (
            <li
              key={`${finding.kind} ${finding.xMm} ${finding.yMm}`}
              className="flex items-center gap-3 border-b border-rule py-0.5"
            >
              <span className="num w-6 text-madder">{i + 1}</span>
              <button type="button" className="min-w-0 flex-1 truncate text-left" onClick={() => onGo(finding)}>
                {sayFinding(finding)}{" "}
                <span className="text-basalt">{block && `in “${lettersOf(block, finding)}”`}</span>
              </button>
              {deed && (
                <button
                  type="button"
                  className="btn-quiet underline"
                  onClick={() => onChange(replaceBlock(document, deed.block))}
                >
                  {deed.name}
                </button>
              )}
            </li>
          );
        })}
      </ol>
      {findings.length > SHOWN && <p className="text-basalt">and {findings.length - SHOWN} more</p>}
    </div>
  );
}

const lettersOf = ({ text }: Block, { letters }: Finding) => {
  const all = [...text.replace(/\r?\n/g, "")];
  return letters.map((at) => all[at] ?? "").join("");
};
