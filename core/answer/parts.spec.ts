import { demoPack } from '../../demo/catalogue';
import { demoFacts } from '../../demo/cases';
import { SEED } from '../../demo/scenario';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { tensionerAnswers } from '@core/examination/tensioners';
import { declaring, fileFact, type NewFact } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import { KINDS, sentKey } from '@core/facts/kinds';
import { optionsOf } from '@core/facts/observable';
import { STATIONS } from '@core/facts/stations';
import { GROUPS } from '@core/facts/registry';
import { reduce } from '@core/facts/state';
import { answersFor } from './answers';
import { registryFor, worldOf } from './world';
import { applies, possibleOptions } from './applies';
import { caseKind } from './case-kind';
import { groupsOf, groupsByPart } from './groups';
import { countInspections } from './inspection-count';
import { thingWords } from './things';

const cat = catalogueOf(demoPack());
const registry = registryFor(worldOf(cat));
const all = demoFacts(SEED);
const cases = [...new Set(all.map((f) => f.case))].map((id) => all.filter((f) => f.case === id));
let n = 0;
const author: Author = { by: 'T', now: () => '2026-11-25T10:00:00.000Z', newId: () => `p${++n}` };
const plus = (facts: readonly Fact[], ...entries: NewFact[]): Fact[] =>
  entries.reduce<Fact[]>((log, e) => [...log, fileFact(reduce(log), 'c', e, author)], [...facts]);
const seen = (key: string, value: NewFact['value'], about?: string): NewFact => ({
  key,
  value,
  about,
  how: 'seen',
});

describe('groups of a station', () => {
  it('show every observable that applies once for each of its parts, and nothing else', () => {
    for (const facts of cases) {
      const state = reduce(plus(facts, ...declaring('tensioner', 'left', '12345678')));
      const a = answersFor(worldOf(cat), state);
      for (const station of STATIONS) {
        const shown = groupsByPart(a.registry, station, a.possible, a.things).flatMap((g) =>
          g.fields.map((o) => `${g.about ?? ''} ${o.key}`),
        );
        const named = groupsOf(a.registry, station, a.possible).flatMap((g) => g.fields.map((o) => o.key));
        for (const key of named) expect(a.registry.get(key)!.hidden).withContext(key).toBeFalsy();
        expect(new Set(shown).size).toBe(shown.length);
        for (const o of a.registry.values()) {
          const times = shown.filter((s) => s.split(' ')[1] === o.key).length;
          if (o.station !== station || o.hidden || o.groups) expect(times).withContext(o.key).toBe(0);
          else if (applies(o, a.possible))
            expect(times)
              .withContext(o.key)
              .toBe(o.part === 'tensioner' ? 2 : 1);
        }
      }
    }
  });

  it('are declared: every group an observable names, and every kind of thing it is about', () => {
    const names = new Set(GROUPS.map((g) => g.key));
    for (const o of registry.values()) {
      for (const g of o.groups ?? []) expect(names.has(g)).withContext(o.key).toBeTrue();
      expect(KINDS.has(o.part)).withContext(`${o.key}: ${o.part}`).toBeTrue();
    }
  });
});

