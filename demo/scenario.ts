import { type CaseSummary, summaryOf } from '@core/answer/case-summary';
import { worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import type { Pack } from '@core/catalogue/pack';
import type { Fact } from '@core/facts/fact';
import { demoFacts } from './cases';
import { demoPack } from './catalogue';

export const SEED = 20260901;
export type Scenario = {
  format: 'hollow-sprocket-demo';
  pack: Pack;
  facts: Fact[];
  summaries: CaseSummary[];
};

/** The whole invented scenario, with the heads that its cases have on the rack. Deterministic: a test holds the shipped file against it. */
export function demoScenario(): Scenario {
  const [pack, facts] = [demoPack(), demoFacts(SEED)];
  const world = worldOf(catalogueOf(pack));
  const ids = [...new Set(facts.map((f) => f.case))];
  const summaries = ids.map((id) =>
    summaryOf(
      id,
      facts.filter((f) => f.case === id),
      world,
    ),
  );
  return { format: 'hollow-sprocket-demo', pack, facts, summaries };
}
