import { measuredOf } from '@core/facts/read';
import { chancesOf, surelyBelow } from '@core/quantity/judge';
import type { ExaminationContext } from './context';
import { type Finding, gradeValue } from './finding';

const side = (limit: number) => (km: number) => (km > limit ? ('past' as const) : ('within' as const));

/** Past its interval by time or by distance, by how likely each is; within only as far as both are known to be. */
export function intervalRun({ interval, usage }: ExaminationContext): Finding[] {
  if (!interval) return [];
  const { distance, time } = usage;
  const facts = [...(distance?.facts ?? []), ...(time?.facts ?? [])];
  if (facts.length === 0) return [];
  const far = distance ? (chancesOf({ value: distance.km, u: distance.u }, side(interval.km)).past ?? 0) : 0;
  const past = time !== undefined && time.months > interval.months ? 1 : far;
  const value = gradeValue({ past, within: 1 - past });
  return value === undefined ? [] : [{ finding: 'interval.run', value, facts }];
}

/** Oil older than a house lets it grow, by the distance since it was changed. */
export function oilInterval({ state, registry, oilKm }: ExaminationContext): Finding[] {
  const now = measuredOf(state, registry, 'vehicle.odometer');
  const changed = measuredOf(state, registry, 'oil.changed_at');
  if (!now || !changed) return [];
  const since = { value: now.value - changed.value, u: Math.hypot(now.u, changed.u) };
  if (surelyBelow(since, 0)) return [];
  const value = gradeValue(chancesOf(since, side(oilKm)));
  const facts = [...now.facts, ...changed.facts].map((f) => f.id);
  return value === undefined ? [] : [{ finding: 'oil.interval', value, facts }];
}

/** Ran since fitting, by all the distances that two readings may lie apart; an odometer counts whole kilometres. */
export function distanceRun({ usage, state, registry }: ExaminationContext): Finding[] {
  const { distance, atMost } = usage;
  // a life ends where the trouble began, and not where somebody had it seen to
  const [began, fitted] = ['noise.began_at', 'kit.fitted_odometer'].map((k) =>
    measuredOf(state, registry, k),
  );
  const until = began && fitted && began.value - fitted.value;
  if (began && fitted && until !== undefined) {
    const u = Math.max(1, Math.hypot(began.u, fitted.u));
    const facts = [...began.facts, ...fitted.facts].map((f) => f.id);
    if (!surelyBelow({ value: until, u }, 0))
      return [{ finding: 'distance.run', value: { x: Math.max(0, until), u }, facts }];
  }
  if (distance) {
    const { km, u, facts } = distance;
    return [{ finding: 'distance.run', value: u > 0 ? { x: km, u } : { from: km, to: km + 1 }, facts }];
  }
  const most = atMost?.km;
  return most ? [{ finding: 'distance.run', value: { from: 0, to: most.most }, facts: most.facts }] : [];
}

/** Whole months say no more than that it was between them and one more. */
export function timeRun({ usage }: ExaminationContext): Finding[] {
  const { time, atMost } = usage;
  if (time)
    return [{ finding: 'time.run', value: { from: time.months, to: time.months + 1 }, facts: time.facts }];
  const most = atMost?.months;
  return most ? [{ finding: 'time.run', value: { from: 0, to: most.most }, facts: most.facts }] : [];
}