describe('the box', () => {
  const sent = (...parts: string[]) => {
    const facts = cases.find((c) => c[0]!.case === 'demo-2036')!.filter((f) => f.key !== 'parts.sent');
    const state = reduce(plus(facts, seen('parts.sent', parts)));
    return countInspections(registry, state, answersFor(worldOf(cat), state).possible, 'examine').notSent;
  };

  it('lacks what was not sent, by whatever name the part goes there', () => {
    expect(sent('tensioner', 'chain', 'rail')).not.toContain('guide.wear');
    expect(sent('tensioner', 'chain')).toContain('guide.groove');
    // its keys are those that the box can hold
    const box = new Set(optionsOf(registry.get('parts.sent')!).map((o) => o.key));
    for (const k of KINDS.values())
      if (k.part)
        expect(box.has(sentKey(k.kind)))
          .withContext(k.kind)
          .toBeTrue();
  });

  it('counts looks thing by thing: every mark of the drive, every further part, every placed look once', () => {
    const facts = cases.find((c) => c[0]!.case === 'demo-2044')!;
    const count = (station: 'fit' | 'examine', ...entries: NewFact[]) => {
      const state = reduce(plus(facts, ...entries));
      const { possible, things } = answersFor(worldOf(cat), state);
      const l = countInspections(registry, state, possible, station, things);
      return [l.looked, l.open.length];
    };
    const [none, all] = count('fit');
    expect(
      count('fit', seen('mark', 0.46, 'wheel:right-upper'), seen('mark', 0, 'wheel:left-upper')),
    ).toEqual([none! + 2, all! - 2]);
    const tooth = (from: number) => ({
      ...seen('belt.tooth_damage', 'sheared'),
      place: { on: 'tooth' as const, from },
    });
    const [looked, open] = count('examine');
    expect(count('examine', tooth(41), tooth(42))).toEqual([looked! + 1, open! - 1]);
    const [, more] = count('examine', ...declaring('belt', 'left', '12345678'));
    expect(more! - open!).toBe(
      [...registry.values()].filter((o) => o.part === 'belt' && o.station === 'examine').length,
    );
    expect(count('examine', seen('belt.back', 'unknown'))).toEqual([looked!, open!]);
  });

  it('holds in every demo case only what its drive can have', () => {
    for (const facts of cases) {
      const state = reduce(facts);
      const { possible } = answersFor(worldOf(cat), state);
      const can = possibleOptions(optionsOf(registry.get('parts.sent')!), possible).map((o) => o.key);
      for (const f of facts.filter((x) => x.key === 'parts.sent'))
        for (const part of f.value as string[]) expect(can).withContext(f.case).toContain(part);
    }
  });
});

describe('a further tensioner', () => {
  it('belongs to the stage that its place names, by button or line alike, else to none of several', () => {
    const stages = stagesFor(cat, 'vasker-a');
    const at = (place: string) => {
      const declared = declaring('tensioner', place, 'abcdefgh');
      const about = declared[0]!.about!;
      const state = reduce(plus([], ...declared, seen('tensioner.extension', 7.4, about)));
      return tensionerAnswers(stages, state, registry).map((t) => stages[t.stage]!.layout.id);
    };
    expect(at('left, secondary')).toEqual(['vasker-a-left']);
    expect(at('Right')).toEqual(['vasker-a-right']);
    expect(at('primary')).toEqual(['vasker-a']);
    expect(at('secondary')).toEqual([]);
    expect(at('somewhere')).toEqual([]);
    // what is filed of a part counts before its words, also of the first of its kind
    const first = seen('tensioner.extension', 7.4);
    const filed = (stage: string) => {
      const state = reduce(plus([], first, { ...seen('thing.stage', stage), about: 'tensioner' }));
      return tensionerAnswers(stages, state, registry).map((t) => stages[t.stage]?.layout.id);
    };
    expect(filed('vasker-a-right')).toEqual(['vasker-a-right']);
    expect(filed('no such stage')).toEqual([]);
  });

  it('is told from the first in words, as wheels, banks, faults and old parts are from each other', () => {
    const a = answersFor(
      worldOf(cat),
      reduce(
        plus(cases.find((c) => c[0]!.case === 'demo-2044')!, ...declaring('tensioner', 'left', 'abcdefgh')),
      ),
    );
    const all = a.things.map((t) => thingWords(a.things, t.id));
    expect(new Set(all).size).toBe(all.length);
    expect(thingWords(a.things, 'tensioner-abcdefgh')).toContain('left');
    expect(thingWords(a.things, undefined)).toBe('');
  });
});

describe('kind of a case', () => {
  it('is the one filed, else what its facts say, and a question lacks only what a question needs', () => {
    const kind = (...entries: NewFact[]) => caseKind(reduce(plus([], ...entries)));
    const box = seen('parts.sent', ['tensioner']);
    const claim = seen('claim.number', 'C-1');
    expect([kind(), kind(box), kind(box, claim), kind(claim, seen('case.kind', 'return'))]).toEqual([
      'question',
      'return',
      'claim',
      'return',
    ]);
    const lacks = (...entries: NewFact[]) => answersFor(worldOf(cat), reduce(plus([], ...entries))).lacks;
    expect(lacks().call).toEqual(['engine.code']);
    expect([lacks().cause, lacks().settle]).toEqual([[], []]);
    expect(lacks(box).call).toContain('kit.fitted');
    expect(lacks(box).settle).not.toContain('claim.decision');
    expect(lacks(claim).settle).toContain('claim.decision');
  });
});
