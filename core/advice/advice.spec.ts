import { answersFor } from '@core/answer/answers';
import { worldOf } from '@core/answer/world';
import { stagesFor } from '@core/catalogue/find-records';
import { catalogueOf } from '@core/catalogue/find-records';
import { featureKey } from '@core/catalogue/feature-observables';
import { freeSeats } from '@core/drive/judge-marks';
import { fileFacts, type NewFact } from '@core/facts/change';
import { stepThing } from '@core/fitting/fitted';
import { reduce } from '@core/facts/state';
import { sheetFor } from '@core/fitting/sheet';
import { policyWith } from '@core/policy/policy';
import { demoPack } from '../../demo/catalogue';
import { type Advice, type CallerQuestion, QUESTIONS } from './advice';
import { advise } from './advise';
import { codeOf, CODES } from './codes';
import { predictedMarks } from './marks';
import { reuseStanding } from './reuse';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
let ids = 0;
const author = { by: 'T', now: () => '2026-11-25T08:00:00.000Z', newId: () => `f${++ids}` };

/** The advice on a case of these facts. */
function on(
  asked: CallerQuestion,
  ...facts: [key: string, value: NewFact['value'], about?: string][]
): Advice {
  const entries = facts.map(
    ([key, value, about]): NewFact => ({
      key,
      value,
      how: 'reported',
      ...(about === undefined ? {} : { about }),
    }),
  );
  const state = reduce(fileFacts(reduce([]), 'c', entries, author));
  return advise(asked, { world, state, a: answersFor(world, state), today: '2026-11-25' });
}
const engine = (code: string): [string, string] => ['engine.code', code];

