"use client";
// Nothing is all that was asked: what comes nearest is shown, and what each part of the question costs.
import type { Understood } from "@/contracts/styles";
import type { FindAddress, SetAddress } from "./question";
import { removeWords } from "./SearchField";
import { selectActive } from "./select";

type Props = { nearest: NonNullable<Understood["nearest"]>; address: FindAddress; set: SetAddress };
type Part = Props["nearest"]["without"][number]["parts"][number];
type Off = Partial<Record<keyof FindAddress, unknown>>;

export function NearestNote({ nearest, address, set }: Props) {
  const choices = nearest.without.map(({ parts, count }) => ({ count, ...giveUp(parts, address) }));
  return (
    <p
      role="status"
      className="mx-3.5 flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1 text-[12.5px]"
      data-nearest
    >
      <span>Nothing is all of this. Here {nearest.total === 1 ? "is" : "are"} the nearest.</span>
      {choices.map(({ says, count, off }) => (
        <button key={says} type="button" className="btn-quiet" onClick={() => set(off as never)}>
          without <b className="font-semibold">{says}</b>: {count}
        </button>
      ))}
    </p>
  );
}

/** What giving up some parts of the question does to the address. */
function giveUp(parts: readonly Part[], address: FindAddress): { says: string; off: Off } {
  const off: Off = {};
  const says = parts.map(({ label, from, facet }) => {
    if (from) {
      off.q = removeWords(String(off.q ?? address.q), from) || null;
      return from;
    }
    if (address.traits.some((t) => t.trait === facet)) {
      off.traits = ((off.traits as FindAddress["traits"]) ?? address.traits).filter((t) => t.trait !== facet);
      return label;
    }
    off[facet as keyof FindAddress] = null;
    const actives = selectActive(address).filter((a) => facet in a.off);
    return actives.map((a) => a.label).join(" or ") || label;
  });
  return { says: says.join(" and "), off };
}
