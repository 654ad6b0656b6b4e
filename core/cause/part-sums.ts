import { doubleAt, intAt, nth } from '@core/quantity/must';
import { type EliminationOrder, placesOf, planOf } from './eliminate';
import { type ConditionedModel, type CoupledPart, summed } from './infer';
import type { CauseModel } from './model';

/** A part of what was laid, summed down to some of its mechanisms, under a cause and the shares in which mechanisms are then at work. Sums of one cause are right but for one and the same factor. */
export type PartSum = (cause: number, shares: Float64Array) => Float64Array;
export type PartSums = (part: number, keep: readonly number[]) => PartSum;

/** Nothing but leaks at work, where a cause is asked for. */
export const LEAKS_ALONE = -1;
/** Parts of so many mechanisms are summed over all of their states at once, which all findings then share; greater ones by a plan for each. */
const TABLED = 12;

/** Sums of the parts of what was laid: many inspections ask for the same ones, and each is worked out once. */
export function partSums(model: CauseModel, conditioned: ConditionedModel): PartSums {
  const touching = conditioned.parts.map(
    ({ mechanisms }) => new Set(mechanisms.flatMap((m) => nth(model.touchedBy, m))),
  );
  const joints = conditioned.parts.map((part) =>
    part.mechanisms.length <= TABLED ? jointOf(part, conditioned.sound) : undefined,
  );
  const known = new Map<string, PartSum>();
  return (part, keep) => {
    const key = `${part} ${keep.join(' ')}`;
    let sum = known.get(key);
    if (!sum) {
      const joint = joints[part];
      const of = joint
        ? marginal(joint, nth(conditioned.parts, part).mechanisms, keep)
        : planned(planOf(nth(conditioned.parts, part).factors, keep), conditioned.sound);
      known.set(key, (sum = kept(of, nth(touching, part))));
    }
    return sum;
  };
}

/** Each cause once; one that sets off nothing of the part leaves it to the leaks. */
function kept(of: PartSum, touching: ReadonlySet<number>): PartSum {
  const known = new Map<number, Float64Array>();
  return (cause, shares) => {
    const who = touching.has(cause) ? cause : LEAKS_ALONE;
    let sum = known.get(who);
    if (!sum) known.set(who, (sum = of(who, shares)));
    return sum;
  };
}

const planned =
  (plan: EliminationOrder, sound: Float64Array): PartSum =>
  (_, shares) =>
    summed(plan, sound, shares);

/** Every state of a part's mechanisms, under each cause: bit i is the state of the i-th. */
function jointOf({ mechanisms, factors }: CoupledPart, sound: Float64Array): PartSum {
  const size = 2 ** mechanisms.length;
  const laid = new Float64Array(size).fill(1);
  for (const { vars, table } of factors) {
    const places = placesOf(mechanisms, vars);
    for (let s = 0; s < size; s++) laid[s] = doubleAt(laid, s) * doubleAt(table, intAt(places, s));
  }
  const known = new Map<number, Float64Array>();
  return (cause, shares) => {
    let joint = known.get(cause);
    if (joint) return joint;
    joint = new Float64Array(size);
    joint[0] = 1;
    mechanisms.forEach((m, i) => {
      const [off, on] = [1 - doubleAt(shares, m), doubleAt(shares, m) * doubleAt(sound, m)];
      const half = 2 ** i;
      for (let s = 0; s < half; s++) {
        joint[half + s] = doubleAt(joint, s) * on;
        joint[s] = doubleAt(joint, s) * off;
      }
    });
    for (let s = 0; s < size; s++) joint[s] = doubleAt(joint, s) * doubleAt(laid, s);
    known.set(cause, joint);
    return joint;
  };
}

function marginal(joint: PartSum, mechanisms: readonly number[], keep: readonly number[]): PartSum {
  const places = placesOf(mechanisms, keep);
  return (cause, shares) => {
    const all = joint(cause, shares);
    const out = new Float64Array(2 ** keep.length);
    for (let s = 0; s < all.length; s++)
      out[intAt(places, s)] = doubleAt(out, intAt(places, s)) + doubleAt(all, s);
    return out;
  };
}
