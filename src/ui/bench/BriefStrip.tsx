"use client";
// The brief pinned above the work: its name, its lines (edited in place; each change re-sets every sample), uses, size, level, colours.
import {
  Menu,
  MenuButton,
  MenuItem,
  MenuItems,
  MenuSeparator,
  Popover,
  PopoverButton,
  PopoverPanel,
} from "@headlessui/react";
import Link from "next/link";
import { useRouter, useSearchParams, usePathname } from "next/navigation";
import { useLayoutEffect, useRef } from "react";
import { HexColorInput, HexColorPicker } from "react-colorful";
import { ArrowLeftRight, ChevronDown } from "lucide-react";
import type { Brief } from "@/contracts/brief";
import { USES } from "@/contracts/traits";
import { writeLength } from "@/contracts/units";
import { USE_WORDS } from "@/contracts/words";
import { ask } from "../parts/client";
import { Choice } from "../parts/Choice";
import { useIsReady } from "../parts/useIsReady";
import { useBench } from "./BenchContext";
import { useGo } from "./useGo";

export const LEVEL_WORDS = {
  "point-size": "point size",
  "x-height": "x-height",
  capitals: "capitals",
  "line-width": "line width",
} as const;

export function BriefStrip({ briefs }: { briefs: { briefId: string; name: string }[] }) {
  const { brief, changeBrief } = useBench();
  return (
    <header
      className="flex min-h-[76px] items-start gap-x-6 gap-y-1 border-b border-rule bg-chalk px-4 pt-2.5 pb-2 max-md:flex-wrap"
      aria-label="Brief"
    >
      <div className="min-w-0 flex-1 max-md:basis-full">
        <div className="flex items-center gap-2">
          <BriefMenu briefs={briefs} />
          <span className="min-w-0 truncate text-[12px] text-basalt">
            {[brief.client, brief.uses.map((u) => USE_WORDS[u]).join(" and ")].filter(Boolean).join(", ")}
          </span>
          <UsesChips />
        </div>
        <Lines />
      </div>
      <dl className="flex shrink-0 flex-wrap items-start gap-x-5 text-[12px]">
        <div>
          <dt className="text-basalt">Final size</dt>
          <dd className="mt-1 font-semibold">{writeLength(brief.size, brief.unit)}</dd>
        </div>
        <div>
          <dt className="text-basalt" id="level-by">
            Match size by
          </dt>
          <dd className="mt-0.5">
            <Choice
              label="Match size by"
              value={brief.levelBy}
              options={Object.entries(LEVEL_WORDS).map(([value, name]) => ({ value: value as Brief["levelBy"], name }))}
              onChange={(levelBy) => changeBrief({ levelBy })}
            />
          </dd>
        </div>
        <div>
          <dt className="text-basalt">Ink, paper</dt>
          <dd className="mt-1 flex items-center gap-1">
            <Well label="Ink" value={brief.ink} onChange={(ink) => changeBrief({ ink })} />
            <Well label="Paper" value={brief.paper} onChange={(paper) => changeBrief({ paper })} />
            <button
              type="button"
              className="btn-quiet"
              aria-label="Swap ink and paper"
              title="Swap ink and paper"
              onClick={() => changeBrief({ ink: brief.paper, paper: brief.ink })}
            >
              <ArrowLeftRight size={14} aria-hidden />
            </button>
          </dd>
        </div>
      </dl>
    </header>
  );
}

function BriefMenu({ briefs }: { briefs: { briefId: string; name: string }[] }) {
  const { brief, sayFault } = useBench();
  const router = useRouter();
  const go = useGo();
  const view = usePathname().split("/")[3] ?? "brief";
  const open = (id: string, to = view) => go(`/b/${id}/${to === "style" ? "find" : to}`);
  const create = () =>
    ask("createBrief", { body: { name: "New brief" } })
      .then((b) => {
        open(b.briefId, "brief");
        router.refresh();
      })
      .catch(sayFault);
  return (
    <Menu>
      <MenuButton className="flex items-center gap-1 font-semibold whitespace-nowrap">
        {brief.name || "Unnamed brief"} <ChevronDown size={13} aria-hidden />
      </MenuButton>
      <MenuItems
        anchor="bottom start"
        modal={false}
        className="z-40 mt-1 min-w-56 rounded-sm border border-rule bg-chalk py-1 shadow-lg focus:outline-none"
      >
        {briefs.map((b) => (
          <MenuItem key={b.briefId}>
            <button
              type="button"
              onClick={() => open(b.briefId)}
              className="block w-full px-3 py-1 text-left data-focus:bg-limestone"
              aria-current={b.briefId === brief.briefId}
            >
              {b.briefId === brief.briefId ? <b>{brief.name}</b> : b.name}
            </button>
          </MenuItem>
        ))}
        <MenuSeparator className="my-1 h-px bg-rule" />
        <MenuItem>
          <Link href="/" prefetch={false} className="block px-3 py-1 data-focus:bg-limestone">
            All briefs
          </Link>
        </MenuItem>
        <MenuItem>
          <button
            type="button"
            onClick={() => void create()}
            className="block w-full px-3 py-1 text-left font-semibold text-tide data-focus:bg-limestone"
          >
            New brief
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  );
}

