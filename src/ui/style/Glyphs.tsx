"use client";
// All glyphs of the style: copied by a click, added to the brief's line.
import type { Glyph, StyleDetail } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { AllGlyphs, useGlyphCopy } from "../parts/AllGlyphs";

export function Glyphs({ style }: { style: StyleDetail }) {
  const { brief, changeInStep } = useBench();
  const [active] = useActiveLine();
  const copy = useGlyphCopy();
  const add = (g: Glyph) => {
    const c = String.fromCodePoint(g.codePoints[0]!);
    const lines = brief.lines.map((l, i) => (i === active ? { ...l, text: `${l.text}${c}` } : l));
    changeInStep({ lines }, `${c} added to the line`);
  };
  return (
    <AllGlyphs
      styleId={style.styleId}
      blocks={style.coverage.blocks}
      pickName="Copy"
      onPick={(g) => void copy(g)}
      deeds={(g) =>
        g.codePoints.length > 0 && (
          <>
            <button type="button" className="btn" onClick={() => void copy(g)}>
              Copy
            </button>
            <button type="button" className="btn" onClick={() => add(g)}>
              Add to the line
            </button>
          </>
        )
      }
    />
  );
}
