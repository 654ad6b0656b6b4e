import { checkSeals, makeSeal } from '@core/claim/seal';
import { catalogueOf } from '@core/catalogue/find-records';
import { registryFor, worldOf } from '@core/answer/world';
import * as fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import { fileFact, mergeFacts, type NewFact, redoTarget, retractFact, undoTarget } from './change';
import { checkFacts, circlesIn } from './consistent';
import { type Author, type Fact, FactSchema } from './fact';
import edition1 from './fixtures/edition-1.json';
import { placeAt, placeKey, readPlace } from './place';
import { allStanding, measuredOf, placedOf, standing, thingsOf, valueOf } from './read';
import { meanOf } from './repeats';
import { reduce } from './state';

const registry = registryFor(worldOf(catalogueOf(demoPack())));
let n = 0;
const author: Author = { by: 'T', now: () => '2026-11-25T10:00:00.000Z', newId: () => `t${++n}` };
const file = (facts: readonly Fact[], e: Omit<NewFact, 'how'>): Fact[] => [
  ...facts,
  fileFact(reduce(facts), 'c', { how: 'measured', ...e }, author),
];

describe('facts about things', () => {
  const second = 'tensioner-2';
  const declared = file(file([], { about: second, key: 'thing.kind', value: 'tensioner' }), {
    about: second,
    key: 'thing.place',
    value: 'left',
  });

  it('stand apart: what is said of one is not said of the other, and corrects only its own', () => {
    let facts = file(declared, { key: 'tensioner.extension', value: 5 });
    facts = file(facts, { about: second, key: 'tensioner.extension', value: 7.4 });
    facts = file(facts, { about: second, key: 'tensioner.extension', value: 7.6 });
    const state = reduce(facts);
    expect(valueOf(state, 'tensioner.extension')).toBe(5);
    expect(valueOf(state, 'tensioner.extension', second)).toBe(7.6);
    expect(thingsOf(state, registry).map((t) => [t.id, t.kind, t.place, t.first])).toEqual([
      [second, 'tensioner', 'left', false],
      ['tensioner', 'tensioner', undefined, true],
    ]);
    // naming the first by its kind says the same as naming none
    expect(
      valueOf(
        reduce(file(facts, { about: 'tensioner', key: 'tensioner.extension', value: 6 })),
        'tensioner.extension',
      ),
    ).toBe(6);
  });

  it('are refused where a thing has two kinds or none', () => {
    expect(checkFacts(declared)).toBeUndefined();
    const other = { ...declared[0]!, id: 'x', value: 'belt' };
    expect(checkFacts([...declared, other])).toEqual({
      code: 'two_kinds',
      thing: second,
      kinds: ['tensioner', 'belt'],
    });
    expect(checkFacts(file([], { about: 'ghost', key: 'tensioner.extension', value: 1 }))).toEqual({
      code: 'no_kind',
      thing: 'ghost',
    });
  });

  it('stand at places, in order, each corrected on its own', () => {
    let facts: Fact[] = [];
    for (const [at, value] of [
      ['44', 'sheared'],
      ['41', 'root_crack'],
      ['41', 'hooked'],
    ] as const)
      facts = file(facts, { key: 'belt.tooth_damage', value, place: readPlace('tooth', at)!.place });
    const seen = placedOf(reduce(facts), 'belt.tooth_damage');
    expect(seen.map((p) => [placeKey(p.place), p.value])).toEqual([
      ['tooth 41', 'hooked'],
      ['tooth 44', 'sheared'],
    ]);
    expect(placedOf(reduce(facts), 'belt.tooth_damage', 'belt-2')).toEqual([]);
  });
});

describe('places', () => {
  it('are read from the beginning of a text, and only what is one', () => {
    expect(readPlace('tooth', '41-44 root crack')).toEqual({
      place: { on: 'tooth', from: 41, to: 44 },
      rest: 'root crack',
    });
    expect(readPlace('edge', 'front 41 frayed')!.place).toEqual({ on: 'edge', edge: 'front', from: 41 });
    expect(readPlace('station', '35 mm 0.4')).toEqual({ place: { on: 'station', from: 35 }, rest: '0.4' });
    for (const [on, text] of [
      ['tooth', 'root crack'],
      ['tooth', '44-41 x'],
      ['edge', '41 frayed'],
    ] as const)
      expect(readPlace(on, text)).withContext(text).toBeUndefined();
  });
});

