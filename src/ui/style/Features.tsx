"use client";
// Features of the face to try in the brief's words: each a switch, with what it gives in the trade's words.
import type { StyleDetail } from "@/contracts/styles";
import { FEATURE_WORDS } from "@/contracts/words";
import { listTryable, ON_BY_DEFAULT } from "../parts/tryable";

export type Tried = Record<string, boolean>;

/** CSS of what is switched; undefined when nothing is. */
export const writeFeatures = (tried: Tried): string | undefined =>
  Object.entries(tried)
    .map(([tag, on]) => `"${tag}" ${on ? 1 : 0}`)
    .join(", ") || undefined;

export function Features({
  style,
  tried,
  onChange,
}: {
  style: StyleDetail;
  tried: Tried;
  onChange: (t: Tried) => void;
}) {
  const list = listTryable(style.features);
  if (!list.length) return null;
  return (
    <section
      aria-label="Features"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-6 py-2"
    >
      {list.map((tag) => {
        const on = tried[tag] ?? ON_BY_DEFAULT.has(tag);
        return (
          <label key={tag} className={`flex items-center gap-1.5 ${on ? "font-semibold text-tide" : ""}`}>
            <input
              type="checkbox"
              className="accent-tide"
              checked={on}
              onChange={(e) => {
                const { [tag]: _before, ...rest } = tried;
                onChange(e.target.checked === ON_BY_DEFAULT.has(tag) ? rest : { ...tried, [tag]: e.target.checked });
              }}
            />
            {FEATURE_WORDS[tag] ?? <span className="num">{tag}</span>}
          </label>
        );
      })}
    </section>
  );
}
