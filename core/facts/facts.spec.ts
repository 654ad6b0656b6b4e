import { FAULTS } from '@core/claim/faults';
import { placeKey } from './place';
import { needsThing } from './registry';
import { faultThing, nameOfId, wheelThing } from './thing';
import fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import { demoFacts } from '../../demo/cases';
import { SEED } from '../../demo/scenario';
import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { fileFact, mergeFacts, redoTarget, retractFact, undoTarget } from './change';
import { factsDigest } from './digest';
import { type Author, type Fact, FactSchema } from './fact';
import { completions, readFactLine } from './fact-line';
import { METRIC, type ReadContext } from './read-value';
import { reduce } from './state';
import { allStanding, rivalsOf, standing as standingOf, valueOf } from './read';
import { plainText } from './value';

let tick = 0;
const author: Author = {
  by: 'A',
  now: () => new Date(Date.UTC(2026, 0, 1) + ++tick * 1000).toISOString(),
  newId: () => `f${++tick}`,
};
const file = (facts: Fact[], key: string, value: string | number) => [
  ...facts,
  fileFact(reduce(facts), 'c', { key, value, how: 'seen' }, author),
];
const all = demoFacts(SEED);

describe('facts', () => {
  it('are corrected by superseding, withdrawn by striking, and brought back by striking the strike', () => {
    let facts = file(file([], 'cover.rub', 'none'), 'cover.rub', 'front');
    expect(valueOf(reduce(facts), 'cover.rub')).toBe('front');
    const target = undoTarget(reduce(facts), 'A')!;
    facts = [...facts, retractFact(target, author, facts)];
    expect(valueOf(reduce(facts), 'cover.rub')).toBe('none');
    const redo = redoTarget(reduce(facts), 'A')!;
    facts = [...facts, retractFact(redo, author, facts)];
    expect(valueOf(reduce(facts), 'cover.rub')).toBe('front');
    expect(redoTarget(reduce(facts), 'A')).toBeUndefined();
  });

  it('of two people who said different things stand as rivals', () => {
    const a = file([], 'belt.back', 'sound');
    const b = file([], 'belt.back', 'glazed');
    const merged = mergeFacts(a, b);
    const state = reduce(merged.ok ? merged.value : []);
    expect(valueOf(state, 'belt.back')).toBe('glazed');
    expect(rivalsOf(state, 'belt.back')?.map((f) => f.value)).toEqual(['sound']);
  });

  it('merge to the same union whichever side comes first, twice or once', () => {
    const part = fc.subarray(all);
    fc.assert(
      fc.property(part, part, (a, b) => {
        const ab = mergeFacts(a, b);
        const ba = mergeFacts(b, a);
        expect(ab).toEqual(ba);
        expect(ab.ok && mergeFacts(ab.value, b)).toEqual(ab);
      }),
    );
    const changed = { ...all[0]!, value: 'other' };
    expect(mergeFacts(all, [changed])).toEqual({
      ok: false,
      error: { code: 'same_id_other_content', id: changed.id },
    });
  });

  it('reduce to the same state in any order', () => {
    const own = all.filter((f) => f.case === 'demo-2027');
    fc.assert(
      fc.property(fc.shuffledSubarray(own, { minLength: own.length }), (mixed) =>
        expect(allStanding(reduce(mixed))).toEqual(allStanding(reduce(own))),
      ),
    );
  });

  it('keep aside what a correction put aside, in any honest history, however the clocks of two desks run', () => {
    // Each step: which desk acts, how far its clock jumps, and whether it files, strikes its newest, or takes in the other's.
    const step = fc.record({
      desk: fc.nat(1),
      jump: fc.integer({ min: -86_400, max: 86_400 }),
      act: fc.constantFrom('file', 'file', 'file', 'strike', 'merge'),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
        const desks: Fact[][] = [[], []];
        let serial = 0;
        for (const [i, s] of steps.entries()) {
          const mine = desks[s.desk]!;
          const state = reduce(mine);
          const unsteady: Author = {
            by: `desk ${s.desk}`,
            now: () => new Date(Date.UTC(2026, 5, 1) + (i + s.jump) * 1000).toISOString(),
            newId: () => `h${++serial}`,
          };
          if (s.act === 'merge') {
            const merged = mergeFacts(mine, desks[1 - s.desk]!);
            desks[s.desk] = merged.ok ? merged.value : [];
            continue;
          }
          const standing = standingOf(state, 'k');
          if (s.act === 'strike') {
            if (standing) mine.push(retractFact(standing, unsteady, mine));
            continue;
          }
          mine.push(fileFact(state, 'c', { key: 'k', value: i, how: 'seen' }, unsteady));
          // whoever files sees it stand at once, alone, whatever the clock said
          const after = reduce(mine);
          expect(valueOf(after, 'k')).toBe(i);
          expect(allStanding(after).flatMap((s) => s.rivals).length).toBe(0);
        }
        const all = mergeFacts(desks[0]!, desks[1]!);
        const state = reduce(all.ok ? all.value : []);
        // second method: a fact stands when nothing struck in force and no unstruck fact names it as corrected
        const struck = (id: string): boolean => state.log.some((f) => f.strikes === id && !struck(f.id));
        const live = state.log.filter((f) => f.strikes === undefined && !struck(f.id));
        const named = new Set(live.flatMap((f) => [f.supersedes ?? []].flat()));
        const expected = live.filter((f) => !named.has(f.id)).map((f) => f.id);
        const found = [standingOf(state, 'k'), ...rivalsOf(state, 'k')].flatMap((f) => f?.id ?? []);
        expect(found.sort()).toEqual(expected.sort());
        // and nothing comes before what it names
        const at = new Map(state.log.map((f, i) => [f.id, i]));
        for (const f of state.log)
          for (const id of [f.supersedes ?? [], f.strikes ?? []].flat())
            expect(at.get(id)!).toBeLessThan(at.get(f.id)!);
      }),
      { seed: fc.readConfigureGlobal()?.seed ?? 11 },
    );
  });

  it('of two people are settled by one correction, which names all of them', () => {
    const a = file([], 'belt.back', 'sound');
    const b = file([], 'belt.back', 'glazed');
    const c = file([], 'belt.back', 'cut');
    const both = [...a, ...b, ...c];
    const settled = reduce(file(both, 'belt.back', 'cracked'));
    expect(valueOf(settled, 'belt.back')).toBe('cracked');
    expect(allStanding(settled).flatMap((s) => s.rivals).length).toBe(0);
    // struck, the contradiction is there again
    const struck = [...settled.log, retractFact(standingOf(settled, 'belt.back')!, author, settled.log)];
    expect(rivalsOf(reduce(struck), 'belt.back')?.length).toBe(2);
  });

  it('are reduced in linear time, chains of ten thousand strikes and corrections too', () => {
    const chain = (n: number): Fact[] =>
      Array.from({ length: n }, (_, i) => ({
        id: `s${i}`,
        case: 'c',
        key: 'k',
        value: '',
        how: 'decided',
        by: 'A',
        at: '2026-01-01T00:00:00.000Z',
        ...(i > 0 ? { strikes: `s${i - 1}` } : {}),
      }));
    // an even number of strikes upon strikes leaves the first standing
    expect(standingOf(reduce(chain(10_001)), 'k')?.id).toBe('s0');
    expect(allStanding(reduce(chain(10_000))).length).toBe(0);
    const corrected = chain(10_000).map(({ strikes, ...f }) => ({
      ...f,
      ...(strikes ? { supersedes: strikes } : {}),
    }));
    expect(standingOf(reduce(corrected), 'k')?.id).toBe('s9999');
    expect(reduce(corrected).retracted.size).toBe(9999);
  });

  it('survive a circle of supersessions in a broken file', () => {
    const a: Fact = {
      id: 'a',
      case: 'c',
      key: 'k',
      value: 1,
      how: 'seen',
      by: 'A',
      at: '2026-01-01T00:00:00.000Z',
      supersedes: 'b',
      strikes: 'b',
    };
    const b: Fact = { ...a, id: 'b', supersedes: 'a', strikes: 'a' };
    expect(reduce([a, b]).log.length).toBe(2);
    const plain = [
      { ...a, strikes: undefined },
      { ...b, strikes: undefined, at: '2026-01-02T00:00:00.000Z' },
    ];
    expect(standingOf(reduce(plain), 'k')?.id).toBe('b');
    expect(standingOf(reduce(plain.reverse()), 'k')?.id).toBe('b');
  });
});

