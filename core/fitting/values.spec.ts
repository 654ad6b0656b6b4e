import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import type { Effect } from '@core/catalogue/effects';
import { senseWord } from '@core/drive/sense';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { policyWith, SHIPPED_POLICY } from '@core/policy/policy';
import { after, asFound, setsOf, type StageNow } from './drive-now';
import { designOf, NO_DESIGN } from './design-values';
import { fittedAs, stepThing } from './fitted';
import { camWheels, fastenersOf, howMany } from './how-many';
import { brokenGates } from './order';
import { goesOnAt } from './recover';
import { makeSheet } from './sheet';
import { valuesAt } from './values';
import { viewedSense } from './viewed-sense';

const cat = catalogueOf(demoPack());
const designs = [...cat.variants.values()].map((v) => {
  const stages = stagesFor(cat, v.layout!);
  return { v, stages, sheet: makeSheet(cat, v, stages, SHIPPED_POLICY) };
});
/** Senses that a text names, each as often as it does. */
const sensesIn = (text: string) =>
  [...text.matchAll(/\b(anti)?clockwise\b/g)].map((m) => (m[1] ? 'ccw' : 'cw'));

describe('a turning sense in a sentence', () => {
  it('is the drive’s own, and only who turns the crank from the other end is told the other one too', () => {
    for (const sense of ['cw', 'ccw'] as const) {
      const other = sense === 'cw' ? 'ccw' : 'cw';
      expect(sensesIn(senseWord(sense))).toEqual([sense]);
      for (const end of [undefined, 'front', 'rear'] as const) {
        const layout = end === undefined ? {} : { end };
        expect(sensesIn(viewedSense(sense, layout)))
          .withContext(`${end}`)
          .toEqual([sense]);
        expect(sensesIn(viewedSense(sense, layout, true)))
          .withContext(`${end}`)
          .toEqual(end === 'rear' ? [sense, other] : [sense]);
      }
      expect(viewedSense(sense, { end: 'rear' })).not.toBe(viewedSense(sense, { end: 'front' }));
    }
  });

  it('of a setting key and of a tensioner is what its own carrier says, on every drive', () => {
    let [keys, others] = [0, 0];
    for (const { v, stages } of designs)
      stages.forEach(({ layout }, stage) => {
        const carrier = layout.wheels.find((w) => w.role === 'tensioner')?.carrier;
        if (!carrier) return;
        const { texts } = valuesAt(stages, { stage }, SHIPPED_POLICY, NO_DESIGN);
        if (carrier.kind === 'eccentric') {
          keys++;
          expect(sensesIn(texts.key!)[0]).withContext(v.id).toBe(carrier.keyTurn);
        } else {
          others++;
          expect(texts.key).withContext(v.id).toBeUndefined();
        }
        expect(sensesIn(texts.carrier!)).withContext(v.id).toEqual([carrier.turn]);
      });
    expect(Math.min(keys, others)).toBeGreaterThan(3);
  });
});

describe('cams and fasteners', () => {
  const named = (text: string, name: string) => text.toLowerCase().includes(name.toLowerCase());

  it('are told apart by their phasers, each named where it belongs and nowhere else', () => {
    let both = 0;
    for (const { v, stages } of designs) {
      const { texts } = valuesAt(stages, { stage: 0, whole: true }, SHIPPED_POLICY, NO_DESIGN);
      const cams = camWheels(stages);
      for (const w of cams) {
        expect(named(texts.phased!, w.name))
          .withContext(`${v.id} ${w.name}`)
          .toBe(w.phaser === true);
        expect(named(texts.plain!, w.name))
          .withContext(`${v.id} ${w.name}`)
          .toBe(w.phaser !== true);
      }
      if (new Set(cams.map((w) => w.phaser === true)).size === 2) both++;
      const spot = { stage: 0 };
      const count = (thing: string) => howMany(['tightened', thing] as Effect, spot, stages);
      expect(count('phaser-bolts')! + count('cam-bolts')!)
        .withContext(v.id)
        .toBe(cams.length);
    }
    expect(both).toBeGreaterThan(0);
  });

  it('that a step tightens are counted by what it tightens, whatever else it does before; said outright it is what is said', () => {
    const { stages } = designs.find((d) => camWheels(d.stages).filter((w) => !w.phaser).length > 1)!;
    const spot = { stage: 0 };
    const cams = camWheels(stages).filter((w) => !w.phaser).length;
    const does: Effect[] = [
      ['loosened', 'rollers'],
      ['tightened', 'cam-bolts'],
    ] as Effect[];
    expect(fastenersOf({ does, spot }, stages)).toBe(cams);
    expect(fastenersOf({ does: [does[0]!], spot }, stages)).toBeUndefined();
    expect(fastenersOf({ spot }, stages)).toBeUndefined();
    expect(fastenersOf({ does, spot, torque: { text: '', count: 7 } as never }, stages)).toBe(7);
    // What no drive counts has to be said.
    expect(howMany(['tightened', 'no-such-thing'] as never, spot, stages)).toBeUndefined();
  });
});

