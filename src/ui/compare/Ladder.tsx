// The order so far: each face on its rung, with a bar from the first to the last place where it may still end up.
import type { Round } from "@/contracts/compare";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { useBench } from "../bench/BenchContext";
import { Sample } from "../parts/Sample";
import { firstWords } from "@/core/brief/words";
import { sampleOf } from "../parts/sampleOf";

const RUNG_PX = 58;

export function Ladder({ round, faceOf }: { round: Round; faceOf: ReadonlyMap<string, ShownItem> }) {
  const { brief } = useBench();
  const text = firstWords(brief);
  return (
    <aside
      className="min-h-0 overflow-y-auto border-l border-rule bg-chalk px-4 pt-3 pb-6"
      aria-label="The order so far"
    >
      <h2 className="head">{round.pair ? "The order so far" : "The order"}</h2>
      <p className="mb-2 text-[12px] text-basalt">A bar shows where a face may still end up.</p>
      <ol className="relative border-l-2 border-slate" style={{ height: round.ranking.length * RUNG_PX }}>
        {round.ranking.map((rank, place) => {
          const face = faceOf.get(rank.styleId);
          const says = `place ${place + 1}, ${rank.firstPlace === rank.lastPlace ? "sure" : `between ${rank.firstPlace} and ${rank.lastPlace}`}`;
          return (
            <li
              key={rank.styleId}
              data-rung={rank.styleId}
              className="absolute inset-x-0"
              style={{ top: place * RUNG_PX, height: RUNG_PX }}
            >
              <span className="absolute -left-1.5 h-[3px] w-3.5 bg-oxide" style={{ top: RUNG_PX / 2 - 1 }} />
              <span
                className="absolute w-[6px] opacity-80"
                title={says}
                style={{
                  // Beside its neighbours' bars, so that each is seen whole.
                  left: 12 + (place % 3) * 8,
                  background: "var(--core-4)",
                  top: (rank.firstPlace - 1 - place) * RUNG_PX + 10,
                  height: (rank.lastPlace - rank.firstPlace + 1) * RUNG_PX - 20,
                }}
              />
              <span className="absolute inset-y-0 right-0 left-11 flex min-w-0 flex-col justify-center">
                {face && (
                  <Sample {...sampleOf(face)} text={text} sizePx={21 * levelFactor(face.traits, brief.levelBy)} />
                )}
                <span className="truncate text-[12px] text-basalt">
                  {face && `${face.family} ${face.style}`}
                  <span className="sr-only">, {says}</span>
                </span>
              </span>
            </li>
          );
        })}
      </ol>
      {round.reasons.length > 0 && (
        <p className="mt-3 border-t border-rule pt-2 font-semibold" data-reasons>
          You kept choosing {join(round.reasons.map((r) => r.says))}.
        </p>
      )}
    </aside>
  );
}

const join = (words: readonly string[]) =>
  words.length < 2 ? words.join() : `${words.slice(0, -1).join(", ")} and ${words[words.length - 1]}`;
