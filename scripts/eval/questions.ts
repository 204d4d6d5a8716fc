// Finding a face by questions, by simulated users who have one style of the library before their eyes: those who answer by its measures,
// those whose eye is vague, those who are wrong once. npm run eval:questions [-- --again]
import {
  describe,
  listToAsk,
  readyToAsk,
  type DescribedStyle,
  type GivenAnswer,
} from "../../src/core/describe/describe";
import { readRows } from "./measured";

const USERS = 500;
const MAX_QUESTIONS = 12;
const MODES = ["truthful", "vague as an eye", "one wrong"] as const;

let seed = 7;
const random = () => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648;
const anyOf = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

const styles = listToAsk(await readRows());
const library = readyToAsk(styles);

/** The likeliest answer, or one drawn from how likely each is. */
function choose(fits: readonly number[], isVague: boolean): number {
  if (!isVague) return fits.indexOf(Math.max(...fits));
  let left = random() * fits.reduce((a, b) => a + b, 0);
  return Math.max(
    0,
    fits.findIndex((f) => (left -= f) <= 0),
  );
}

function askOne(style: DescribedStyle, mode: (typeof MODES)[number]): { isFound: boolean; questions: number } {
  const answers: GivenAnswer[] = [];
  const wrongAt = mode === "one wrong" ? Math.floor(random() * 8) : -1;
  let now = describe(library, answers);
  while (now.next && answers.length < MAX_QUESTIONS) {
    const { next } = now;
    const right = choose(next.fits(style), mode !== "truthful");
    const other = (right + 1 + Math.floor(random() * (next.answers.length - 1))) % next.answers.length;
    const given = answers.length === wrongAt ? other : right;
    answers.push({ questionId: next.questionId, answerId: next.answers[given]!.answerId });
    now = describe(library, answers);
  }
  return { isFound: now.matches.slice(0, 5).some((m) => m.family === style.family), questions: answers.length };
}

console.log(`${library.families.length} families, ${styles.length} styles, ${USERS} users each`);
for (const mode of MODES) {
  let [found, questions] = [0, 0];
  for (let n = 0; n < USERS; n++) {
    const family = anyOf(library.families);
    const told = askOne(anyOf(styles.filter((s) => s.family === family)), mode);
    if (told.isFound) found++;
    questions += told.questions;
  }
  const share = ((100 * found) / USERS).toFixed(1);
  console.log(`${mode.padEnd(16)} ${share} % in the first five, ${(questions / USERS).toFixed(1)} questions`);
}
