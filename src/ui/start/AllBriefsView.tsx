"use client";
// Every brief as a sheet: its first line in its first face, how far it has come, when it was changed. And what was marked in any of them.
import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Ellipsis } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { parseAsString, useQueryState } from "nuqs";
import { useState } from "react";
import { BRIEF_STATES, type Brief, type BriefCreate, type BriefState } from "@/contracts/brief";
import { BriefFile } from "@/contracts/briefFile";
import type { StyleId } from "@/contracts/ids";
import type { ShownItem } from "@/contracts/styles";
import { writeFault } from "../messages";
import { Choice } from "../parts/Choice";
import { faultOf, queryOf, useChange } from "../parts/client";
import { Sample } from "../parts/Sample";
import { sampleAt, sampleOf } from "../parts/sampleOf";
import { firstWords, setLines } from "@/core/brief/words";
import { DeletedNote } from "./DeletedNote";

const STATE_WORDS: Record<BriefState, string> = {
  open: "Open",
  decided: "Decided",
  "handed-over": "Handed over",
};
const STATES = BRIEF_STATES.map((value) => ({ value, name: STATE_WORDS[value] }));

/** Words that are all somewhere in a brief: its name, client, lines, note. */
function isFound(brief: Brief, question: string): boolean {
  const whole = [brief.name, brief.client, brief.medium, brief.note, ...brief.lines.map((l) => l.text)]
    .join(" ")
    .toLocaleLowerCase();
  return question
    .toLocaleLowerCase()
    .split(/\s+/)
    .every((word) => whole.includes(word));
}

const UNITS: [Intl.RelativeTimeFormatUnit, number][] = [
  ["day", 86_400_000],
  ["hour", 3_600_000],
  ["minute", 60_000],
];
const relative = new Intl.RelativeTimeFormat("en-GB", { numeric: "auto" });
function writeAge(iso: string): string {
  const ms = Date.parse(iso) - Date.now();
  if (ms < -30 * 86_400_000) return `on ${new Date(iso).toLocaleDateString("en-GB", { dateStyle: "medium" })}`;
  for (const [unit, length] of UNITS) if (Math.abs(ms) >= length) return relative.format(Math.round(ms / length), unit);
  return "just now";
}

export function AllBriefsView({ briefs: given }: { briefs: Brief[] }) {
  const { data } = useQuery({ ...queryOf("listBriefs", {}), initialData: { briefs: given } });
  const { briefs } = data;
  const [question, setQuestion] = useQueryState("q", parseAsString.withDefault("").withOptions({ history: "replace" }));
  const [showsArchived, setShowsArchived] = useState(false);
  const { act, note, fault } = useActs();
  const router = useRouter();
  const found = briefs
    .filter((b) => isFound(b, question) && (showsArchived || !b.archived))
    .sort((a, b) => b.changedAt.localeCompare(a.changedAt));
  const archived = briefs.filter((b) => b.archived).length;
  const faces = useFacesOf(briefs);
  return (
    <main className="h-full overflow-y-auto px-8 py-6 max-lg:px-4">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 border-b-2 border-slate pb-3">
        <h1 className="text-[22px] font-bold">All briefs</h1>
        <input
          type="search"
          aria-label="Find a brief"
          placeholder="Find a brief by its name, client or words"
          className="field w-80 max-w-full"
          value={question}
          onChange={(e) => void setQuestion(e.target.value)}
        />
        {archived > 0 && (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-tide"
              checked={showsArchived}
              onChange={(e) => setShowsArchived(e.target.checked)}
            />
            with archived ({archived})
          </label>
        )}
        <label className="btn ml-auto cursor-pointer focus-within:outline-2">
          Open a brief file
          <input
            type="file"
            accept=".json,application/json"
            className="sr-only"
            onChange={(e) => {
              const [file] = e.target.files ?? [];
              e.target.value = "";
              if (file) void act.read(file);
            }}
          />
        </label>
        <button
          type="button"
          className="btn btn-act"
          onClick={() =>
            void act.create({ name: "New brief" }).then((made) => {
              if (made) router.push(`/b/${made}/brief`);
            })
          }
        >
          New brief
        </button>
      </div>
      <p role="status" className="min-h-6 pt-1 text-basalt">
        <DeletedNote />
        {note}
        {fault && <span className="text-madder">{fault}</span>}
      </p>
      {!found.length && <p className="py-6">No brief has these words.</p>}
      <ul aria-label="Briefs" className="grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-x-6 gap-y-8">
        {found.map((brief) => (
          <Sheet key={brief.briefId} brief={brief} faces={faces} act={act} />
        ))}
      </ul>
      <FaceRows title="Favourites from every brief" of="favourites" rows={listFavourites(briefs)} faces={faces} />
      <FaceRows title="Kept last" of="recent" rows={listRecent(briefs)} faces={faces} />
    </main>
  );
}

