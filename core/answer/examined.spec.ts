import { demoScenario } from '../../demo/scenario';
import { catalogueOf } from '@core/catalogue/find-records';
import { KINDS } from '@core/facts/kinds';
import { reduce } from '@core/facts/state';
import type { Fact } from '@core/facts/fact';
import { answersFor } from './answers';
import { worldOf } from './world';

const scenario = demoScenario();
const world = worldOf(catalogueOf(scenario.pack));
const of = (id: string, ...more: Fact[]) =>
  answersFor(world, reduce([...scenario.facts.filter((f) => f.case === id), ...more])).examination;
let serial = 0;
const fact = (key: string, value: Fact['value'], about?: string): Fact => ({
  id: `y${++serial}`,
  case: 'c',
  key,
  value,
  how: 'seen',
  by: 'me',
  at: '2026-11-30T08:00:00.000Z',
  ...(about === undefined ? {} : { about }),
});

describe('the box on the bench', () => {
  it('holds what came and what did not, the box first, then the parts in their order, engine and kit last; what only came rarely is offered', () => {
    const b = of('demo-2027');
    const came = Object.fromEntries(b.things.map((t) => [t.kind, t.came]));
    expect(came).toEqual(
      jasmine.objectContaining({ tensioner: 'sent', belt: 'sent', pump: 'not_sent', oil: 'here' }),
    );
    expect(came['chain']).toBeUndefined();
    const order = [...KINDS.keys()].filter((k) => b.things.some((t) => t.kind === k));
    const box = order.indexOf('packing');
    expect(order.slice(0, box)).toEqual(['engine', 'kit']);
    expect(b.things.map((t) => t.kind)).toEqual([...order.slice(box), ...order.slice(0, box)]);
    expect(b.others).toContain('sprocket');
    expect(b.others).not.toContain('cassette');
    const pump = b.things.find((t) => t.kind === 'pump')!;
    expect(pump.without).toBeDefined();
    expect(b.things.filter((t) => t.came !== 'not_sent').every((t) => t.without === undefined)).toBeTrue();
  });

  it('counts what is abnormal and what was looked at, thing by thing', () => {
    const belt = of('demo-2027').things.find((t) => t.kind === 'belt')!;
    expect(belt.done).toBe(belt.inspections.filter((l) => l.status === 'done').length);
    expect(belt.inspections.filter((l) => l.abnormal).map((l) => l.inspection.key)).toEqual([
      'belt.edge_front',
    ]);
    const two = of('demo-2027', fact('thing.kind', 'belt', 'belt-9'), fact('belt.teeth', 'hooked', 'belt-9'));
    const belts = two.things.filter((t) => t.kind === 'belt');
    expect(belts.map((t) => [t.about, t.done, t.abnormal])).toEqual([
      [undefined, belt.done, 1],
      ['belt-9', 1, 1],
    ]);
  });

  it('a rare part is asked for once anything is filed of it; an empty case misses none', () => {
    const found = of('demo-2027', fact('damper.rubber', 'separated'));
    expect(found.things.find((t) => t.kind === 'damper')).toEqual(
      jasmine.objectContaining({ abnormal: 1, came: 'sent' }),
    );
    const empty = answersFor(world, reduce([])).examination;
    expect(empty.things.some((t) => t.came === 'not_sent' || t.abnormal > 0 || t.done > 0)).toBeFalse();
    expect(empty.things.some((t) => t.kind === 'packing')).toBeFalse();
    expect(
      empty.things.some((t) => t.kind === 'belt') && empty.things.some((t) => t.kind === 'chain'),
    ).toBeTrue();
  });

  it('holds a width against the kit’s belt', () => {
    const width = { ...fact('belt.width', 22.1), how: 'measured' as const, u: 0.05 };
    const inspection = of('demo-2027', width)
      .things.flatMap((t) => t.inspections)
      .find((l) => l.inspection.key === 'belt.width')!;
    expect(inspection.limit).toEqual(jasmine.objectContaining({ nominal: 22, within: true }));
  });
});
