import { catalogueLimit, newParts } from './catalogue-limit';
import { inspectionsOf, nextInspection, possibleInspections } from './examination';
import { EXAMINATIONS, type Inspection } from './examination-data';
import { stackDifference, slotAngle, stackUps } from './stack-ups';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Kit, Part } from '@core/catalogue/pack';
import type { Layout } from '@core/drive/layout';
import { KINDS } from '@core/facts/kinds';
import { type Observable, optionsOf, registryOf } from '@core/facts/observable';
import { silent } from '@core/facts/silence';
import { OBSERVABLES } from '@core/facts/registry';
import { reduce } from '@core/facts/state';
import type { Fact } from '@core/facts/fact';
import { normalFrom, randomFrom } from '@core/quantity/random';

const registry = registryOf(OBSERVABLES);
let serial = 0;
const fact = (key: string, value: Fact['value'], more: Partial<Fact> = {}): Fact => ({
  id: `x${++serial}`,
  case: 'c',
  key,
  value,
  how: 'measured',
  by: 'me',
  at: `2026-11-01T08:00:0${serial % 10}.000Z`,
  ...more,
});
const possible = (looks: readonly Inspection[], applies: (o: Observable) => boolean = () => true) =>
  possibleInspections(new Map([['x', { inspections: looks }]]), registry, applies).get('x')!;
const all = [...EXAMINATIONS.values()].flatMap((e) => e.inspections);

const TOLD = new Set([
  'packing.fitted',
  'packing.damage',
  'tensioner.set_pinned',
  'cover.broken_from',
  'noise.when',
  'noise.lasts',
  'noise.onset',
]);

describe('guided examination', () => {
  it('names every look at a part once, at its kind, and holds it only behind earlier looks at the same kind', () => {
    for (const { kind, inspections: looks } of EXAMINATIONS.values()) {
      expect(KINDS.has(kind)).withContext(kind).toBeTrue();
      looks.forEach((l, i) => {
        expect(registry.get(l.key)?.part).withContext(l.key).toBe(kind);
        for (const before of l.after ?? [])
          expect(looks.slice(0, i).some((x) => x.key === before))
            .withContext(`${l.key} after ${before}`)
            .toBeTrue();
      });
    }
    expect(new Set(all.map((l) => l.key)).size).toBe(all.length);
    const asked = OBSERVABLES.filter((o) => o.station === 'examine' && !o.hidden && o.how !== 'computed');
    expect(asked.filter((o) => !all.some((l) => l.key === o.key)).map((o) => o.key)).toEqual([]);
    expect(asked.length).toBeGreaterThanOrEqual(200);
  });

  it('can tell good from bad wherever a choice is looked at, and says how wherever it is measured in a unit', () => {
    for (const { key } of all) {
      const o = registry.get(key)!;
      if (o.type.kind !== 'choice' || ['tensioner.key_turn', 'chain.gauge'].includes(key)) continue;
      // what happened to the box, how a noise is heard: neither good nor bad of itself
      if (TOLD.has(o.key)) continue;
      const plain = optionsOf(o).filter((x) => !x.abnormal && x.key !== 'unknown');
      const bad = optionsOf(o).filter((x) => x.abnormal);
      expect(bad.length).withContext(key).toBeGreaterThan(0);
      if (!o.place) expect(plain.length).withContext(key).toBeGreaterThan(0);
    }
  });

  it('holds a look until those it destroys are done or passed over, and goes on to the next open one', () => {
    const looks = EXAMINATIONS.get('tensioner')!.inspections.filter((l) =>
      ['tensioner.extension', 'tensioner.overall', 'tensioner.backdrive', 'tensioner.bore'].includes(l.key),
    );
    const statuses = (...facts: Fact[]) => inspectionsOf(possible(looks), reduce(facts)).map((l) => l.status);
    const ext = fact('tensioner.extension', 7.4);
    const over = fact('tensioner.overall', silent('notExamined'));
    const back = fact('tensioner.backdrive', 'holds', { how: 'seen' });
    expect(statuses()).toEqual(['open', 'open', 'held', 'held']);
    expect(statuses(ext)).toEqual(['done', 'open', 'held', 'held']);
    expect(statuses(ext, over)).toEqual(['done', 'skipped', 'open', 'held']);
    expect(statuses(ext, over, back)).toEqual(['done', 'skipped', 'done', 'open']);
    const answers = inspectionsOf(possible(looks), reduce([ext, over]));
    expect(nextInspection(answers)?.inspection.key).toBe('tensioner.backdrive');
    expect(nextInspection(answers, 'tensioner.backdrive')?.inspection.key).toBe('tensioner.backdrive');
    expect(answers.find((a) => a.inspection.key === 'tensioner.bore')!.first.map((o) => o.key)).toEqual([
      'tensioner.backdrive',
    ]);
    // what a drive has not got holds nothing back
    const noOverall = inspectionsOf(
      possible(looks, (o) => o.key !== 'tensioner.overall'),
      reduce([ext]),
    );
    expect(noOverall.map((l) => l.status)).toEqual(['done', 'open', 'held']);
    expect(nextInspection([])).toBeUndefined();
  });

  it('looks at one thing say nothing of another', () => {
    const looks = EXAMINATIONS.get('belt')!.inspections.slice(0, 3);
    const state = reduce([fact(looks[0]!.key, 'straight', { about: 'belt-2', how: 'seen' })]);
    expect(inspectionsOf(possible(looks), state).map((l) => l.status)).toEqual(['open', 'open', 'open']);
    expect(inspectionsOf(possible(looks), state, 'belt-2')[0]!.status).toBe('done');
  });
});

