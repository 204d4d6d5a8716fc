"use client";
// Beside a match that is nearly the first: the letter that tells the two apart, both laid over each other, and the place enlarged.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Beside, IdentifyMatch } from "@/contracts/identify";
import { queryOf } from "../parts/client";

type Props = { first: IdentifyMatch; match: IdentifyMatch };

export function TellApart({ first, match }: Props) {
  const [isOpen, setOpen] = useState(false);
  const { isSameHere, tellingLetter: letter } = match.besideFirst!;
  const same = isSameHere ? "The same in these letters. " : "";
  const isInPicture = match.letters.some((l) => l.char === letter);
  if (!letter) return <p className="text-[12px] text-basalt">{same}No letter tells it from the first.</p>;
  return (
    <div className="text-[12px]">
      <p className="text-basalt">
        {same}
        {isInPicture
          ? `The ${letter} tells it from no. 1. `
          : `No letter of the picture tells it from no. 1; ask for a sample with ${letter}. `}
        <button
          type="button"
          aria-expanded={isOpen}
          className="font-semibold text-tide underline"
          onClick={() => setOpen(!isOpen)}
        >
          {isOpen ? "Hide" : "Show me"}
        </button>
      </p>
      {isOpen && <Places first={first} match={match} letter={letter} />}
    </div>
  );
}

function Places({ first, match, letter }: Props & { letter: string }) {
  const query = {
    other: match.styleId,
    letter,
    at: first.coordinates && JSON.stringify(first.coordinates),
    otherAt: match.coordinates && JSON.stringify(match.coordinates),
  };
  const beside = useQuery({ ...queryOf("getBeside", { params: { id: first.styleId }, query }), staleTime: Infinity });
  if (beside.error) return <p role="alert">The letter cannot be shown: {beside.error.message}</p>;
  if (!beside.data) return <p className="text-basalt">…</p>;
  const { box, place, paths, where } = beside.data;
  const nameOf = (m: IdentifyMatch) => `${m.family} ${m.style}`;
  const says = `${letter} of ${nameOf(first)} and of ${nameOf(match)}: they differ most at the ${where}`;
  const both = (
    <>
      <path d={paths[0]} fill="var(--slate)" opacity={0.35} />
      <path d={paths[1]} fill="none" stroke="var(--oxide)" strokeWidth={1.5} vectorEffect="non-scaling-stroke" />
    </>
  );
  return (
    <figure className="mt-1" data-apart={where}>
      <div className="flex gap-2">
        <svg viewBox={writeBox(grow(box, 0.06))} className="h-24 bg-limestone" role="img" aria-label={says}>
          {both}
          <rect {...place} fill="none" stroke="var(--tide)" strokeWidth={2} vectorEffect="non-scaling-stroke" />
        </svg>
        <svg
          viewBox={writeBox(grow(place, 0.25))}
          className="size-24 bg-limestone shadow-[inset_0_0_0_2px_var(--tide)]"
          role="img"
          aria-label={`The ${where}, enlarged`}
        >
          {both}
        </svg>
      </div>
      <figcaption className="mt-0.5 text-basalt">
        Grey the first, outlined this one. They differ most at the {where}.
      </figcaption>
    </figure>
  );
}

type Box = Beside["box"];
const grow = ({ x, y, width, height }: Box, by: number): Box => {
  const room = by * Math.max(width, height);
  return { x: x - room, y: y - room, width: width + 2 * room, height: height + 2 * room };
};
const writeBox = ({ x, y, width, height }: Box) => `${x} ${y} ${width} ${height}`;