/** What is done to briefs from here; each says what it did, archiving with its way back. */
function useActs() {
  const change = useChange();
  const [fault, setFault] = useState("");
  const [done, setDone] = useState<{ says: string; back?: () => void } | null>(null);
  const failed = (error: unknown) => {
    setDone(null);
    setFault(writeFault(faultOf(error)).what);
    return null;
  };
  const patch = (brief: Brief, body: { state?: BriefState; archived?: boolean }, says: string, back?: () => void) =>
    change("changeBrief", { params: { id: brief.briefId }, body }).then(() => {
      setFault("");
      setDone({ says, back });
    }, failed);
  const archive = (brief: Brief, archived: boolean): void =>
    void patch(brief, { archived }, archived ? `${brief.name} is archived.` : `${brief.name} is back.`, () =>
      archive(brief, !archived),
    );
  return {
    act: {
      archive,
      setState: (brief: Brief, state: BriefState) =>
        void patch(
          brief,
          { state },
          `${brief.name}: ${STATE_WORDS[state].toLowerCase()}.`,
          () => void patch(brief, { state: brief.state }, `${brief.name}: ${STATE_WORDS[brief.state].toLowerCase()}.`),
        ),
      read: async (file: File) => {
        const body: unknown = await file
          .text()
          .then((text) => JSON.parse(text) as unknown)
          .catch(() => null);
        const known = BriefFile.safeParse(body);
        if (!known.success) {
          setDone(null);
          setFault(`${file.name} is not a brief file: it cannot be read.`);
          return;
        }
        await change("readBriefFile", { body: known.data }).then(({ brief, notHere }) => {
          setFault("");
          const lacks = notHere.length ? ` Not in your libraries: ${notHere.join(", ")}.` : "";
          setDone({ says: `${brief.name} is opened with ${brief.kept.length} kept.${lacks}` });
        }, failed);
      },
      create: (body: BriefCreate) =>
        change("createBrief", { body }).then((made) => {
          setDone({ says: `${made.name} is made.` });
          return made.briefId;
        }, failed),
    },
    fault,
    note: done && (
      <>
        {done.says}{" "}
        {done.back && (
          <button type="button" className="btn-quiet underline" onClick={done.back}>
            Undo
          </button>
        )}
      </>
    ),
  };
}
type Acts = ReturnType<typeof useActs>["act"];

/** The first face of each brief, its favourites, and what was kept last, as samples need them. */
function useFacesOf(briefs: readonly Brief[]): ReadonlyMap<string, ShownItem> {
  const wanted = briefs.flatMap((b) =>
    [b.kept[0], ...b.kept.filter((k) => k.favourite)].flatMap((k) => k?.styleId ?? []),
  );
  const ids = [...new Set<StyleId>([...wanted, ...listRecent(briefs).map(([styleId]) => styleId)])]
    .sort()
    .slice(0, MAX_FACES);
  const { data } = useQuery({
    ...queryOf("listMapFaces", { query: { briefId: briefs[0]!.briefId, ids: ids.join(",") } }),
    enabled: ids.length > 0,
    placeholderData: keepPreviousData,
  });
  return new Map(data?.items.map((item) => [item.styleId, item]));
}
/** More than one question may ask for are seldom shown. */
const MAX_FACES = 120;

type SheetProps = { brief: Brief; faces: ReadonlyMap<string, ShownItem>; act: Acts };

