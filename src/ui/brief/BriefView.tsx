"use client";
// The brief itself: words with roles, uses, medium, size, colours, wanted characters. Saved as one types.
import { useRouter } from "next/navigation";
import type { ReactNode } from "react";
import { LINE_ROLES, type Brief, type BriefLine } from "@/contracts/brief";
import { USES, type Use } from "@/contracts/traits";
import { convertLength, LengthUnit, writeLength } from "@/contracts/units";
import { USE_WORDS } from "@/contracts/words";
import { charactersOf } from "@/core/brief/characters";
import { useCharacterNames } from "@/ui/parts/characterNames";
import { useBench } from "../bench/BenchContext";
import { noteDeleted } from "../start/deletedBrief";
import { LEVEL_WORDS } from "../bench/BriefStrip";
import { ask } from "../parts/client";
import { Choice } from "../parts/Choice";
import { PictureField } from "./PictureField";

export function BriefView() {
  const { brief, changeBrief } = useBench();
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="grid max-w-[1080px] grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)] gap-x-14 max-lg:grid-cols-1">
        <div>
          <h1 className="sr-only">Brief</h1>
          <label className="block">
            <span className="text-basalt">Project</span>
            <input
              className="field text-[24px] leading-8 font-bold"
              value={brief.name}
              maxLength={120}
              onChange={(e) => changeBrief({ name: e.target.value })}
            />
          </label>
          {!brief.name.trim() && <p className="mt-1 text-madder">Enter a name. The old one stays until you do.</p>}
          <div className="mt-5 grid grid-cols-2 gap-8">
            <Field label="Client" value={brief.client} onChange={(client) => changeBrief({ client })} />
            <Field label="Medium" value={brief.medium} onChange={(medium) => changeBrief({ medium })} />
          </div>
          <Lines />
          <Wanted />
          <Section title="Notes">
            <textarea
              className="field min-h-20 resize-y"
              aria-label="Notes"
              value={brief.note}
              maxLength={4000}
              onChange={(e) => changeBrief({ note: e.target.value })}
            />
          </Section>
        </div>
        <div>
          <Section title="Used for" hint="Every face is checked against each use you tick." first>
            <Uses />
          </Section>
          <Section title="Final size" hint="Height of the type in the finished piece.">
            <Size />
          </Section>
          <Section title="Match size by" hint="How samples are sized, so you compare like with like.">
            <LevelBy />
          </Section>
          <Section title="Ink and paper">
            <div
              className="grid h-24 place-items-center border border-rule text-[22px] font-semibold"
              style={{ background: brief.paper, color: brief.ink }}
            >
              {brief.lines[0]?.text}
            </div>
            <p className="mt-1 text-basalt">Change them with the swatches above; the arrows swap them.</p>
          </Section>
          <Section title="Picture" hint="Your background. Find can show every face on it.">
            <PictureField />
          </Section>
          <Section title="Manage brief">
            <BriefDeeds />
          </Section>
        </div>
      </div>
    </div>
  );
}

function Wanted() {
  const nameCharacter = useCharacterNames();
  const { brief, changeBrief } = useBench();
  const characters = charactersOf(brief);
  return (
    <Section title="Extra characters" hint="Needed in addition to those in your lines.">
      <input
        className="field text-[16px]"
        aria-label="Extra characters"
        value={brief.wanted}
        maxLength={200}
        placeholder="& + é 0123456789"
        onChange={(e) => changeBrief({ wanted: e.target.value })}
      />
      <p className="num mt-2 leading-5">
        {characters.length} different characters:{" "}
        {characters.map((c) => (
          <span key={c} title={nameCharacter(c.codePointAt(0)!)} className="mr-1.5">
            {c}
          </span>
        ))}
      </p>
    </Section>
  );
}

function Uses() {
  const { brief, changeBrief } = useBench();
  const put = (use: Use, isOn: boolean) =>
    changeBrief({ uses: isOn ? [...brief.uses, use] : brief.uses.filter((u) => u !== use) });
  return (
    <ul className="grid grid-cols-2 gap-x-6">
      {USES.map((use) => (
        <li key={use}>
          <label className="flex items-center gap-2 py-1">
            <input
              type="checkbox"
              className="accent-tide"
              checked={brief.uses.includes(use)}
              onChange={(e) => put(use, e.target.checked)}
            />
            {USE_WORDS[use]}
          </label>
        </li>
      ))}
    </ul>
  );
}

function LevelBy() {
  const { brief, changeBrief } = useBench();
  return (
    <div className="flex flex-wrap gap-x-6">
      {(Object.keys(LEVEL_WORDS) as Brief["levelBy"][]).map((by) => (
        <label key={by} className="flex min-h-6 items-center gap-2">
          <input
            type="radio"
            name="level"
            className="accent-tide"
            checked={brief.levelBy === by}
            onChange={() => changeBrief({ levelBy: by })}
          />
          {LEVEL_WORDS[by]}
        </label>
      ))}
    </div>
  );
}

