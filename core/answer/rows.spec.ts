import { demoFacts } from '../../demo/cases';
import { demoPack } from '../../demo/catalogue';
import { SEED } from '../../demo/scenario';
import { catalogueOf } from '@core/catalogue/find-records';
import type { CauseData, FindingSpec } from '@core/cause/cause-data';
import { fileFact, type NewFact } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import { readFactLine } from '@core/facts/fact-line';
import { type Observable, ObservableSchema } from '@core/facts/observable';
import { reduce } from '@core/facts/state';
import { answersFor } from './answers';
import { movedBy } from './difference';
import { groupsByPart } from './groups';
import { countInspections } from './inspection-count';
import { nameWorld, registryFor, type World, worldOf } from './world';

const shipped = worldOf(catalogueOf(demoPack()));
let n = 0;
const author: Author = {
  by: 'T',
  now: () => new Date(Date.UTC(2027, 0, 1) + ++n * 1000).toISOString(),
  newId: () => `r${++n}`,
};
const caseOf = (tag: string) => demoFacts(SEED).filter((f) => f.case === `demo-${tag}`);
const plus = (facts: readonly Fact[], entry: NewFact): Fact[] => [
  ...facts,
  fileFact(reduce(facts), facts[0]!.case, entry, author),
];

const graded: Observable = ObservableSchema.parse({
  key: 'guide.shade',
  wording: 'Colour of the guide',
  aliases: ['guide shade'],
  part: 'guide',
  station: 'examine',
  needs: ['chain'],
  type: {
    kind: 'choice',
    options: [
      { key: 'pale', wording: 'Pale' },
      { key: 'burnt', wording: 'Burnt' },
    ],
  },
  how: 'seen',
  minutes: 1,
});
const measured: Observable = ObservableSchema.parse({
  key: 'guide.gap',
  wording: 'Gap at the guide',
  aliases: ['guide gap'],
  part: 'guide',
  station: 'examine',
  needs: ['chain'],
  type: { kind: 'number', dimension: 'length', unit: 'mm', decimals: 1, min: 0, max: 20, u: 0.1 },
  how: 'measured',
  minutes: 2,
});
const specs: FindingSpec[] = [
  { finding: 'guide.shade', sound: ['pale'], off: { burnt: 0.02 } },
  {
    finding: 'guide.gap',
    sound: ['close'],
    off: { wide: 0.02 },
    edges: [0, 3, 20],
    grades: ['close', 'wide'],
  },
];
const SHOWS = { 'guide.shade': { burnt: 0.6 }, 'guide.gap': { wide: 0.7 } };
const { causes } = shipped.knowledge;
const taught: CauseData = {
  ...causes,
  findings: [...causes.findings, ...specs],
  mechanisms: causes.mechanisms.map((m) =>
    m.key === 'guide_worn_face' ? { ...m, shows: { ...m.shows, ...SHOWS } } : m,
  ),
};
/** The world that ships, with two observables and their evidence more: rows of data and nothing else. */
const grown: World = {
  ...shipped,
  knowledge: {
    ...shipped.knowledge,
    observables: [...shipped.knowledge.observables, graded, measured],
    causes: taught,
  },
};

