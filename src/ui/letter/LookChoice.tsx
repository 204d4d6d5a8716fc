"use client";
// Looks to choose from, each drawn on a letter of the line: those that come with it, and one's own.
import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import type { Block } from "@/contracts/lettering";
import { applyLook, LOOKS, readLook, wears, type Look } from "@/core/letter/looks";
import { KeepAs } from "./KeepAs";
import type { LaidBlock } from "./letterTasks";
import { useOwn } from "./useOwn";

type Props = { block: Block; laid: LaidBlock | undefined; onChange: (block: Block) => void };

export function LookChoice({ block, laid, onChange }: Props) {
  const { own, keep, drop } = useOwn<Look>("lettering-looks");
  const emMm = laid?.emMm ?? 0;
  if (!emMm) return null;
  const all = [...LOOKS, ...own];
  const worn = all.find((l) => wears(block, l, emMm));
  return (
    <Popover className="relative">
      <PopoverButton className="flex items-baseline gap-1.5">
        <span className="text-basalt">Look</span> <b>{worn?.name ?? "of its own"}</b>
      </PopoverButton>
      <PopoverPanel
        anchor="top start"
        className="z-40 w-80 rounded-sm border border-rule bg-chalk p-3 shadow-lg focus:outline-none"
      >
        <div role="group" aria-label="Looks" className="grid grid-cols-3 gap-2">
          {all.map((look) => (
            <button
              key={look.name}
              type="button"
              aria-pressed={look === worn}
              onClick={() => onChange(applyLook(block, look, emMm))}
              className={`grid justify-items-center gap-1 border p-1.5 text-[12px] ${look === worn ? "border-tide" : "border-rule"}`}
            >
              <LookSample look={look} laid={laid!} />
              {look.name}
            </button>
          ))}
        </div>
        <div className="mt-3 flex gap-2">
          <KeepAs
            label="Name of your look"
            placeholder="Keep this look as …"
            onKeep={(name) => keep(readLook(block, emMm, name))}
          />
          {worn && own.includes(worn) && (
            <button type="button" className="btn-quiet underline" onClick={() => drop(worn.name)}>
              Remove {worn.name}
            </button>
          )}
        </div>
      </PopoverPanel>
    </Popover>
  );
}

/** The first letter with ink, in the look. */
function LookSample({ look, laid }: { look: Look; laid: LaidBlock }) {
  const letter = laid.letters.find((l) => l.box);
  if (!letter?.box) return null;
  const { xMin, yMin, xMax, yMax } = letter.box;
  const pad = 0.12 * laid.emMm;
  const id = `look-${look.name.replace(/\W+/g, "-")}`;
  const { fill, outline, shadow } = look;
  const strokeMm = outline ? outline.widthEm * laid.emMm * (outline.side === "middle" ? 1 : 2) : 0;
  return (
    <svg
      aria-hidden
      width={56}
      height={48}
      viewBox={`${xMin - pad} ${yMin - pad} ${xMax - xMin + 2 * pad} ${yMax - yMin + 2 * pad}`}
      className="bg-[#8a8f86]"
    >
      {typeof fill !== "string" && (
        <linearGradient id={id} gradientTransform={`rotate(${fill.angleDeg} .5 .5)`}>
          <stop offset="0" stopColor={fill.from} />
          <stop offset="1" stopColor={fill.to} />
        </linearGradient>
      )}
      {shadow && (
        <path
          d={letter.d}
          fill={shadow.colour}
          transform={`translate(${shadow.dxEm * laid.emMm} ${shadow.dyEm * laid.emMm})`}
          style={{ filter: shadow.blurEm ? `blur(${shadow.blurEm * laid.emMm}px)` : undefined }}
        />
      )}
      <path
        d={letter.d}
        fill={typeof fill === "string" ? fill : `url(#${id})`}
        stroke={outline?.colour ?? "none"}
        strokeWidth={strokeMm}
        paintOrder={outline?.side === "inside" ? "fill" : "stroke"}
      />
    </svg>
  );
}
