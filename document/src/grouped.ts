/** Things by what they have in common, in the order in which each of that first occurs. */
export function grouped<T, K>(things: Iterable<T>, of: (thing: T) => K): Map<K, T[]> {
  const found = new Map<K, T[]>();
  for (const thing of things) {
    const key = of(thing);
    const list = found.get(key);
    if (list) list.push(thing);
    else found.set(key, [thing]);
  }
  return found;
}