describe('digest', () => {
  it('is SHA-256 of the canonical lines, as the browser’s own SHA-256 finds it', async () => {
    const fact = all[0]!;
    const line = `{"at":"${fact.at}","by":"${fact.by}","case":"${fact.case}","how":"decided","id":"${fact.id}","key":"case.tag","seen":${fact.seen},"value":"${plainText(fact.value)}"}`;
    const bytes = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(line));
    const hex = [...new Uint8Array(bytes)].map((b) => b.toString(16).padStart(2, '0')).join('');
    expect(factsDigest([fact])).toBe(hex);
  });

  it('stands on whole text: half a sign is mended when it is filed, and refused when it comes in a file', () => {
    const cut = '\ud83d\ude00 ok \ud83d';
    const filed = fileFact(
      reduce([]),
      'c',
      { key: 'complaint', value: cut, how: 'reported', note: cut },
      author,
    );
    expect([filed.value, filed.note]).toEqual(['\ud83d\ude00 ok \ufffd', '\ud83d\ude00 ok \ufffd']);
    expect(() => factsDigest([filed])).not.toThrow();
    expect(FactSchema.safeParse(filed).success).toBeTrue();
    expect(FactSchema.safeParse({ ...filed, value: cut }).success).toBeFalse();
  });

  it('does not mind the order of facts and minds every field', () => {
    const digest = factsDigest(all);
    expect(factsDigest([...all].reverse())).toBe(digest);
    fc.assert(
      fc.property(
        fc.nat(all.length - 1),
        fc.constantFrom('by', 'at', 'value', 'how', 'note', 'u'),
        (i, field) => {
          const changed = all.map((f, k) => (k === i ? { ...f, [field]: 'x' } : f));
          expect(factsDigest(changed)).not.toBe(digest);
        },
      ),
    );
  });
});