describe('places that are counted', () => {
  const tooth = { wording: 'Damage', place: 'tooth' as const };
  it('begin at one and end with the last, span included', () => {
    const code = (text: string, most?: number) => {
      const r = placeAt(tooth, text, most);
      return r.ok ? r.value.rest : r.error.code;
    };
    expect([code('1 x', 121), code('121 x', 121), code('120-121 x', 121)]).toEqual(['x', 'x', 'x']);
    expect([code('0 x', 121), code('130 x', 121), code('120-122 x', 121)]).toEqual([
      'beyond',
      'beyond',
      'beyond',
    ]);
    expect([code('130 x'), code('x', 121)]).toEqual(['x', 'no_place']);
  });
});

describe('repeats', () => {
  it('give mean and standard uncertainty as JCGM 100 has it, the gauge’s own included', () => {
    // by hand: mean 320.92, s² = 0.00700, s/√5 = 0.037417; with 0.05 of the gauge 0.062450
    const m = meanOf([320.9, 320.95, 321.05, 320.85, 320.85], 0.05);
    const mean = (320.9 + 320.95 + 321.05 + 320.85 + 320.85) / 5;
    const s2 = [320.9, 320.95, 321.05, 320.85, 320.85].reduce((a, x) => a + (x - mean) ** 2, 0) / 4;
    expect(m.value).toBeCloseTo(320.92, 10);
    expect(m.u).toBeCloseTo(Math.sqrt(s2 / 5 + 0.05 ** 2), 12);
    expect(m.u).toBeCloseTo(0.06245, 4);
    expect(meanOf([7], 0.1)).toEqual({ value: 7, u: 0.1, n: 1 });
  });

  it('point an outlier out and keep it; what the gauge cannot resolve is none', () => {
    const far = meanOf([10, 10.1, 9.9, 10, 14], 0.05);
    expect(far.outlier).toBe(4);
    expect(far.n).toBe(5);
    expect(meanOf([10, 10, 10, 10, 10.04], 0.05).outlier).toBeUndefined();
    expect(meanOf([10, 10.1, 9.9], 0.05).outlier).toBeUndefined();
  });

  it('shift and scale with the readings', () => {
    const reading = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(fc.array(reading, { minLength: 2, maxLength: 12 }), reading, (r, by) => {
        const [a, b] = [
          meanOf(r, 0.1),
          meanOf(
            r.map((x) => x + by),
            0.1,
          ),
        ];
        expect(b.value - a.value).toBeCloseTo(by, 8);
        expect(b.u).toBeCloseTo(a.u, 8);
        expect(a.u).toBeGreaterThanOrEqual(0.1);
      }),
    );
  });

  it('join what stands, and a plain filing afterwards corrects them all', () => {
    let facts = file([], { key: 'chain.length', value: 320.9, u: 0.1 });
    for (const value of [321, 321.1])
      facts = file(facts, { key: 'chain.length', value, u: 0.1, repeat: true });
    const m = measuredOf(reduce(facts), registry, 'chain.length')!;
    expect([m.repeats.n, m.facts.length]).toEqual([3, 3]);
    expect(m.value).toBeCloseTo(321, 10);
    const done = file(facts, { key: 'chain.length', value: 322, u: 0.1 });
    expect(measuredOf(reduce(done), registry, 'chain.length')!.repeats.n).toBe(1);
    expect(standing(reduce(done), 'chain.length')!.supersedes).toEqual(facts.map((f) => f.id));
  });
});

describe('facts of the first edition', () => {
  const facts = edition1 as unknown as Fact[];

  it('are read word for word, their keys with ids as things, and their seal verifies', () => {
    for (const f of facts) expect(FactSchema.parse(f)).toEqual(f);
    const sealed = reduce(facts.filter((f) => f.case === 'demo-2027'));
    expect(standing(sealed, 'claim.fault', 'fault:SET-WAY')!.key).toBe('claim.fault.SET-WAY');
    expect(checkSeals(sealed).map((s) => s.verdict)).toEqual(['intact']);
    const old = (key: string, id: string): Fact => ({ ...facts[0]!, id, key, value: 1 });
    const state = reduce([old('mark.left-upper', 'a'), old('stack.head', 'b'), old('old.belt.widthMm', 'd')]);
    expect(standing(state, 'mark', 'wheel:left-upper')!.id).toBe('a');
    expect(standing(state, 'bank.nearer', 'bank:head')!.id).toBe('b');
    expect(standing(state, 'part.widthMm', 'old:belt')!.id).toBe('d');
    // a correction of today supersedes what the first edition wrote
    const now = fileFact(
      state,
      'c',
      { key: 'mark', about: 'wheel:left-upper', value: 2, how: 'measured' },
      author,
    );
    expect(now.supersedes).toBe('a');
  });
});

