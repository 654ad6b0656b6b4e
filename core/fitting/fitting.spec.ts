import * as fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import type { Gate } from '@core/catalogue/expand-procedure';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { FAULTS } from '@core/claim/faults';
import { CAUSES, causesFor } from '@core/cause/cause-data';
import { driveHas } from '@core/drive/drive-has';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { POLICY_QUESTIONS, SHIPPED_POLICY, policyWith } from '@core/policy/policy';
import { fittedAs, performedOf, stepThing } from './fitted';
import { movedIn } from './moved';
import { stepsInOrder } from '@core/catalogue/step-order';
import { brokenGates, wayBack } from './order';
import { makeSheet, type Sheet, sheetFor } from './sheet';

const cat = catalogueOf(demoPack());
const otherwise = policyWith(
  Object.fromEntries(POLICY_QUESTIONS.map((c) => [c.key, c.options.find((o) => o.key !== c.default)!.key])),
);
const sheets = [...cat.variants.values()].flatMap((v) =>
  [SHIPPED_POLICY, otherwise].map((policy) => ({
    id: `${v.id} ${policy === SHIPPED_POLICY ? '' : 'otherwise'}`,
    policy,
    sheet: makeSheet(cat, v, stagesFor(cat, v.layout!), policy),
  })),
);
const distinct = [
  ...new Map(sheets.map((s) => [s.sheet.name + String(s.policy === SHIPPED_POLICY), s])).values(),
];
const none = new Set<string>();

let n = 0;
const fact = (about: string, key: string, value: Fact['value']): Fact => ({
  id: `f${++n}`,
  case: 'c',
  about,
  key,
  value,
  how: 'reported',
  by: 'F',
  at: new Date(Date.UTC(2026, 0, 1) + n * 1000).toISOString(),
});
const told = (id: string, how: string) => fact(stepThing(id), 'step.done', how);
/** All steps done in this order, but for what is told otherwise. */
function filed(sheet: Sheet, order: readonly string[], other: Record<string, string> = {}): Fact[] {
  const moved = movedIn(
    sheet.steps.map((s) => s.id),
    order.filter((id) => other[id] !== 'skipped'),
  );
  return [
    ...sheet.steps.map((s) => told(s.id, other[s.id] ?? 'done')),
    ...[...moved].map(([id, place]) => fact(stepThing(id), 'step.place', place)),
  ];
}
const ids = (sheet: Sheet) => sheet.steps.map((s) => s.id);
/** The later step of a gate done just before the earlier one. */
function swapped(sheet: Sheet, g: Gate): string[] {
  const order = ids(sheet).filter((id) => id !== g.after);
  order.splice(order.indexOf(g.before), 0, g.after);
  return order;
}

