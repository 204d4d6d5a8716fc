"use client";
// How the contact sheet is to look, and the sheet in each format.
import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { useState } from "react";
import { SHEET_FORMATS, type SheetQuery } from "@/contracts/sheet";
import { writeLength } from "@/contracts/units";
import { useBench } from "../bench/BenchContext";
import { addressOf } from "../parts/client";

type Look = Omit<SheetQuery, "format">;
const PLAIN: Look = { layout: "rows", columns: 2, words: "brief", size: "level" };
const COLUMNS = [2, 3, 4, 5, 6];

export function SheetMaker() {
  const { brief } = useBench();
  const [look, setLook] = useState(PLAIN);
  const change = (part: Partial<Look>) => setLook({ ...look, ...part });
  return (
    <Popover>
      <PopoverButton className="btn btn-act">Contact sheet …</PopoverButton>
      <PopoverPanel
        anchor="bottom end"
        modal={false}
        className="z-40 mt-1 grid w-80 gap-3 rounded-sm border border-rule bg-chalk p-4 text-[13px] shadow-lg"
      >
        <Options
          label="Layout"
          value={look.layout}
          options={[
            ["rows", "One under the other"],
            ["columns", "In columns"],
            ["large", "One face a page, large"],
          ]}
          onChange={(layout) => change({ layout })}
        />
        {look.layout === "columns" && (
          <Options
            label="Columns"
            value={String(look.columns)}
            options={COLUMNS.map((n) => [String(n), String(n)])}
            onChange={(columns) => change({ columns: Number(columns) })}
            isInRow
          />
        )}
        <Options
          label="Words"
          value={look.words}
          options={[
            ["brief", "The lines of the brief"],
            ["document", "What each kind is used for: a page, a table, two lines"],
          ]}
          onChange={(words) => change({ words })}
        />
        <Options
          label="Size"
          value={look.size}
          options={[
            ["level", "All equally large"],
            ["real", `Real size, ${writeLength(brief.size, brief.unit)}`],
          ]}
          onChange={(size) => change({ size })}
        />
        <p className="flex gap-2 border-t border-rule pt-3">
          {SHEET_FORMATS.map((format) => (
            <a
              key={format}
              className={`btn flex-1 text-center ${format === "pdf" ? "btn-act" : ""}`}
              aria-label={`Download the contact sheet as ${format.toUpperCase()}`}
              href={addressOf("writeContactSheet", { params: { id: brief.briefId }, query: { ...look, format } })}
            >
              {format.toUpperCase()}
            </a>
          ))}
        </p>
      </PopoverPanel>
    </Popover>
  );
}

type OptionsProps<T extends string> = {
  label: string;
  value: T;
  options: (readonly [T, string])[];
  onChange: (value: T) => void;
  isInRow?: boolean;
};

function Options<T extends string>({ label, value, options, onChange, isInRow }: OptionsProps<T>) {
  return (
    <fieldset>
      <legend className="text-[12px] text-basalt">{label}</legend>
      <div className={isInRow ? "flex gap-4" : ""}>
        {options.map(([option, name]) => (
          <label key={option} className="flex min-h-6 items-baseline gap-2">
            <input
              type="radio"
              name={`sheet ${label}`}
              className="accent-slate"
              checked={value === option}
              onChange={() => onChange(option)}
            />
            {name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