function UsesChips() {
  const { brief, changeBrief } = useBench();
  const toggle = (use: (typeof USES)[number]) =>
    changeBrief({ uses: brief.uses.includes(use) ? brief.uses.filter((u) => u !== use) : [...brief.uses, use] });
  return (
    <Popover className="shrink-0">
      <PopoverButton className="btn-quiet text-[12px] underline decoration-dotted underline-offset-2">
        uses
      </PopoverButton>
      <PopoverPanel
        anchor="bottom start"
        modal={false}
        className="z-40 mt-1 flex w-64 flex-wrap gap-1.5 rounded-sm border border-rule bg-chalk p-3 shadow-lg"
      >
        {USES.map((use) => (
          <button
            key={use}
            type="button"
            aria-pressed={brief.uses.includes(use)}
            onClick={() => toggle(use)}
            className={`rounded-sm border px-2 py-0.5 ${brief.uses.includes(use) ? "border-tide font-semibold text-tide" : "border-rule text-basalt"}`}
          >
            {brief.uses.includes(use) ? "✓ " : ""}
            {USE_WORDS[use]}
          </button>
        ))}
      </PopoverPanel>
    </Popover>
  );
}

/** The active line is the one samples are set in; typing in any line makes it active. */
function Lines() {
  const { brief, changeBrief } = useBench();
  const [active, setActive] = useActiveLine();
  return (
    <div
      className="mt-1.5 flex min-w-0 flex-wrap items-baseline gap-x-5 gap-y-0.5"
      role="group"
      aria-label="Lines of the brief"
    >
      {brief.lines.map((line, i) => (
        <LineField
          key={i}
          label={`Line ${i + 1} of the brief`}
          text={line.text}
          onFocus={() => setActive(i)}
          onChange={(text) => changeBrief({ lines: brief.lines.map((l, k) => (k === i ? { ...l, text } : l)) })}
          className={`[field-sizing:content] max-w-full min-w-8 border-b-2 bg-transparent pb-0.5 text-[18px] leading-6 font-semibold ${i === active ? "border-oxide text-slate" : "border-transparent text-basalt hover:border-rule"}`}
        />
      ))}
      <button
        type="button"
        className="btn-quiet text-[12px]"
        disabled={brief.lines.length >= 12}
        onClick={() => {
          changeBrief({ lines: [...brief.lines, { text: "New line", role: "text" }] });
          setActive(brief.lines.length);
        }}
      >
        Add line
      </button>
    </div>
  );
}

/** A line's field. What others put into the line meanwhile moves the caret with its words. */
function LineField({
  label,
  text,
  className,
  onFocus,
  onChange,
}: {
  label: string;
  text: string;
  className: string;
  onFocus: () => void;
  onChange: (text: string) => void;
}) {
  const isReady = useIsReady();
  const field = useRef<HTMLInputElement>(null);
  const last = useRef({ text, caret: text.length });
  useLayoutEffect(() => {
    const { text: before, caret } = last.current;
    last.current = { text, caret };
    const input = field.current;
    if (!input || before === text || document.activeElement !== input) return;
    const to = caretAfter(before, text, caret);
    input.setSelectionRange(to, to);
    last.current.caret = to;
  }, [text]);
  return (
    <input
      ref={field}
      aria-label={label}
      value={text}
      readOnly={!isReady}
      maxLength={400}
      className={className}
      onFocus={onFocus}
      onSelect={(e) => (last.current.caret = e.currentTarget.selectionStart ?? text.length)}
      onChange={(e) => {
        last.current = { text: e.target.value, caret: e.target.selectionStart ?? e.target.value.length };
        onChange(e.target.value);
      }}
      onKeyDown={(e) => (e.key === "Escape" || e.key === "Enter") && e.currentTarget.blur()}
    />
  );
}

/** Where the caret stands when a text was changed from elsewhere: before what is new behind it, behind what is new before it. */
function caretAfter(before: string, after: string, caret: number): number {
  let same = 0;
  while (same < caret && before[same] === after[same]) same++;
  return same === caret ? caret : Math.max(same, caret + after.length - before.length);
}

/** Which line of the brief is set: kept in the address, so that a link shows the same. */
export function useActiveLine(): [number, (i: number) => void] {
  const { brief } = useBench();
  const params = useSearchParams();
  const path = usePathname();
  const asked = Number(params.get("line") ?? 0);
  const active = Math.min(Math.max(0, Number.isInteger(asked) ? asked : 0), brief.lines.length - 1);
  const set = (i: number) => {
    const next = new URLSearchParams(window.location.search);
    if (i) next.set("line", String(i));
    else next.delete("line");
    window.history.replaceState(null, "", `${path}${next.size ? `?${next}` : ""}`);
  };
  return [active, set];
}

function Well({ label, value, onChange }: { label: string; value: string; onChange: (hex: string) => void }) {
  return (
    <Popover className="flex">
      <PopoverButton
        aria-label={`${label}: ${value}`}
        title={label}
        className="size-6 border border-basalt"
        style={{ background: value }}
      />
      <PopoverPanel anchor="bottom end" className="z-40 mt-1 rounded-sm border border-rule bg-chalk p-3 shadow-lg">
        <HexColorPicker color={value} onChange={(hex) => onChange(hex.toUpperCase())} />
        <label className="mt-2 flex items-center gap-2">
          {label}
          <HexColorInput
            prefixed
            color={value}
            onChange={(hex) => /^#[0-9a-f]{6}$/i.test(hex) && onChange(hex.toUpperCase())}
            className="field num w-24"
          />
        </label>
      </PopoverPanel>
    </Popover>
  );
}
