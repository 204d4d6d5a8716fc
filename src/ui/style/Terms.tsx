"use client";
// The rights record: a verdict for each use with its sentences, contradictions, every text it rests on, what the user adds, the log.
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Evidence } from "@/contracts/rights";
import type { StyleDetail } from "@/contracts/styles";
import { USES, type Use } from "@/contracts/traits";
import { USE_WORDS } from "@/contracts/words";
import { useBench } from "../bench/BenchContext";
import { call } from "../bench/commands";
import { ask } from "../parts/client";
import { VerdictMark } from "../parts/VerdictMark";
import { writeWhen } from "../parts/words";

const KIND_OF: Record<Evidence["kind"], string> = {
  receipt: "permission or receipt",
  "licence-file": "licence file",
  readme: "readme",
  "name-table": "name table of the font",
  "fs-type": "embedding bits of the font",
  library: "what the library says",
  user: "added by you",
};

export function Terms({ style }: { style: StyleDetail }) {
  const { brief } = useBench();
  const { rights } = style;
  return (
    <div className="grid max-w-[980px] gap-6">
      <p>
        {rights.spdx ? (
          <>
            Recognised as <b>{rights.spdx}</b>.
          </>
        ) : (
          "No known licence was recognised."
        )}{" "}
        <span className="text-basalt">This is a reading aid, not legal advice: the texts below decide.</span>
      </p>
      {rights.isUnreadable && (
        <p className="border-l-[3px] border-ochre bg-chalk px-4 py-2.5">
          Its texts took too long to read, so nothing is known from them. They are kept below: read them yourself, and
          add what they say.
        </p>
      )}
      {rights.sameLetters?.map((other) => (
        <p
          key={other.styleId}
          className="border-l-[3px] border-ochre bg-chalk px-4 py-2.5"
          data-same-letters={other.styleId}
        >
          {other.says}{" "}
          <Link href={`/b/${brief.briefId}/style/${other.styleId}?part=terms`} className="font-semibold underline">
            Its terms
          </Link>
        </p>
      ))}
      {rights.contradictions && <Contradictions rights={rights} />}
      {rights.notes?.map((note) => (
        <div key={note.says} className="border-l-[3px] border-rule bg-chalk px-4 py-2.5" data-terms-note>
          <p>{note.says}</p>
          {note.quotes.map((q) => (
            <p key={q.text} className="text-basalt">
              “{q.text}” ({q.source}, {q.place})
            </p>
          ))}
        </div>
      ))}
      <Verdicts rights={rights} />
      <section aria-label="Evidence">
        <h2 className="head mb-1">Evidence, the most trusted first</h2>
        {rights.evidence.map((e, i) => (
          <Text
            key={i}
            evidence={e}
            styleId={style.styleId}
            isOpen={e.kind === "licence-file" || e.kind === "readme"}
          />
        ))}
        {!rights.evidence.length && <p className="text-basalt">No text on its terms came with this font.</p>}
      </section>
      <AddEvidence styleId={style.styleId} />
      <Changes changes={style.changes} />
    </div>
  );
}

