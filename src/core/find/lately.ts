// What was worked out lately, kept for the next question: a few values by key for each owner, gone with the owner.
import { LRUCache } from "lru-cache";

/**
 * @param max - values kept for one owner; the one that was asked for longest ago goes first.
 * @returns the value of a key, made when it is not kept.
 */
export function memoizeRecent<Owner extends object, Value extends object>(max: number) {
  const kept = new WeakMap<Owner, LRUCache<string, Value>>();
  return (owner: Owner, key: string, make: () => Value): Value => {
    let values = kept.get(owner);
    if (!values) kept.set(owner, (values = new LRUCache({ max })));
    let value = values.get(key);
    if (!value) values.set(key, (value = make()));
    return value;
  };
}
