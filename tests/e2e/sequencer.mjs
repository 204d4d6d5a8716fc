// Which browser tests run in which half: the longest first, dealt so that both take about as long.
import { basename } from "node:path";
import Sequencer from "@jest/test-sequencer";

const LONGEST = [
  ...["views", "sizes", "trust", "identifyMore", "libraries", "sorting", "shape", "identifyView"],
  ...["archives", "find", "http", "identifySettings", "wholePath", "access", "start"],
];
const rankOf = ({ path }) => {
  const rank = LONGEST.indexOf(basename(path, ".e2e.ts"));
  return rank < 0 ? LONGEST.length : rank;
};

export default class LongestFirst extends Sequencer {
  sort(tests) {
    return [...tests].sort((a, b) => rankOf(a) - rankOf(b) || a.path.localeCompare(b.path));
  }
  /** There and back: 1, 2, 2, 1, 1, 2 … */
  shard(tests, { shardIndex, shardCount }) {
    const round = 2 * shardCount;
    return this.sort(tests).filter((_, i) => Math.min(i % round, round - 1 - (i % round)) === shardIndex - 1);
  }
}