describe('the order of every sheet of the catalogue', () => {
  it('keeps every gate, under either answer of the house', () => {
    expect(sheets.length).toBe(62);
    for (const { id, sheet } of sheets) {
      expect(sheet.status).withContext(id).toBe('ready');
      expect(stepsInOrder(sheet.steps, sheet.gates)?.length).withContext(id).toBe(sheet.steps.length);
      expect(brokenGates({ done: ids(sheet), skipped: none }, sheet.gates))
        .withContext(id)
        .toEqual([]);
      const known = new Set(ids(sheet));
      for (const g of sheet.gates)
        expect(known.has(g.before) && known.has(g.after))
          .withContext(`${id} ${g.before}`)
          .toBeTrue();
    }
  });

  it('has gates that each can be broken, and is then named with both steps', () => {
    let broken = 0;
    for (const { id, sheet } of sheets)
      for (const g of sheet.gates) {
        const found = brokenGates({ done: swapped(sheet, g), skipped: none }, sheet.gates);
        expect(found.some((b) => b.gate === g && b.how === 'reversed'))
          .withContext(`${id} ${g.before} → ${g.after}`)
          .toBeTrue();
        broken++;
      }
    expect(broken).toBeGreaterThan(2000);
  });

  it('shows the fault of every step that is left out, done otherwise or too early', () => {
    const reached = new Set<string>();
    for (const { id, policy, sheet } of distinct) {
      for (const s of sheet.steps) {
        for (const how of ['skipped', 'wrong'] as const) {
          const code = s.faults?.[how];
          if (code === undefined) continue;
          const f = fittedAs(sheet, reduce(filed(sheet, ids(sheet), { [s.id]: how })), policy)!;
          expect(f.faults.some((x) => x.code === code && x.step === s.id && x.how === how))
            .withContext(`${id} ${s.id} ${how}`)
            .toBeTrue();
          reached.add(code);
        }
        const time = s.faults?.time;
        const least = s.proof?.asks.find((a) => a.quantity === 'minutes');
        if (time !== undefined && least) {
          const facts = [told(s.id, 'done'), fact(stepThing(s.id), 'step.minutes', (least.from! - 1) * 60)];
          const f = fittedAs(sheet, reduce(facts), policy)!;
          expect(f.faults.map((x) => [x.code, x.how])).toContain([time, 'time']);
          expect(f.odd[0]).toEqual(jasmine.objectContaining({ code: 'too_short', least: least.from }));
        }
      }
      for (const g of sheet.gates) {
        const f = fittedAs(sheet, reduce(filed(sheet, swapped(sheet, g))), policy)!;
        const code = sheet.steps.find((s) => s.id === g.after)?.faults?.reversed ?? g.fault;
        if (code === undefined) continue;
        expect(f.faults.some((x) => x.code === code && x.step === g.after))
          .withContext(`${id} ${g.before} → ${g.after}`)
          .toBeTrue();
        reached.add(code);
      }
    }
    expect([...reached].sort()).toEqual(FAULTS.map((f) => f.code).sort());
  });

  it('has a cause for every fault but those that are said to change nothing; and a fault for every cause that names one', () => {
    const { names, none } = CAUSES.sheet;
    const without = FAULTS.map((f) => f.code).filter((c) => names[c] === undefined);
    for (const code of without) expect(none[code]).withContext(code).toBeDefined();
    expect(without.length).toBeLessThan(6);
    const codes = new Set(FAULTS.map((f) => f.code));
    for (const c of CAUSES.causes) {
      if (c.fault === undefined) continue;
      expect(codes.has(c.fault)).withContext(c.key).toBeTrue();
      // several causes may be one fault; the sheet's code names the chief of them
      expect(names[c.fault]).withContext(c.fault).toBeDefined();
    }
  });

  it('has for every fault that its steps can show a cause that this very drive can have, or says why it changes nothing', () => {
    const { names, none } = CAUSES.sheet;
    let looked = 0;
    for (const v of cat.variants.values()) {
      const stages = stagesFor(cat, v.layout!);
      const there = new Set(causesFor(CAUSES, driveHas(stages)).causes.map((c) => c.key));
      const codes = new Set(sheetFor(cat, v, stages).steps.flatMap((s) => Object.values(s.faults ?? {})));
      for (const code of codes) {
        looked++;
        const of = (names[code] ?? []).some((k) => there.has(k));
        expect(of || none[code] !== undefined)
          .withContext(`${v.id} ${code}`)
          .toBeTrue();
      }
    }
    expect(looked).toBeGreaterThan(600);
  });

  it('is evidence of nothing where nobody said anything', () => {
    const { sheet, policy } = distinct[0]!;
    expect(fittedAs(sheet, reduce([]), policy)).toBeUndefined();
    const first = sheet.steps.find((s) => s.faults?.skipped)!;
    const f = fittedAs(sheet, reduce([told(first.id, 'done')]), policy)!;
    expect([f.faults, f.broken, f.odd, f.unconfirmed]).toEqual([[], [], [], []]);
  });
});

