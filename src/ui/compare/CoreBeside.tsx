// The core sample laid on its side and large, over the mean of the group: what is special of a face stands out.
import type { Traits } from "@/contracts/traits";
import { CORE_BANDS, placeInRange, type Ranges } from "../parts/CoreSample";

const BAND_PX = 11;

/** Mean of a trait over those that have it. */
function meanOf(all: readonly Traits[], trait: (typeof CORE_BANDS)[number]["trait"]): number | null {
  const known = all.flatMap((t) => t[trait] ?? []);
  return known.length ? known.reduce((a, b) => a + b, 0) / known.length : null;
}

export function CoreBeside({ traits, group, ranges }: { traits: Traits; group: readonly Traits[]; ranges: Ranges }) {
  const says = CORE_BANDS.map(({ trait, name, write }) => {
    const [own, mean] = [traits[trait], meanOf(group, trait)];
    return `${name} ${own === null ? "not measured" : write(own)}${mean === null ? "" : `, mean ${write(mean)}`}`;
  });
  return (
    <div role="img" aria-label={`Core sample beside the mean: ${says.join("; ")}`} className="max-w-[140px]">
      {CORE_BANDS.map(({ trait }, i) => {
        const own = placeInRange(traits[trait], ranges, trait);
        const mean = placeInRange(meanOf(group, trait), ranges, trait);
        return (
          <div key={trait} className="relative" style={{ height: BAND_PX }} title={says[i]}>
            <span
              className="absolute inset-x-0 top-0"
              style={{ height: BAND_PX - 1, background: "var(--core-trough)" }}
            />
            {own !== null && (
              <span
                className="absolute top-0 left-0"
                style={{ height: BAND_PX - 1, width: `${100 * own}%`, background: `var(--core-${i + 1})` }}
              />
            )}
            {mean !== null && (
              <span
                className="absolute -top-px w-[3px] border border-slate bg-chalk"
                style={{ height: BAND_PX + 1, left: `calc(${100 * mean}% - 1px)` }}
              />
            )}
          </div>
        );
      })}
    </div>
  );
}
