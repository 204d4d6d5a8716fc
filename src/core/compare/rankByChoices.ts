// Two by two: an order of faces from choices between two of them, how sure each place is, and which two to ask about next.
//
// Every order is as likely as the choices say, if of the choices some unknown share are slips (Beta prior, integrated out); "neither is
// better" speaks for neighbouring places. Orders are drawn from that distribution by Metropolis moves (one item is put elsewhere), from a
// fixed seed: the same choices give the same answer. Beside a Bradley-Terry model it needs no strengths on a common scale, and a person
// who never contradicts himself is believed after one answer a pair.
import { seededRandom } from "../geometry/numbers";

// Taken out of the global object once: the loops below call them very often.
const { abs, ceil, exp, floor, log, log2, max, min } = Math;

export type Choice = { left: number; right: number; /** null: neither is better. */ chosen: number | null };
export type Rank = {
  item: number;
  /** Share of the others that it is preferred to, 0–1: the mean over all likely orders. */
  strength: number;
  /** 90 % interval of the strength. */
  low: number;
  high: number;
  /** Place from the top, 1 first, at the ends of that interval. */
  firstPlace: number;
  lastPlace: number;
};
export type Ranking = {
  /** The strongest first. */
  ranks: Rank[];
  /** What to ask next, by item; null where more answers would not change the order. */
  pair: { left: number; right: number } | null;
  expectedLeft: number;
};

/** Before anything is known one choice in twenty is taken for a slip. */
const SLIPS = { wrong: 1.4, right: 19 };
/** How much likelier "neither" is for neighbours than for those so many places apart. */
const TIE_PLACES = 2;
const TIE_ANYWAY = 0.05;
/** Two are in order when this much of the likelihood says so. */
const SURE_SHARE = 0.9;
const INTERVAL = 0.9;
const SAMPLES = 400;
/** No two are asked about more often, and nobody is asked more than this many times the number of faces. */
const MOST_OF_A_PAIR = 3;
const MOST_PER_ITEM = 6;
/** Bits that an answer is worth on the way, by simulation. */
const BITS_PER_ANSWER = 0.8;

/**
 * @param count - items, 0 … count − 1, two or more. @param choices - in the order in which they were made.
 * @throws RangeError for an item that is none.
 */
export function rankByChoices(count: number, choices: readonly Choice[]): Ranking {
  const told = readChoices(count, choices);
  const places = drawOrders(count, told, choices.length);
  const ranks = rankItems(count, places);
  const above = shareAbove(count, places);
  const pair = choices.length < MOST_PER_ITEM * count ? nextPair(count, above, told, choices) : null;
  return { ranks, pair, expectedLeft: pair ? max(1, ceil(bitsLeft(count, places) / BITS_PER_ANSWER)) : 0 };
}

type Told = {
  /** How often the row was chosen over the column; shape [count, count]. */
  over: Uint16Array;
  ties: [number, number][];
  /** How often two were asked about; shape [count, count], symmetric. */
  asked: Uint16Array;
  decided: number;
};

function readChoices(count: number, choices: readonly Choice[]): Told {
  const over = new Uint16Array(count * count);
  const asked = new Uint16Array(count * count);
  const ties: [number, number][] = [];
  for (const { left, right, chosen } of choices) {
    const isItem = (n: number) => Number.isInteger(n) && n >= 0 && n < count;
    if (!isItem(left) || !isItem(right) || left === right) throw new RangeError(`no pair: ${left}, ${right}`);
    asked[left * count + right]!++;
    asked[right * count + left]!++;
    if (chosen === null) ties.push([left, right]);
    else over[chosen * count + (chosen === left ? right : left)]!++;
  }
  return { over, ties, asked, decided: choices.length - ties.length };
}

/** Orders drawn by how likely they are. @returns SAMPLES lists; in each the place of every item, 0 first. */
function drawOrders(count: number, told: Told, seed: number): Uint16Array[] {
  const random = seededRandom(seed + 1);
  const order = startOrder(count, told.over);
  const place = new Uint16Array(count);
  order.forEach((item, p) => (place[item] = p));
  const logSlips = logSlipsOf(told.decided);
  let wrong = countWrong(count, told.over, place);
  const byDistance = tiesByDistance(count);
  let logTies = logOfTies(told.ties, place, byDistance);
  const out: Uint16Array[] = [];
  const [burnIn, thin] = [BURN_IN * count, THIN * count];
  for (let move = 1; out.length < SAMPLES; move++) {
    if (move > burnIn && move % thin === 0) out.push(place.slice());
    const from = floor(random() * count);
    // Near places more often than far ones, and as often there as back.
    const far = 1 + floor(-MOVE_PLACES * log(1 - random()));
    const to = random() < 0.5 ? from - far : from + far;
    if (to < 0 || to >= count) continue;
    const change = changeOf(count, told.over, order, from, to);
    moveItem(order, place, from, to);
    const nextTies = told.ties.length ? logOfTies(told.ties, place, byDistance) : 0;
    const gain = logSlips[wrong + change]! - logSlips[wrong]! + nextTies - logTies;
    if (gain >= 0 || random() < exp(gain)) {
      wrong += change;
      logTies = nextTies;
    } else moveItem(order, place, to, from);
  }
  return out;
}
/** In moves per item. */
const BURN_IN = 60;
const THIN = 2;
/** Mean length of a move. */
const MOVE_PLACES = 2.5;

