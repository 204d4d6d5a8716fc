"use client";
// The family as a tree: a row for each width and slant, a column for each weight; variable files above, with what their axes span.
import Link from "next/link";
import type { StyleDetail } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
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
  const weights = [...new Set(single.map(stepOf))].sort((a, b) => a - b);
  const rows = [...new Map(single.map((s) => [rowOf(s), s])).entries()].sort(
    ([, a], [, b]) =>
      Number(a.slanted) - Number(b.slanted) ||
      (a.width ?? 5) - (b.width ?? 5) ||
      (widthWord(a) < widthWord(b) ? -1 : 1),
  );
  const text = brief.lines[active]?.text || style.family;
  const sample = (s: Sibling, sizePx: number, words: string) => (
    <Sample
      styleId={s.styleId}
      axes={s.axisDefaults}
      coverage={style.codePoints}
      text={words}
      sizePx={sizePx}
      widthEm={style.traits.widthEm}
      owned={s.owned}
    />
  );
  const link = (s: Sibling, children: React.ReactNode, className = "") => (
    <Link
      href={`/b/${brief.briefId}/style/${s.styleId}`}
      aria-current={s.styleId === style.styleId ? "page" : undefined}
      className={`block min-w-0 px-2 py-1.5 hover:bg-chalk ${s.styleId === style.styleId ? "bg-chalk shadow-[inset_0_-2px_0_var(--oxide)]" : ""} ${className}`}
    >
      {children}
    </Link>
  );
  return (
    <div className="max-w-[1060px]">
      {style.siblings
        .filter((s) => s.variable)
        .map((s) => (
          <div key={s.styleId} className="border-b border-rule">
            {link(
              s,
              <>
                {sample(s, 34, text)}
                <span className="text-[12px] text-basalt">
                  {s.style}, axes {Object.keys(s.axisDefaults).join(", ")}
                </span>
              </>,
            )}
          </div>
        ))}
      {single.length > 0 && (
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
                  {weights.map((w) => {
                    const s = single.find((x) => rowOf(x) === key && stepOf(x) === w);
                    return (
                      <td key={w} className="border-b border-l border-rule align-top">
                        {s &&
                          link(
                            s,
                            <>
                              {sample(s, 30, "Rag4")}
                              <span className="block truncate text-[11.5px] text-basalt">{s.style}</span>
                            </>,
                          )}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {single.some((s) => s.styleId === style.styleId) && (
        <div className="mt-4">
          {sample(
            style.siblings.find((s) => s.styleId === style.styleId)!,
            44,
            text,
          )}
        </div>
      )}
    </div>
  );
}
