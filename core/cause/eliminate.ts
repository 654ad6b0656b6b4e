import { doubleAt, intAt, nth } from '@core/quantity/must';

/** A table over some two-state variables: bit i of a place is the state of the i-th. */
export type Factor = { vars: readonly number[]; table: Float64Array };

type Use = { slot: number; places: Int32Array };
type Step = { variable: number; size: number; uses: readonly Use[] };
/** The order in which variables are summed out of a product of factors, worked out once for any weights of theirs. */
export type EliminationOrder = {
  variables: readonly number[];
  tables: readonly Float64Array[];
  steps: readonly Step[];
  keep: readonly number[];
  last: readonly Use[];
};

/**
 * Plans how to sum a product of factors over its variables but some: the variable whose neighbours are fewest first, so that tables stay as small as the findings allow
 * (variable elimination, Zhang and Poole 1994).
 */
export function planOf(factors: readonly Factor[], keep: readonly number[]): EliminationOrder {
  const variables = [...new Set(factors.flatMap((f) => f.vars))];
  const scopes = factors.map((f) => [...f.vars]);
  let open = factors.map((_, slot) => slot);
  const left = new Set(variables.filter((v) => !keep.includes(v)));
  const steps: Step[] = [];
  const around = (v: number) => {
    const near: number[] = [];
    for (const slot of open) {
      const scope = nth(scopes, slot);
      if (scope.includes(v)) for (const x of scope) if (x !== v && !near.includes(x)) near.push(x);
    }
    return near;
  };
  while (left.size > 0) {
    let [variable, scope] = [-1, [] as number[]];
    for (const v of left) {
      const near = around(v);
      if (variable < 0 || near.length < scope.length) [variable, scope] = [v, near];
    }
    const mine = open.filter((s) => nth(scopes, s).includes(variable));
    const uses = mine.map((slot) => ({ slot, places: placesOf([...scope, variable], nth(scopes, slot)) }));
    steps.push({ variable, size: 2 ** scope.length, uses });
    scopes.push(scope);
    open = [...open.filter((s) => !mine.includes(s)), scopes.length - 1];
    left.delete(variable);
  }
  const last = open.map((slot) => ({ slot, places: placesOf(keep, nth(scopes, slot)) }));
  return { variables, tables: factors.map((f) => f.table), steps, keep, last };
}

/** For each place of a table over some variables, the place in a table over fewer of them. */
export function placesOf(all: readonly number[], some: readonly number[]): Int32Array {
  const bits = some.map((v) => all.indexOf(v));
  return Int32Array.from({ length: 2 ** all.length }, (_, s) =>
    bits.reduce((k, bit, i) => k | (((s >> bit) & 1) << i), 0),
  );
}

/** The sum by a plan, over what is kept: with the weights of each variable's two states, theirs too. */
export function sumBy(
  plan: EliminationOrder,
  off: (variable: number) => number,
  on: (variable: number) => number,
): Float64Array {
  const tables = [...plan.tables];
  for (const { variable, size, uses } of plan.steps) {
    const out = new Float64Array(size);
    const [a, b] = [off(variable), on(variable)];
    for (let s = 0; s < size; s++) {
      let [x, y] = [a, b];
      for (const { slot, places } of uses) {
        const t = nth(tables, slot);
        x *= doubleAt(t, intAt(places, s));
        y *= doubleAt(t, intAt(places, s + size));
      }
      out[s] = x + y;
    }
    tables.push(out);
  }
  const out = new Float64Array(2 ** plan.keep.length);
  for (let s = 0; s < out.length; s++) {
    let x = 1;
    plan.keep.forEach((v, i) => (x *= ((s >> i) & 1) === 1 ? on(v) : off(v)));
    for (const { slot, places } of plan.last) x *= doubleAt(nth(tables, slot), intAt(places, s));
    out[s] = x;
  }
  return out;
}
