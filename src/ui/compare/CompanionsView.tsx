"use client";
// Companions: what goes with a face as heading, text or caption; each pair as a set page in the brief's words, with its reasons in figures.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { useEffect } from "react";
import { parseAsString, parseAsStringLiteral, useQueryStates } from "nuqs";
import type { Companion, PairRole } from "@/contracts/compare";
import type { Brief, KeptPair } from "@/contracts/brief";
import type { ShownItem } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { makeId } from "../bench/makeId";
import { useKept } from "../bench/Tray";
import { writeFault } from "../messages";
import { Choice } from "../parts/Choice";
import { faultOf, queryOf } from "../parts/client";
import { CoreSample } from "../parts/CoreSample";
import { FaultNote } from "../parts/FaultNote";
import { PAIR_PAGES, PAIR_PAGE_WORDS, PairPage, type PairPageSort } from "../parts/PairPage";
import { VerdictMark } from "../parts/VerdictMark";
import { useComparing } from "../bench/comparing";
import { FamilySystem } from "./FamilySystem";
import { useFaces } from "./useCompared";

const ROLES = ["heading", "text", "caption"] as const;
const WAYS = ["any", "family", "likeness", "contrast", "period"] as const;
const WAY_NAMES: Record<(typeof WAYS)[number], string> = {
  any: "Any way",
  family: "By family",
  likeness: "By likeness",
  contrast: "By contrast",
  period: "By period",
};
const address = {
  of: parseAsString,
  role: parseAsStringLiteral(ROLES).withDefault("text"),
  by: parseAsStringLiteral(WAYS).withDefault("any"),
  page: parseAsStringLiteral(PAIR_PAGES).withDefault("leaf"),
};

export function CompanionsView() {
  const { brief } = useBench();
  const { ids } = useComparing();
  const [at, setAt] = useQueryStates(address, { history: "replace" });
  const of = at.of ?? brief.kept[0]?.styleId ?? ids[0];
  if (!of)
    return (
      <div className="p-8">
        <h1 className="text-[16px] font-semibold">Choose a face first.</h1>
        <p className="mt-1 text-basalt">Keep one on the wall; its companions are found from there.</p>
        <Link className="btn btn-act mt-4 inline-block" href={`/b/${brief.briefId}/find`}>
          Go to the wall
        </Link>
      </div>
    );
  return <Companions of={of} role={at.role} by={at.by} page={at.page} setAt={(change) => void setAt(change)} />;
}

type Props = {
  of: string;
  role: PairRole;
  by: (typeof WAYS)[number];
  page: PairPageSort;
  setAt: (change: Partial<{ of: string; role: PairRole; by: (typeof WAYS)[number]; page: PairPageSort }>) => void;
};

function Companions({ of, role, by, page, setAt }: Props) {
  const { brief, dispatch } = useBench();
  const kept = useKept();
  const { data, error, isPending } = useQuery({
    ...queryOf("findCompanions", {
      body: { styleId: of, role, briefId: brief.briefId, limit: 12, ...(by !== "any" && { by }) },
    }),
  });
  const faces = useFaces([of, ...(data?.items.map((i) => i.styleId) ?? [])]);
  const own = faces?.find((f) => f.styleId === of);
  const count = data?.items.length;
  useEffect(() => {
    const facts = own && count !== undefined ? [`${own.family} ${own.style}`, `${count} companions as ${role}`] : [];
    dispatch({ type: "facts", facts });
  }, [dispatch, own, count, role]);
  const options = [
    ...new Map([
      // Until it is here.
      [of, "…"] as const,
      ...[...(kept.data?.items ?? []), ...(own ? [own] : [])].map(
        (f) => [f.styleId as string, `${f.family} ${f.style}`] as const,
      ),
    ]),
  ].map(([value, name]) => ({ value, name }));
  return (
    <div className="h-full overflow-y-auto px-4 pt-3 pb-8">
      <div className="flex flex-wrap items-baseline gap-x-5 border-b-2 border-slate pb-2">
        <h1 className="text-[18px] font-bold">Companions</h1>
        <span className="flex flex-wrap items-center gap-x-1.5">
          for
          <Choice label="For" value={of} options={options} onChange={(value) => setAt({ of: value })} />
          as
          <Choice
            label="As"
            value={role}
            options={ROLES.map((value) => ({ value, name: value }))}
            onChange={(value) => setAt({ role: value })}
          />
        </span>
        <Choice
          label="Found"
          value={by}
          options={WAYS.map((value) => ({ value, name: WAY_NAMES[value] }))}
          onChange={(value) => setAt({ by: value })}
          strong={false}
        />
        <Choice
          label="Set as"
          value={page}
          options={PAIR_PAGES.map((value) => ({ value, name: PAIR_PAGE_WORDS[value] }))}
          onChange={(value) => setAt({ page: value })}
          strong={false}
        />
      </div>
      {by === "family" && own && <FamilySystem of={own} />}
      {error && <FaultNote fault={writeFault(faultOf(error))} />}
      {isPending && <p className="py-4 text-basalt">Looking for companions …</p>}
      {data && !data.items.length && (
        <p className="py-4">Nothing in your libraries goes with it {WAY_NAMES[by].toLowerCase()}.</p>
      )}
      <ul aria-label="Pairs" className="grid grid-cols-2 gap-x-6 max-lg:grid-cols-1">
        {own &&
          data?.items.map((companion) => (
            <Pair
              key={companion.styleId}
              brief={brief}
              own={own}
              other={faces?.find((f) => f.styleId === companion.styleId)}
              companion={companion}
              role={role}
              page={page}
              ranges={kept.data?.ranges ?? {}}
            />
          ))}
      </ul>
    </div>
  );
}

