"use client";
// The chosen line letter by letter: every letter in its box, the white between two of them as a handle with its value, and the other forms
// of the letter that is chosen.
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Block } from "@/contracts/lettering";
import { editLetter, editPair } from "@/core/letter/editBlock";
import { writeCodePoint } from "@/core/unicode/codePoint";
import { useCopy } from "../parts/useCopy";
import { GlyphsOfLine } from "./GlyphsOfLine";
import { nameLetter } from "./nameLetter";
import type { DrawnForm, LaidBlock, LaidLetter } from "./letterTasks";

type Props = {
  block: Block;
  laid: LaidBlock;
  at: number | null;
  forms: readonly DrawnForm[];
  onChoose: (at: number) => void;
  onChange: (block: Block) => void;
};

/** Height of a letter's box: ascenders and descenders stand in it. */
const EM_PX = 52;
const BASELINE_PX = 58;
/** A narrow letter is as easy to hit as a wide one. */
const LEAST_PX = 24;

export function LetterStrip({ block, laid, at, forms, onChoose, onChange }: Props) {
  const row = useRef<HTMLDivElement>(null);
  const [showsGlyphs, setShowsGlyphs] = useState(false);
  const chosen = laid.letters.find((l) => l.at === at);
  const onKey = (event: KeyboardEvent) => {
    if (event.key !== "ArrowLeft" && event.key !== "ArrowRight") return;
    const buttons = [...row.current!.querySelectorAll<HTMLElement>("button")];
    const next = buttons[buttons.indexOf(event.target as HTMLElement) + (event.key === "ArrowRight" ? 1 : -1)];
    // A handle's arrows are its value; Tab leads on from there.
    if ((event.target as HTMLElement).dataset.pair !== undefined || !next) return;
    event.preventDefault();
    next.focus();
  };
  return (
    <div className="flex min-w-0 flex-wrap gap-x-6 gap-y-3 py-3">
      <div
        ref={row}
        role="group"
        aria-label="Letters of the line"
        className="flex min-w-0 flex-wrap items-start gap-y-2"
        onKeyDown={onKey}
      >
        {laid.letters.map((letter, i) => (
          <div key={letter.at} className="flex items-start">
            <StripLetter {...{ letter, laid }} isChosen={letter.at === at} onChoose={() => onChoose(letter.at)} />
            {laid.letters[i + 1]?.line === letter.line && (
              <PairHandle {...{ block, letter, laid, onChange }} next={laid.letters[i + 1]!} />
            )}
          </div>
        ))}
      </div>
      {chosen && (
        <div className="flex min-w-0 flex-wrap items-start gap-x-6">
          {forms.length > 1 && <Forms {...{ block, chosen, forms, onChange }} />}
          <button
            type="button"
            className="btn-quiet underline"
            aria-expanded={showsGlyphs}
            onClick={() => setShowsGlyphs(!showsGlyphs)}
          >
            {showsGlyphs ? "Fold away all glyphs" : "All glyphs of this face"}
          </button>
        </div>
      )}
      {chosen && showsGlyphs && <GlyphsOfLine {...{ block, chosen, onChange, onChoose }} />}
    </div>
  );
}

type StripLetterProps = { letter: LaidLetter; laid: LaidBlock; isChosen: boolean; onChoose: () => void };

function StripLetter({ letter, laid, isChosen, onChoose }: StripLetterProps) {
  const scale = EM_PX / laid.emMm;
  const widthPx = Math.max(LEAST_PX, letter.advanceMm * scale);
  const turn = (-letter.turnRad * 180) / Math.PI;
  const name = nameLetter(letter);
  return (
    <button
      type="button"
      aria-pressed={isChosen}
      aria-label={
        letter.isMissing ? `${name}, not in this face` : `Letter ${name}${letter.hasForms ? ", has other forms" : ""}`
      }
      onClick={onChoose}
      onFocus={onChoose}
      className={`relative border-x border-dashed border-rule ${isChosen ? "bg-[color-mix(in_srgb,var(--tide)_14%,transparent)]" : ""}`}
      style={{ width: widthPx + 2, height: 80 }}
    >
      {letter.hasForms && (
        <span aria-hidden className="absolute top-0 left-1/2 h-1.5 w-1.5 -translate-x-1/2 rounded-full bg-tide" />
      )}
      {letter.isMissing ? (
        <span aria-hidden className="font-mono text-madder">
          {name}
        </span>
      ) : (
        <svg width={widthPx} height={80} aria-hidden className="overflow-visible">
          <path
            transform={`translate(0 ${BASELINE_PX}) scale(${scale}) rotate(${turn}) translate(${-letter.from.xMm} ${-letter.from.yMm})`}
            d={letter.d}
            fill="currentColor"
          />
        </svg>
      )}
    </button>
  );
}

