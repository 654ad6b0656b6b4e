import { noCauseOf } from '@core/cause/cause-data';
import type { NewFact } from '@core/facts/change';
import { valueOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { CostKind } from '@core/catalogue/plan';
import { costThing, faultThing } from '@core/facts/thing';
import { type Result, err, ok } from '@core/quantity/result';
import type { Answers } from './answers';

export type DecideError =
  /** Anything but the leader needs a reason, which is kept. */
  | { code: 'needs_reason'; cause: string; leader: string }
  | { code: 'no_such_cause'; key: string }
  | { code: 'no_such_fault'; key: string };

/** The fact that decides a cause, standing on everything that was weighed for or against it. */
export function decideCause(a: Answers, key: string, reason: string): Result<NewFact, DecideError> {
  const leader = a.ranking.causes[0]?.cause.key;
  const chosen = a.ranking.causes.find((c) => c.cause.key === key);
  if (!chosen && !noCauseOf(key)) return err({ code: 'no_such_cause', key });
  const note = reason.trim();
  if (key !== leader && note === '')
    return err({ code: 'needs_reason', cause: key, leader: leader ?? 'none' });
  // that nothing can be decided stands on all that was weighed
  const weighed = chosen ?? a.ranking.causes[0];
  const basis = [...new Set(weighed?.weights.flatMap((w) => w.facts) ?? [])];
  return ok({ key: 'cause.decided', value: key, how: 'decided', basis, ...(note ? { note } : {}) });
}

/** A line of cost as it was typed; money and quantity in base units, shares of 1. */
export type CostTyped = {
  what: string;
  kind: CostKind;
  quantity: number;
  rate: number;
  tax?: number | undefined;
  share?: number | undefined;
};

const COST_KEYS = ['what', 'kind', 'quantity', 'rate', 'tax', 'share'] as const;
/** The facts of a line of cost: a new one, or what of one that stands is otherwise now; what was left blank is unknown then. */
export function costFacts(id: string, typed: CostTyped, state?: State): NewFact[] {
  const about = costThing(id);
  return COST_KEYS.flatMap((name): NewFact[] => {
    const key = `cost.${name}`;
    const value = typed[name] === '' ? undefined : typed[name];
    const stands = state && valueOf(state, key, about);
    if (value === stands) return [];
    const how = name === 'share' ? 'decided' : 'document';
    return [{ key, value: value ?? { none: 'unknown' }, how, about }];
  });
}

/** The fact that records an installation fault against the claim: the step that was missed, on the evidence there is. */
export function recordFault(a: Answers, code: string): Result<NewFact, DecideError> {
  const found = a.faults.find((f) => f.fault.code === code);
  if (!found) return err({ code: 'no_such_fault', key: code });
  return ok({
    key: 'claim.fault',
    about: faultThing(code),
    value: found.step?.id ?? 'step not known',
    how: 'decided',
    basis: [...found.evidence],
  });
}
