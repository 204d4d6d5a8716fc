"use client";
// The faces of all lines of a picture: each set in its words, with the lines that are set in it. A line opens by itself.
import { PROBABLY_NOT_HERE, type FaceGroup } from "@/contracts/identify";
import { writeLayout, type Layout } from "./layout";
import { MatchRow, useDetails, writeChance } from "./MatchRow";

type Props = {
  layout: Layout;
  busy: boolean;
  onLine: (at: number) => void;
  onGiveUp: () => void;
};

export function LayoutAnswer({ layout, busy, onLine, onGiveUp }: Props) {
  const { lines, groups } = layout;
  const details = useDetails(groups.map((g) => g.matches[0]!.styleId));
  const answered = lines.filter((l) => l !== null).length;
  const unread = lines.flatMap((l, at) => (typeof l === "string" ? [{ at, why: l }] : []));
  return (
    <section aria-label="All lines" className="min-h-0 overflow-y-auto border-l border-rule bg-chalk px-4 py-3">
      <h1 className="text-[17px] font-bold" aria-live="polite" data-layout-answer>
        {!busy && !layout.isWhole ? "Stopped." : writeLayout(layout)}
      </h1>
      {busy && (
        <div className="mt-2 flex items-center gap-3">
          <progress
            className="h-1.5 flex-1 accent-tide"
            max={Math.max(1, lines.length)}
            value={answered}
            aria-label="Lines identified"
          />
          <button type="button" className="btn" onClick={onGiveUp}>
            Cancel
          </button>
        </div>
      )}
      <ol className="mt-2">
        {groups.map((group, i) => (
          <MatchRow
            key={group.lines[0]}
            match={{ ...group.matches[0]!, ...(group.noneChance > PROBABLY_NOT_HERE && { chance: undefined }) }}
            detail={details[i]}
            text={textOf(layout, group.lines[0]!)}
            score={group.matches[0]!.score}
          >
            <OrElse group={group} />
            <LineChips layout={layout} at={group.lines} onLine={onLine} />
          </MatchRow>
        ))}
      </ol>
      {unread.length > 0 && (
        <ul className="mt-3 border-t border-rule pt-2 text-[12px]" aria-label="Lines that could not be read">
          {unread.map(({ at, why }) => (
            <li key={at} className="mt-1 text-basalt">
              <button type="button" className="font-semibold text-tide underline" onClick={() => onLine(at)}>
                Line {at + 1}
              </button>{" "}
              {why}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

const textOf = ({ lines }: Layout, at: number): string => {
  const line = lines[at];
  return line && typeof line !== "string" ? line.reading.text : "";
};

/** What else it may be, or that it may be none of them. */
function OrElse({ group: { matches, noneChance } }: { group: FaceGroup }) {
  const others = matches.slice(1, 3).filter((m) => m.chance > 0.05);
  if (noneChance > PROBABLY_NOT_HERE)
    return <p className="text-[12px] text-basalt">Probably not in your libraries; this comes nearest.</p>;
  if (!others.length) return null;
  return (
    <p className="text-[12px] text-basalt">
      or {others.map((m) => `${m.family} ${m.style}, ${writeChance(m.chance)}`).join("; ")}
    </p>
  );
}

type ChipsProps = { layout: Layout; at: readonly number[]; onLine: (at: number) => void };

const LineChips = ({ layout, at, onLine }: ChipsProps) => (
  <ul className="mt-1 flex flex-wrap gap-1.5" aria-label="Its lines">
    {at.map((i) => (
      <li key={i}>
        <button
          type="button"
          className="flex min-h-6 items-center gap-1.5 border border-rule px-1.5 text-[12px] hover:border-slate"
          aria-label={`Open line ${i + 1}: ${textOf(layout, i)}`}
          onClick={() => onLine(i)}
        >
          <span className="num bg-slate px-1 text-[11px] text-chalk">{i + 1}</span>
          <span className="max-w-[160px] truncate">{textOf(layout, i)}</span>
        </button>
      </li>
    ))}
  </ul>
);