describe('traps of the trade', () => {
  /** Each occurs on some sheet: what its step says, and the fault that breaking it is. */
  const TRAPS: readonly [RegExp, string][] = [
    [/only a stop/, 'LCK-TOOL'],
    [/taper with a puller/, 'CAM-FIX'],
    [/middle of their slots/, 'SLT-END'],
    [/one tooth over/, 'SLT-END'],
    [/by the shafts themselves/, 'SHF-ALN'],
    [/the way it came/, 'SHF-ALN'],
    [/no piston reaches a valve/, 'SHF-ALN'],
    [/every second one/, 'POS-STRK'],
    [/thread is in aluminium/, 'TNS-ORD'],
    [/with pauses, the damper upright/, 'TNS-FAST'],
    [/lift the ratchet/, 'TNS-FAST'],
    [/cannot be set back/, 'TNS-FAST'],
    [/pull the pin/, 'REL-ERLY'],
    [/cannot be undone/, 'REL-NONE'],
    [/until there is pressure/, 'CLS-PRIM'],
    [/seal ring oiled/, 'SEA-DRY'],
    [/burr off the edge/, 'CLN-BUR'],
    [/chamfer to the engine, circlip/, 'ORI-BACK'],
    [/opposite ways/, 'ORI-BACK'],
    [/between the rims/, 'ORI-FLNG'],
    [/arrow on it points/, 'ORI-ARRW'],
    [/count the links between the marks/, 'CNT-LINK'],
    [/sensor ring against the old one/, 'RNG-WIN'],
    [/windows\b.*same places/, 'CMP-MISS'],
    [/Every tool slides in freely/, 'VER-LOOK'],
    [/left and right differ/, 'HND-SIDE'],
    [/oil screens/, 'CLN-SCRN'],
    [/bearing caps up in the order drawn, in rounds/, 'PTN-CAPS'],
    [/back a full turn/, 'TRQ-YLD'],
    [/thread is left-hand/, 'TRQ-LEFT'],
    [/how deep each cam sprocket sits/, 'DEP-SEAT'],
    [/old seal off the seat/, 'CLN-SEAT'],
    [/debris out of the teeth/, 'CLN-DEB'],
    [/nothing touches the/, 'CLS-COVR'],
    [/service label/, 'CLS-LABL'],
    [/without turning back/, 'VER-TURN'],
    [/Photograph how the marks/, 'REC-MISS'],
    [/out of its sleeve/, 'BLT-KINK'],
  ];

  for (const [says, code] of TRAPS)
    it(`${code}: ${says.source}`, () => {
      const found = sheets.flatMap(({ sheet }) =>
        sheet.steps.filter((s) => says.test(`${s.text} ${s.proof?.text ?? ''}`)).map((s) => ({ s, sheet })),
      );
      expect(found.length).toBeGreaterThan(0);
      const own = found.some(
        ({ s, sheet }) =>
          Object.values(s.faults ?? {}).includes(code) ||
          sheet.gates.some((g) => g.fault === code && (g.after === s.id || g.before === s.id)),
      );
      expect(own).toBeTrue();
    });
});

/** Small orders: up to six steps, gates only from earlier to later, some done in any order, some left out. */
const small = fc
  .tuple(
    fc.integer({ min: 2, max: 6 }),
    fc.array(fc.tuple(fc.nat(5), fc.nat(5)), { maxLength: 8 }),
    fc.nat(),
    fc.nat(63),
  )
  .map(([size, pairs, seed, out]) => {
    const steps = Array.from({ length: size }, (_, i) => ({ id: `s${i}` }));
    const gates: Gate[] = pairs
      .map(([a, b]) => [Math.min(a, b), Math.max(a, b)] as const)
      .filter(([a, b]) => a !== b && b < size)
      .map(([a, b]) => ({ before: `s${a}`, after: `s${b}`, why: '' }));
    const skipped = new Set(steps.filter((_, i) => (out >> i) & 1).map((s) => s.id));
    const left = steps.map((s) => s.id).filter((id) => !skipped.has(id));
    const done: string[] = [];
    for (let k = seed; left.length > 0; k = Math.floor(k / 7) + 3)
      done.push(...left.splice(k % left.length, 1));
    return { steps, gates, done, skipped };
  });

/** Fewest steps undone until every done step had all that it waits for before it: search over all that can be done. */
function fewestUndone(gates: readonly Gate[], done: readonly string[], skipped: ReadonlySet<string>): number {
  const bad = new Set(brokenGates({ done, skipped }, gates).map((b) => b.gate.after));
  const key = (s: ReadonlySet<string>) => [...s].sort().join();
  let ring: Set<string>[] = [new Set(done)];
  const seen = new Set(ring.map(key));
  for (let cost = 0; ring.length > 0; cost++) {
    for (const s of ring) if (![...bad].some((b) => s.has(b))) return cost;
    const next: Set<string>[] = [];
    for (const s of ring)
      for (const x of s) {
        // Nothing comes off while something that waited for it is still on.
        if (gates.some((g) => g.before === x && s.has(g.after))) continue;
        const t = new Set([...s].filter((y) => y !== x));
        if (!seen.has(key(t))) {
          seen.add(key(t));
          next.push(t);
        }
      }
    ring = next;
  }
  return Infinity;
}

