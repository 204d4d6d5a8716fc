"use client";
// Two faces on a page that is set as such pages are: the words are the brief's, the colours too.
import type { ReactNode } from "react";
import type { Brief } from "@/contracts/brief";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { Sample } from "./Sample";
import { setLines } from "@/core/brief/words";
import { sampleOf } from "./sampleOf";

export const PAIR_PAGES = ["leaf", "card", "label", "booklet", "table"] as const;
export type PairPageSort = (typeof PAIR_PAGES)[number];
export const PAIR_PAGE_WORDS: Record<PairPageSort, string> = {
  leaf: "Programme leaf",
  card: "Title card",
  label: "Label",
  booklet: "Booklet page",
  table: "Table",
};

const TEXT_PX = 16;

type Props = {
  sort: PairPageSort;
  brief: Brief;
  heading: ShownItem | undefined;
  text: ShownItem | undefined;
  /** Size of the heading's face beside that of the text. */
  sizeRatio: number;
  leadingEm: number;
};

/** Words of a brief by where they stand on a page. */
function wordsOf(brief: Brief) {
  const [first = brief.name, ...rest] = setLines(brief);
  return {
    first,
    second: rest[0] ?? brief.name,
    rest: rest.length ? rest : [brief.name],
    running: rest.join(". ") || brief.name,
  };
}

export function PairPage({ sort, brief, ...pair }: Props) {
  const { ink, paper } = brief;
  // A title card is light on dark, as titles mostly stand.
  const [ground, letters] = sort === "card" ? [ink, paper] : [paper, ink];
  return (
    <div className="min-w-0 flex-1 border border-rule p-3" style={{ background: ground }} data-page={sort}>
      {PAGES[sort]({ brief, ink: letters, ...pair })}
    </div>
  );
}

type PageProps = Omit<Props, "sort"> & { ink: string };

const Set = ({
  face,
  sizePx,
  ...rest
}: {
  face: ShownItem | undefined;
  sizePx: number;
  text: string;
  ink: string;
  wrap?: boolean;
  align?: "left" | "center";
}) => face && <Sample {...sampleOf(face)} sizePx={sizePx} {...rest} />;

const textPxOf = (text: ShownItem | undefined) => TEXT_PX * (text ? levelFactor(text.traits, "x-height") : 1);

const PAGES: Record<PairPageSort, (props: PageProps) => ReactNode> = {
  leaf({ brief, heading, text, sizeRatio, leadingEm, ink }) {
    const px = textPxOf(text);
    const { first, running } = wordsOf(brief);
    return (
      <>
        <Set face={heading} text={first} sizePx={px * sizeRatio} ink={ink} />
        <div style={{ lineHeight: leadingEm }}>
          <Set face={text} text={running} sizePx={px} ink={ink} wrap />
        </div>
      </>
    );
  },
  card({ brief, heading, text, sizeRatio, ink }) {
    const px = textPxOf(text);
    const { first, second } = wordsOf(brief);
    return (
      <div className="grid aspect-video content-center gap-2">
        <Set face={heading} text={first} sizePx={px * sizeRatio * 1.3} ink={ink} align="center" />
        <Set face={text} text={second} sizePx={px * 1.3} ink={ink} align="center" />
      </div>
    );
  },
  label({ brief, heading, text, sizeRatio, ink }) {
    const px = textPxOf(text) * 0.8;
    const { first, rest } = wordsOf(brief);
    return (
      <div className="mx-auto grid max-w-64 gap-1 border-y-2 py-4" style={{ borderColor: ink }}>
        <Set face={heading} text={first} sizePx={px * sizeRatio} ink={ink} align="center" />
        {rest.map((line, i) => (
          <Set key={i} face={text} text={line} sizePx={px} ink={ink} align="center" />
        ))}
      </div>
    );
  },
  booklet({ brief, heading, text, sizeRatio, leadingEm, ink }) {
    const px = textPxOf(text) * 0.85;
    const { first, running } = wordsOf(brief);
    return (
      <>
        <Set face={heading} text={first} sizePx={px * sizeRatio} ink={ink} />
        <div className="mt-2 grid grid-cols-2 gap-4" style={{ lineHeight: leadingEm }}>
          {[0, 1].map((column) => (
            <Set key={column} face={text} text={`${running}. ${running}. ${running}.`} sizePx={px} ink={ink} wrap />
          ))}
        </div>
      </>
    );
  },
  table({ brief, heading, text, sizeRatio, ink }) {
    const px = textPxOf(text);
    const { first, rest } = wordsOf(brief);
    return (
      <>
        <Set face={heading} text={first} sizePx={px * Math.min(sizeRatio, 2.2)} ink={ink} />
        {rest.slice(0, 4).map((line, i) => (
          <div
            key={i}
            className="grid grid-cols-[minmax(0,1fr)_auto] gap-4 border-t py-1"
            style={{ borderColor: `color-mix(in srgb, ${ink} 35%, transparent)` }}
          >
            <Set face={text} text={line} sizePx={px} ink={ink} />
            <Set face={text} text={TIMES[i]!} sizePx={px} ink={ink} />
          </div>
        ))}
      </>
    );
  },
};
/** Figures of a table: each of the ten stands in it. */
const TIMES = ["18.45", "20.30", "21.07", "23.19"];
