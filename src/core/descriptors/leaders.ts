// Many styles parted by the shape of their letters, so that a question need not look at all of them: leaders, and who resembles each.
import { SignatureIndex, type Leaders } from "./extractDescriptors";

/** From so many entries on an index is parted: fewer are looked at one by one. */
export const PARTED_FROM = 6000;
/** Entries to a leader, about; a group of more than twice as many is parted again. */
const TO_A_LEADER = 90;
/** Leaders that are chosen at a time. */
const AT_A_TIME = 48;

/** Letters that are compared, and how many of their frequencies, the coarsest. */
const LETTERS = [..."aenorstgHSR"].map((c) => SignatureIndex.at(c)).filter((at) => at >= 0);
const FREQUENCIES = 10;
const TO_A_LETTER = FREQUENCIES + 2;
/** Steps of an em in widths and heights: as coarse as the frequencies. */
const EM_STEPS = 90;
const VECTOR = LETTERS.length * TO_A_LETTER;

/** @param toALeader - entries that a leader stands for, about. */
export function partByShape(index: SignatureIndex, toALeader = TO_A_LEADER): Leaders {
  const count = index.ids.length;
  const vectors = new Int8Array(count * VECTOR);
  for (let entry = 0; entry < count; entry++) writeVector(index, entry, vectors);
  const groups: { leader: number; members: number[] }[] = [];
  const waiting = [Array.from({ length: count }, (_, i) => i)];
  while (waiting.length) {
    const group = waiting.pop()!;
    if (group.length <= 2 * toALeader) {
      if (group.length) groups.push({ leader: middleOf(group, vectors), members: group });
      continue;
    }
    const parts = partGroup(group, vectors, toALeader);
    // Alike throughout: they stay together.
    if (parts.length < 2) groups.push({ leader: group[0]!, members: group });
    else waiting.push(...parts);
  }
  const starts = new Int32Array(groups.length + 1);
  groups.forEach((g, i) => (starts[i + 1] = starts[i]! + g.members.length));
  const members = new Int32Array(count);
  groups.forEach((g, i) => members.set(g.members, starts[i]));
  return { leaders: Int32Array.from(groups, (g) => g.leader), members, starts };
}

function writeVector(index: SignatureIndex, entry: number, vectors: Int8Array) {
  LETTERS.forEach((at, i) => {
    const box = index.box(entry, at);
    if (!box) return;
    const to = entry * VECTOR + i * TO_A_LETTER;
    vectors.set(index.form(entry, at).subarray(0, FREQUENCIES), to);
    vectors[to + FREQUENCIES] = Math.min(127, (box.right - box.left) * EM_STEPS);
    vectors[to + FREQUENCIES + 1] = Math.min(127, (box.top - box.bottom) * EM_STEPS);
  });
}

function distance(vectors: Int8Array, a: number, b: number, most: number): number {
  let sum = 0;
  for (let k = 0; k < VECTOR; k += TO_A_LETTER) {
    for (let i = k; i < k + TO_A_LETTER; i++) {
      const d = vectors[a * VECTOR + i]! - vectors[b * VECTOR + i]!;
      sum += d * d;
    }
    if (sum > most) return sum;
  }
  return sum;
}

/** Each entry goes with the nearest of some that are spread over the group. */
function partGroup(group: readonly number[], vectors: Int8Array, toALeader: number): number[][] {
  const count = Math.max(2, Math.min(AT_A_TIME, Math.ceil(group.length / toALeader)));
  const step = group.length / count;
  const chosen = Array.from({ length: count }, (_, i) => group[Math.floor(i * step)]!);
  const parts = chosen.map(() => [] as number[]);
  for (const entry of group) {
    let [best, least] = [0, Infinity];
    for (let k = 0; k < count; k++) {
      const d = distance(vectors, entry, chosen[k]!, least);
      if (d < least) [best, least] = [k, d];
    }
    parts[best]!.push(entry);
  }
  return parts.filter((p) => p.length);
}

/** The entry that is nearest to the mean of its group. */
function middleOf(group: readonly number[], vectors: Int8Array): number {
  const mean = new Float64Array(VECTOR);
  for (const entry of group) for (let k = 0; k < VECTOR; k++) mean[k]! += vectors[entry * VECTOR + k]! / group.length;
  let [best, least] = [group[0]!, Infinity];
  for (const entry of group) {
    let sum = 0;
    for (let k = 0; k < VECTOR && sum < least; k++) sum += (vectors[entry * VECTOR + k]! - mean[k]!) ** 2;
    if (sum < least) [best, least] = [entry, sum];
  }
  return best;
}
