"use client";
// Ways to look at faces that stand beside each other, all in one grid: a column per face, baselines shared.
import { createContext, useContext, useEffect, useState, type ReactNode } from "react";
import type { Brief, BriefLine } from "@/contracts/brief";
import type { Comparison } from "@/contracts/compare";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { TIDE_TABLE } from "@/core/brief/sampleDocument";
import { sharedFit } from "@/core/brief/sharedFit";
import { BASELINE_EM, Sample } from "../parts/Sample";
import { sampleOf } from "../parts/sampleOf";
import { firstWords } from "@/core/brief/words";
import { useFaces } from "./useCompared";

export type WayProps = {
  brief: Brief;
  faces: readonly ShownItem[];
  comparison: Comparison | undefined;
  /** Room of one column. */
  columnPx: number;
};

/** Sizes of the lines by their role; the room of a band is in sizes too. */
const ROLE_PX: Record<BriefLine["role"], number> = {
  title: 46,
  second: 34,
  heading: 34,
  text: 24,
  caption: 19,
  figures: 30,
};
const BAND = { heightEm: 1.9, baselineEm: 1.25 };
const PADDING_PX = 32;

/** Columns of a grid with room for the names of its bands. */
export const columnsOf = (count: number) => `68px repeat(${count}, minmax(0, 1fr))`;
export const LABEL_PX = 68;

/** One band over all columns. */
function Band({ label, children }: { label: ReactNode; children: ReactNode }) {
  return (
    <>
      <div className="border-t border-rule py-2 pr-1 text-[12px] text-basalt">{label}</div>
      {children}
    </>
  );
}

/** Columns whose samples are drawn by now: eight faces at once would hold up the page for a tenth of a second. */
const Drawn = createContext(Infinity);
export const DrawnColumns = Drawn.Provider;
/** Counts up to all columns, one a task, so that what is pressed meanwhile is heard. */
export function useDrawnColumns(count: number): number {
  const [drawn, setDrawn] = useState(0);
  useEffect(() => {
    if (drawn >= count) return;
    const timer = setTimeout(() => setDrawn(drawn + 1));
    return () => clearTimeout(timer);
  }, [drawn, count]);
  return drawn;
}

function Cell({ column, children }: { column: number; children: ReactNode }) {
  const drawn = useContext(Drawn);
  return (
    <div className="min-w-0 overflow-hidden border-t border-l border-rule pr-2 pl-4" data-column={column}>
      {column < drawn && children}
    </div>
  );
}

/** A line in one face on the baseline of its band. */
function OnBaseline({
  face,
  brief,
  text,
  basePx,
  fit,
}: {
  face: ShownItem;
  brief: Brief;
  text: string;
  basePx: number;
  fit?: number;
}) {
  const sizePx = basePx * levelFactor(face.traits, brief.levelBy);
  return (
    <div style={{ height: basePx * BAND.heightEm }} className="overflow-hidden">
      <div style={{ marginTop: basePx * BAND.baselineEm - sizePx * BASELINE_EM }}>
        <Sample
          {...sampleOf(face)}
          text={text}
          sizePx={sizePx}
          fit={fit}
          byLineWidth={brief.levelBy === "line-width" || undefined}
        />
      </div>
    </div>
  );
}

/** Every line of the brief as a band; all columns set it at one factor. */
export function WordsWay({ brief, faces, columnPx }: WayProps) {
  const lines = brief.lines.filter((l) => l.text.trim());
  return lines.map((line, i) => {
    const basePx = ROLE_PX[line.role];
    const roomPx = columnPx - PADDING_PX;
    const fit = sharedFit(faces, line.text, { basePx, levelBy: brief.levelBy, roomPx });
    return (
      <Band key={line.id ?? i} label={line.role}>
        {faces.map((face, c) => (
          <Cell key={face.styleId} column={c}>
            <OnBaseline {...{ face, brief, text: line.text, basePx, fit }} />
          </Cell>
        ))}
      </Band>
    );
  });
}

/** The bold and the italic of each face under each other, in the first line. */
export function SiblingsBand({ brief, faces, comparison, columnPx }: WayProps) {
  const ids = [...new Set(comparison?.faces.flatMap((f) => [f.bold, f.italic]).filter((id) => id !== null))];
  const siblings = useFaces(ids);
  const text = firstWords(brief);
  const basePx = 28;
  return (["bold", "italic"] as const).map((sort) => {
    const own = faces.map((_, c) => siblings?.find((s) => s.styleId === comparison?.faces[c]?.[sort]));
    if (!own.some(Boolean)) return null;
    const fit = sharedFit(
      own.filter((f) => f !== undefined),
      text,
      { basePx, levelBy: brief.levelBy, roomPx: columnPx - PADDING_PX },
    );
    return (
      <Band key={sort} label={sort}>
        {own.map((face, c) => (
          <Cell key={faces[c]!.styleId} column={c}>
            {face ? (
              <>
                <OnBaseline {...{ face, brief, text, basePx, fit }} />
                <p className="truncate pb-1 text-[11.5px] text-basalt">{face.style}</p>
              </>
            ) : (
              <p className="py-2 text-[12px] text-basalt">none</p>
            )}
          </Cell>
        ))}
      </Band>
    );
  });
}

