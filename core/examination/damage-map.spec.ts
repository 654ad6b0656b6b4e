import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { registryFor, worldOf } from '@core/answer/world';
import type { Fact } from '@core/facts/fact';
import { factOf as fact } from '@core/facts/facts.fixture';
import { reduce } from '@core/facts/state';
import { damageMaps, stageOfLoop } from './damage-map';

const cat = catalogueOf(demoPack());
const registry = registryFor(worldOf(cat));
const drive = (id: string) => stagesFor(cat, cat.variants.get(id)!.layout!);
const tooth = (from: number, value: string, to?: number) =>
  fact('belt.tooth_damage', value, { place: { on: 'tooth', from, ...(to === undefined ? {} : { to }) } });
const maps = (facts: Fact[], id: string, things: string[] = []) =>
  damageMaps(reduce(facts), registry, drive(id), things);

describe('damage mapped on a loop', () => {
  it('names a wheel of every belt drive of the catalogue from six marks of it', () => {
    let named = 0;
    for (const v of cat.variants.values()) {
      const [main] = drive(v.id);
      if (main!.layout.kind !== 'belt') continue;
      const z = main!.layout.wheels[0]!.teeth!;
      const six = Array.from({ length: 5 }, (_, i) => 2 + i * z).filter((p) => p <= main!.layout.count);
      if (six.length < 5) continue;
      const [map] = maps(
        six.map((p) => tooth(p, 'root_crack')),
        v.id,
      );
      expect(map!.count).withContext(v.id).toBe(main!.layout.count);
      expect(map!.spacing)
        .withContext(v.id)
        .toEqual(jasmine.objectContaining({ verdict: 'wheel', wheel: main!.layout.wheels[0]!.id, hits: 5 }));
      expect(map!.wheels.every((w) => w.teeth > 0)).toBeTrue();
      named++;
    }
    expect(named).toBeGreaterThan(8);
  });

  it('counts what is damage, not paint; torn teeth as a run against the arcs of contact', () => {
    const paint = [5, 25, 45, 65].map((p) => tooth(p, 'paint'));
    const [map] = maps([...paint, tooth(100, 'sheared', 107)], 'TE16-CORM/A');
    expect(map!.spacing).toEqual({ verdict: 'too_few', marks: 1, least: 4 });
    expect(map!.runs.map((r) => [r.from, r.teeth])).toEqual([[100, 8]]);
    // the crank of twenty teeth with 140 degrees of wrap holds just under eight
    expect(map!.runs[0]!.wheels).toEqual(['crank']);
    expect(map!.facts.length).toBe(1);
  });

  it('is of the loop that the damage is on, by its place, and of none where that cannot be told', () => {
    const stages = drive('QU30-VASK/A');
    const link = (about: string | undefined, from: number) =>
      fact('chain.link_damage', 'stiff', { place: { on: 'link', from }, ...(about ? { about } : {}) });
    const facts = [
      fact('thing.kind', 'chain', { about: 'chain-2' }),
      fact('thing.place', 'right secondary', { about: 'chain-2' }),
      fact('thing.kind', 'chain', { about: 'chain-3' }),
      link(undefined, 7),
      link('chain-2', 9),
      link('chain-3', 11),
    ];
    const found = maps(facts, 'QU30-VASK/A', ['chain-2', 'chain-3']);
    expect(found.map((m) => [m.about, m.count])).toEqual([
      ['', stages[0]!.layout.count],
      ['chain-2', stages[2]!.layout.count],
    ]);
    expect(stageOfLoop(reduce(facts), 'belt', '', stages)).toBeUndefined();
    expect(maps([], 'QU30-VASK/A')).toEqual([]);
  });
});