describe('an observable, its finding and its weight that are added as rows', () => {
  const chain = caseOf('2036');
  const share = (facts: readonly Fact[]) =>
    answersFor(grown, reduce(facts)).ranking.causes.find((c) => c.cause.key === 'guide_worn')!.probability;

  it('are asked for on the drives that have it, at their part, by the fact line, and as checks worth making', () => {
    const a = answersFor(grown, reduce(chain));
    const guide = groupsByPart(a.registry, 'examine', a.possible, a.things).find((g) => g.kind === 'guide')!;
    expect(guide.fields.map((o) => o.key)).toEqual(jasmine.arrayContaining(['guide.shade', 'guide.gap']));
    const looks = (world: World) => {
      const b = answersFor(world, reduce(chain));
      return countInspections(b.registry, reduce(chain), b.possible, 'examine', b.things).open.length;
    };
    expect(looks(grown)).toBe(looks(shipped) + 2);
    expect(a.checks.map((c) => c.finding)).toEqual(jasmine.arrayContaining(['guide.shade', 'guide.gap']));
    const belt = answersFor(grown, reduce(caseOf('2027')));
    const onBelt = groupsByPart(belt.registry, 'examine', belt.possible, belt.things).flatMap(
      (g) => g.fields,
    );
    expect(onBelt.map((o) => o.key)).not.toContain('guide.gap');
    const line = readFactLine('guide gap 5.2', registryFor(grown), {
      notation: { dateOrder: 'dmy', units: {} },
      today: '2026-11-25',
      wheels: [],
      findRef: () => undefined,
      nearestRefs: () => [],
      most: () => undefined,
    });
    expect(line).toEqual(jasmine.objectContaining({ ok: true }));
  });

  it('weigh as their rows say, graded and measured, are told as moved, and name another knowledge', () => {
    const before = share(chain);
    const odds = (p: number) => p / (1 - p);
    const burnt = plus(chain, { key: 'guide.shade', value: 'burnt', how: 'seen' });
    expect(odds(share(burnt)) / odds(before)).toBeGreaterThan(1.3);
    const gap = (value: number, u: number) =>
      share(plus(chain, { key: 'guide.gap', value, u, how: 'measured' }));
    expect(odds(gap(5, 0.1)) / odds(before)).toBeGreaterThan(1.3);
    expect(gap(1, 0.1)).toBeLessThan(before);
    // half in one band and half in the other says something between the two
    expect(gap(3, 0.5)).toBeGreaterThan(gap(1, 0.1));
    expect(gap(3, 0.5)).toBeLessThan(gap(5, 0.1));
    expect(movedBy(grown, burnt, burnt.at(-1)!).map((d) => d.of)).toContain('guide_worn');
    expect(share(plus(chain, { key: 'guide.shade', value: 'pale', how: 'seen' }))).toBeLessThan(before);
    expect(nameWorld(grown).knowledge).not.toBe(nameWorld(shipped).knowledge);
    expect(nameWorld(grown).catalogue).toBe(nameWorld(shipped).catalogue);
  });
});

describe('measurements at places', () => {
  it('weigh as the largest of them, in whatever order they were taken, and as the edges of its bands say', () => {
    const chain = caseOf('2036');
    const at = (from: number, value: number): NewFact => ({
      key: 'guide.groove',
      place: { on: 'station', from },
      value,
      u: 0.05,
      how: 'measured',
    });
    const weight = (entries: readonly NewFact[]) =>
      answersFor(shipped, reduce(entries.reduce(plus, chain)))
        .ranking.causes.find((c) => c.cause.key === 'guide_worn')!
        .weights.find((w) => w.finding === 'guide.groove');
    const deep = weight([at(10, 0.3), at(40, 3.2), at(90, 1.1)])!;
    expect(deep.value).toEqual({ x: 3.2, u: 0.05 });
    expect(weight([at(40, 3.2), at(90, 1.1), at(10, 0.3)])!.nats).toBe(deep.nats);
    expect(deep.nats).toBeGreaterThan(0);
    expect(weight([at(10, 0.3)])!.nats).toBeLessThan(0);
    expect(weight([])).toBeUndefined();
  });
});

describe('a run of which only the end is known', () => {
  const bare = caseOf('2027').filter(
    (f) => f.key !== 'kit.fitted_odometer' && f.key !== 'kit.fitted' && !f.key.startsWith('report.'),
  );
  const weights = (facts: readonly Fact[]) =>
    answersFor(shipped, reduce(facts))
      .ranking.causes.find((c) => c.cause.key === 'tooth_out')!
      .weights.filter((w) => w.finding.endsWith('.run'));

  it('weighs as at most so far, less than the exact run, and not at all when nothing is known', () => {
    const now = plus(bare, { key: 'vehicle.odometer', value: 3000, u: 100, how: 'reported' });
    const [km] = weights(now).filter((w) => w.finding === 'distance.run');
    expect(km!.value).toEqual({ from: 0, to: 3200 });
    const both = plus(now, { key: 'kit.fitted_odometer', value: 1000, u: 100, how: 'reported' });
    const [exact] = weights(both).filter((w) => w.finding === 'distance.run');
    expect(exact!.value).toEqual({ x: 2000, u: Math.hypot(100, 100) });
    const none = bare.filter((f) => !['vehicle.odometer', 'vehicle.built', 'case.date'].includes(f.key));
    expect(weights(none)).toEqual([]);
  });
});
