"use client";
// The line of the brief as a drawing: outlines alone, set by the shaper in a worker of the page, saved as an SVG file.
import { useState } from "react";
import type { StyleDetail } from "@/contracts/styles";
import { hasCodePoint } from "@/core/unicode/blocks";
import { readUnicodeRange } from "@/core/unicode/ranges";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { addressOf } from "../parts/client";
import { saveBlob } from "../parts/saveBlob";
import { typesetInWorker } from "../parts/typesetInWorker";

const SIZE_PX = 200;
const FAULTS = {
  "font-unreached": "The font could not be fetched. Try again once the server answers.",
  "font-unread": "The line could not be set in this font.",
  "nothing-drawn": "The font draws nothing of this line.",
};

type Props = {
  style: StyleDetail;
  location: Record<string, number>;
  features: Record<string, number>;
};

/** The files of a style that have a character of the text. */
const partsFor = (text: string, parts: StyleDetail["parts"]) =>
  parts.filter(({ unicodeRange }) => {
    const coverage = readUnicodeRange(unicodeRange);
    return [...text.normalize("NFC")].some((char) => hasCodePoint(coverage, char.codePointAt(0)!));
  });

export function SaveLine({ style, location, features }: Props) {
  const { brief, say } = useBench();
  const [active] = useActiveLine();
  const text = brief.lines[active]?.text.trim() || style.family;
  const [isBusy, setBusy] = useState(false);
  const name = `${style.family} ${style.style}`;
  const save = async () => {
    setBusy(true);
    const reply = await typesetInWorker({
      addresses: [undefined, ...partsFor(text, style.parts).map((p) => p.sha256)].map((part) =>
        addressOf("getStyleFile", { params: { id: style.styleId }, query: { packing: "none", part } }),
      ),
      ...{ location, features, text, sizePx: SIZE_PX, ink: brief.ink },
      title: `${text} (${name})`,
    });
    setBusy(false);
    if (!reply.ok) return say(FAULTS[reply.code], true);
    const line = text
      .slice(0, 40)
      .replace(/[^\p{L}\p{N} ]+/gu, "")
      .trim();
    saveBlob(new Blob([reply.svg], { type: "image/svg+xml" }), `${name} - ${line || "line"}.svg`);
    say(`“${text}” saved as SVG outlines.`);
  };
  return (
    <button
      type="button"
      className="btn-quiet mt-1.5 underline"
      disabled={isBusy}
      title="The line as outlines, for drawing programs"
      onClick={() => void save()}
    >
      Save line as SVG
    </button>
  );
}