describe('the new part as limit', () => {
  const part = (number: string, kind: Part['kind'], attributes: Part['attributes']): Part => ({
    number,
    kind,
    name: number,
    attributes,
  });
  const parts = [
    part('A', 'belt', { widthMm: 22, teeth: 121 }),
    part('B', 'belt', { widthMm: 20, teeth: 121 }),
    part('C', 'idler', { outsideMm: 58 }),
  ];
  const cat = { parts: new Map(parts.map((p) => [p.number, p])) } as unknown as Catalogue;
  const kit = (...numbers: string[]) =>
    ({ contents: numbers.map((n) => ({ part: n, quantity: 1 })) }) as unknown as Kit;

  it('comes of the number on it, else of the kit, a guide roller being an idler there', () => {
    expect(newParts(cat, kit('A', 'B', 'C'), 'belt', undefined).map((p) => p.number)).toEqual(['A', 'B']);
    expect(newParts(cat, kit('A', 'B'), 'belt', 'B').map((p) => p.number)).toEqual(['B']);
    expect(newParts(cat, kit('A', 'C'), 'roller', undefined).map((p) => p.number)).toEqual(['C']);
    expect(newParts(cat, undefined, 'belt', undefined)).toEqual([]);
    // a number that the catalogue has not got leaves the kit's
    expect(newParts(cat, kit('A'), 'belt', 'ZZ').map((p) => p.number)).toEqual(['A']);
  });

  it('judges with the uncertainty: within, not, or cannot tell; and says nothing where parts differ', () => {
    const of = (value: number, u: number) => catalogueLimit([parts[0]!], 'widthMm', { value, u })?.within;
    expect(of(21.8, 0.05)).toBeTrue();
    expect(of(21.2, 0.05)).toBeFalse();
    expect(of(21.5, 0.05)).toBeUndefined();
    // at the very edge, read without doubt
    expect(of(21.5, 0)).toBeTrue();
    expect(of(22.5, 0)).toBeTrue();
    expect(catalogueLimit(parts.slice(0, 2), 'widthMm')).toBeUndefined();
    expect(catalogueLimit(parts.slice(0, 2), 'teeth', { value: 120, u: 0 })).toEqual({
      part: 'A',
      nominal: 121,
      tolerance: 0,
      within: false,
      chance: 0,
    });
    expect(catalogueLimit([parts[2]!], 'widthMm')).toBeUndefined();
  });
});

describe('stack-ups', () => {
  it('a difference carries both uncertainties, and is judged against its window', () => {
    const d = stackDifference({ value: 62.4, u: 0.03 }, { value: 55, u: 0.04 }, { from: 3, to: 9 });
    expect(d.value).toBeCloseTo(7.4, 9);
    expect(d.u).toBeCloseTo(0.05, 9);
    expect(d.verdict).toBe('within');
    expect(
      stackDifference({ value: 64.05, u: 0.03 }, { value: 55, u: 0.04 }, { from: 3, to: 9 }).verdict,
    ).toBe('cannot_tell');
    expect(stackDifference({ value: 70, u: 0.03 }, { value: 55, u: 0.04 }, { from: 3, to: 9 }).verdict).toBe(
      'outside',
    );
    // against a simulation of both readings: 20,000 draws, u within 3 %
    const random = randomFrom(7);
    const normal = () => normalFrom(random);
    const draws = Array.from({ length: 20_000 }, () => 62.4 + 0.03 * normal() - (55 + 0.04 * normal()));
    const mean = draws.reduce((a, b) => a + b) / draws.length;
    const sd = Math.sqrt(draws.reduce((a, b) => a + (b - mean) ** 2, 0) / draws.length);
    expect(Math.abs(sd / d.u - 1)).toBeLessThan(0.03);
  });

  it('a slot’s travel is an arc: a quarter of its circle is a quarter turn', () => {
    expect(slotAngle({ value: (Math.PI / 2) * 20, u: 0.1 }, 20).value).toBeCloseTo(90, 9);
    expect(slotAngle({ value: 1, u: 0.2 }, 20).u).toBeCloseTo((0.2 / 20) * (180 / Math.PI), 12);
  });

  it('are made of what was read of each thing, and of the drive as far as it says', () => {
    const slots = { radiusMm: 20, halfMm: 4 };
    const layout = { wheels: [{ slots }, { slots }] } as unknown as Layout;
    const facts = [
      fact('tensioner.overall', 62.4, { about: 't2', u: 0.03 }),
      fact('tensioner.body', 55, { about: 't2', u: 0.04 }),
      fact('tensioner.overall', 60),
      fact('sprocket.slot_travel', 1.5, { u: 0.1 }),
    ];
    const [slot, out] = stackUps(reduce(facts), registry, [layout], ['t2']);
    expect([slot!.kind, slot!.about, slot!.leftMm!.value]).toEqual(['slot', '', 2.5]);
    expect(slot!.verdict).toBe('within');
    // no plunger is known, so there is no window
    expect([out!.kind, out!.about, out!.window]).toEqual(['stand_out', 't2', undefined]);
    const other = { wheels: [{ slots }, { slots: { radiusMm: 25, halfMm: 4 } }] } as unknown as Layout;
    expect(stackUps(reduce(facts), registry, [other], []).map((s) => s.kind)).toEqual([]);
  });
});