describe('fact line', () => {
  const registry = registryFor(worldOf(catalogueOf(demoPack())));
  const ctx: ReadContext = {
    notation: METRIC,
    today: '2026-11-24',
    wheels: [{ id: 'guide', name: 'Guide roller' }],
    findRef: () => undefined,
    nearestRefs: () => [],
  };
  const read = (line: string) => {
    const r = readFactLine(line, registry, ctx);
    if (!r.ok) return r.error.code;
    const { observable, how, read: v } = r.value;
    return v.ok ? [observable.key, v.value.value, how] : [observable.key, v.error.code];
  };

  it('takes the longest name that begins the line and the way of knowing that ends it', () => {
    expect(read('ptr -96')).toEqual(['tensioner.pointer', -96, 'measured']);
    expect(read('edge front frayed')).toEqual(['belt.edge_front', 'frayed', 'seen']);
    expect(read('spring weak reported')).toEqual(['tensioner.spring', 'weak', 'reported']);
    expect(read('rim guide')).toEqual(['wheel.rim_marks', ['guide'], 'seen']);
    expect(read('rim none')).toEqual(['wheel.rim_marks', [], 'seen']);
    expect(read('codes p0016, P0340')).toEqual(['fault.codes', ['P0016', 'P0340'], 'reported']);
    expect(read('ptr 400')).toEqual(['tensioner.pointer', 'out_of_range']);
    expect(read('edge front purple')).toEqual(['belt.edge_front', 'not_an_option']);
    expect(read('xyzzy 3')).toBe('no_observable');
  });

  it('reads a mark by any part of its wheel’s name or its initials, and never guesses between two', () => {
    const wheels = ['right upper', 'right lower', 'left upper', 'left lower'].map((name) => ({
      id: wheelThing(name.replace(' ', '-')),
      kind: 'wheel',
      name,
    }));
    const say = (line: string) => {
      const r = readFactLine(line, registry, ctx, undefined, wheels);
      if (!r.ok) return r.error.code;
      const v = r.value.read;
      return [`mark.${nameOfId(r.value.about!)}`, v.ok ? v.value.value : v.error.code];
    };
    expect(say('mark ru 0.5')).toEqual(['mark.right-upper', 0.5]);
    expect(say('mark right upper -1')).toEqual(['mark.right-upper', -1]);
    expect(say('mark up ri 0.5')).toEqual(['mark.right-upper', 0.5]);
    expect(say('mark ll 0')).toEqual(['mark.left-lower', 0]);
    expect(say('mark right 1')).toBe('several');
    expect(say('mark zz 1')).toBe('which_thing');
    expect(say('mark')).toBe('which_thing');
    expect(say('mark ru')).toEqual(['mark.right-upper', 'empty']);
  });

  it('names a thing before or behind what is said of it, and a place on it', () => {
    const things = [
      { id: 'tensioner', kind: 'tensioner', name: '' },
      { id: 'tensioner-2', kind: 'tensioner', name: 'left, secondary' },
      { id: 'belt-2', kind: 'belt', name: 'left' },
    ];
    const say = (line: string) => {
      const r = readFactLine(line, registry, ctx, undefined, things);
      if (!r.ok) return r.error.code;
      const { observable: o, about, place, read: v } = r.value;
      return [o.key, about, place && placeKey(place), v.ok ? v.value.value : v.error.code];
    };
    expect(say('tensioner left ext 7.4')).toEqual(['tensioner.extension', 'tensioner-2', undefined, 7.4]);
    expect(say('tens sec ext 7.4 measured')).toEqual(['tensioner.extension', 'tensioner-2', undefined, 7.4]);
    expect(say('ext left 7.4')).toEqual(['tensioner.extension', 'tensioner-2', undefined, 7.4]);
    expect(say('ext 7.4')).toEqual(['tensioner.extension', undefined, undefined, 7.4]);
    expect(say('tensioner ext 7.4')).toEqual(['tensioner.extension', undefined, undefined, 7.4]);
    expect(say('tensioner right ext 7.4')).toBe('which_thing');
    expect(say('t 41 root crack')).toEqual(['belt.tooth_damage', undefined, 'tooth 41', 'root_crack']);
    expect(say('t 41-44 sheared')).toEqual(['belt.tooth_damage', undefined, 'tooth 41–44', 'sheared']);
    expect(say('belt left t 41 sheared')).toEqual(['belt.tooth_damage', 'belt-2', 'tooth 41', 'sheared']);
    expect(say('link 17 stiff')).toEqual(['chain.link_damage', undefined, 'link 17', 'stiff']);
    expect(say('t root crack')).toBe('no_place');
  });

  it('files of the observable that is shown, or of none: what a drive has not got is refused by name', () => {
    const noBelt = (o: { needs?: string[] | undefined }) => !o.needs?.includes('belt');
    const r = readFactLine('ef frayed', registry, ctx, noBelt);
    expect(r.ok ? 'ok' : r.error.code).toBe('not_on_drive');
    for (const o of completions('e', registry, 50, noBelt)) expect(noBelt(o)).toBeTrue();
    // every alias with every kind of ending names the observable that bears it
    for (const o of registry.values()) {
      if (o.hidden && !o.line) continue;
      for (const alias of o.aliases) {
        const thing = { id: `${o.part}:one`, kind: o.part, name: 'one' };
        const said = `${alias}${needsThing(o) ? ' one' : ''} 7`;
        const found = readFactLine(said, registry, ctx, undefined, needsThing(o) ? [thing] : []);
        expect(found.ok && found.value.observable.key)
          .withContext(alias)
          .toBe(o.key);
      }
    }
  });

  it('takes decisions and their reasons too', () => {
    const refs = { ...ctx, findRef: (table: string, typed: string) => `${table}:${typed}` };
    const r = readFactLine('cause seized pump because the teeth say so', registry, refs);
    if (!r.ok || !r.value.read.ok) return fail('not read');
    expect([r.value.observable.key, r.value.read.value.value, r.value.note]).toEqual([
      'cause.decided',
      'cause:seized pump',
      'the teeth say so',
    ]);
    expect(read('decide decline')).toEqual(['claim.decision', 'decline', 'decided']);
    const faults = FAULTS.map((f) => ({ id: faultThing(f.code), kind: 'fault', name: f.code }));
    const fault = readFactLine('fault SET-WAY', registry, refs, undefined, faults);
    expect(fault.ok && [fault.value.observable.key, fault.value.about]).toEqual([
      'claim.fault',
      'fault:SET-WAY',
    ]);
  });

  it('says what is wrong with a value, truly', () => {
    expect(read('turns -3')).toEqual(['fit.turned', 'out_of_range']);
    expect(read('turns 2.5')).toEqual(['fit.turned', 'not_a_count']);
    expect(read('turns two')).toEqual(['fit.turned', 'not_a_number']);
    expect(read(`odo ${'9'.repeat(400)}`)).toEqual(['vehicle.odometer', 'not_a_number']);
    expect(read('ptr 20 ± 5000')).toEqual(['tensioner.pointer', 'bad_uncertainty']);
    expect(read(`who ${'x'.repeat(201)}`)).toEqual(['call.who', 'too_long']);
    const near = readFactLine('codes PO016', registry, ctx);
    expect(near.ok && !near.value.read.ok && near.value.read.error).toEqual(
      jasmine.objectContaining({ code: 'not_a_code', nearest: ['P0016'] }),
    );
  });

  it('completes what could still be meant', () => {
    expect(
      completions('edg', registry)
        .map((o) => o.key)
        .slice(0, 2),
    ).toEqual(['belt.edge_front', 'belt.edge_rear']);
  });

  it('calls no two observables by one name', () => {
    const seen = new Map<string, string>();
    for (const o of registry.values()) {
      for (const a of o.aliases) {
        expect(seen.get(a)).withContext(`alias ${a}`).toBeUndefined();
        seen.set(a, o.key);
      }
    }
  });
});