describe('two desks', () => {
  type Desk = { facts: Fact[]; author: Author };
  const THINGS = [undefined, 'wheel:cam', 'tensioner-2'];
  const command = fc.record({
    desk: fc.nat(1),
    what: fc.constantFrom('file', 'repeat', 'correct', 'strike', 'undo', 'redo', 'merge', 'seal'),
    thing: fc.nat(THINGS.length - 1),
    value: fc.nat(9),
    pick: fc.nat(1000),
    minute: fc.nat(59),
  });
  const merge = (a: readonly Fact[], b: readonly Fact[]): Fact[] => {
    const m = mergeFacts(a, b);
    if (!m.ok) throw new Error(m.error.code);
    return m.value;
  };

  it('end alike, whatever was done on them and in whatever order they were merged', () => {
    fc.assert(
      fc.property(fc.array(command, { maxLength: 30 }), (commands) => {
        let id = 0;
        let minute = 0;
        const by = (name: string): Author => ({
          by: name,
          now: () => `2026-11-25T10:${String(minute).padStart(2, '0')}:00.000Z`,
          newId: () => `${name}${++id}`,
        });
        const desks: Desk[] = [
          { facts: [], author: by('a') },
          { facts: [], author: by('b') },
        ];
        for (const c of commands) {
          // clocks go back and forth
          minute = c.minute;
          const d = desks[c.desk]!;
          const state = reduce(d.facts);
          const strike = (f: Fact | undefined) => f && d.facts.push(retractFact(f, d.author, d.facts));
          if (c.what === 'merge') d.facts = merge(d.facts, desks[1 - c.desk]!.facts);
          else if (c.what === 'seal') d.facts.push(...makeSeal(state, 'c', [`line ${c.value}`], d.author));
          else if (c.what === 'undo') strike(undoTarget(state, d.author.by));
          else if (c.what === 'redo') strike(redoTarget(state, d.author.by));
          else if (c.what === 'strike') strike(d.facts[c.pick % Math.max(1, d.facts.length)]);
          else {
            const entry: NewFact = {
              about: THINGS[c.thing],
              key: 'k',
              value: c.value,
              how: 'measured',
              repeat: c.what === 'repeat',
            };
            d.facts.push(fileFact(state, 'c', entry, d.author));
          }
        }
        const [a, b] = desks.map((d) => d.facts);
        const one = reduce(merge(a!, b!));
        const other = reduce(merge(b!, a!));
        expect(allStanding(one)).toEqual(allStanding(other));
        expect(one.log.map((f) => f.id)).toEqual(other.log.map((f) => f.id));
        expect(merge(one.log, a!)).toEqual(one.log as Fact[]);
        // no thing's facts stand among another's
        for (const s of allStanding(one))
          for (const f of [...s.facts, ...s.rivals]) expect(f.about).toBe(s.meaning.about);
        expect(circlesIn(one.log).size).toBe(0);
        // whatever was done since, an issue seals what it sealed, and both desks say the same of it
        const verdicts = (state: ReturnType<typeof reduce>) => checkSeals(state).map((x) => x.verdict);
        expect(verdicts(one).every((v) => v === 'intact')).toBeTrue();
        expect(checkSeals(one)).toEqual(checkSeals(other));
        // one filing settles every contradiction of its thing
        for (const about of THINGS) {
          const settled = reduce([
            ...one.log,
            fileFact(one, 'c', { about, key: 'k', value: 5, how: 'seen' }, desks[0]!.author),
          ]);
          const slot = allStanding(settled).find((s) => s.meaning.key === 'k' && s.meaning.about === about)!;
          expect([slot.facts.length, slot.rivals.length]).toEqual([1, 0]);
        }
      }),
      { numRuns: 80 },
    );
  });

  it('tell a circle of corrections, and nothing else', () => {
    const f = (id: string, supersedes?: string[]): Fact => ({
      id,
      case: 'c',
      key: 'k',
      value: 1,
      how: 'seen',
      by: 'T',
      at: '2026-11-25T10:00:00.000Z',
      ...(supersedes ? { supersedes } : {}),
    });
    expect(circlesIn([f('a'), f('b', ['a']), f('c', ['a', 'b'])]).size).toBe(0);
    expect([...circlesIn([f('a', ['b']), f('b', ['a']), f('c', ['a'])])].sort()).toEqual(['a', 'b']);
  });
});
