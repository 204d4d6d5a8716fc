"use client";
// Languages that the face can set whole, by the characters that Unicode CLDR says each needs.
import Link from "next/link";
import { useState } from "react";
import type { StyleDetail } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";

export function Languages({ style }: { style: StyleDetail }) {
  const { brief } = useBench();
  const [asked, setAsked] = useState("");
  const shown = style.languages.filter((l) => l.name.toLowerCase().includes(asked.trim().toLowerCase()));
  return (
    <div className="max-w-[1060px]">
      <div className="flex items-baseline gap-4">
        <input
          type="search"
          aria-label="Find a language"
          className="field max-w-56"
          placeholder="Icelandic"
          value={asked}
          onChange={(e) => setAsked(e.target.value)}
        />
        <span className="num">
          {style.languages.length} of {style.languagesOf} languages
        </span>
      </div>
      {shown.length > 0 ? (
        <ul className="mt-3 columns-4 gap-6">
          {shown.map((l) => (
            <li key={l.code}>
              <Link
                className="hover:underline"
                href={`/b/${brief.briefId}/find?languages=${l.code}`}
                title={`All faces that set ${l.name}`}
              >
                {l.name}
              </Link>
            </li>
          ))}
        </ul>
      ) : (
        <p className="mt-3 text-basalt">
          {style.languages.length
            ? "It does not set such a language whole."
            : "It sets no language whole: some of its letters are missing for each."}
        </p>
      )}
      <p className="mt-3 text-[12px] text-basalt">
        A language counts when every letter it needs is there, small and capital (Unicode CLDR exemplars).
      </p>
    </div>
  );
}
