// npm run eval:rounds: two by two with 200 simulated choosers each, without slips and with one in ten.
import { askChooser, meanOf } from "../../tests/fixtures/chooser";

const RUNS = 200;
for (const slips of [0, 0.1]) {
  const runs = Array.from({ length: RUNS }, (_, i) => askChooser(i + 1 + 10_000 * slips, slips));
  const taus = runs.map((r) => r.tau);
  console.log(
    `${100 * slips} % slips: tau ${meanOf(taus).toFixed(3)} on average, ${Math.min(...taus).toFixed(3)} at least;`,
    `${meanOf(runs.map((r) => r.choices.length)).toFixed(1)} questions; the 90 % intervals hold the true place of`,
    `${(100 * meanOf(runs.map((r) => r.held))).toFixed(1)} %`,
  );
}
