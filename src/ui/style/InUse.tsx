"use client";
// The brief's words in this face on four real layouts: poster, title card, booklet page, label. And the same words down the sizes.
import type { StyleDetail } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { useBench } from "../bench/BenchContext";
import { Sample } from "../parts/Sample";

type Props = { style: StyleDetail; axes: Record<string, number>; features: string | undefined };

/** Three columns of a booklet page. */
const TEXT = [
  "Twelve lamps stood along the quay, and one tide would carry the boats past all of them. The keeper trimmed the wick and waited for the fog to lift; by dawn the brass was cold and the log held only weather.",
  "High water came at 04:52, and nobody was late. A fourth lamp was lit for the ferry, though the ferry had not run since spring; somebody always forgets, and the light is kept for that.",
  "Boats were counted twice. Then the brass was wiped, the wick was cut, and the stair went round and round into the dark, as it had on every night since the first stone was laid.",
];

export function InUse({ style, axes, features }: Props) {
  const { brief } = useBench();
  const words = brief.lines.map((l) => l.text.trim()).filter(Boolean);
  const [first = style.family, second = first, third = second] = words;
  const level = levelFactor(style.traits, brief.levelBy);
  const base = {
    styleId: style.styleId,
    coverage: style.codePoints,
    parts: style.parts.length,
    widthEm: style.traits.widthEm,
    owned: style.owned,
    axes,
    features,
  };
  const line = (text: string, px: number, ink: string, align: "left" | "center" = "left", wrap = false) => (
    <Sample {...base} text={text} sizePx={px * level} ink={ink} align={align} wrap={wrap} />
  );
  const { ink, paper } = brief;
  return (
    <div className="grid max-w-[1060px] grid-cols-[270px_minmax(0,1fr)] gap-6">
      <Figure title="Poster">
        <div className="flex h-[380px] flex-col justify-between p-5" style={{ background: paper }}>
          <div>
            {line(first, 54, ink)}
            {line(second, 54, ink)}
          </div>
          <svg viewBox="0 0 100 60" className="mx-auto w-40" aria-hidden>
            <path d="M44 58 L47 20 H53 L56 58 Z M46 14 H54 V20 H46 Z" fill={ink} />
            <path d="M54 16 L98 4 V28 Z M46 16 L2 4 V28 Z" fill={ink} opacity="0.25" />
          </svg>
          <div>{line(third, 20, ink)}</div>
        </div>
      </Figure>
      <div className="grid gap-6">
        <div className="grid grid-cols-[412px_minmax(0,1fr)] gap-6">
          <Figure title="Title card, 16 : 9">
            <div className="flex h-[232px] flex-col items-center justify-center bg-[#12181c] px-8">
              <div className="w-full">{line(first, 56, "#f3efe6", "center")}</div>
              <div className="mt-2 w-full opacity-80">{line(second, 22, "#f3efe6", "center")}</div>
            </div>
          </Figure>
          <Figure title="Label">
            <div className="flex h-[232px] items-center justify-center bg-rule/40 p-4">
              <div className="w-full border-2 p-4 text-center" style={{ background: paper, borderColor: ink }}>
                {line(first, 26, ink, "center")}
                <hr className="my-2" style={{ borderColor: ink }} />
                {line(third, 15, ink, "center")}
                <div className="mt-1">{line("No. 7 · 250 g", 12, ink, "center")}</div>
              </div>
            </div>
          </Figure>
        </div>
        <Figure title="Booklet page">
          <div className="h-[236px] overflow-hidden bg-[#fbf9f4] px-8 py-5">
            {line(first, 24, "#20262b")}
            <div className="mt-2 grid grid-cols-3 gap-6">
              {TEXT.map((part) => (
                <div key={part}>{line(part, 11, "#20262b", "left", true)}</div>
              ))}
            </div>
          </div>
        </Figure>
      </div>
    </div>
  );
}

function Figure({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <figure className="min-w-0">
      <div className="overflow-hidden border border-rule">{children}</div>
      <figcaption className="mt-1 text-[12px] text-basalt">{title}</figcaption>
    </figure>
  );
}

const SIZES_PX = [96, 72, 54, 40, 30, 24, 18, 14, 12, 10, 8];

export function Waterfall({ style, axes, features }: Props) {
  const { brief } = useBench();
  const text = brief.lines
    .map((l) => l.text.trim())
    .filter(Boolean)
    .join("  ");
  const from = style.traits.legibleFromPx;
  return (
    <div className="max-w-[1060px]">
      {from !== null && (
        <p className="mb-1 text-basalt">
          Legible from about <b className="text-slate">{from} px</b> (narrowest gap, x-height).
        </p>
      )}
      {SIZES_PX.map((px) => (
        <div key={px} className="grid grid-cols-[52px_minmax(0,1fr)] items-baseline border-b border-rule py-1">
          <span className={`num ${from !== null && px < from ? "text-ochre" : ""}`}>{px} px</span>
          <div className="overflow-hidden px-2" style={{ background: brief.paper }}>
            <Sample
              fit={1}
              styleId={style.styleId}
              coverage={style.codePoints}
              parts={style.parts.length}
              text={text || style.family}
              sizePx={px}
              widthEm={style.traits.widthEm}
              owned={style.owned}
              axes={axes}
              features={features}
              ink={brief.ink}
            />
          </div>
        </div>
      ))}
    </div>
  );
}
