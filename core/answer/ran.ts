import { monthsRun } from '@core/claim/terms';
import type { Known } from '@core/bench/findings';
import type { Registry } from '@core/facts/observable';
import { measuredOf, standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';

/** Distance and time since fitting, with the facts that say so; u of the distance from both readings (JCGM 100, 5.1.2). */
export type Ran = {
  /** As evidence weighs it. */
  distance?: Known;
  time?: Known;
  km?: number;
  months?: number;
  facts: string[];
  u?: number;
  /** Both readings are here, and the later one is smaller. */
  back?: true;
};

/** What ran since the fitting. Readings or days that run backwards give nothing; that they do is told as a contradiction. */
export function ranSince(state: State, registry: Registry): Ran {
  const now = measuredOf(state, registry, 'vehicle.odometer');
  const then = measuredOf(state, registry, 'kit.fitted_odometer');
  const ran: Ran = { facts: [] };
  if (now && then && now.value >= then.value) {
    ran.km = now.value - then.value;
    const u = Math.hypot(now.u, then.u);
    if (u > 0) ran.u = u;
    ran.facts.push(now.fact.id, then.fact.id);
    ran.distance = { value: { kind: 'number', value: ran.km, u }, facts: [...ran.facts] };
  } else if (now && then) ran.back = true;
  const months = monthsRun(textOf(state, 'kit.fitted'), textOf(state, 'case.date'));
  if (months !== undefined && months >= 0) {
    ran.months = months;
    const facts = ['kit.fitted', 'case.date'].flatMap((k) => standing(state, k)?.id ?? []);
    ran.time = { value: { kind: 'number', value: months, u: 0 }, facts };
  }
  return ran;
}