function Section({
  title,
  hint,
  first,
  children,
}: {
  title: string;
  hint?: string;
  first?: boolean;
  children: ReactNode;
}) {
  return (
    <section className={first ? "" : "mt-7"}>
      <h2 className="head">{title}</h2>
      {hint && <p className="text-[12px] text-basalt">{hint}</p>}
      <div className="mt-2">{children}</div>
    </section>
  );
}

function Field({ label, value, onChange }: { label: string; value: string; onChange: (v: string) => void }) {
  return (
    <label className="block">
      <span className="text-basalt">{label}</span>
      <input className="field" value={value} maxLength={120} onChange={(e) => onChange(e.target.value)} />
    </label>
  );
}

function Lines() {
  const { brief, changeBrief, changeInStep } = useBench();
  const put = (i: number, change: Partial<BriefLine>) =>
    changeBrief({ lines: brief.lines.map((l, k) => (k === i ? { ...l, ...change } : l)) });
  const move = (i: number, by: -1 | 1) => {
    const lines = [...brief.lines];
    const [line] = lines.splice(i, 1);
    lines.splice(i + by, 0, line!);
    changeBrief({ lines });
  };
  const remove = (i: number) =>
    changeInStep({ lines: brief.lines.filter((_, k) => k !== i) }, `Line “${brief.lines[i]!.text}” removed`);
  return (
    <Section title="Lines" hint="Your words. Samples show the line selected at the top.">
      <ol>
        {brief.lines.map((line, i) => (
          <li key={i} className="flex items-baseline gap-3 border-b border-rule py-1.5">
            <span className="num w-4">{i + 1}</span>
            <input
              className="min-w-0 flex-1 bg-transparent text-[17px] font-semibold"
              aria-label={`Text of line ${i + 1}`}
              value={line.text}
              maxLength={400}
              onChange={(e) => put(i, { text: e.target.value })}
            />
            <Choice
              label={`Role of line ${i + 1}`}
              value={line.role}
              strong={false}
              options={LINE_ROLES.map((role) => ({ value: role, name: role }))}
              onChange={(role) => put(i, { role })}
            />
            <button
              type="button"
              className="btn-quiet"
              aria-label={`Move line ${i + 1} up`}
              disabled={!i}
              onClick={() => move(i, -1)}
            >
              ↑
            </button>
            <button
              type="button"
              className="btn-quiet"
              aria-label={`Move line ${i + 1} down`}
              disabled={i === brief.lines.length - 1}
              onClick={() => move(i, 1)}
            >
              ↓
            </button>
            <button
              type="button"
              className="btn-quiet"
              aria-label={`Remove line ${i + 1}`}
              disabled={brief.lines.length < 2}
              onClick={() => remove(i)}
            >
              ×
            </button>
          </li>
        ))}
      </ol>
      <button
        type="button"
        className="btn mt-3"
        disabled={brief.lines.length >= 12}
        onClick={() => changeBrief({ lines: [...brief.lines, { text: "New line", role: "text" }] })}
      >
        Add a line
      </button>
    </Section>
  );
}

function Size() {
  const { brief, changeBrief } = useBench();
  const others = LengthUnit.options.filter((u) => u !== brief.unit);
  return (
    <div className="flex items-baseline gap-3">
      <input
        key={brief.unit}
        type="number"
        aria-label="Final size"
        className="field w-28 text-[16px]"
        min={0.1}
        max={20000}
        step="any"
        defaultValue={Number(brief.size.toFixed(3))}
        onChange={(e) => {
          const size = Number(e.target.value);
          if (size > 0 && size <= 20000) changeBrief({ size });
        }}
      />
      <Choice
        label="Unit"
        value={brief.unit}
        options={LengthUnit.options.map((u) => ({ value: u, name: u }))}
        onChange={(unit) => changeBrief({ unit, size: Number(convertLength(brief.size, brief.unit, unit).toFixed(3)) })}
      />
      <span className="num">
        = {others.map((u) => writeLength(convertLength(brief.size, brief.unit, u), u)).join(" = ")}
      </span>
    </div>
  );
}

function BriefDeeds() {
  const { brief, sayFault } = useBench();
  const router = useRouter();
  const duplicate = () =>
    ask("createBrief", { body: { name: `${brief.name} (copy)`, copyOf: brief.briefId } })
      .then((b) => {
        router.push(`/b/${b.briefId}/brief`);
        router.refresh();
      })
      .catch(sayFault);
  const remove = () =>
    ask("deleteBrief", { params: { id: brief.briefId } })
      .then(() => {
        // The page that comes shows the way back.
        noteDeleted(brief);
        router.push("/");
        router.refresh();
      })
      .catch(sayFault);
  return (
    <div className="flex gap-3">
      <button type="button" className="btn" onClick={() => void duplicate()}>
        Duplicate
      </button>
      <button type="button" className="btn border-madder text-madder" onClick={() => void remove()}>
        Delete
      </button>
    </div>
  );
}
