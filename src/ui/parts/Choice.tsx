"use client";
// A choice of one among a few, as one quiet word that opens a list.
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from "@headlessui/react";
import { ChevronDown } from "lucide-react";

type Props<T extends string | number> = {
  label: string;
  value: T;
  options: { value: T; name: string }[];
  onChange: (value: T) => void;
  strong?: boolean;
};

export function Choice<T extends string | number>({ label, value, options, onChange, strong = true }: Props<T>) {
  return (
    <Listbox value={value} onChange={onChange}>
      <ListboxButton
        aria-label={`${label}: ${options.find((o) => o.value === value)?.name ?? ""}`}
        className={`flex min-w-6 items-center gap-1 py-0.5 whitespace-nowrap ${strong ? "font-semibold" : "text-basalt"}`}
      >
        {options.find((o) => o.value === value)?.name}
        <ChevronDown size={12} aria-hidden />
      </ListboxButton>
      <ListboxOptions
        anchor="bottom start"
        modal={false}
        className="z-40 mt-1 min-w-32 overflow-y-auto [--anchor-max-height:20rem] rounded-sm border border-rule bg-chalk py-1 shadow-lg focus:outline-none"
      >
        {options.map((o) => (
          <ListboxOption
            key={o.value}
            value={o.value}
            className="cursor-pointer px-3 py-1 data-focus:bg-limestone data-selected:font-semibold data-selected:text-tide"
          >
            {o.name}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
