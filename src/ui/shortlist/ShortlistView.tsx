"use client";
// The shortlist: kept faces in order, each with role, note and what the brief says of it. Order by drag, by keys or by menu.
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { GripVertical, Star } from "lucide-react";
import Link from "next/link";
import { Fragment, useEffect, useId, useRef, useState } from "react";
import type { Kept } from "@/contracts/brief";
import type { ShareAnswer } from "@/contracts/share";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { useBench } from "../bench/BenchContext";
import { useKept } from "../bench/Tray";
import { useActiveLine } from "../bench/BriefStrip";
import { CoreSample, type Ranges } from "../parts/CoreSample";
import { Sample } from "../parts/Sample";
import { addressOfKept, sampleAt, writeSetting } from "../parts/sampleOf";
import { CareMark } from "../parts/CareMark";
import { VerdictMark } from "../parts/VerdictMark";
import { addressOf } from "../parts/client";
import { Pairs } from "./Pairs";
import { ClientAnswers, ClientLinks, useShares } from "./ClientLinks";
import { Decisions } from "./Decisions";
import { SheetMaker } from "./SheetMaker";

export function ShortlistView() {
  const { brief, changeKept, dispatch } = useBench();
  const kept = useKept();
  const items = new Map(kept.data?.items.map((i) => [i.styleId, i]));
  const answers = useShares().data?.shares.flatMap((s) => s.answers) ?? [];
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  useEffect(
    () =>
      dispatch({
        type: "facts",
        facts: [`${brief.kept.length} kept for ${brief.name}`],
      }),
    [dispatch, brief.kept.length, brief.name],
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const entry = brief.kept.find((k) => k.keptId === active.id)!;
    const item = items.get(entry.styleId);
    changeKept(entry.keptId, item ? `${item.family} ${item.style}` : "Face", {
      place: brief.kept.findIndex((k) => k.keptId === over.id),
    });
  };
  if (!brief.kept.length)
    return (
      <div className="p-8">
        <h1 className="text-[16px] font-semibold">Nothing is kept for this brief yet.</h1>
        <p className="mt-1 text-basalt">Go through the wall: Space keeps the face in focus, X sets it aside.</p>
        <Link className="btn btn-act mt-4 inline-block" href={`/b/${brief.briefId}/find`}>
          Go to the wall
        </Link>
      </div>
    );
  return (
    <div className="h-full overflow-y-auto px-6 py-4">
      <div className="flex items-baseline gap-4 border-b-2 border-slate pb-2">
        <h1 className="text-[18px] font-bold">Shortlist</h1>
        <span className="text-basalt">Drag by the handle, or focus it and use Space and the arrows.</span>
        <a className="btn ml-auto" href={addressOf("writeShortlist", { params: { id: brief.briefId } })}>
          Download CSV
        </a>
        <SheetMaker />
      </div>
      <DndContext id="shortlist" sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={brief.kept.map((k) => k.keptId)} strategy={verticalListSortingStrategy}>
          <ol aria-label="Kept faces">
            {brief.kept.map((entry, i) => (
              <Fragment key={entry.keptId}>
                {entry.group !== (brief.kept[i - 1]?.group ?? "") && <GroupHead name={entry.group} />}
                <Row
                  entry={entry}
                  place={i}
                  item={items.get(entry.styleId)}
                  ranges={kept.data?.ranges ?? {}}
                  answers={answers.filter((a) => a.styleId === entry.styleId)}
                />
              </Fragment>
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <Pairs />
      <ClientLinks />
      <Decisions />
    </div>
  );
}

const GroupHead = ({ name }: { name: string }) => (
  <li data-group={name} className="border-b border-rule pt-5 pb-1">
    <h2 className="font-semibold">{name || "In no group"}</h2>
  </li>
);

const ROLES = ["title", "second", "heading", "text", "caption", "figures"];

const NOTE_AFTER_MS = 400;
/** A note as it is typed: saved a moment after, and when the field goes away. What comes from elsewhere replaces what is not being typed. */
function useNote(saved: string, save: (words: string) => void): [string, (words: string) => void] {
  const [typed, setTyped] = useState<string | null>(null);
  const latest = useRef({ typed, saved, save });
  useEffect(() => {
    latest.current = { typed, saved, save };
  });
  useEffect(() => {
    if (typed === null) return;
    const timer = setTimeout(() => {
      if (typed !== latest.current.saved) latest.current.save(typed);
      setTyped(null);
    }, NOTE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  useEffect(() => {
    const flush = () => {
      const { typed: words, saved: before, save: put } = latest.current;
      if (words !== null && words !== before) put(words);
    };
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      flush();
    };
  }, []);
  return [typed ?? saved, setTyped];
}

type RowProps = { entry: Kept; place: number; item: ShownItem | undefined; ranges: Ranges; answers: ShareAnswer[] };

function Row({ entry, place, item, ranges, answers }: RowProps) {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({ id: entry.keptId });
  const name = item ? `${item.family} ${item.style}` : "…";
  const style = { transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined, transition };
  return (
    <li
      ref={setNodeRef}
      style={style}
      data-kept={entry.styleId}
      className={`grid grid-cols-[22px_26px_minmax(0,1fr)_290px] items-center gap-4 border-b border-rule bg-limestone py-3 max-lg:grid-cols-[22px_26px_minmax(0,1fr)] ${isDragging ? "relative z-10 shadow-lg" : ""}`}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
        className="min-h-6 min-w-6 cursor-grab touch-none text-basalt"
      >
        <GripVertical size={16} aria-hidden />
      </button>
      {item ? <CoreSample traits={item.traits} ranges={ranges} width={22} band={11} /> : <span />}
      <div className="min-w-0">
        {item && (
          <Sample
            {...sampleAt(item, entry)}
            text={brief.lines[active]?.text || item.family}
            sizePx={38 * levelFactor(item.traits, brief.levelBy)}
          />
        )}
        <p className="mt-0.5 flex flex-wrap items-center gap-x-4 text-[12px]">
          <Link href={addressOfKept(brief.briefId, entry)} className="font-semibold hover:underline">
            {place + 1}. {name}
          </Link>
          {writeSetting(entry) && <span className="num text-basalt">{writeSetting(entry)}</span>}
          {item && <Facts item={item} />}
        </p>
        <ClientAnswers answers={answers} />
      </div>
      <div className="grid gap-1.5 max-lg:col-start-3">
        <Actions entry={entry} place={place} name={name} />
        <Note entry={entry} name={name} />
      </div>
    </li>
  );
}

function Facts({ item }: { item: ShownItem }) {
  return (
    <>
      <VerdictMark verdict={item.verdict} price={item.price} />
      <CareMark health={item.health} />
      {item.missing.length ? (
        <span className="font-semibold text-madder">no {item.missing.join(" ")}</span>
      ) : (
        <span className="text-basalt">all characters</span>
      )}
    </>
  );
}

type EntryProps = { entry: Kept; name: string };

/** Its role, and buttons for what else can be done with a kept face. */
function Actions({ entry, place, name }: EntryProps & { place: number }) {
  const { brief, changeKept, letGo } = useBench();
  // A group stands together: what joins it goes behind its last face.
  const setGroup = (group: string) => {
    const others = brief.kept.filter((k) => k.keptId !== entry.keptId);
    const last = group ? others.findLastIndex((k) => k.group === group) : -1;
    changeKept(entry.keptId, name, { group, ...(last >= 0 && { place: last + 1 }) });
  };
  const groups = [...new Set(brief.kept.map((k) => k.group).filter(Boolean))];
  const colour = entry.favourite ? "var(--oxide)" : "currentColor";
  const move = (to: number, way: string, mark: string, isOff: boolean) => (
    <button
      type="button"
      aria-label={`Move ${name} ${way}`}
      className="btn-quiet"
      disabled={isOff}
      onClick={() => changeKept(entry.keptId, name, { place: to })}
    >
      {mark}
    </button>
  );
  return (
    <div className="flex items-center gap-2">
      <NameField
        label="role"
        of={name}
        value={entry.role}
        known={ROLES}
        onName={(role) => changeKept(entry.keptId, name, { role })}
      />
      <NameField
        label="group"
        of={name}
        value={entry.group}
        known={groups}
        onName={(group) => setGroup(group.trim())}
      />
      <button
        type="button"
        aria-pressed={entry.favourite}
        aria-label={`Favourite ${name}`}
        className="btn-quiet"
        onClick={() => changeKept(entry.keptId, name, { favourite: !entry.favourite })}
      >
        <Star size={15} aria-hidden fill={entry.favourite ? colour : "none"} stroke={colour} />
      </button>
      {move(place - 1, "up", "↑", !place)}
      {move(place + 1, "down", "↓", place === brief.kept.length - 1)}
      <button
        type="button"
        aria-label={`Remove ${name}`}
        className="btn-quiet"
        onClick={() => letGo(entry.keptId, name)}
      >
        ×
      </button>
    </div>
  );
}

type NameFieldProps = {
  label: "role" | "group";
  of: string;
  value: string;
  known: readonly string[];
  onName: (name: string) => void;
};

/** A name that is written or chosen among those in use; taken when the field is left. */
function NameField({ label, of, value, known, onName }: NameFieldProps) {
  const listId = useId();
  return (
    <>
      <input
        list={listId}
        aria-label={`${label[0]!.toUpperCase()}${label.slice(1)} of ${of}`}
        placeholder={label}
        className="field"
        maxLength={60}
        defaultValue={value}
        key={value}
        onBlur={(e) => e.target.value !== value && onName(e.target.value)}
      />
      <datalist id={listId}>
        {known.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </>
  );
}

function Note({ entry, name }: EntryProps) {
  const { changeKept } = useBench();
  const [note, setNote] = useNote(entry.note, (words) => changeKept(entry.keptId, name, { note: words }));
  return (
    <input
      aria-label={`Note on ${name}`}
      placeholder="note"
      className="field"
      maxLength={2000}
      value={note}
      onChange={(e) => setNote(e.target.value)}
      onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
    />
  );
}
