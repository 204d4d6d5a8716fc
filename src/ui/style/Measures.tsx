// Every measured trait with its unit and where it stands in the library.
import type { StyleDetail } from "@/contracts/styles";
import { CORE_BANDS, placeInRange } from "../parts/CoreSample";

const em = (v: number | null) => (v === null ? null : `${v.toFixed(3)} em`);

export function Measures({ style }: { style: StyleDetail }) {
  const t = style.traits;
  const more: [string, string | null][] = [
    ["Weight, on the scale of 100–900", t.weight === null ? null : String(t.weight)],
    ["Mean advance", em(t.widthEm)],
    ["Capital height", em(t.capHeightEm)],
    ["Ascender", em(t.ascenderEm)],
    ["Descender", em(t.descenderEm)],
    ["Serifs, 0–1", t.serif === null ? null : t.serif.toFixed(2)],
    ["Serif thickness / stem", t.serifThickness === null ? null : t.serifThickness.toFixed(2)],
    ["Roughness, 0–1", t.roughness === null ? null : t.roughness.toFixed(2)],
    ["Letter pairs that join", t.connected === null ? null : `${Math.round(t.connected * 100)} %`],
    ["Monospaced", t.monospaced ? "yes" : "no"],
    ["Figures", [t.figures.height, t.figures.spacing].filter(Boolean).join(", ") || null],
    ["Cases", t.cases],
  ];
  return (
    <div className="grid max-w-[980px] grid-cols-2 gap-x-14">
      <section>
        <h2 className="head mb-2">Core sample, in the library’s range</h2>
        {CORE_BANDS.map(({ trait, name, write }, i) => {
          const share = placeInRange(t, style.ranges, trait);
          const value = t[trait];
          return (
            <div key={trait} className="grid grid-cols-[80px_minmax(0,1fr)_80px] items-center gap-3 py-[3px]">
              <span>{name}</span>
              <span className="relative h-3.5 bg-rule/50">
                {share !== null && (
                  <span
                    className="absolute inset-y-0 left-0"
                    style={{ width: `${Math.max(2, share * 100)}%`, background: `var(--core-${i + 1})` }}
                  />
                )}
              </span>
              <span className="num text-right">{value === null ? "–" : write(value)}</span>
            </div>
          );
        })}
        <p className="mt-2 text-[12px] text-basalt">
          Measured from the outlines. A dash: the letters that it needs are missing or do not behave.
        </p>
      </section>
      <section>
        <h2 className="head mb-2">Further measures</h2>
        <dl>
          {more.map(([label, value]) => (
            <div key={label} className="flex justify-between border-b border-rule py-[3px]">
              <dt>{label}</dt>
              <dd className="num">{value ?? "–"}</dd>
            </div>
          ))}
        </dl>
        <h2 className="head mt-4 mb-1">Why these kinds</h2>
        <ul>
          {[...style.kinds, ...style.treatments].map((k) => (
            <li key={k.value}>
              <b>{k.value}</b> <span className="num">{Math.round(k.confidence * 100)} %</span> {k.because}
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