describe('what a part’s own figures put into a step', () => {
  it('is the number of windows of its sensor ring, and nothing where there is none', () => {
    let [with_, without] = [0, 0];
    for (const { v, stages } of designs) {
      const kits = cat.pack.applications.filter((a) => a.variant === v.id).map((a) => a.kit);
      const windows = cat.pack.kits
        .filter((k) => kits.includes(k.number))
        .flatMap((k) => k.contents.map((c) => cat.parts.get(c.part)!))
        .filter((p) => p.kind === 'ring')
        .map((p) => p.attributes['windows']);
      const design = designOf(cat, v, stages, SHIPPED_POLICY);
      if (windows.length > 0) {
        with_++;
        expect(windows).toContain(design.numbers['windows']);
        expect(design.texts.windows).toBe(String(design.numbers['windows']));
      } else {
        without++;
        expect('windows' in design.numbers || 'windows' in design.texts)
          .withContext(v.id)
          .toBeFalse();
      }
    }
    expect(without).toBeGreaterThan(3);
    expect(with_).toBeGreaterThan(0);
  });

  it('is a cold engine within so many degrees of its surroundings, to either side', () => {
    const { stages } = designs[0]!;
    const { numbers } = valuesAt(stages, { stage: 0 }, SHIPPED_POLICY, NO_DESIGN);
    expect([numbers['cold_from'], numbers['cold_to']]).toEqual([
      -SHIPPED_POLICY.coldWithinK,
      SHIPPED_POLICY.coldWithinK,
    ]);
    expect(numbers['cold_from']!).toBeLessThan(0);
  });

  it('is a reading asked for in the unit of the tensioner’s own scale, inside its window', () => {
    const units = new Set<string>();
    for (const { v, stages, sheet } of designs)
      for (const s of sheet.steps)
        for (const ask of s.proof?.asks ?? []) {
          if (ask.quantity !== 'length' && ask.quantity !== 'angle') continue;
          const carrier = stages[s.spot.stage]!.layout.wheels.find((w) => w.role === 'tensioner')?.carrier;
          if (!carrier || ask.from === undefined || ask.to === undefined) continue;
          units.add(ask.unit);
          expect(ask.unit).toBe(ask.quantity === 'length' ? 'mm' : '°');
          expect(ask.from).withContext(`${v.id} ${s.id}`).toBeLessThan(ask.to);
        }
    expect([...units].every((u) => u === 'mm' || u === '°')).toBeTrue();
    expect(units.size).toBe(2);
  });

  it('is a torque asked for within what a wrench may be off, about the step’s own', () => {
    let asked = 0;
    for (const { v, sheet } of designs)
      for (const s of sheet.steps)
        for (const ask of s.proof?.asks ?? []) {
          const set = s.torque?.stages.find((x) => x.kind === 'torque');
          if (ask.quantity !== 'torque' || set?.kind !== 'torque') continue;
          asked++;
          const share = SHIPPED_POLICY.wrenchWithin;
          expect((ask.from! + ask.to!) / 2)
            .withContext(`${v.id} ${s.id}`)
            .toBeCloseTo(set.nm, 6);
          expect(ask.to! - ask.from!)
            .withContext(`${v.id} ${s.id}`)
            .toBeCloseTo(2 * share * set.nm, 6);
          expect(ask.from!).toBeLessThan(ask.to!);
        }
    expect(asked).toBeGreaterThan(10);
  });
});