describe('the answer to read out', () => {
  it('is given to every question of every engine, and of none, and stands on facts that are there', () => {
    for (const asked of QUESTIONS) {
      for (const e of cat.pack.engines) {
        const a = on(asked, engine(e.code));
        expect(a.asked).toBe(asked);
        if (a.standing === 'open' || a.standing === 'if')
          expect(a.missing.length + a.because.length)
            .withContext(`${asked} ${e.code}`)
            .toBeGreaterThan(0);
      }
      const none = on(asked);
      expect(none.standing).withContext(asked).toBe('open');
      expect(none.missing.length).withContext(asked).toBeGreaterThan(0);
      expect(none.basis).toEqual([]);
    }
  });

  it('names the kits that the match names, and what would decide between them', () => {
    const open = on('kit', engine('TE16-CORM'));
    expect(open.standing).toBe('if');
    expect(open.missing.map((m) => m.key)).toContain(featureKey('cover-screws'));
    for (const value of ['five', 'seven']) {
      const a = on('kit', engine('TE16-CORM'), [featureKey('cover-screws'), value]);
      const leaves = open.missing
        .find((m) => m.key === featureKey('cover-screws'))!
        .outcomes!.find((o) => o.value === value)!.leaves;
      expect(a.standing).toBe('yes');
      expect(leaves.length).toBe(1);
      const numbers = a.lead.code === 'kits' ? a.lead.kits.map((k) => k.kit.number) : [];
      expect(numbers).toEqual(
        cat.kitsOf
          .get(cat.pack.variants.find((v) => v.name === leaves[0])!.id)!
          .filter((n) => cat.kits.get(n)!.status === 'current')
          .sort(),
      );
    }
  });

  it('is three-valued on a part: fits, fits if, does not', () => {
    const of = (kit: string, ...more: [string, string][]) =>
      on('fits', engine('BR19-SHAW'), ['kit.number', kit], ...more).standing;
    expect(of('MF-K302A-1')).toBe('if');
    expect(of('MF-K302A-1', [featureKey('head-bolt'), 'm8'])).toBe('yes');
    expect(of('MF-K302A-1', [featureKey('head-bolt'), 'm10'])).toBe('no');
    expect(of('MF-K121-1')).toBe('no');
    const part = on(
      'fits',
      engine('BR19-SHAW'),
      ['thing.number', 'MF-TB302A1', 'belt'],
      [featureKey('head-bolt'), 'm10'],
    );
    expect(part.standing).toBe('no');
  });

  it('says go only of all marks as predicted, seen after two turns', () => {
    const base: [string, string][] = [engine('OL25-FLET'), [featureKey('gearbox'), 'manual']];
    const right = predictedMarks(stagesFor(cat, 'fletcher-a'), reduce([]));
    expect(right.length).toBe(4);
    const mark = (i: number, off = 0): [string, number, string] => [
      'mark',
      right[i]!.teeth + off,
      right[i]!.about,
    ];
    const some = on('marks', ...base, mark(0));
    expect(some.standing).toBe('if');
    expect(some.missing.filter((m) => m.key === 'mark').map((m) => m.about)).toEqual(
      right.slice(1).map((m) => m.about),
    );
    const all = [mark(0), mark(1), mark(2), mark(3)];
    expect(on('marks', ...base, ...all).standing).toBe('if');
    expect(on('marks', ...base, ...all, ['fit.turned', 1]).standing).toBe('if');
    const go = on('marks', ...base, ...all, ['fit.turned', 2]);
    expect(go.standing).toBe('yes');
    expect(go.missing).toEqual([]);
    // every mark and the turns are what it stands on
    expect(go.basis.length).toBe(base.length + 5);
    for (let i = 0; i < 4; i++)
      expect(
        on('marks', ...base, ...all.map((m, k) => (k === i ? mark(i, 1) : m)), ['fit.turned', 2]).standing,
      ).toBe('no');
  });

  it('does not say go of wheels that can turn on their shafts, until the shafts were locked by what came back', () => {
    let held = 0;
    for (const v of cat.pack.variants) {
      const stages = stagesFor(cat, v.layout!);
      const free = stages.flatMap(({ layout }) => freeSeats(layout));
      const base: NewFact[] = [
        { key: 'engine.code', value: v.engine, how: 'reported' },
        ...Object.entries(v.features).map(
          ([f, [value]]): NewFact => ({ key: featureKey(f), value: value!, how: 'reported' }),
        ),
        { key: 'fit.turned', value: 4, how: 'reported' },
        ...predictedMarks(stages, reduce([])).map(
          (m): NewFact => ({ key: 'mark', about: m.about, value: m.teeth, how: 'seen' }),
        ),
      ];
      const ask = (...more: NewFact[]) => {
        const state = reduce(fileFacts(reduce([]), 'c', [...base, ...more], author));
        const a = answersFor(world, state);
        return { a, advice: advise('marks', { world, state, a, today: '2026-11-25' }) };
      };
      const { a, advice } = ask();
      if (!a.variant || advice.lead.code !== 'marks') continue;
      expect(advice.lead.go).withContext(v.id).toBe('go');
      expect(advice.standing)
        .withContext(v.id)
        .toBe(free.length === 0 ? 'yes' : 'if');
      if (free.length === 0) continue;
      const locks = a.sheet!.steps.filter((s) => s.does?.some((e) => e[0] === 'locked' && e[1] === 'cams'));
      const done = locks.map(
        (s): NewFact => ({ key: 'step.done', about: stepThing(s.id), value: 'done', how: 'reported' }),
      );
      expect(ask(...done).advice.standing)
        .withContext(v.id)
        .toBe(locks.length > 0 ? 'yes' : 'if');
      held++;
    }
    console.log(`go only once shafts were locked: ${held} designs with free seats`);
    expect(held).toBeGreaterThan(8);
  });

  it('tells a setting only from the drive: alike in all designs, or one for each', () => {
    for (const e of cat.pack.engines) {
      const a = on('setting', engine(e.code));
      if (a.lead.code !== 'setting_by_design') continue;
      expect(a.lead.branches.length).toBe(cat.variantsOf.get(e.code)!.length);
      expect(a.missing.length).withContext(e.code).toBeGreaterThan(0);
    }
    const one = on('setting', engine('TE16-CORM'), [featureKey('cover-screws'), 'five']);
    expect(one.lead.code === 'setting' && one.lead.settings.length).toBe(1);
    expect(one.draw).toBe('setting');
  });

  it('counts an unknown interference as one, and lets turn only where a range is computed', () => {
    for (const e of cat.pack.engines) {
      const a = on('lost', engine(e.code));
      if (e.interference === 'no') expect(a.lead.code).toBe('turn_free');
      else expect(['may_turn', 'do_not_turn']).toContain(a.lead.code);
      if (a.lead.code === 'may_turn')
        for (const r of a.lead.ranges) expect(r.toDeg).toBeGreaterThan(r.fromDeg);
    }
    // Without lengths of pistons and valves nothing is computed, and nothing may be turned.
    const bare = demoPack();
    bare.layouts = bare.layouts.map(({ valves, ...l }) =>
      valves && l.id.startsWith('shaw') ? l : { ...l, ...(valves ? { valves } : {}) },
    );
    expect(on('lost', engine('BR19-SHAW')).lead.code).toBe('may_turn');
    const blind = worldOf(catalogueOf(bare));
    const state = reduce(
      fileFacts(reduce([]), 'c', [{ key: 'engine.code', value: 'BR19-SHAW', how: 'reported' }], author),
    );
    const a = advise('lost', { world: blind, state, a: answersFor(blind, state), today: '2026-11-25' });
    expect(a.lead.code).toBe('do_not_turn');
  });

  it('judges a chain by its measured length against its limit, never by its looks', () => {
    const base: [string, string][] = [engine('QU13-STOA'), [featureKey('plunger-cap'), 'screw']];
    const pitch = stagesFor(cat, 'stoat-a')[0]!.layout.pitchMm;
    const limit = stagesFor(cat, 'stoat-a')[0]!.layout.elongationLimit!;
    const chain = (...more: [string, number][]) => {
      const { lead } = on('reuse', ...base, ...more);
      const part = lead.code === 'reuse' ? lead.parts.find((p) => p.part === 'chain') : undefined;
      return part && reuseStanding(part);
    };
    const long = (e: number) => chain(['chain.length', 40 * pitch * (1 + e)], ['chain.links_over', 40]);
    expect(chain()).toBe('open');
    expect(long(limit / 4)).toBe('yes');
    expect(long(limit * 1.6)).toBe('no');
    expect(long(limit)).toBe('cannot');
    expect(on('reuse', engine('TE16-CORM')).standing).toBe('no');
  });

  it('gives the interval, and the day and distance once it is known when it was changed', () => {
    const interval = on('due', engine('TE16-CORM'));
    expect(interval.lead.code).toBe('interval');
    const due = on('due', engine('TE16-CORM'), ['kit.fitted', '2024-03-12'], ['kit.fitted_odometer', 1000]);
    if (due.lead.code !== 'due') return fail(due.lead.code);
    expect(due.lead.due.dueKm).toBe(1000 + due.lead.interval.km);
  });

  it('reads fault codes by families that do not overlap', () => {
    CODES.forEach((r, i) => {
      expect(r.from <= r.to).toBeTrue();
      if (i > 0)
        expect(r.from > CODES[i - 1]!.to)
          .withContext(r.from)
          .toBeTrue();
    });
    expect(codeOf('P0016')).toEqual({ code: 'P0016', says: 'correlation', of: 'intake' });
    expect(codeOf('P0301')).toBeUndefined();
    const a = on('means', engine('TE18-GANN'), ['fault.codes', ['P0018', 'P0301']]);
    expect(a.lead.code === 'codes' && [a.lead.codes.length, a.lead.unknown]).toEqual([1, ['P0301']]);
  });
});

