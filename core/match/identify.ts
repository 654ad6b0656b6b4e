import { addDays, type Day, isDay } from '@core/quantity/dates';
import type { Fact } from '@core/facts/fact';
import { standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Catalogue } from '@core/catalogue/find-records';
import { featureKey } from '@core/catalogue/feature-observables';
import type { Variant } from '@core/catalogue/pack';

/** What people type into a free field when they do not know. */
const UNKNOWN: ReadonlySet<string> = new Set([
  'unknown',
  'not known',
  'n/a',
  'na',
  'none',
  '?',
  '-',
  '–',
  'skipped',
]);

/** Why a variant is ruled out, with the fact that did it. */
export type Exclusion =
  | { code: 'built_outside'; fact: Fact; from?: Day | undefined; to?: Day | undefined; slackDays: number }
  | { code: 'feature_differs'; fact: Fact; feature: string; seen: string; allowed: readonly string[] }
  | { code: 'market_differs'; fact: Fact; markets: readonly string[] }
  | { code: 'teeth_differ'; fact: Fact; seen: number; needed: number };

type VariantStanding = { variant: Variant; excludedBy: Exclusion[]; share: number };
export type Identification = {
  standings: VariantStanding[];
  possible: Variant[];
  /** Shares of the possible variants, same order, adding up to 1. */
  shares: number[];
  /** Every variant is excluded: facts contradict each other or the catalogue. */
  contradicted: boolean;
};

/** Variants of an engine against the facts. Unknown stays unknown: only a fact that says otherwise excludes. */
export function identify(cat: Catalogue, engine: string, state: State): Identification {
  const variants = cat.variantsOf.get(engine) ?? [];
  const standings = variants.map((variant) => ({
    variant,
    excludedBy: exclusions(cat, variant, state),
    share: 0,
  }));
  const open = standings.filter((s) => s.excludedBy.length === 0);
  const total = open.reduce((sum, s) => sum + s.variant.share, 0);
  for (const s of open) s.share = s.variant.share / total;
  return {
    standings,
    possible: open.map((s) => s.variant),
    shares: open.map((s) => s.share),
    contradicted: variants.length > 0 && open.length === 0,
  };
}

function exclusions(cat: Catalogue, v: Variant, state: State): Exclusion[] {
  const out: Exclusion[] = [];
  // Unknown excludes nothing: only what says something is read.
  const built = standing(state, 'vehicle.built');
  const day = textOf(state, 'vehicle.built');
  if (built && day !== undefined && isDay(day)) {
    const { from, to, slackDays } = v.built;
    const early = from !== undefined && day < addDays(from, -slackDays);
    const late = to !== undefined && day > addDays(to, slackDays);
    if (early || late) out.push({ code: 'built_outside', fact: built, from, to, slackDays });
  }
  for (const [feature, allowed] of Object.entries(v.features)) {
    const seen = textOf(state, featureKey(feature));
    const fact = standing(state, featureKey(feature));
    if (seen !== undefined && fact && !allowed.includes(seen)) {
      out.push({ code: 'feature_differs', fact, feature, seen, allowed });
    }
  }
  const market = standing(state, 'vehicle.market');
  const sold = textOf(state, 'vehicle.market')?.trim().toLowerCase();
  if (
    market &&
    sold !== undefined &&
    sold !== '' &&
    !UNKNOWN.has(sold) &&
    v.markets.length > 0 &&
    !v.markets.some((m) => m.toLowerCase() === sold)
  ) {
    out.push({ code: 'market_differs', fact: market, markets: v.markets });
  }
  const counted = standing(state, 'belt.teeth_count');
  const layout = v.layout === undefined ? undefined : cat.layouts.get(v.layout);
  if (
    counted &&
    layout?.kind === 'belt' &&
    typeof counted.value === 'number' &&
    counted.value !== layout.count
  ) {
    out.push({ code: 'teeth_differ', fact: counted, seen: counted.value, needed: layout.count });
  }
  return out;
}