/** How many more choices are slips when an item is put elsewhere. */
function changeOf(count: number, over: Uint16Array, order: Uint16Array, from: number, to: number): number {
  const item = order[from]!;
  const step = to > from ? 1 : -1;
  let change = 0;
  for (let p = from + step; p !== to + step; p += step) {
    const other = order[p]!;
    // What is passed on the way down stands above it from then on.
    change += step * (over[item * count + other]! - over[other * count + item]!);
  }
  return change;
}

function moveItem(order: Uint16Array, place: Uint16Array, from: number, to: number) {
  const item = order[from]!;
  const step = to > from ? 1 : -1;
  for (let p = from; p !== to; p += step) {
    order[p] = order[p + step]!;
    place[order[p]!] = p;
  }
  order[to] = item;
  place[item] = to;
}

/** By how often each was chosen, so that the first orders are likely ones. */
function startOrder(count: number, over: Uint16Array): Uint16Array {
  const won = Array.from({ length: count }, (_, i) => {
    let sum = 0;
    for (let j = 0; j < count; j++) sum += over[i * count + j]! - over[j * count + i]!;
    return sum;
  });
  return Uint16Array.from(won.map((_, i) => i).sort((a, b) => won[b]! - won[a]! || a - b));
}

function countWrong(count: number, over: Uint16Array, place: Uint16Array): number {
  let wrong = 0;
  for (let i = 0; i < count; i++)
    for (let j = 0; j < count; j++) if (place[i]! > place[j]!) wrong += over[i * count + j]!;
  return wrong;
}

/** Log likelihood of so many slips among the choices, for 0 … decided. */
function logSlipsOf(decided: number): Float64Array {
  const out = new Float64Array(decided + 1);
  for (let k = 1; k <= decided; k++) out[k] = out[k - 1]! + log((SLIPS.wrong + k - 1) / (SLIPS.right + decided - k));
  return out;
}

function logOfTies(ties: readonly [number, number][], place: Uint16Array, byDistance: Float64Array): number {
  let sum = 0;
  for (const [a, b] of ties) sum += byDistance[abs(place[a]! - place[b]!)]!;
  return sum;
}
/** Log likelihood of "neither" for two so many places apart. */
const tiesByDistance = (count: number) =>
  Float64Array.from({ length: count }, (_, places) => log(TIE_ANYWAY + exp(-(places - 1) / TIE_PLACES)));

function rankItems(count: number, places: readonly Uint16Array[]): Rank[] {
  const last = count - 1;
  return Array.from({ length: count }, (_, item) => {
    const own = places.map((p) => p[item]!).sort((a, b) => a - b);
    const tail = (1 - INTERVAL) / 2;
    const first = own[floor(tail * own.length)]!;
    const lastOf = own[min(own.length - 1, ceil((1 - tail) * own.length) - 1)]!;
    const mean = own.reduce((a, b) => a + b, 0) / own.length;
    return {
      item,
      strength: 1 - mean / last,
      low: 1 - lastOf / last,
      high: 1 - first / last,
      firstPlace: first + 1,
      lastPlace: lastOf + 1,
    };
  }).sort((a, b) => b.strength - a.strength || a.item - b.item);
}

/** Share of the orders in which the row stands above the column; shape [count, count]. */
function shareAbove(count: number, places: readonly Uint16Array[]): Float64Array {
  const above = new Float64Array(count * count);
  for (const place of places)
    for (let i = 0; i < count; i++)
      for (let j = 0; j < count; j++) if (place[i]! < place[j]!) above[i * count + j]! += 1 / places.length;
  return above;
}

/** The two whose order is least known; of equals those that were asked about least, and not just now. */
function nextPair(count: number, above: Float64Array, { asked }: Told, choices: readonly Choice[]) {
  const last = choices[choices.length - 1];
  const asks = Array.from({ length: count }, (_, i) => {
    let sum = 0;
    for (let j = 0; j < count; j++) sum += asked[i * count + j]!;
    return sum;
  });
  let best: { left: number; right: number; worth: number } | null = null;
  for (let i = 0; i < count; i++)
    for (let j = i + 1; j < count; j++) {
      const times = asked[i * count + j]!;
      const share = above[i * count + j]!;
      const unsure = min(share, 1 - share);
      if (unsure <= 1 - SURE_SHARE || times >= MOST_OF_A_PAIR) continue;
      const isLast = last && (last.left === i || last.right === i) && (last.left === j || last.right === j);
      const worth = unsure - 0.08 * times - 0.004 * (asks[i]! + asks[j]!) - (isLast ? 0.2 : 0);
      if (!best || worth > best.worth) best = { left: i, right: j, worth };
    }
  // Neither of the two stands on one side always.
  return best && (choices.length % 2 ? { left: best.right, right: best.left } : { left: best.left, right: best.right });
}

/** About how many bits the order still lacks: half of what the places lack, since each is known in part by the others. */
function bitsLeft(count: number, places: readonly Uint16Array[]): number {
  let bits = 0;
  for (let item = 0; item < count; item++) {
    const seen = new Float64Array(count);
    for (const place of places) seen[place[item]!]! += 1 / places.length;
    for (const share of seen) if (share > 0) bits -= share * log2(share);
  }
  return bits / 2;
}
