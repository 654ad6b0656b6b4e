import { monthsRun } from '@core/claim/terms';
import type { Ran } from '@core/bench/findings';
import type { Registry } from '@core/facts/observable';
import { measuredOf, standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';

/** What ran since the fitting. Readings or days that run backwards give nothing; that they do is told as a contradiction. */
export function ranSince(state: State, registry: Registry): Ran {
  const now = measuredOf(state, registry, 'vehicle.odometer');
  const then = measuredOf(state, registry, 'kit.fitted_odometer');
  const ran: Ran = {};
  if (now && then && now.value >= then.value)
    ran.distance = {
      km: now.value - then.value,
      u: Math.hypot(now.u, then.u),
      facts: [now.fact.id, then.fact.id],
    };
  else if (now && then) ran.back = true;
  const months = monthsRun(textOf(state, 'kit.fitted'), textOf(state, 'case.date'));
  if (months !== undefined && months >= 0) {
    const facts = ['kit.fitted', 'case.date'].flatMap((k) => standing(state, k)?.id ?? []);
    ran.time = { months, facts };
  }
  return ran;
}
