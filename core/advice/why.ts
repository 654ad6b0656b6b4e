import { likelyCause } from '@core/answer/verdict';
import { registryFor } from '@core/answer/world';
import type { RankedCause } from '@core/cause/rank';
import { textOf } from '@core/facts/read';
import { KINDS, sentKey } from '@core/facts/kinds';
import type { AnsweredQuestion, Case, Reason } from './advice';
import { missingEngine } from './missing';
import { withOutcomes } from './outcomes';

/** Causes named behind the likeliest, and the least share of one. */
const [OTHERS, LEAST] = [2, 0.05];
/** Parts that are asked for at most. */
const PARTS = 4;
/** Findings named against a guess, and the least weight of one, natural log. */
const [AGAINST, LEAST_NATS] = [2, 0.3];

/**
 * Why did it fail, is it the tensioner, whose fault is it: what is likeliest by what is known, what speaks against the guess,
 * what would settle most, and what to send in. A question is answered like a return: only less is known.
 */
export function adviseWhy(c: Case): AnsweredQuestion {
  const { a, state } = c;
  const keys = [
    'symptom',
    'fault.codes',
    'kit.fitted',
    'kit.fitted_odometer',
    'vehicle.odometer',
    'call.about',
  ];
  if (!a.engine) return missingEngine();
  const verdict = likelyCause(a);
  const looks = a.checks
    .flatMap((x) => x.inspections)
    .filter((l, i, all) => all.findIndex((m) => m.key === l.key && m.about === l.about) === i)
    .slice(0, OTHERS + 1)
    .map(({ key, about, minutes }) => ({ key, minutes, ...(about === undefined ? {} : { about }) }));
  if (!verdict)
    return {
      standing: 'open',
      lead: { code: 'why_open' },
      because: [],
      missing: [{ key: 'symptom', minutes: 1 }, ...looks],
      keys,
    };
  const others = a.ranking.causes
    .filter((r) => r.cause.key !== verdict.leader.key && r.probability >= LEAST)
    .slice(0, OTHERS)
    .map((r) => ({ wording: r.cause.wording, share: r.probability }));
  const because: Reason[] = [{ code: 'verdict', verdict, policy: a.policy }];
  const guess = guessed(textOf(state, 'call.about'), a.ranking.causes);
  if (guess) because.push(guess);
  if (a.kind === 'question' && verdict.share < a.policy.sureFrom.certain)
    because.push({ code: 'send', parts: partsToSend(c) });
  return {
    standing: verdict.open ? 'cannot' : 'if',
    lead: {
      code: 'why',
      cause: verdict.leader.wording,
      share: verdict.share,
      open: verdict.open,
      others,
      sureFrom: a.policy.sureFrom,
    },
    because,
    missing: withOutcomes(c, looks),
    keys,
  };
}

/** Parts on which a look would tell something, by what it would tell, as they are sent in. */
function partsToSend({ a, world }: Case): string[] {
  const registry = registryFor(world);
  const kinds = a.checks.flatMap((x) => x.inspections.map((i) => registry.get(i.key)?.part ?? ''));
  return [...new Set(kinds)]
    .filter((k) => KINDS.get(k)?.part)
    .map(sentKey)
    .slice(0, PARTS);
}

/** Causes of the part that they suspect, all together, and what was found that speaks against the likeliest. */
function guessed(
  part: string | undefined,
  causes: readonly RankedCause[],
): Extract<Reason, { code: 'guess' }> | undefined {
  if (part === undefined || part === 'kit') return undefined;
  const own = causes.filter((r) => r.cause.family === 'product' && r.cause.key.startsWith(part));
  const [first] = own;
  if (!first) return undefined;
  return {
    code: 'guess',
    part,
    share: own.reduce((n, r) => n + r.probability, 0),
    against: first.weights
      .filter((w) => w.nats <= -LEAST_NATS)
      .sort((x, y) => x.nats - y.nats)
      .slice(0, AGAINST),
  };
}