describe('torque and reuse, as the sheet and the house have them', () => {
  it('reads every torque of the sheet out in its stages, and says how many steps the order has, on every design', () => {
    for (const v of cat.variants.values()) {
      const facts = [
        engine(v.engine),
        ...Object.entries(v.features).map(([f, values]): [string, string] => [featureKey(f), values[0]!]),
        ...((v.built.from ?? v.built.to)
          ? [['vehicle.built', (v.built.from ?? v.built.to)!] as [string, string]]
          : []),
      ];
      const a = on('torque', ...facts);
      if (a.lead.code !== 'torques') return fail(`${v.id} ${a.lead.code}`);
      const sheet = sheetFor(cat, v, stagesFor(cat, v.layout!));
      const wanted = sheet.steps.filter((s) => s.torque);
      expect(a.lead.steps.map((s) => s.id))
        .withContext(v.id)
        .toEqual(wanted.map((s) => s.id));
      expect(a.lead.of).withContext(v.id).toBe(sheet.steps.length);
      for (const s of a.lead.steps) expect(s.torque.stages.length).toBeGreaterThan(0);
    }
  });

  /** How each used part of a design stands, by the rules of a house. */
  function reused(rules: Record<string, string>, ...facts: NewFact[]) {
    const house = worldOf(cat, { policy: policyWith(rules) });
    const state = reduce(fileFacts(reduce([]), 'c', facts, author));
    const a = answersFor(house, state);
    const advice = advise('reuse', { world: house, state, a, today: '2026-11-25' });
    if (advice.lead.code !== 'reuse') throw new Error(advice.lead.code);
    return {
      standing: advice.standing,
      parts: advice.lead.parts.map((p) => `${p.part} ${reuseStanding(p)}`),
      missing: advice.missing.map((m) => m.key),
    };
  }
  const told = (key: string, value: string): NewFact => ({ key, value, how: 'reported' });

  it('never lets a used belt on again, but for a house that looks at it first', () => {
    expect(reused({}, told('engine.code', 'TE16-CORM')).standing).toBe('no');
    expect(reused({ used_belt: 'inspect' }, told('engine.code', 'TE16-CORM')).standing).toBe('if');
  });

  it('answers for an old plunger about itself: replaced, or by its recorded leak-down alone', () => {
    const screw = [told('engine.code', 'QU13-STOA'), told(featureKey('plunger-cap'), 'screw')];
    expect(reused({}, ...screw).parts).toEqual(['plunger no', 'chain open']);
    const tested = reused({ old_plunger: 'reuse' }, ...screw);
    expect(tested.parts).toEqual(['plunger open', 'chain open']);
    expect(tested.missing).toContain('tensioner.leak_series');
    const sinking = (mmPerS: number): NewFact => ({
      key: 'tensioner.leak_series',
      value: Array.from({ length: 40 }, (_, i) => [i, 10 - mmPerS * i]).flat(),
      how: 'measured',
    });
    const by = (mmPerS: number) => reused({ old_plunger: 'reuse' }, ...screw, sinking(mmPerS)).parts[0];
    expect(by(0.0001)).toBe('plunger yes');
    expect(by(0.2)).toBe('plunger no');
    // by the other rule a good leak-down changes nothing
    expect(reused({}, ...screw, sinking(0.0001)).parts[0]).toBe('plunger no');
  });
});
