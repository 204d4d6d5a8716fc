// The stand-in desk of other designers: takes a question, and one after another answers after a while, sometimes wrongly or never.
// They see no more of a picture than the question says of it: they go by the nearest faces on the sheet, or by what they have in mind.
import { createHash } from "node:crypto";
import { DeskQuestion, type DeskReply } from "../../src/contracts/people";
import { offersOf } from "./catalogue";

type Answer = DeskReply["answers"][number];
type Nearest = DeskQuestion["nearest"][number];
type Designer = {
  name: string;
  afterSeconds: number;
  /** What they say of a question; null: nothing. @param luck - 0–1, the same for the same question. */
  says: (nearest: Nearest[], luck: number) => Pick<Answer, "family" | "style" | "words"> | null;
};

const DESIGNERS: Designer[] = [
  {
    name: "Inka Sollberg",
    afterSeconds: 6,
    says: ([first, second], luck) => {
      const named = luck < 0.75 ? first : (second ?? first);
      return named
        ? { family: named.family, style: named.style, words: "Set it often enough. Look at the joins." }
        : null;
    },
  },
  {
    name: "Tomas Verhey",
    afterSeconds: 14,
    says: (_nearest, luck) => {
      const offers = offersOf("halyard");
      const { family } = offers[Math.floor(luck * offers.length)]!;
      return { family: family.family, style: null, words: "Not sure of the weight, but I would look there." };
    },
  },
  {
    name: "Amara Lindqvist-Osei",
    afterSeconds: 25,
    // Says only what she is sure of.
    says: ([first], luck) =>
      first && first.agreement > 0.8 && luck > 0.3
        ? { family: first.family, style: null, words: "That family, I am fairly sure." }
        : null,
  },
  { name: "Reto Calandra", afterSeconds: 40, says: () => null },
];
const OPEN_SECONDS = 90;

/** 0–1 of a question and a name, the same every time. */
const luckOf = (text: string) => createHash("sha256").update(text).digest().readUInt32BE() / 2 ** 32;

export class Desk {
  private questions = new Map<string, { question: DeskQuestion; leftAt: number }>();
  /** Seconds of the desk a second of the clock: tests do not wait. */
  private pace = 1;

  setPace = (pace: number) => (this.pace = pace);

  /** @returns null for a question that does not have the agreed form. */
  leave(body: unknown): DeskReply | null {
    const parsed = DeskQuestion.safeParse(body);
    if (!parsed.success) return null;
    const { questionId } = parsed.data;
    if (!this.questions.has(questionId)) this.questions.set(questionId, { question: parsed.data, leftAt: Date.now() });
    return this.look(questionId);
  }

  look(questionId: string): DeskReply | null {
    const kept = this.questions.get(questionId);
    if (!kept) return null;
    const { question, leftAt } = kept;
    const seconds = ((Date.now() - leftAt) / 1000) * this.pace;
    const answers = DESIGNERS.filter((d) => d.afterSeconds <= seconds).flatMap((d): Answer[] => {
      const said = d.says(question.nearest, luckOf(`${question.readAs} ${question.title} ${d.name}`));
      const at = new Date(leftAt + (d.afterSeconds * 1000) / this.pace).toISOString();
      return said
        ? [{ answerId: luckOf(`${questionId} ${d.name}`).toString(36).slice(2), by: d.name, ...said, at }]
        : [];
    });
    return { questionId: question.questionId, state: seconds > OPEN_SECONDS ? "closed" : "open", answers };
  }

  withdraw(questionId: string): DeskReply | null {
    const last = this.look(questionId);
    this.questions.delete(questionId);
    return last && { ...last, state: "closed" };
  }
}
