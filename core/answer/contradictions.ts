import { must, nth } from '@core/quantity/must';
import type { Engine, Variant } from '@core/catalogue/pack';
import { beyond } from '@core/catalogue/places';
import { isOfReport } from '@core/claim/seal';
import type { Place } from '@core/facts/place';
import type { Fact } from '@core/facts/fact';
import type { Registry } from '@core/facts/observable';
import { allStanding, measuredOf, spreadOf, standing } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { addDays } from '@core/quantity/dates';
import { surelyAbove, surelyBelow } from '@core/quantity/judge';
import { applies, type Possible } from './applies';
import { plainText } from '@core/facts/value';

/** Facts that cannot both be true, or cannot be true of this drive. Each names all facts that it is about. */
export type Contradiction =
  | { code: 'days_reversed'; facts: [Fact, Fact] }
  | { code: 'odometer_back'; facts: [Fact, Fact]; byKm: number }
  | { code: 'in_the_future'; facts: [Fact] }
  | { code: 'built_before_engine'; facts: [Fact]; engine: string; from: string }
  | { code: 'not_on_drive'; facts: [Fact] }
  | { code: 'cannot_be'; facts: [Fact]; min: number; max: number }
  | { code: 'beyond'; facts: [Fact]; place: Place; most: number }
  | { code: 'outlier'; facts: [Fact] }
  | { code: 'rivals'; facts: Fact[] };

/** Days that must not come before one another: what comes first, then what comes after. */
const ORDER = [
  ['kit.fitted', 'case.date'],
  ['vehicle.built', 'kit.fitted'],
  ['vehicle.built', 'case.date'],
] as const;

/** Everything in a case that contradicts itself, the calendar, the catalogue or the drive. */
export function contradictionsOf(
  state: State,
  registry: Registry,
  drive: Possible,
  engine: Engine | undefined,
  variants: readonly Variant[],
): Contradiction[] {
  const out: Contradiction[] = [];
  const day = (key: string) => {
    const f = standing(state, key);
    return f && typeof f.value === 'string' ? f : undefined;
  };
  for (const [first, then] of ORDER) {
    const [a, b] = [day(first), day(then)];
    if (a && b && plainText(b.value) < plainText(a.value)) out.push({ code: 'days_reversed', facts: [a, b] });
  }
  out.push(...odometer(state, registry));
  const layouts = drive.designs.flat().map((s) => s.layout);
  for (const { meaning, facts, place } of allStanding(state)) {
    const f = must(facts.at(-1));
    const most = place && beyond(place, layouts);
    if (place && most !== undefined) out.push({ code: 'beyond', facts: [f], place, most });
    const o = registry.get(meaning.key);
    if (!o) continue;
    // A day's difference may be the time zone's.
    if (o.type.kind === 'date' && plainText(f.value) > addDays(f.at.slice(0, 10), 1))
      out.push({ code: 'in_the_future', facts: [f] });
    if (!applies(o, drive, meaning.about)) out.push({ code: 'not_on_drive', facts: [f] });
    else if ((o.type.kind === 'count' || o.type.kind === 'number') && typeof f.value === 'number') {
      const { min, max } = o.type;
      const m = { value: f.value, u: f.u ?? 0 };
      if (surelyBelow(m, min) || surelyAbove(m, max)) out.push({ code: 'cannot_be', facts: [f], min, max });
    }
  }
  const built = day('vehicle.built');
  const from = earliest(variants);
  if (built && engine && from !== undefined && plainText(built.value) < from)
    out.push({ code: 'built_before_engine', facts: [built], engine: engine.code, from });
  for (const { meaning, facts, place } of allStanding(state)) {
    const m =
      facts.length > 2 && !place ? measuredOf(state, registry, meaning.key, meaning.about) : undefined;
    const far = m?.repeats.outlier;
    if (m && far !== undefined) out.push({ code: 'outlier', facts: [nth(m.facts, far)] });
  }
  // Reports that were issued one after the other do not contradict each other.
  for (const { facts, rivals } of allStanding(state))
    if (rivals.length > 0 && !isOfReport(nth(facts, 0)))
      out.push({ code: 'rivals', facts: [...facts, ...rivals] });
  return out;
}

/** Running back by more than both readings are uncertain by. */
function odometer(state: State, registry: Registry): Contradiction[] {
  const [now, then] = [standing(state, 'vehicle.odometer'), standing(state, 'kit.fitted_odometer')];
  if (typeof now?.value !== 'number' || typeof then?.value !== 'number') return [];
  const byKm = then.value - now.value;
  const u = Math.hypot(spreadOf(now, registry), spreadOf(then, registry));
  return surelyAbove({ value: byKm, u }, 0) ? [{ code: 'odometer_back', facts: [then, now], byKm }] : [];
}

/** First day on which any design of an engine was built; undefined when one of them is open. */
function earliest(variants: readonly Variant[]): string | undefined {
  if (variants.length === 0) return undefined;
  const from = variants.map((v) =>
    v.built.from === undefined ? undefined : addDays(v.built.from, -v.built.slackDays),
  );
  return from.includes(undefined) ? undefined : (from as string[]).sort()[0];
}
