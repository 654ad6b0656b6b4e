import { featureKey } from '@core/catalogue/feature-observables';
import { APART, inputsOf } from '@core/cause/cause-data';
import { modelOf } from '@core/cause/model';
import type { CaseKind } from '@core/facts/observable';
import { has } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { nth } from '@core/quantity/must';
import type { Answers } from './answers';
import { weighsCauses } from './case-kind';

/** What an answer to a question is good for. */
export type WhyAsked =
  /** It parts designs that are still possible, by their names. */
  | { use: 'designs'; designs: string[] }
  /** It weighs on these causes, the likeliest first, and on so many more; where it does so only together with others, what is still to be known; `open`: which drive it is, too. */
  | { use: 'causes'; causes: string[]; more: number; together: string[]; open: boolean }
  /** It weighs on every cause: what is noticed, how far it ran. */
  | { use: 'every_cause' }
  /** Terms of the kit leave out by it. */
  | { use: 'terms' }
  /** Nothing of this kind is settled without it. */
  | { use: 'needed'; kinds: CaseKind[] };

/** Causes that are named. */
const NAMED = 3;

/** What the answer to a question would be good for in this case; nothing where it is only kept. */
export function whyAsked(
  key: string,
  a: Pick<Answers, 'registry' | 'causes' | 'ranking' | 'identification' | 'kit' | 'variant'>,
  state: State,
): WhyAsked[] {
  const out: WhyAsked[] = [];
  const designs = parts(key, a.identification?.possible ?? []);
  if (designs.length > 1) out.push({ use: 'designs', designs });
  // Of a question no causes are weighed.
  const causes = weighsCauses(state) ? weighsOn(key, a, state) : undefined;
  if (causes) out.push(causes);
  if (a.kit?.terms.excludes?.some((e) => e.key === key)) out.push({ use: 'terms' });
  const kinds = a.registry.get(key)?.needed ?? [];
  if (out.length === 0 && kinds.length > 0) out.push({ use: 'needed', kinds: [...kinds] });
  return out;
}

/** Designs that the answer to a feature would part: none where all of them would answer alike. */
function parts(
  key: string,
  possible: readonly { name: string; features: Readonly<Record<string, readonly string[]>> }[],
): string[] {
  const answers = possible.flatMap((v) => {
    const own = Object.entries(v.features).find(([f]) => featureKey(f) === key);
    return own ? [{ name: v.name, says: [...own[1]].sort().join() }] : [];
  });
  return new Set(answers.map((x) => x.says)).size > 1 ? answers.map((x) => x.name) : [];
}

/** Causes that set off anything that the answer would show: alone where it can, else together with what else has to be known for it. */
function weighsOn(
  key: string,
  { causes: data, ranking, registry, variant }: Pick<Answers, 'causes' | 'ranking' | 'registry' | 'variant'>,
  state: State,
): WhyAsked | undefined {
  if (Object.values(APART).some((x) => (x.inputs as readonly string[]).includes(key)))
    return { use: 'every_cause' };
  const model = modelOf(data);
  const shows = [...model.findings].flatMap(([finding, node]) => {
    const inputs = inputsOf(data, finding);
    if (!inputs.includes(key)) return [];
    const lacking = inputs.filter((k) => k !== key && !has(state, k));
    return [{ lacking, reached: node.reach.flatMap((grade) => [...grade]) }];
  });
  const alone = shows.filter((s) => s.lacking.length === 0);
  const used = alone.length > 0 ? alone : shows;
  const reached = new Set(used.flatMap((s) => s.reached));
  if (reached.size === 0) return undefined;
  const likely = new Map(ranking.causes.map((c) => [c.cause.key, c.probability]));
  const sorted = [...reached]
    .map((i) => nth(model.causes, i))
    .sort((x, y) => (likely.get(y.key) ?? 0) - (likely.get(x.key) ?? 0));
  const together = alone.length > 0 ? [] : [...new Set(used.flatMap((s) => s.lacking))];
  return {
    use: 'causes',
    causes: sorted.slice(0, NAMED).map((c) => c.wording),
    more: Math.max(0, sorted.length - NAMED),
    together: together.map((k) => registry.get(k)?.wording ?? k),
    open: variant === undefined,
  };
}