type PairProps = {
  block: Block;
  letter: LaidLetter;
  next: LaidLetter;
  laid: LaidBlock;
  onChange: (block: Block) => void;
};
const STEP = 5;

/** Value of a pair in thousandths of an em; typed by arrows, dragged sideways. */
function PairHandle({ block, letter, next, laid, onChange }: PairProps) {
  const [drag, setDrag] = useState<{ x: number; from: number; value: number } | null>(null);
  const shiftEm = block.pairs?.find((p) => p.at === letter.at)?.shiftEm ?? 0;
  const value = drag?.value ?? Math.round(shiftEm * 1000);
  const put = (v: number) => onChange(editPair(block, letter.at, v / 1000));
  const name = `${nameLetter(letter)} ${nameLetter(next)}`;
  const onKey = (event: KeyboardEvent) => {
    const sign = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (!sign) return;
    event.preventDefault();
    event.stopPropagation();
    put(value + sign * (event.altKey ? 1 : event.shiftKey ? 50 : STEP));
  };
  const onMove = (event: PointerEvent) =>
    drag && setDrag({ ...drag, value: Math.round(drag.from + ((event.clientX - drag.x) / EM_PX) * 1000) });
  const mm = (value / 1000) * laid.emMm;
  return (
    <button
      type="button"
      data-pair={letter.at}
      aria-label={`Between ${name}: ${value} thousandths of an em, ${mm.toFixed(1)} mm`}
      title="Drag, or arrow keys; Alt for single steps"
      className={`h-24 w-6 cursor-ew-resize touch-none pt-[78px] text-center font-mono text-[10.5px] ${value ? "font-medium text-oxide" : "text-basalt"}`}
      onKeyDown={onKey}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        setDrag({ x: e.clientX, from: value, value });
      }}
      onPointerMove={onMove}
      onPointerUp={() => {
        if (drag && drag.value !== drag.from) put(drag.value);
        setDrag(null);
      }}
    >
      {value > 0 ? `+${value}` : value}
    </button>
  );
}

type FormsProps = { block: Block; chosen: LaidLetter; forms: readonly DrawnForm[]; onChange: (block: Block) => void };

function Forms({ block, chosen, forms, onChange }: FormsProps) {
  const copy = useCopy();
  const worn = block.letters?.find((l) => l.at === chosen.at)?.glyphId ?? forms[0]!.glyphId;
  const code = [...chosen.text].map((c) => writeCodePoint(c.codePointAt(0)!)).join(" ");
  const put = (form: DrawnForm) =>
    onChange(
      editLetter(
        block,
        chosen.at,
        form.feature === null
          ? { glyphId: undefined, feature: undefined }
          : { glyphId: form.glyphId, feature: form.feature },
      ),
    );
  return (
    <div className="min-w-0 border-l border-rule pl-6" data-forms>
      <h3 className="mb-1.5 text-[12px] text-basalt">{chosen.text}, other forms in this face</h3>
      <div role="group" aria-label={`Forms of ${chosen.text}`} className="flex flex-wrap gap-2">
        {forms.map((form) => (
          <button
            key={form.glyphId}
            type="button"
            aria-pressed={form.glyphId === worn}
            aria-label={form.feature === null ? "As it comes" : `${form.feature} ${form.value}`}
            title={
              form.feature === null
                ? "As it comes"
                : `${form.feature}${form.value > 1 ? ` ${form.value}` : ""}, glyph ${form.glyphId}`
            }
            onClick={() => put(form)}
            className={`grid h-[58px] min-w-[54px] place-items-center border bg-chalk px-1 ${form.glyphId === worn ? "border-tide" : "border-rule"}`}
          >
            <svg
              aria-hidden
              width={Math.max(30, form.advanceEm * 38)}
              height={56}
              viewBox={`0 -1 ${Math.max(0.8, form.advanceEm)} 1.45`}
              className="overflow-visible"
            >
              <path d={form.d} fill="currentColor" />
            </svg>
          </button>
        ))}
      </div>
      <p className="mt-1.5 font-mono text-[11.5px] text-basalt">
        {code}{" "}
        <button
          type="button"
          className="btn-quiet underline"
          onClick={() => void copy(chosen.text, `${chosen.text} copied (${code})`)}
        >
          Copy
        </button>
      </p>
    </div>
  );
}