/** One letter as large as the columns allow, on its baseline, the height of plain lowercase letters as a second line. */
export function LetterBand({
  brief,
  faces,
  columnPx,
  letter,
  label,
  most = 210,
}: WayProps & { letter: string; label: ReactNode; most?: number }) {
  const basePx = Math.min(most, Math.max(72, columnPx * 0.72));
  const baselinePx = basePx * 1.05;
  // Faces matched by x-height stand between two lines; by capitals the upper one is theirs.
  const upperEm = brief.levelBy === "capitals" ? 0.7 : 0.5;
  const guide = "pointer-events-none absolute inset-x-0 border-t border-dashed border-tide";
  return (
    <Band label={label}>
      {faces.map((face, c) => {
        const sizePx = basePx * levelFactor(face.traits, brief.levelBy);
        return (
          <Cell key={face.styleId} column={c}>
            <div className="relative -mr-2 -ml-4 overflow-hidden pl-4" style={{ height: basePx * 1.45 }}>
              {brief.levelBy !== "point-size" && (
                <span className={guide} style={{ top: baselinePx - upperEm * basePx }} />
              )}
              <span className={guide} style={{ top: baselinePx }} />
              <div style={{ marginTop: baselinePx - sizePx * BASELINE_EM }}>
                <Sample {...sampleOf(face)} own={null} text={letter} sizePx={sizePx} fit={1} />
              </div>
            </div>
          </Cell>
        );
      })}
    </Band>
  );
}

/** Figures in columns, and what of them each face has. */
export function FiguresWay({ brief, faces }: WayProps) {
  const row = (text: string, label: string, basePx: number) => (
    <Band key={text} label={label}>
      {faces.map((face, c) => (
        <Cell key={face.styleId} column={c}>
          <OnBaseline {...{ face, brief, text, basePx }} />
        </Cell>
      ))}
    </Band>
  );
  return (
    <>
      {row("0123456789", "figures", 36)}
      <Band label="in columns">
        {faces.map((face, c) => (
          <Cell key={face.styleId} column={c}>
            <div className="py-2">
              {TIDE_TABLE.map((text) => (
                <Sample
                  key={text}
                  {...sampleOf(face)}
                  text={text}
                  sizePx={22 * levelFactor(face.traits, brief.levelBy)}
                />
              ))}
            </div>
          </Cell>
        ))}
      </Band>
      {row("£12 + 3 % = 1/2 & 7", "with signs", 26)}
      <Band label="as they come">
        {faces.map(({ styleId, traits }, c) => (
          <Cell key={styleId} column={c}>
            <p className="py-2 text-[12.5px]">
              {[traits.figures.height, traits.figures.spacing].filter(Boolean).join(", ") || "not measured"}
            </p>
          </Cell>
        ))}
      </Band>
    </>
  );
}

/** From a poster to the icon of a page, in pixels as they are. */
const SIZES_PX = [120, 72, 36, 18, 12, 9];
export function SizesWay({ brief, faces }: WayProps) {
  const text = firstWords(brief);
  return (
    <>
      {SIZES_PX.map((sizePx) => (
        <Band key={sizePx} label={`${sizePx} px`}>
          {faces.map((face, c) => (
            <Cell key={face.styleId} column={c}>
              <OnBaseline
                {...{ face, brief, text, basePx: sizePx }}
                // Larger than its column it is cut: a size is a size.
                fit={1}
              />
            </Cell>
          ))}
        </Band>
      ))}
      <Band label="icon, 16 px">
        {faces.map((face, c) => (
          <Cell key={face.styleId} column={c}>
            <div
              className="my-2 grid h-4 w-4 place-items-center overflow-hidden rounded-[3px]"
              style={{ background: brief.ink }}
            >
              <Sample
                {...sampleOf(face)}
                own={null}
                text={text.trim().slice(0, 1)}
                sizePx={13}
                ink={brief.paper}
                fit={1}
              />
            </div>
          </Cell>
        ))}
      </Band>
    </>
  );
}

/** How large each role is beside text. */
const ROLE_EM: Record<BriefLine["role"], number> = {
  title: 2.44,
  second: 1.56,
  heading: 1.56,
  text: 1,
  caption: 0.8,
  figures: 1.25,
};

/** The brief's lines as a page in each face, on its paper and swapped. */
export function OnPageWay({ brief, faces }: WayProps) {
  const page = (ink: string, paper: string, label: string) => (
    <Band label={label}>
      {faces.map((face, c) => (
        <Cell key={face.styleId} column={c}>
          <div className="my-2 mr-4 p-4" style={{ background: paper }}>
            {brief.lines.map((line, i) => (
              <div key={line.id ?? i} className="mb-1.5">
                <Sample
                  {...sampleOf(face)}
                  text={line.text}
                  sizePx={17 * ROLE_EM[line.role] * levelFactor(face.traits, brief.levelBy)}
                  ink={ink}
                  wrap
                />
              </div>
            ))}
          </div>
        </Cell>
      ))}
    </Band>
  );
  return (
    <>
      {page(brief.ink, brief.paper, "on paper")}
      {page(brief.paper, brief.ink, "swapped")}
    </>
  );
}
