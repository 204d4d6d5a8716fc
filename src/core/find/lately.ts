// What was worked out lately, kept for the next question: a few values by key for each owner, gone with the owner.

/**
 * @param most - values kept for one owner; the one that was asked for longest ago goes first.
 * @returns the value of a key, made when it is not kept.
 */
export function keepLately<Owner extends object, Value>(most: number) {
  const kept = new WeakMap<Owner, Map<string, Value>>();
  return (owner: Owner, key: string, make: () => Value): Value => {
    let values = kept.get(owner);
    if (!values) kept.set(owner, (values = new Map()));
    const known = values.get(key);
    const value = known === undefined ? make() : known;
    values.delete(key);
    values.set(key, value);
    if (values.size > most) values.delete(values.keys().next().value!);
    return value;
  };
}
