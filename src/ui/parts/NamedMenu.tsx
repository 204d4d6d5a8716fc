"use client";
// A menu that begins with one deed and goes on with things kept under a name: each is opened, or forgotten by the cross beside it.
import { Menu, MenuButton, MenuItem, MenuItems, MenuSeparator } from "@headlessui/react";
import { ChevronDown } from "lucide-react";

type Named = {
  id: string;
  name: string;
  note?: string;
  forgetLabel: string;
  onOpen: () => void;
  onForget: () => void;
};
type Props = {
  label: string;
  isStrong?: boolean;
  deed: { label: string; isOff?: boolean; onDo: () => void };
  items: readonly Named[];
};

export function NamedMenu({ label, isStrong, deed, items }: Props) {
  return (
    <Menu>
      <MenuButton className={`flex items-center gap-1 whitespace-nowrap ${isStrong ? "font-semibold" : "text-basalt"}`}>
        {label} <ChevronDown size={12} aria-hidden />
      </MenuButton>
      <MenuItems
        anchor="bottom start"
        modal={false}
        className="z-40 mt-1 max-h-96 w-96 overflow-y-auto rounded-sm border border-rule bg-chalk py-1 shadow-lg focus:outline-none"
      >
        <MenuItem disabled={deed.isOff}>
          <button
            type="button"
            onClick={deed.onDo}
            className="block w-full px-3 py-1 text-left font-semibold text-tide data-disabled:opacity-50 data-focus:bg-limestone"
          >
            {deed.label}
          </button>
        </MenuItem>
        {items.length > 0 && <MenuSeparator className="my-1 h-px bg-rule" />}
        {items.map((i) => (
          <div key={i.id} className="flex items-center">
            <MenuItem>
              <button
                type="button"
                onClick={i.onOpen}
                className="flex min-w-0 flex-1 justify-between gap-3 px-3 py-1 text-left data-focus:bg-limestone"
              >
                <span className="truncate">{i.name}</span>
                {i.note && <span className="num shrink-0">{i.note}</span>}
              </button>
            </MenuItem>
            <MenuItem>
              <button
                type="button"
                aria-label={i.forgetLabel}
                onClick={i.onForget}
                className="btn-quiet mr-2 data-focus:bg-limestone"
              >
                ×
              </button>
            </MenuItem>
          </div>
        ))}
      </MenuItems>
    </Menu>
  );
}
