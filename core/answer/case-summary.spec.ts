import * as fc from 'fast-check';
import { demoFacts } from '../../demo/cases';
import { demoPack } from '../../demo/catalogue';
import { SEED } from '../../demo/scenario';
import { catalogueOf } from '@core/catalogue/find-records';
import { fileFact, retractFact } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { watched } from '@core/facts/watch';
import { measuredOf, placedOf, textOf, thingsWith } from '@core/facts/read';
import { answersFor } from './answers';
import { findSummaries } from './find-summaries';
import { summaryFrom, summaryOf } from './case-summary';
import { worldOf } from './world';
import { plainText } from '@core/facts/value';

const world = worldOf(catalogueOf(demoPack()));
const all = demoFacts(SEED);
const tags = [...new Set(all.map((f) => f.case))];
const caseOf = (id: string) => all.filter((f) => f.case === id);
let n = 0;
const author: Author = {
  by: 'T',
  now: () => new Date(Date.UTC(2027, 0, 1) + ++n * 1000).toISOString(),
  newId: () => `h${++n}`,
};

describe('a head', () => {
  it('says what the answers say, whatever the order of the facts, and survives its own clone', () => {
    for (const id of tags) {
      const facts = caseOf(id);
      const state = reduce(facts);
      const a = answersFor(world, state);
      const summary = summaryOf(id, facts, world);
      expect(summaryOf(id, [...facts].reverse(), world)).toEqual(summary);
      expect(summary).toEqual(summaryFrom(id, state, world, a));
      expect(structuredClone(summary)).toEqual(summary);
      expect(summary.engine).toBe(a.engine?.code ?? '');
      if (summary.waits === 'sealed') expect(a.seals.at(-1)!.later).toBe(0);
      else if (summary.waits !== 'answer' && summary.waits !== 'issue')
        expect(a.lacks[summary.waits as 'call'].length).toBeGreaterThan(0);
    }
    expect(summaryOf('demo-2027', caseOf('demo-2027'), world).waits).toBe('sealed');
  });

  it('finds by what stands and by no more: words of choices, in any order, and nothing that was struck', () => {
    const facts = caseOf('demo-2041');
    const odd = fileFact(
      reduce(facts),
      'demo-2041',
      { key: 'vehicle.market', value: 'Far Shore', how: 'reported' },
      author,
    );
    const heads = (f: readonly Fact[]) =>
      tags.map((t) => summaryOf(t, t === 'demo-2041' ? f : caseOf(t), world));
    const found = (f: readonly Fact[], typed: string) => findSummaries(heads(f), typed).map((h) => h.id);
    expect(found([...facts, odd], ' SHORE  2041 ')).toEqual(['demo-2041']);
    expect(found([...facts, odd, retractFact(odd, author, facts)], 'far shore')).toEqual([]);
    expect(found(facts, '')).toEqual(tags);
    const frayed = found(facts, 'frayed');
    for (const id of tags) expect(frayed.includes(id)).toBe(caseOf(id).some((f) => f.value === 'frayed'));
    // how an issue read, and its digest, are no words to find by
    const seal = caseOf('demo-2027').find((f) => f.key === 'report.issue')!;
    expect(found(facts, plainText(seal.value).slice(0, 20))).toEqual([]);
  });

  it('is set aside where nothing can be computed, and still bears its tag and its days', () => {
    const facts = caseOf('demo-2036');
    const broken = { ...world, catalogue: { ...world.catalogue, variantsOf: undefined as never } };
    const summary = summaryOf('demo-2036', facts, broken);
    expect([summary.waits, summary.tag, summary.opened]).toEqual(['set_aside', '2036', facts[0]!.at]);
    expect(summaryOf('x', [], undefined).tag).toBe('—');
  });
});

describe('what was read of the facts', () => {
  const keys = ['vehicle.odometer', 'belt.back', 'tensioner.pointer', 'belt.tooth_damage', 'complaint'];
  const registry = answersFor(world, reduce([])).registry;
  /** Everything that the readers say of some observables. */
  const reading = (state: ReturnType<typeof reduce>, of: readonly string[]) =>
    of.map((k) => [
      textOf(state, k),
      measuredOf(state, registry, k)?.value,
      placedOf(state, k).length,
      thingsWith(state, k),
    ]);

  it('holds in another state only where every reader would say the same there', () => {
    const command = fc.record({ key: fc.constantFrom(...keys), value: fc.nat(3), strike: fc.boolean() });
    fc.assert(
      fc.property(fc.subarray(keys), fc.array(command, { maxLength: 8 }), (of, commands) => {
        let facts: Fact[] = [];
        for (const c of commands) {
          const before = watched(reduce(facts));
          const said = JSON.stringify(reading(before.state, of));
          const fact = fileFact(reduce(facts), 'c', { key: c.key, value: c.value, how: 'seen' }, author);
          facts = [...facts, fact];
          const after = reduce(facts);
          if (before.reads.holdsIn(after)) expect(JSON.stringify(reading(after, of))).toBe(said);
          // what was not read is no reason to compute again
          if (!of.includes(c.key)) expect(before.reads.holdsIn(after)).toBeTrue();
          else expect(before.reads.holdsIn(after)).toBeFalse();
        }
      }),
    );
  });
});
