"use client";
// The family as a tree: a row for each width and slant, a column for each weight; variable files above, with what their axes span.
import Link from "next/link";
import type { ReactNode } from "react";
import { COMPARED_AT_MOST } from "@/contracts/compare";
import type { StyleDetail } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { useComparing } from "../bench/comparing";
import { useGo } from "../bench/useGo";
import { Sample } from "../parts/Sample";

type Sibling = StyleDetail["siblings"][number];

/** Weights that are drawn as one column. */
const stepOf = (s: Sibling) => Math.round((s.weight ?? 400) / 100) * 100;
/** The width that a style's name says; measured widths of one family lie too close to part it by. */
const widthWord = (s: Sibling) =>
  s.style
    .match(/\b(?:ultra|extra|semi)?[- ]?(?:compressed|condensed|narrow|extended|expanded|wide)\b/i)?.[0]
    .toLowerCase() ?? "";
const rowOf = (s: Sibling) => `${widthWord(s)}${s.slanted ? " slanted" : ""}`;

export function FamilyTree({ style }: { style: StyleDetail }) {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const single = style.siblings.filter((s) => !s.variable);
  const text = brief.lines[active]?.text || style.family;
  const own = single.find((s) => s.styleId === style.styleId);
  const comparing = useComparing();
  const go = useGo();
  const compared = [...single, ...style.siblings.filter((s) => s.variable)].slice(0, COMPARED_AT_MOST);
  return (
    <div className="max-w-[1060px]">
      {compared.length > 1 && (
        <button
          type="button"
          className="btn mb-3"
          onClick={() => {
            comparing.put(compared.map((s) => s.styleId));
            go(`/b/${brief.briefId}/compare`);
          }}
        >
          {compared.length < style.siblings.length
            ? `Compare the first ${compared.length} styles`
            : `Compare all ${compared.length} styles`}
        </button>
      )}
      {style.siblings
        .filter((s) => s.variable)
        .map((s) => (
          <div key={s.styleId} className="border-b border-rule">
            <ToSibling style={style} sibling={s}>
              <SiblingSample style={style} sibling={s} sizePx={34} text={text} />
              <span className="text-[12px] text-basalt">
                {s.style}, axes {Object.keys(s.axisDefaults).join(", ")}
              </span>
            </ToSibling>
          </div>
        ))}
      {single.length > 0 && <Weights style={style} single={single} />}
      {own && (
        <div className="mt-4">
          <SiblingSample style={style} sibling={own} sizePx={44} text={text} />
        </div>
      )}
    </div>
  );
}

type SiblingProps = { style: StyleDetail; sibling: Sibling };

const SiblingSample = ({ style, sibling, sizePx, text }: SiblingProps & { sizePx: number; text: string }) => (
  <Sample
    styleId={sibling.styleId}
    axes={sibling.axisDefaults}
    coverage={style.codePoints}
    parts={style.parts.length}
    text={text}
    sizePx={sizePx}
    widthEm={style.traits.widthEm}
    owned={sibling.owned}
  />
);

function ToSibling({ style, sibling, children }: SiblingProps & { children: ReactNode }) {
  const { brief } = useBench();
  const isOwn = sibling.styleId === style.styleId;
  return (
    <Link
      href={`/b/${brief.briefId}/style/${sibling.styleId}`}
      aria-current={isOwn ? "page" : undefined}
      className={`block min-w-0 px-2 py-1.5 hover:bg-chalk ${isOwn ? "bg-chalk shadow-[inset_0_-2px_0_var(--oxide)]" : ""}`}
    >
      {children}
    </Link>
  );
}

/** Weights across, widths and slants down. */
function Weights({ style, single }: { style: StyleDetail; single: Sibling[] }) {
  const weights = [...new Set(single.map(stepOf))].sort((a, b) => a - b);
  const rows = [...new Map(single.map((s) => [rowOf(s), s])).entries()].sort(
    ([, a], [, b]) =>
      Number(a.slanted) - Number(b.slanted) ||
      (a.width ?? 5) - (b.width ?? 5) ||
      (widthWord(a) < widthWord(b) ? -1 : 1),
  );
  const cell = (key: string, weight: number) => {
    const s = single.find((x) => rowOf(x) === key && stepOf(x) === weight);
    return (
      <td key={weight} className="border-b border-l border-rule align-top">
        {s && (
          <ToSibling style={style} sibling={s}>
            <SiblingSample style={style} sibling={s} sizePx={30} text="Rag4" />
            <span className="block truncate text-[11.5px] text-basalt">{s.style}</span>
          </ToSibling>
        )}
      </td>
    );
  };
  return (
    <div className="overflow-x-auto">
      <table className="mt-2 w-full table-fixed border-collapse">
        <caption className="sr-only">Weights across, widths and slants down</caption>
        <thead>
          <tr>
            <td className="w-24" />
            {weights.map((w) => (
              <th key={w} scope="col" className="num border-b border-rule pb-1 text-left font-normal">
                {w}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([key, first]) => (
            <tr key={key}>
              <th scope="row" className="border-b border-rule text-left text-[12px] font-normal text-basalt">
                {first.slanted ? "slanted" : "upright"}
                {widthWord(first) && <span className="block">{widthWord(first)}</span>}
              </th>
              {weights.map((w) => cell(key, w))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
