// SQL on questions to people and their answers.
import type { PeopleAnswer, PeopleQuestion, QuestionId } from "@/contracts/people";
import type { Db } from "../db/open";

type Row = {
  question_id: QuestionId;
  identification_id: PeopleQuestion["identificationId"];
  asked_at: string;
  state: PeopleQuestion["state"];
  fault: string | null;
};

/** The latest question on an identification that was not withdrawn, its answers oldest first. */
export function findQuestion(db: Db, identificationId: string): PeopleQuestion | null {
  const row = db
    .prepare<[string], Row>(
      `SELECT question_id, identification_id, asked_at, state, fault FROM questions
       WHERE identification_id = ? AND state <> 'withdrawn' ORDER BY asked_at DESC, rowid DESC LIMIT 1`,
    )
    .get(identificationId);
  if (!row) return null;
  const answers = db
    .prepare<[string], PeopleAnswer>(
      "SELECT answer_id AS answerId, by_whom AS by, family, style, words, at FROM answers WHERE question_id = ? ORDER BY at, rowid",
    )
    .all(row.question_id);
  return {
    questionId: row.question_id,
    identificationId: row.identification_id,
    askedAt: row.asked_at,
    state: row.state,
    fault: row.fault,
    answers,
  };
}

export const insertQuestion = (db: Db, questionId: string, identificationId: string, at: string) =>
  db.prepare("INSERT INTO questions VALUES (?, ?, ?, 'not-sent', NULL)").run(questionId, identificationId, at);

export const setQuestionState = (db: Db, questionId: string, state: PeopleQuestion["state"], fault: string | null) =>
  db.prepare("UPDATE questions SET state = ?, fault = ? WHERE question_id = ?").run(state, fault, questionId);

/** Answers that are known already stay as they are: what was once said is kept. */
export const addAnswers = (db: Db, questionId: string, answers: readonly PeopleAnswer[]) => {
  const insert = db.prepare("INSERT INTO answers VALUES (?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING");
  db.transaction(() => {
    for (const a of answers) insert.run(questionId, a.answerId, a.by, a.family, a.style, a.words, a.at);
  })();
};
