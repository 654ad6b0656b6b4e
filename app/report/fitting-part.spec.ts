import type { Content } from 'pdfmake/interfaces';
import { demoPack } from '../../demo/catalogue';
import { type Answers, answersFor } from '@core/answer/answers';
import { worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { featureKey } from '@core/catalogue/feature-observables';
import { fileFacts, type NewFact } from '@core/facts/change';
import { reduce } from '@core/facts/state';
import { fittingPart, piecesPart } from './fitting-part';

const world = worldOf(catalogueOf(demoPack()));
let n = 0;
const author = {
  by: 'T',
  now: () => new Date(Date.UTC(2026, 0, 1) + ++n).toISOString(),
  newId: () => `f${++n}`,
};
const CHAIN: NewFact[] = [
  { key: 'engine.code', value: 'QU13-STOA', how: 'reported' },
  { key: featureKey('plunger-cap'), value: 'screw', how: 'seen' },
];
const on = (...more: NewFact[]): Answers =>
  answersFor(world, reduce(fileFacts(reduce([]), 'c', [...CHAIN, ...more], author)));
const heading = (text: string): Content => ({ text });
const textOf = (part: unknown): string => JSON.stringify(part);
const told = (step: string, value: string): NewFact => ({
  about: `step:${step}`,
  key: 'step.done',
  value,
  how: 'reported',
});

describe('the fitting in the report', () => {
  it('is left out while nobody said anything of it', () => {
    expect(fittingPart(on(), heading).length).toBe(0);
    expect(piecesPart(on(), heading).length).toBe(0);
  });

  it('names faults with their steps, the house rules, and what nobody confirmed once a sheet came back', () => {
    const a = on(told('build.release.crank', 'skipped'), told('ready.info', 'done'));
    const text = textOf(fittingPart(a, heading));
    const step = a.sheet!.steps.find((s) => s.id === 'build.release.crank')!;
    expect(text).toContain('REL-NONE');
    expect(text).toContain(`step ${step.number}`);
    expect(text).toContain(`2 of ${a.sheet!.steps.length} steps`);
    expect(text).toContain('Shafts are locked with the proper tools only.');
    expect(text).not.toContain('Not confirmed');
    const back = on(
      { key: 'fit.sheet_back', value: 'x y 2 of 33 steps', how: 'document', series: 'sheets' },
      told('ready.info', 'done'),
    );
    const said = textOf(fittingPart(back, heading));
    expect(said).toContain('Nothing in them speaks of a fault.');
    expect(said).toContain('evidence of nothing: steps 2, 3');
  });

  it('obliges to open the sump only where a piece is surely missing', () => {
    const piece = (from: number, value: number): NewFact => ({
      key: 'guide.piece_mass',
      place: { on: 'piece', from },
      value,
      how: 'measured',
    });
    const fresh: NewFact = { key: 'guide.new_mass', value: 80, how: 'measured' };
    const missing = on(fresh, piece(1, 60));
    expect(missing.balances.map((b) => b.verdict)).toEqual(['missing']);
    expect(textOf(piecesPart(missing, heading))).toContain('open the sump');
    const unsure = on(fresh, piece(1, 60), piece(2, 19.5));
    expect(unsure.balances.map((b) => b.verdict)).toEqual(['cannot_tell']);
    expect(textOf(piecesPart(unsure, heading))).not.toContain('open the sump');
    // Surely missing speaks for a broken guide; what cannot be told hardly speaks.
    const weight = (a: Answers) =>
      a.ranking.causes
        .find((c) => c.cause.key === 'guide_brittle')!
        .weights.find((w) => w.finding === 'guide.material')?.nats;
    expect(weight(missing)).toBeGreaterThan(1);
    // Complete takes an exact mass of the new one.
    const exact = on({ ...fresh, u: 0.05 }, piece(1, 60), piece(2, 19.9));
    expect(exact.balances.map((b) => b.verdict)).toEqual(['complete']);
    expect(weight(exact)).toBeLessThan(weight(unsure)!);
    expect(Math.abs(weight(unsure)!)).toBeLessThan(weight(missing)! / 5);
  });
});
