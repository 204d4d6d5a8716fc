"use client";
// Another face laid over the same picture: found by its name as it is typed.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { queryOf } from "../parts/client";

type Props = { onTry: (styleId: string) => void; busy: boolean };

export function TryFace({ onTry, busy }: Props) {
  const [words, setWords] = useState("");
  const q = words.trim();
  const found = useQuery({
    ...queryOf("findStyles", { query: { q, limit: 5 } }),
    enabled: q.length >= 2,
    placeholderData: (before) => before,
  });
  const items = q.length >= 2 ? (found.data?.items ?? []) : [];
  const take = (styleId: string) => {
    onTry(styleId);
    setWords("");
  };
  return (
    <form
      className="mt-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (items[0] && !busy) take(items[0].styleId);
      }}
    >
      <label className="flex items-baseline gap-3">
        <span className="shrink-0 font-semibold">Try another face</span>
        <input
          className="field"
          placeholder="its name"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          aria-controls="faces-to-try"
        />
      </label>
      <ul id="faces-to-try" aria-label="Faces of this name">
        {items.map((i) => (
          <li key={i.styleId}>
            <button
              type="button"
              disabled={busy}
              className="w-full py-1 text-left hover:text-tide"
              onClick={() => take(i.styleId)}
            >
              {i.family} {i.style}
            </button>
          </li>
        ))}
        {q.length >= 2 && found.data && !items.length && (
          <li className="py-1 text-basalt">No face of this name is here.</li>
        )}
      </ul>
    </form>
  );
}