function Sheet({ brief, faces, act }: SheetProps) {
  const [first] = brief.kept;
  const face = first && faces.get(first.styleId);
  const [words = brief.name, ...others] = setLines(brief);
  const rest = others.slice(0, 3);
  const { length } = brief.kept;
  return (
    <li data-brief={brief.briefId} className={brief.archived ? "opacity-70" : ""}>
      <Link
        href={`/b/${brief.briefId}/find`}
        prefetch={false}
        aria-label={`Open ${brief.name}`}
        className="grid h-56 content-center gap-1 overflow-hidden border border-rule px-5 leading-normal hover:border-slate"
        style={{ background: brief.paper, color: brief.ink }}
      >
        {face && first ? (
          <>
            <Sample {...sampleAt(face, first)} text={words} sizePx={44} ink={brief.ink} />
            {rest.map((line, i) => (
              <Sample key={i} {...sampleAt(face, first)} text={line} sizePx={17} ink={brief.ink} />
            ))}
          </>
        ) : (
          <>
            <span className="truncate text-[24px] font-semibold">{words}</span>
            {rest.map((line, i) => (
              <span key={i} className="truncate">
                {line}
              </span>
            ))}
          </>
        )}
      </Link>
      <div className="mt-2 flex items-baseline gap-3">
        <span className="truncate font-semibold">{brief.name}</span>
        <span className="ml-auto flex items-center gap-2">
          <Choice
            label={`State of ${brief.name}`}
            value={brief.state}
            options={STATES}
            onChange={(state) => act.setState(brief, state)}
            strong={false}
          />
          <SheetMenu brief={brief} act={act} />
        </span>
      </div>
      {/* How long ago it was may have grown since the server wrote it. */}
      <p className="truncate text-[12px] text-basalt" suppressHydrationWarning>
        {[brief.client, length ? `${length} kept` : "none kept", `changed ${writeAge(brief.changedAt)}`]
          .filter(Boolean)
          .join(" · ")}
        {brief.archived && " · archived"}
      </p>
    </li>
  );
}

function SheetMenu({ brief, act }: Omit<SheetProps, "faces">) {
  const item = "block w-full px-3 py-1 text-left data-focus:bg-limestone";
  return (
    <Menu>
      <MenuButton aria-label={`More for ${brief.name}`} className="btn-quiet min-h-6 min-w-6">
        <Ellipsis size={16} aria-hidden />
      </MenuButton>
      <MenuItems
        anchor="bottom end"
        modal={false}
        className="z-40 mt-1 min-w-40 rounded-sm border border-rule bg-chalk py-1 shadow-lg focus:outline-none"
      >
        <MenuItem>
          <button
            type="button"
            className={item}
            onClick={() => void act.create({ name: `${brief.name}, copy`.slice(0, 120), copyOf: brief.briefId })}
          >
            Duplicate
          </button>
        </MenuItem>
        <MenuItem>
          <button type="button" className={item} onClick={() => act.archive(brief, !brief.archived)}>
            {brief.archived ? "Bring back from the archive" : "Archive"}
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  );
}

/** A face and the briefs that it is used in, the one that says most of it first. */
type FaceRow = [styleId: StyleId, where: Brief[]];

/** Faces that are marked as favourites in any brief. */
function listFavourites(briefs: readonly Brief[]): FaceRow[] {
  const used = new Map<StyleId, Brief[]>();
  for (const brief of briefs)
    for (const { styleId, favourite } of brief.kept)
      if (favourite) used.set(styleId, [...(used.get(styleId) ?? []), brief]);
  return [...used];
}

const RECENT_SHOWN = 8;
/** Faces that were kept last, over all briefs. */
function listRecent(briefs: readonly Brief[]): FaceRow[] {
  const used = new Map<StyleId, Brief[]>();
  const all = briefs.flatMap((brief) => brief.kept.map((kept) => ({ brief, kept })));
  all.sort((a, b) => (a.kept.keptAt < b.kept.keptAt ? 1 : -1));
  for (const { brief, kept } of all) used.set(kept.styleId, [...(used.get(kept.styleId) ?? []), brief]);
  return [...used].slice(0, RECENT_SHOWN);
}

type FaceRowsProps = { title: string; of: string; rows: readonly FaceRow[]; faces: ReadonlyMap<string, ShownItem> };

function FaceRows({ title, of, rows, faces }: FaceRowsProps) {
  if (!rows.length) return null;
  return (
    <section className="mt-12" data-faces={of}>
      <h2 className="border-b-2 border-slate pb-2 text-[16px] font-bold">{title}</h2>
      <ul>
        {rows.map(([styleId, where]) => {
          const face = faces.get(styleId);
          if (!face) return null;
          const name = `${face.family} ${face.style}`;
          return (
            <li
              key={styleId}
              className="grid grid-cols-[minmax(0,1fr)_280px] items-center gap-6 border-b border-rule py-2"
            >
              <Sample {...sampleOf(face)} text={firstWords(where[0]!)} sizePx={30} />
              <p className="text-[12px]">
                <Link
                  className="font-semibold hover:underline"
                  prefetch={false}
                  href={`/b/${where[0]!.briefId}/style/${styleId}`}
                >
                  {name}
                </Link>
                <span className="block text-basalt">
                  used in{" "}
                  {[...new Set(where)].map((brief, i) => (
                    <span key={brief.briefId}>
                      {i > 0 && ", "}
                      <Link className="underline" prefetch={false} href={`/b/${brief.briefId}/shortlist`}>
                        {brief.name}
                      </Link>
                    </span>
                  ))}
                </span>
              </p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