describe('a sheet', () => {
  it('is none without a procedure, of a block alone, or of a drive with no stage', () => {
    const { v, stages } = designs[0]!;
    const block = [...cat.procedures.values()].find((p) => p.block)!;
    const status = (procedure: string | undefined, of = stages) =>
      makeSheet(cat, { ...v, procedure }, of, SHIPPED_POLICY).status;
    expect([status(v.procedure), status(undefined), status('nobody'), status(block.id)]).toEqual([
      'ready',
      'none',
      'none',
      'none',
    ]);
    expect(status(v.procedure, [])).toBe('none');
  });

  it('goes on from marks at the steps that do it: shafts locked, built up, turned by hand', () => {
    let locks = 0;
    for (const { v, sheet } of designs) {
      const on = goesOnAt(sheet);
      const doing = (acts: string[]) =>
        sheet.steps.find((s) => s.does?.some((e) => acts.includes(`${e[0]} ${e[1]}`)));
      const lock = doing(['locked crank', 'locked cams']);
      expect(on.lock).withContext(v.id).toBe(lock?.number);
      expect('lock' in on)
        .withContext(v.id)
        .toBe(lock !== undefined);
      if (lock) locks++;
      for (const n of Object.values(on)) expect(sheet.steps[n - 1]?.number).toBe(n);
      expect(on.off!).withContext(v.id).toBeLessThan(on.build!);
    }
    expect(locks).toBeGreaterThan(5);
  });

  it('breaks a gate only by a step that was done', () => {
    const gates = [{ before: 'a', after: 'b', why: '' }] as never;
    const broken = (done: string[], skipped: string[]) =>
      brokenGates({ done, skipped: new Set(skipped) }, gates).map((b) => b.how);
    expect(broken(['a', 'b'], [])).toEqual([]);
    expect(broken(['b', 'a'], [])).toEqual(['reversed']);
    expect(broken(['b'], ['a'])).toEqual(['skipped']);
    expect(broken(['b'], [])).toEqual([]);
    expect(broken([], ['a'])).toEqual([]);
    expect(broken(['a'], ['b'])).toEqual([]);
  });

  it('takes a substitute tool as odd, accepted where the policy says so and not else', () => {
    let seen = 0;
    const fact = (about: string, key: string, value: string): Fact => ({
      id: `${about} ${key}`,
      case: 'c',
      about,
      key,
      value,
      how: 'reported',
      by: 'F',
      at: '2026-11-29T10:00:00Z',
    });
    for (const { v, sheet } of designs) {
      const step = sheet.steps.find((s) => s.tool);
      if (!step) continue;
      seen++;
      const odd = (tool: string, tools: string) => {
        const facts = [
          fact(stepThing(step.id), 'step.done', 'done'),
          fact(stepThing(step.id), 'step.tool', tool),
        ];
        return fittedAs(sheet, reduce(facts), policyWith({ locking_tools: tools }))!.odd.flatMap((o) =>
          o.code === 'substitute' ? [o.accepted] : [],
        );
      };
      expect(odd('a drill bit', 'substitutes')).withContext(v.id).toEqual([true]);
      expect(odd('a drill bit', 'proper')).withContext(v.id).toEqual([false]);
      expect(odd(step.tool!.name, 'proper')).withContext(v.id).toEqual([]);
    }
    expect(seen).toBeGreaterThan(5);
  });
});

describe('what an effect of a step does to the drive that is drawn', () => {
  const one = (before: Partial<StageNow>, ...effects: string[]) => {
    const now = { ...asFound(1), stages: [{ ...asFound(1).stages[0]!, ...before }] };
    const does = effects.map((e) => e.split(' ')) as unknown as Effect[];
    return after(now, setsOf({ does }), 0);
  };

  it('turns, locks and frees the shafts', () => {
    expect(one({}, 'turned crank mark').crank).toBe('mark');
    expect(one({}, 'turned crank turns').crank).toBe('mark');
    expect(one({}, 'turned crank clear').crank).toBe('safe');
    const locked = one({}, 'locked crank', 'locked cams');
    expect([locked.lockedCrank, locked.lockedCams, locked.located]).toEqual([true, true, false]);
    const free = one({}, 'locked crank', 'locked cams', 'unlocked cams');
    expect([free.lockedCrank, free.lockedCams]).toEqual([true, false]);
  });

  it('takes the loop off and lays it on, slackens and sets the tensioner, loosens and tightens the cams', () => {
    const stage = (before: Partial<StageNow>, ...effects: string[]) => one(before, ...effects).stages[0]!;
    expect(stage({}, 'removed loop').loop).toBe('off');
    expect(stage({ loop: 'off' }, 'fitted loop').loop).toBe('slack');
    expect(stage({}, 'loosened tensioner-bolts')).toEqual(
      jasmine.objectContaining({ tensioner: 'slack', loop: 'slack' }),
    );
    // A tensioner that gives way slackens no loop that lies on the bench.
    expect(stage({ loop: 'off' }, 'loosened tensioner-bolts').loop).toBe('off');
    expect(stage({}, 'removed tensioner').tensioner).toBe('off');
    expect(stage({ loop: 'slack' }, 'set tensioner')).toEqual(
      jasmine.objectContaining({ tensioner: 'nominal', loop: 'taut' }),
    );
    expect(stage({}, 'pinned tensioner new')).toEqual(
      jasmine.objectContaining({ pin: 'in', tensioner: 'fitted', loop: 'fitted' }),
    );
    expect(stage({}, 'pinned tensioner')).toEqual(
      jasmine.objectContaining({ pin: 'in', tensioner: 'slack', loop: 'slack' }),
    );
    expect(stage({ loop: 'slack' }, 'released tensioner')).toEqual(
      jasmine.objectContaining({ pin: 'out', tensioner: 'nominal', loop: 'taut' }),
    );
    for (const bolts of ['cam-bolts', 'phaser-bolts']) {
      expect(stage({}, `loosened ${bolts}`).cam).toBe('loose');
      expect(stage({ cam: 'loose' }, `tightened ${bolts}`).cam).toBe('tight');
    }
  });
});
