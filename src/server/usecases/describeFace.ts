// Finding a face by questions: the measured library in memory, asked again with every answer.
import { CANNOT_TELL, type Described, type DescribeRequest } from "@/contracts/describe";
import type { FamilyId, StyleId } from "@/contracts/ids";
import { describe, exampleOf, listToAsk, readyToAsk, type AskedLibrary } from "@/core/describe/describe";
import { QUESTIONS } from "@/core/describe/questions";
import type { FindIndex } from "@/core/find/findIndex";
import type { Db } from "../db/open";
import { getRows } from "./findings";

const ready = new WeakMap<FindIndex, AskedLibrary>();

function libraryOf(index: FindIndex): AskedLibrary {
  let library = ready.get(index);
  if (!library) {
    ready.set(index, (library = readyToAsk(listToAsk(index.rows))));
  }
  return library;
}

/** Answers POST /describe. */
export function describeFace(db: Db, { answers, limit }: DescribeRequest): Described {
  const { findRow, index } = getRows(db);
  const library = libraryOf(index);
  const told = answers.filter((a) => a.answerId !== CANNOT_TELL);
  const skipped = answers.filter((a) => a.answerId === CANNOT_TELL).map((a) => a.questionId);
  const { next, remaining, matches } = describe(library, told, skipped, limit);
  const given = answers.flatMap(({ questionId, answerId }) => {
    const question = QUESTIONS.find((q) => q.questionId === questionId);
    const answer = question?.answers.find((a) => a.answerId === answerId);
    if (!question || (!answer && answerId !== CANNOT_TELL)) return [];
    return [{ questionId, answerId, text: question.text, label: answer?.label ?? "Can't tell" }];
  });
  return {
    ...(next && {
      next: {
        questionId: next.questionId,
        text: next.text,
        letters: next.letters,
        answers: next.answers.map((a, k) => ({
          ...a,
          exampleStyleId: exampleOf(library, next, k) as StyleId | null,
        })),
      },
    }),
    given,
    remaining,
    matches: matches.flatMap(({ styleId, chance }) => {
      const row = findRow(styleId);
      return row
        ? [
            {
              styleId: styleId as StyleId,
              familyId: row.familyId as FamilyId,
              family: row.family,
              style: row.style,
              chance,
            },
          ]
        : [];
    }),
  };
}