/** Units that are written; shares from 0 to 1 need none. */
const UNITS = ["°", "em"];

type PairProps = {
  brief: Brief;
  own: ShownItem;
  other: ShownItem | undefined;
  companion: Companion;
  role: PairRole;
  page: PairPageSort;
  ranges: Record<string, [number, number]>;
};

function Pair({ brief, own, other, companion, role, page, ranges }: PairProps) {
  const name = `${companion.family} ${companion.style}`;
  const { sizeRatio, leadingEm } = companion.proposal;
  // The larger of the two stands as the heading: the other as it was wanted.
  const isHeading = role === "heading";
  const [heading, text] = isHeading ? [other, own] : [own, other];
  // The proposal is the size of the one that was looked for, beside the one that was there.
  const ratio = isHeading ? sizeRatio : 1 / sizeRatio;
  const faces: KeptPair["faces"] = isHeading
    ? [
        { styleId: companion.styleId, role },
        { styleId: own.styleId, role: "text" },
      ]
    : [
        { styleId: own.styleId, role: "heading" },
        { styleId: companion.styleId, role },
      ];
  return (
    <li className="border-b border-rule py-4" data-pair={companion.styleId}>
      <div className="flex gap-3">
        <div className="flex gap-1">
          <CoreSample traits={own.traits} ranges={ranges} width={14} band={8} />
          {other && <CoreSample traits={other.traits} ranges={ranges} width={14} band={8} />}
        </div>
        <PairPage
          sort={page}
          brief={brief}
          heading={heading}
          text={text}
          sizeRatio={ratio}
          leadingEm={leadingEm ?? 1.4}
        />
      </div>
      <div className="mt-2 flex flex-wrap items-baseline gap-x-4 text-[12px]">
        <Link
          className="font-semibold hover:underline"
          href={`/b/${brief.briefId}/style/${companion.styleId}`}
          prefetch={false}
        >
          {name}
        </Link>
        <span className="num">{Math.round(100 * companion.score)} of 100</span>
        <span className="text-basalt">by {companion.by}</span>
        <VerdictMark verdict={companion.verdict} />
        {companion.missing.length > 0 && (
          <span className="font-semibold text-madder">no {companion.missing.join(" ")}</span>
        )}
        <KeepButtons {...{ brief, own, companion, role, faces }} sizeRatio={ratio} />
      </div>
      <ul className="mt-1 text-[12px]" aria-label={`Why ${name}`}>
        {companion.reasons.slice(0, 4).map((r) => (
          <li key={r.aspect} className="flex gap-2">
            <span aria-hidden className={r.good >= 0.5 ? "text-lichen" : "text-ochre"}>
              {r.good >= 0.5 ? "+" : "−"}
            </span>
            <span>
              <span className="sr-only">{r.good >= 0.5 ? "for it: " : "against it: "}</span>
              {r.says}
            </span>
            {r.aspect !== "distance" && (
              <span className="num text-basalt" title={`${own.family} ${r.a}, ${companion.family} ${r.b}`}>
                {r.a} beside {r.b}
                {r.unit && UNITS.includes(r.unit) ? ` ${r.unit}` : ""}
              </span>
            )}
          </li>
        ))}
      </ul>
    </li>
  );
}

type KeepProps = Pick<PairProps, "brief" | "own" | "companion" | "role"> & Pick<KeptPair, "faces" | "sizeRatio">;

/** Keeps the companion alone, or both as a pair. */
function KeepButtons({ brief, own, companion, role, faces, sizeRatio }: KeepProps) {
  const { keep, changeInStep } = useBench();
  const name = `${companion.family} ${companion.style}`;
  const isKept = brief.kept.some((k) => k.styleId === companion.styleId);
  const isPair = brief.pairs.some((p) => p.faces.every((f, i) => f.styleId === faces[i]!.styleId));
  const keepPair = () => {
    for (const face of faces)
      if (!brief.kept.some((k) => k.styleId === face.styleId))
        keep(face.styleId, face.styleId === own.styleId ? `${own.family} ${own.style}` : name, { role: face.role });
    const pair = { id: `p_${makeId(2)}`, faces, sizeRatio, note: "" };
    changeInStep({ pairs: [...brief.pairs, pair] }, `Pair kept: ${own.family} ${own.style} with ${name}`);
  };
  return (
    <span className="ml-auto flex gap-2">
      <button
        type="button"
        className="btn"
        aria-pressed={isKept}
        disabled={isKept}
        onClick={() => keep(companion.styleId, name, { role })}
      >
        {isKept ? "Kept" : "Keep"}
      </button>
      <button type="button" className="btn" aria-pressed={isPair} disabled={isPair} onClick={keepPair}>
        {isPair ? "Kept as a pair" : "Keep as a pair"}
      </button>
    </span>
  );
}
