"use client";
// What the wall shows, in words: those of the find field as they were read, then the sieve's. Each can be taken out.
import type { Understood } from "@/contracts/styles";
import type { Active } from "./select";
import { ThemePart, type ThemeWord } from "./ThemePart";

export function ActiveWords({
  understood,
  actives,
  onOff,
  onWordOff,
}: {
  understood: Understood | undefined;
  actives: Active[];
  onOff: (off: Active["off"]) => void;
  onWordOff: (from: string) => void;
}) {
  const word = (key: string, label: string, onClick: () => void) => (
    <button
      key={key}
      type="button"
      onClick={onClick}
      title="Remove"
      className="min-w-6 border-b border-dashed border-tide font-medium text-tide hover:line-through"
    >
      {label}
    </button>
  );
  const any = Boolean(understood?.words.length || actives.length);
  return (
    <span className="flex min-w-0 flex-wrap items-center gap-x-3 py-1" data-understood>
      {any && <span className="text-basalt">Showing:</span>}
      {understood?.words.map((w, i) =>
        w.theme ? (
          <ThemePart key={`w ${i} ${w.from}`} word={w as ThemeWord} onWordOff={onWordOff} />
        ) : (
          word(`w ${i} ${w.from}`, w.label, () => onWordOff(w.from))
        ),
      )}
      {actives.map((a) => word(`a ${a.label}`, a.label, () => onOff(a.off)))}
      {understood && understood.ignored.length > 0 && (
        <span className="text-ochre">Ignored: {understood.ignored.join(", ")}</span>
      )}
    </span>
  );
}