/** A verdict for each use, with the sentences it rests on. */
function Verdicts({ rights }: { rights: StyleDetail["rights"] }) {
  const { brief } = useBench();
  return (
    <table className="w-full text-left">
      <thead className="text-basalt">
        <tr>
          <th className="w-32 py-1 font-normal">Use</th>
          <th className="w-44 font-normal">Verdict</th>
          <th className="font-normal">Based on</th>
        </tr>
      </thead>
      <tbody>
        {groupUses(rights).map(({ uses, verdict, quotes }) => (
          <tr key={uses[0]} className="border-t border-rule align-top">
            <td className="py-1.5">
              {uses.map((use) => (
                <span key={use} data-use={use} className={`block ${brief.uses.includes(use) ? "font-semibold" : ""}`}>
                  {USE_WORDS[use]}
                </span>
              ))}
            </td>
            <td className="py-1.5">
              <VerdictMark verdict={verdict} />
            </td>
            <td className="py-1.5">
              {quotes.map((q, i) => (
                <p key={i}>
                  “{q.text}”{" "}
                  <span className="text-basalt">
                    ({q.source}, {q.place})
                  </span>
                </p>
              ))}
              {!quotes.length && <span className="text-basalt">nothing was found to quote</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Changes({ changes }: Pick<StyleDetail, "changes">) {
  if (!changes.length) return null;
  return (
    <section aria-label="Log of changes">
      <h2 className="head mb-1">Log of changes</h2>
      <ul>
        {changes.map((c, i) => (
          <li key={i} className="grid grid-cols-[130px_minmax(0,1fr)] gap-4 border-t border-rule py-1">
            <span className="num">{writeWhen(c.at)}</span>
            <span>{c.says}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

type Group = { uses: Use[] } & NonNullable<StyleDetail["rights"]["verdicts"]["web"]>;
/** Uses with the same verdict for the same reason stand together. */
function groupUses(rights: StyleDetail["rights"]): Group[] {
  const groups: Group[] = [];
  for (const use of USES) {
    const own = rights.verdicts[use];
    const same = groups.find(
      (g) => g.verdict === own.verdict && g.quotes.map((q) => q.text).join() === own.quotes.map((q) => q.text).join(),
    );
    if (same) same.uses.push(use);
    else groups.push({ uses: [use], ...own });
  }
  return groups;
}

/** Uses about which the same texts disagree are told of together. */
function Contradictions({ rights }: { rights: StyleDetail["rights"] }) {
  const groups = new Map<string, { uses: string[]; at: NonNullable<typeof rights.contradictions>[number] }>();
  for (const c of rights.contradictions!) {
    const held = rights.verdicts[c.use].quotes.map((q) => q.text).join();
    const key = `${held}|${c.others.map((o) => o.quotes[0]?.text).join()}`;
    const group = groups.get(key) ?? { uses: [], at: c };
    group.uses.push(USE_WORDS[c.use]);
    groups.set(key, group);
  }
  return (
    <section aria-label="Contradictions" className="border-l-[3px] border-ochre bg-chalk px-4 py-2.5">
      <h2 className="font-semibold">The texts contradict one another. The stricter one holds.</h2>
      {[...groups.values()].map(({ uses, at }, i) => (
        <div key={i} className="mt-2 grid grid-cols-2 gap-6">
          <div>
            <Side title={`Holds, for ${uses.join(", ")}`} verdict={at.held} quotes={rights.verdicts[at.use].quotes} />
            {at.why && (
              <p className="text-basalt">
                {at.decidedBy}: {at.why}
              </p>
            )}
          </div>
          <div>
            {at.others.map((o, k) => (
              <Side key={k} title="Against it" verdict={o.verdict} quotes={o.quotes} />
            ))}
          </div>
        </div>
      ))}
    </section>
  );
}

type SideProps = { title: string } & Pick<StyleDetail["rights"]["verdicts"]["web"] & object, "verdict" | "quotes">;
function Side({ title, verdict, quotes }: SideProps) {
  return (
    <div>
      <p className="flex gap-3 text-basalt">
        {title} <VerdictMark verdict={verdict} />
      </p>
      {quotes.slice(0, 2).map((q, i) => (
        <p key={i}>
          “{q.text}” <span className="text-basalt">({q.source})</span>
        </p>
      ))}
    </div>
  );
}

function Text({ evidence: e, styleId, isOpen }: { evidence: Evidence; styleId: string; isOpen: boolean }) {
  const { perform } = useBench();
  const set = (removed: boolean) =>
    call("changeEvidence", { params: { id: styleId, evidenceId: e.evidenceId! }, body: { removed } });
  return (
    <details open={isOpen} className="border-t border-rule py-1.5" data-evidence={e.kind}>
      <summary className="font-semibold">
        {e.source}{" "}
        <span className="font-normal text-basalt">
          · {KIND_OF[e.kind]} · {e.date.slice(0, 10)}
          {e.note && ` · ${e.note}`}
        </span>
      </summary>
      <pre
        tabIndex={0}
        className="mt-2 max-h-72 overflow-auto border-l-2 border-rule pl-4 font-mono text-[11.5px] leading-[17px] whitespace-pre-wrap"
      >
        {e.text}
      </pre>
      {e.evidenceId && (
        <button
          type="button"
          className="btn-quiet mt-1 underline"
          onClick={() => perform(`${e.source} removed`, set(true), set(false))}
        >
          Remove
        </button>
      )}
    </details>
  );
}

function AddEvidence({ styleId }: { styleId: string }) {
  const { say, sayFault } = useBench();
  const router = useRouter();
  const [text, setText] = useState("");
  const [note, setNote] = useState("");
  const [isWritten, setIsWritten] = useState(false);
  const add = () => {
    ask("addEvidence", { params: { id: styleId }, body: { kind: isWritten ? "receipt" : "user", text, note } })
      .then(() => {
        setText("");
        setNote("");
        setIsWritten(false);
        say("Added. Verdicts updated.");
        router.refresh();
      })
      .catch(sayFault);
  };
  return (
    <form
      className="grid gap-2 border-t border-rule pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <h2 className="head">Add what you know of its terms</h2>
      <textarea
        aria-label="Wording"
        className="field min-h-16"
        maxLength={20000}
        placeholder="Paste the maker’s wording, for example “You may use it on goods for sale.”"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="flex flex-wrap items-center gap-4">
        <input
          aria-label="Where it is from"
          className="field max-w-[340px]"
          maxLength={2000}
          placeholder="where it is from: mail of 3 November"
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        <label className="inline-flex items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-tide"
            checked={isWritten}
            onChange={() => setIsWritten(!isWritten)}
          />
          a permission in writing, or a receipt
        </label>
        <button type="submit" className="btn ml-auto" disabled={text.trim().length < 3}>
          Add
        </button>
      </div>
    </form>
  );
}
