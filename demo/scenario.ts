import type { Pack } from '@core/catalogue/pack';
import type { Fact } from '@core/facts/fact';
import { demoFacts } from './cases';
import { demoPack } from './catalogue';

export const SEED = 20260901;
export type Scenario = {
  format: 'hollow-sprocket-demo';
  /** As the house signs its letters. */
  house: string;
  pack: Pack;
  facts: Fact[];
};

/** The whole invented scenario. Deterministic: a test holds the shipped files against it. */
export const demoScenario = (): Scenario => ({
  format: 'hollow-sprocket-demo',
  house: 'Marrowfen Drive Parts\nReturns desk, Sluice House\nAldmere Fen',
  pack: demoPack(),
  facts: demoFacts(SEED),
});
