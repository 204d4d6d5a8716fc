"use client";
// All glyphs of the line's face: put in place of the letter that is chosen, or after it.
import { useQuery } from "@tanstack/react-query";
import type { Block } from "@/contracts/lettering";
import type { Glyph } from "@/contracts/styles";
import { editLetter, insertLetter } from "@/core/letter/editBlock";
import { queryOf } from "../parts/client";
import { AllGlyphs, useGlyphCopy } from "../parts/AllGlyphs";
import type { LaidLetter } from "./letterTasks";
import { nameLetter } from "./nameLetter";

type Props = { block: Block; chosen: LaidLetter; onChange: (block: Block) => void; onChoose: (at: number) => void };

export function GlyphsOfLine({ block, chosen, onChange, onChoose }: Props) {
  const style = useQuery(queryOf("getStyle", { params: { id: block.styleId } }));
  const copy = useGlyphCopy();
  const name = nameLetter(chosen);
  const put = (g: Glyph) => onChange(editLetter(block, chosen.at, glyphOf(g)));
  const insert = (g: Glyph) => {
    const [codePoint] = g.codePoints;
    const end = chosen.cluster + chosen.text.length;
    const character = codePoint === undefined ? null : String.fromCodePoint(codePoint);
    onChange(insertLetter(block, chosen.at, end, character, character === null ? glyphOf(g) : undefined));
    onChoose(chosen.at + 1);
  };
  return (
    <section aria-label="All glyphs of this face" className="w-full border-t border-rule pt-2" data-glyphs>
      <AllGlyphs
        styleId={block.styleId}
        blocks={style.data?.coverage.blocks ?? []}
        like={{ glyphId: chosen.glyphId, name }}
        pickName="Choose"
        deeds={(g) => (
          <>
            <button type="button" className="btn btn-act" onClick={() => put(g)}>
              Put in place of {name}
            </button>
            <button type="button" className="btn" onClick={() => insert(g)}>
              Insert after {name}
            </button>
            {g.codePoints.length > 0 && (
              <button type="button" className="btn" onClick={() => void copy(g)}>
                Copy
              </button>
            )}
          </>
        )}
      />
    </section>
  );
}

const glyphOf = (g: Glyph) => ({ glyphId: g.id, feature: g.codePoints.length ? undefined : g.features[0] });
