"use client";
// How words of a theme were read: its looks with their weights. Each can be weighed otherwise, left out, or taken from the face in focus;
// what was said is remembered here, and can be read, saved and forgotten.
import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { useQuery } from "@tanstack/react-query";
import { ChevronDown } from "lucide-react";
import type { Understood } from "@/contracts/styles";
import { LOOK_NAMES, type ThemeLooks } from "@/contracts/themes";
import { useBench } from "../bench/BenchContext";
import { call } from "../bench/commands";
import { Choice } from "../parts/Choice";
import { queryOf } from "../parts/client";
import { useFocusedFace } from "./focusedFace";

export type ThemeWord = Understood["words"][number] & { theme: NonNullable<Understood["words"][number]["theme"]> };
type Props = { word: ThemeWord; onWordOff: (from: string) => void };

export function ThemePart({ word, onWordOff }: Props) {
  return (
    <Popover className="relative min-w-0">
      <PopoverButton
        title="How this was read"
        className="flex max-w-full items-center gap-1 border-b border-dashed border-tide text-left font-medium text-tide"
      >
        <span className="truncate">{word.label}</span>
        <ChevronDown size={12} aria-hidden className="shrink-0" />
      </PopoverButton>
      <PopoverPanel
        className="absolute top-full left-0 z-40 mt-1 w-[400px] max-w-[92vw] rounded-sm border border-rule bg-chalk p-4 text-[12.5px] shadow-lg focus:outline-none"
        data-theme-panel
      >
        <Reading word={word} onWordOff={onWordOff} />
      </PopoverPanel>
    </Popover>
  );
}

function Reading({ word, onWordOff }: Props) {
  const { from, theme } = word;
  const { isCorrected, correct, leanTo, readAgain } = useCorrections(word);
  const face = useFocusedFace();
  const others = LOOK_NAMES.filter((name) => !theme.looks.some((l) => l.name === name));
  return (
    <>
      <p className="font-semibold">“{from}”</p>
      <p className="text-basalt">
        {theme.near.length
          ? `Read as ${theme.near.join(" and ")}: letters with these looks come first.`
          : "As you said."}
      </p>
      <ul className="mt-2 divide-y divide-rule">
        {theme.looks.map((look) => (
          <Look
            key={`${look.name} ${look.weight}`}
            look={look}
            onWeight={(weight) => correct({ [look.name]: weight }, `“${from}”: ${look.name} weighs otherwise`)}
            onOff={() => correct({ [look.name]: 0 }, `“${from}” is not ${look.name}`)}
          />
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1.5">
        <Choice
          label="Add a look"
          value="add"
          options={[{ value: "add", name: "Add a look" }, ...others.map((name) => ({ value: name, name }))]}
          onChange={(name) => name !== "add" && correct({ [name]: 1 }, `“${from}” is ${name} too`)}
        />
        {face && (
          <button type="button" className="btn-quiet" onClick={() => leanTo(face)}>
            Rather like {face.family}
          </button>
        )}
        {isCorrected && (
          <button type="button" className="btn-quiet" onClick={readAgain}>
            Back to the first reading
          </button>
        )}
        <button type="button" className="btn-quiet" onClick={() => onWordOff(from)}>
          Remove from search
        </button>
      </div>
      <Remembered />
    </>
  );
}

type LookProps = {
  look: ThemeWord["theme"]["looks"][number];
  onWeight: (weight: number) => void;
  onOff: () => void;
};

function Look({ look, onWeight, onOff }: LookProps) {
  const weigh = (input: HTMLInputElement) => {
    const weight = Number(input.value) / 100;
    if (weight !== look.weight) onWeight(weight);
  };
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_84px_24px] items-center gap-3 py-1">
      <span>
        <b className="font-semibold">{look.name}</b>
        <span className="block text-[11.5px] leading-4 text-basalt">{look.because}</span>
      </span>
      <input
        type="range"
        aria-label={`How much ${look.name}`}
        min={5}
        max={100}
        step={5}
        defaultValue={Math.round(100 * look.weight)}
        onPointerUp={(e) => weigh(e.currentTarget)}
        onKeyUp={(e) => weigh(e.currentTarget)}
        className="w-full accent-(--tide)"
      />
      <button
        type="button"
        aria-label={`Not ${look.name}`}
        title="Not this look"
        className="btn-quiet min-h-6"
        onClick={onOff}
      >
        ×
      </button>
    </li>
  );
}

/** What was said of words on this installation. */
function Remembered() {
  const { perform } = useBench();
  const themes = useQuery(queryOf("listThemes", {})).data?.themes ?? [];
  if (!themes.length) return null;
  const file = `data:application/json,${encodeURIComponent(JSON.stringify({ themes }, null, 2))}`;
  return (
    <details className="mt-3 border-t border-rule pt-2">
      <summary className="cursor-pointer text-basalt">Words you corrected ({themes.length})</summary>
      <ul className="mt-1 max-h-40 overflow-y-auto">
        {themes.map(({ phrase, looks }) => (
          <li key={phrase} className="flex items-baseline gap-2 py-0.5">
            <b className="font-semibold">{phrase}</b>
            <span className="min-w-0 flex-1 truncate text-basalt">{writeLooks(looks)}</span>
            <button
              type="button"
              className="btn-quiet min-h-6"
              onClick={() =>
                perform(
                  `What was said of “${phrase}” forgotten`,
                  call("forgetTheme", { params: { phrase } }),
                  call("correctTheme", { params: { phrase }, body: { looks } }),
                )
              }
            >
              Forget
            </button>
          </li>
        ))}
      </ul>
      <a className="underline" href={file} download="corrected-words.json">
        Save them as JSON
      </a>
    </details>
  );
}

const writeLooks = (looks: ThemeLooks) =>
  Object.entries(looks)
    .map(([name, weight]) => (weight ? `${name} ${Math.round(100 * weight)} %` : `not ${name}`))
    .join(", ");

/** Corrections of one phrase, each a step that undo takes back. */
function useCorrections({ from, theme: { phrase } }: ThemeWord) {
  const { perform } = useBench();
  const before = useQuery(queryOf("listThemes", {})).data?.themes.find((t) => t.phrase === phrase)?.looks;
  const put = (looks: ThemeLooks) => call("correctTheme", { params: { phrase }, body: { looks } });
  const back = before ? put(before) : call("forgetTheme", { params: { phrase } });
  return {
    isCorrected: before !== undefined,
    correct: (looks: ThemeLooks, says: string) => perform(says, put({ ...before, ...looks }), back),
    leanTo: (face: { styleId: string; family: string }) =>
      perform(
        `“${from}” is rather like ${face.family}`,
        call("correctTheme", { params: { phrase }, body: { like: face.styleId } }),
        back,
      ),
    readAgain: () => perform(`“${from}” is read as at first`, call("forgetTheme", { params: { phrase } }), back),
  };
}
