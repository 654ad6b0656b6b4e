import { monthsRun } from '@core/claim/terms';
import type { UsageSinceFitting } from '@core/examination/context';
import type { Registry } from '@core/facts/observable';
import { measuredOf, type Reading, standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { highest, surelyBelow } from '@core/quantity/judge';

/** What ran since the fitting. Readings or days that run backwards give nothing; that they do is told as a contradiction. */
export function usageSinceFitting(state: State, registry: Registry): UsageSinceFitting {
  const now = measuredOf(state, registry, 'vehicle.odometer');
  const then = measuredOf(state, registry, 'kit.fitted_odometer');
  const usage: UsageSinceFitting = {};
  const km = now && then && now.value - then.value;
  const u = now && then ? Math.hypot(now.u, then.u) : 0;
  // backwards by no more than both readings may be off is a short run
  if (now && then && km !== undefined && !surelyBelow({ value: km, u }, 0))
    usage.distance = {
      km: Math.max(0, km),
      u,
      facts: [now.fact.id, then.fact.id],
    };
  else if (now && then) usage.back = true;
  else {
    // Told as a distance of its own, where nobody read an odometer then.
    const run = measuredOf(state, registry, 'kit.run');
    if (run) usage.distance = { km: run.value, u: run.u, facts: run.facts.map((f) => f.id) };
  }
  const months = monthsRun(textOf(state, 'kit.fitted'), textOf(state, 'case.date'));
  if (months !== undefined && months >= 0) {
    const facts = ['kit.fitted', 'case.date'].flatMap((k) => standing(state, k)?.id ?? []);
    usage.time = { months, facts };
  }
  const most = atMost(state, now, usage);
  return most ? { ...usage, atMost: most } : usage;
}

/** What is known of a run of which the beginning is not: no more than the vehicle ran, no longer than it is old. */
function atMost(
  state: State,
  now: Reading | undefined,
  usage: UsageSinceFitting,
): UsageSinceFitting['atMost'] {
  const km =
    usage.distance || usage.back || !now || highest(now) <= 0
      ? undefined
      : { most: highest(now), facts: [now.fact.id] };
  const age = usage.time ? undefined : monthsRun(textOf(state, 'vehicle.built'), textOf(state, 'case.date'));
  const facts = ['vehicle.built', 'case.date'].flatMap((k) => standing(state, k)?.id ?? []);
  // Whole months are over by the next one.
  const months = age === undefined || age < 0 ? undefined : { most: age + 1, facts };
  return km || months ? { ...(km ? { km } : {}), ...(months ? { months } : {}) } : undefined;
}
