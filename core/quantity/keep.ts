/**
 * The one way of keeping what is worked out of things that never change: catalogues, layouts, knowledge, states. It is kept
 * by the thing itself and goes with it.
 */

/** The same function, worked out once for each object that it is given. */
export function oncePer<K extends object, V>(make: (of: K) => V): (of: K) => V {
  const kept = new WeakMap<K, { value: V }>();
  return (of) => {
    let known = kept.get(of);
    if (!known) kept.set(of, (known = { value: make(of) }));
    return known.value;
  };
}

/** What is worked out once for each name under an object. */
export function oncePerName<K extends object, V>(): (of: K, name: string, make: () => V) => V {
  const names = oncePer<K, Map<string, { value: V }>>(() => new Map());
  return (of, name, make) => {
    const under = names(of);
    let known = under.get(name);
    if (!known) under.set(name, (known = { value: make() }));
    return known.value;
  };
}

/** What was last worked out for an object, while it still holds. */
export function lastPer<K extends object, V extends object>(): (
  of: K,
  holds: (kept: V) => boolean,
  make: () => V,
) => V {
  const kept = new WeakMap<K, V>();
  return (of, holds, make) => {
    const before = kept.get(of);
    if (before && holds(before)) return before;
    const made = make();
    kept.set(of, made);
    return made;
  };
}
