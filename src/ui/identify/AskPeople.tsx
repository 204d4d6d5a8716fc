"use client";
// Where the libraries do not know a face, people may: a question sheet to send by hand, a desk of other designers to leave it at, and
// their answers, each to be laid over the picture at once.
import { Disclosure, DisclosureButton, DisclosurePanel } from "@headlessui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { SHEET_KINDS, type PeopleAnswer, type PeopleQuestion } from "@/contracts/people";
import { useBench } from "../bench/BenchContext";
import { writeFault } from "../messages";
import { addressOf, ask, faultOf, queryOf } from "../parts/client";
import { FaultNote } from "../parts/FaultNote";
import { writeWhen } from "../parts/words";
import type { Keeping } from "./kept";

type Props = {
  /** Id under which the identification is kept; null: not yet. */
  savedAs: string | null;
  keeping: Keeping;
  onTry: (styleId: string) => void;
  busy: boolean;
};

const NEWS_EVERY_MS = 2500;

export function AskPeople({ savedAs, keeping, onTry, busy }: Props) {
  return (
    <Disclosure as="section" aria-label="Ask people" className="mt-2">
      <DisclosureButton className="font-semibold text-tide underline">Ask people</DisclosureButton>
      <DisclosurePanel className="mt-1">
        {savedAs ? (
          <Question identificationId={savedAs} onTry={onTry} busy={busy} />
        ) : (
          <p>
            Save this identification with the brief first.{" "}
            <button type="button" className="btn ml-2" disabled={keeping.busy} onClick={() => void keeping.keep()}>
              Save it, then ask
            </button>
          </p>
        )}
      </DisclosurePanel>
    </Disclosure>
  );
}

function Question({ identificationId, onTry, busy }: Pick<Props, "onTry" | "busy"> & { identificationId: string }) {
  const { brief } = useBench();
  const queries = useQueryClient();
  const [fault, setFault] = useState<ReturnType<typeof writeFault> | null>(null);
  const [sending, setSending] = useState(false);
  const params = { id: brief.briefId, identificationId };
  const survey = queryOf("getSurvey", { params });
  const people = useQuery({
    ...survey,
    refetchInterval: ({ state }) => (state.data?.question?.state === "waiting" ? NEWS_EVERY_MS : false),
  });
  const call = async (name: "askPeople" | "withdrawQuestion") => {
    setSending(true);
    setFault(null);
    try {
      queries.setQueryData(survey.queryKey, await ask(name, { params }));
    } catch (error) {
      setFault(writeFault(faultOf(error)));
    } finally {
      setSending(false);
    }
  };
  const { hasDesk, question } = people.data ?? { hasDesk: false, question: null };
  return (
    <div className="space-y-2">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span>Question sheet, to send by hand:</span>
        {SHEET_KINDS.map((kind) => (
          <a
            key={kind}
            className="font-semibold text-tide underline"
            href={addressOf("writeQuestionSheet", { params, query: { as: kind } })}
            download
          >
            {kind.toUpperCase()}
          </a>
        ))}
      </p>
      {people.data && !hasDesk && (
        <p className="text-basalt">No desk of other designers is connected to this server.</p>
      )}
      {hasDesk && (!question || question.state === "not-sent") && (
        <button type="button" className="btn" disabled={sending} onClick={() => void call("askPeople")}>
          {sending ? "Posting …" : question ? "Send it again" : "Post to other designers"}
        </button>
      )}
      {fault && <FaultNote fault={fault} />}
      {question && (
        <>
          <p data-question={question.state}>
            {writeState(question)}{" "}
            {question.state !== "not-sent" && (
              <button
                type="button"
                className="underline"
                disabled={sending}
                onClick={() => void call("withdrawQuestion")}
              >
                {question.state === "waiting" ? "Take it back" : "Ask again"}
              </button>
            )}
          </p>
          {question.fault && (
            <p role="alert" className="border-l-2 border-ochre pl-3">
              {question.fault}{" "}
              {question.state === "waiting" ? "It retries automatically." : "The question is kept here."}
            </p>
          )}
          <ul aria-label="Answers of people">
            {question.answers.map((a) => (
              <Answered key={a.answerId} answer={a} onTry={onTry} busy={busy} />
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

function writeState({ state, askedAt, answers }: PeopleQuestion): string {
  const count = answers.length === 1 ? "One answer" : `${answers.length || "No"} answers`;
  if (state === "not-sent") return "It did not reach the desk.";
  if (state === "closed") return `${count}; the desk takes no more.`;
  return `Left at the desk ${writeWhen(askedAt)}. ${count} so far.`;
}

/** What somebody said, and the face laid over the picture where it is here. */
function Answered({ answer, onTry, busy }: { answer: PeopleAnswer } & Pick<Props, "onTry" | "busy">) {
  const { brief } = useBench();
  const { by, family, style, words } = answer;
  const found = useQuery(queryOf("findStyles", { query: { q: family, limit: 40 } }));
  const here = (found.data?.items ?? []).filter((i) => i.family.toLowerCase() === family.toLowerCase());
  const named = here.find((i) => style && i.style.toLowerCase() === style.toLowerCase()) ?? here[0];
  return (
    <li className="flex items-baseline gap-3 border-b border-rule py-2">
      <span className="min-w-0 flex-1">
        <b>
          {family}
          {style ? ` ${style}` : ""}
        </b>
        <span className="text-basalt">
          {" "}
          says {by}: {words}
        </span>
      </span>
      {named ? (
        <button type="button" className="btn shrink-0" disabled={busy} onClick={() => onTry(named.styleId)}>
          Lay it over
        </button>
      ) : (
        found.data && (
          <a className="shrink-0 underline" href={`/b/${brief.briefId}/find?q=${encodeURIComponent(family)}`}>
            Not among your libraries: look for it
          </a>
        )
      )}
    </li>
  );
}