describe('the way back', () => {
  it('is the shortest that a search finds, and leads to an order that keeps every gate', () => {
    fc.assert(
      fc.property(small, ({ steps, gates, done, skipped }) => {
        const performed = { done, skipped };
        const { way, lost } = wayBack(steps, gates, performed);
        expect(lost).toEqual([]);
        const fewest = fewestUndone(gates, done, skipped);
        expect(way?.undo.length ?? 0).toBe(fewest);
        if (!way) return;
        const after = [...done.filter((id) => !way.undo.includes(id)), ...way.redo];
        const still = new Set([...skipped].filter((id) => !way.redo.includes(id)));
        expect(brokenGates({ done: after, skipped: still }, gates)).toEqual([]);
        expect(way.startAt).toBe(way.redo[0]!);
      }),
      { numRuns: 400 },
    );
  });

  it('takes out again what was done otherwise, down to the deepest step, and begins at the lock where a proof fails', () => {
    let looked = 0;
    for (const { id, policy, sheet } of distinct) {
      const order = ids(sheet);
      for (const s of sheet.steps) {
        if (s.faults?.wrong === undefined || s.undo === 'never') continue;
        const f = fittedAs(sheet, reduce(filed(sheet, order, { [s.id]: 'wrong' })), policy)!;
        const way = f.back.way;
        if (!way) return fail(`${id} ${s.id} has no way back`);
        const proof = s.phase === 'check' && s.faults.wrong === 'TIM-OFF';
        const from = proof ? sheet.steps.find((x) => x.now.lockedCrank)! : s;
        expect(way.undo).withContext(`${id} ${s.id}`).toContain(from.id);
        // Everything that had to wait for it comes off with it: nothing built over it is left on.
        for (const g of sheet.gates)
          if (g.before === from.id) expect(way.undo).withContext(`${id} ${s.id}`).toContain(g.after);
        expect(Math.min(...way.redo.map((x) => order.indexOf(x)))).toBe(order.indexOf(way.startAt));
        looked++;
      }
    }
    expect(looked).toBeGreaterThan(300);
  });

  it('says what has to be new, and what cannot be made up for', () => {
    const steps = [{ id: 'photo', undo: 'never' }, { id: 'guide' }, { id: 'pin', undo: 'a new tensioner' }];
    const gate = (before: string, after: string) => ({ before, after, why: '' });
    const gates = [gate('photo', 'guide'), gate('guide', 'pin')];
    const late = wayBack(steps, gates, { done: ['pin', 'guide'], skipped: new Set(['photo']) });
    expect(late.way).toEqual({
      undo: ['pin'],
      redo: ['pin'],
      startAt: 'pin',
      spent: [{ step: 'pin', needs: 'a new tensioner' }],
    });
    expect(late.lost.map((b) => b.gate.before)).toEqual(['photo']);
  });
});

describe('the order done', () => {
  it('comes back from the fewest places that tell it', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([...'abcdefgh'], { minLength: 0 }), (done) => {
        const sheet = { steps: [...'abcdefgh'].map((id) => ({ id })) as Sheet['steps'] };
        const moved = movedIn([...'abcdefgh'], done);
        const said = new Map(
          [...'abcdefgh'].map((id) => [
            id,
            done.includes(id)
              ? { state: 'done' as const, ...(moved.has(id) ? { place: moved.get(id)! } : {}) }
              : { state: 'skipped' as const },
          ]),
        );
        expect([...performedOf(sheet, said).done]).toEqual(done);
        // In order nothing is moved; one step out of place is one place told.
        if ([...done].sort().join('') === done.join('')) expect(moved.size).toBe(0);
      }),
    );
    expect(movedIn([...'abcd'], ['a', 'd', 'b', 'c']).size).toBe(1);
  });
});
