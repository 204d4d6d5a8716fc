"use client";
// No usable picture: questions on the shapes of letters, each answer drawn in a real face. Answers stand in the address and can be changed.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { usePathname, useSearchParams } from "next/navigation";
import { useEffect } from "react";
import { CANNOT_TELL, type AskedQuestion, type Described } from "@/contracts/describe";
import { useKeys } from "../bench/useKeys";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { queryOf } from "../parts/client";
import { familyOf, useFace } from "../parts/faceLoader";
import { MatchRow, useDetails } from "./MatchRow";

type Given = { questionId: string; answerId: string };

/** Answers as the address keeps them: feet.2~a.1 */
const writeAnswers = (given: readonly Given[]) => given.map((g) => `${g.questionId}.${g.answerId}`).join("~");
const readAnswers = (text: string | null): Given[] =>
  (text ?? "").split("~").flatMap((part) => {
    const [questionId, answerId] = part.split(".");
    return questionId && answerId ? [{ questionId, answerId }] : [];
  });

export function QuestionsView() {
  const { brief, dispatch } = useBench();
  const path = usePathname();
  const given = readAnswers(useSearchParams().get("answers"));
  const put = (next: readonly Given[]) =>
    window.history.replaceState(null, "", next.length ? `${path}?answers=${writeAnswers(next)}` : path);
  const described = useQuery({
    ...queryOf("describeFace", { body: { answers: given, limit: 8 } }),
    placeholderData: (before) => before,
  });
  const { next, remaining = 0 } = described.data ?? {};
  const answer = (answerId: string) => next && put([...given, { questionId: next.questionId, answerId }]);
  const takeBack = (questionId: string) => put(given.filter((g) => g.questionId !== questionId));

  useEffect(() => {
    dispatch({
      type: "facts",
      facts: described.data ? [`${writeCount(remaining)} still likely`] : [],
    });
  }, [described.data, remaining, dispatch]);
  const answerByDigit = (event: KeyboardEvent) => {
    const chosen = event.key === "0" ? CANNOT_TELL : next?.answers[Number(event.key) - 1]?.answerId;
    // Digits go to the steps elsewhere, never from here.
    if (chosen) answer(chosen);
  };
  useKeys("Questions", [
    { keys: ["1", "2", "3", "4", "5", "6", "7"], legend: "answer", shown: "1 … 7", run: answerByDigit },
    { keys: ["0"], legend: "can't tell", run: answerByDigit },
    {
      keys: ["Backspace"],
      legend: "take the last back",
      shown: "⌫",
      run: () => (given.length ? put(given.slice(0, -1)) : false),
    },
  ]);

  return (
    <div className="grid h-full grid-cols-[minmax(0,1.36fr)_minmax(0,1fr)]">
      <section className="min-h-0 overflow-y-auto px-4 py-3" aria-label="Question">
        <p className="text-basalt">
          <Link href={`/b/${brief.briefId}/identify`} className="underline">
            From a picture
          </Link>{" "}
          instead, where there is one.
        </p>
        {described.error ? (
          <p role="alert" className="mt-4 text-madder">
            {described.error.message}
          </p>
        ) : next ? (
          <Asked question={next} onAnswer={answer} />
        ) : (
          described.data && <p className="mt-6 text-[17px] font-bold">Nothing is left to ask that would tell more.</p>
        )}
        {(described.data?.given.length ?? 0) > 0 && (
          <ul className="mt-6 border-t border-rule" aria-label="Answers">
            {described.data!.given.map((g) => (
              <li key={g.questionId} className="flex items-baseline gap-3 border-b border-rule py-1.5">
                <span className="min-w-0 flex-1 text-basalt">{g.text}</span>
                <b className="min-w-0 flex-1">{g.label}</b>
                <button type="button" className="underline" onClick={() => takeBack(g.questionId)}>
                  Change
                </button>
              </li>
            ))}
          </ul>
        )}
        {given.length > 0 && (
          <button type="button" className="btn mt-4" onClick={() => put([])}>
            Start over
          </button>
        )}
      </section>
      <Likely described={described.data} isStale={described.isPlaceholderData} />
    </div>
  );
}

const writeCount = (n: number) => `${Math.max(1, Math.round(n))} ${Math.round(n) <= 1 ? "family" : "families"}`;

function Asked({ question, onAnswer }: { question: AskedQuestion; onAnswer: (answerId: string) => void }) {
  return (
    <div className="mt-4">
      <h1 className="text-[20px] font-bold" data-question={question.questionId}>
        {question.text}
      </h1>
      <ul className="mt-3 grid grid-cols-3 pl-px pt-px">
        {question.answers.map((a, i) => (
          <li key={a.answerId} className="-ml-px -mt-px border border-rule bg-chalk">
            <button
              type="button"
              className="flex h-full w-full flex-col items-center gap-1 px-3 py-3 hover:bg-[#e4ddcd]"
              onClick={() => onAnswer(a.answerId)}
            >
              <span className="grid h-[84px] place-items-center" aria-hidden>
                {a.exampleStyleId ? (
                  <Drawn styleId={a.exampleStyleId} letters={question.letters} />
                ) : (
                  <span className="text-basalt">–</span>
                )}
              </span>
              <span className="font-semibold">
                <span className="num mr-1.5 text-basalt">{i + 1}</span>
                {a.label}
              </span>
            </button>
          </li>
        ))}
        <li className="-ml-px -mt-px border border-rule bg-chalk">
          <button
            type="button"
            className="flex h-full w-full flex-col items-center justify-center px-3 py-3 hover:bg-[#e4ddcd]"
            onClick={() => onAnswer(CANNOT_TELL)}
          >
            <span className="font-semibold">
              <span className="num mr-1.5 text-basalt">0</span>
              Can&apos;t tell
            </span>
          </button>
        </li>
      </ul>
    </div>
  );
}

/** The letters in question in one face of the library. */
function Drawn({ styleId, letters }: { styleId: string; letters: string }) {
  const state = useFace(styleId);
  return (
    <span
      className="max-w-[180px] overflow-hidden whitespace-nowrap"
      data-drawn={state}
      style={{
        fontFamily: state === "ready" ? `"${familyOf(styleId)}"` : undefined,
        fontSize: 58,
        lineHeight: 1.3,
        opacity: state === "ready" ? 1 : 0,
      }}
    >
      {letters}
    </span>
  );
}

function Likely({ described, isStale }: { described: Described | undefined; isStale: boolean }) {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const text = brief.lines[active]?.text ?? brief.lines[0]?.text ?? "";
  const matches = described?.given.length ? described.matches : [];
  const details = useDetails(matches.map((m) => m.styleId));
  return (
    <section aria-label="Likely faces" className="min-h-0 overflow-y-auto border-l border-rule bg-chalk px-4 py-3">
      <h1 className="text-[17px] font-bold" aria-live="polite">
        {matches.length ? `${writeCount(described!.remaining)} still likely.` : "Answer what you can."}
      </h1>
      {!matches.length && (
        <p className="mt-1 text-basalt">
          Each answer weighs every measured style. One wrong answer does not lose the right face, and what you cannot
          tell you need not.
        </p>
      )}
      <ol className={`mt-2 ${isStale ? "opacity-60" : ""}`}>
        {matches.map((m, i) => (
          <MatchRow key={m.styleId} match={m} detail={details[i]} text={text} />
        ))}
      </ol>
    </section>
  );
}
