import * as fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import { UNITS } from '@core/quantity/units';
import { issueCodes } from './issue-codes.fixture';
import { extractPack } from './extract-pack';
import { catalogueOf } from './find-records';
import type { Pack } from './pack';
import type { GateRow, Procedure, Use } from './procedure';
import { readPackJson } from './read-pack';
import { judgePair, lastTorque, readPlan, readStage, readTorque } from './torque-plan';

const printed = (text: string) => {
  const r = readTorque(text);
  if (!r.ok) throw new Error(r.error.code);
  return r.value;
};

describe('a torque as it is printed', () => {
  it('is read with its unit, and not without', () => {
    expect(printed('42 N·m').nm).toBe(42);
    // NIST SP 811: 1 lbf·ft = 1.355 817 9 N·m, 1 kgf·m = 9.806 65 N·m.
    expect(printed('31 lbf·ft').nm).toBeCloseTo(42.0304, 3);
    expect(printed('4,3 kgf·m').nm).toBeCloseTo(42.1686, 3);
    for (const [text, code] of [
      ['42', 'torque_no_unit'],
      ['42 mm', 'torque_no_unit'],
      ['tight', 'torque_unreadable'],
      ['0 N·m', 'torque_unreadable'],
      ['10 N·m / 5 N·m / 3 N·m', 'torque_unreadable'],
      ['42 N·m / 41 lbf·ft', 'torque_pair'],
      ['42 / 31 lbf·ft', 'torque_no_unit'],
    ] as const) {
      const r = readStage(text);
      expect(r.ok ? 'ok' : r.error.code)
        .withContext(text)
        .toBe(code);
    }
  });

  it('agrees with itself in any unit, rounded to its last place, and not with a tenth more', () => {
    const units = Object.entries(UNITS.torque.units);
    fc.assert(
      fc.property(
        fc.integer({ min: 40, max: 4000 }),
        fc.constantFrom(...units),
        fc.constantFrom(...units),
        (tenths, [a, fa], [b, fb]) => {
          const nm = tenths / 10;
          const [va, vb] = [nm / fa, nm / fb];
          const places = vb > 100 ? 0 : vb > 10 ? 1 : 3;
          const pair = (second: number) =>
            judgePair(printed(`${va.toFixed(4)} ${a}`), printed(`${second.toFixed(places)} ${b}`));
          expect(pair(vb).agree).toBeTrue();
          expect(pair(vb * 1.1 + 10 ** -places).agree).toBeFalse();
        },
      ),
    );
  });

  it('names the one that governs: in N·m where one is, else the first', () => {
    expect(judgePair(printed('31 lbf·ft'), printed('50 N·m')).governs).toBe('second');
    expect(judgePair(printed('31 lbf·ft'), printed('4.3 kgf·m')).governs).toBe('first');
    const plan = readPlan(['60 N·m / 44 lbf·ft', 'back 360°', '30 N·m', '+90°']);
    expect(plan.ok && plan.value.map((s) => s.kind)).toEqual(['torque', 'back', 'torque', 'angle']);
    expect(plan.ok && lastTorque(plan.value)).toBe(30);
  });
});

/** The demo catalogue with one procedure changed, read as a file is. */
function bent(change: (p: Procedure, pack: Pack) => void): ReturnType<typeof issueCodes> {
  const pack = structuredClone(demoPack());
  change(pack.procedures.find((p) => p.id === 'corm-belt')!, pack);
  return issueCodes(readPackJson(JSON.stringify(pack)));
}
/** The block that lays a whole job out, as a procedure uses it. */
const frameOf = (p: Procedure) => p.steps.find((s): s is Use => 'use' in s && s.inline === true)!;
const row = demoPack().procedures.findIndex((p) => p.id === 'corm-belt') + 1;

describe('a procedure in a catalogue file', () => {
  it('is taken as it ships', () => expect(bent(() => undefined)).toEqual([]));

  it('is refused with its place for a circle, a missing step, a gate on what a drive lacks, a torque without unit, a pair that disagrees', () => {
    const gate = (g: Partial<GateRow>) => (p: Procedure) =>
      (p.gates ??= []).push({ before: 'tension', after: 'bolt', why: 'x', ...g });
    expect(bent(gate({ before: 'bolt', after: 'tension' }))).toEqual([['gate_cycle', row, 'corm-belt']]);
    expect(bent(gate({ before: 'nowhere' }))).toEqual([['gate_step_unknown', row, 'nowhere → bolt']]);
    // Four of the five drives of this procedure have no slots: a gate that does not say so is on a step they lack.
    expect(bent(gate({ before: 'bolt', after: 'slots.end' }))).toEqual([
      ['gate_step_lacking', row, 'bolt → slots.end'],
    ]);
    const turned = bent(gate({ why: 'It runs clockwise.' }));
    expect(turned).toEqual([['sense_typed', row, 'gate after tension']]);
    expect(bent(gate({ why: 'The {thing} is on.' }))).toEqual([
      ['unknown_placeholder', row, 'gate after tension'],
    ]);
    const torque = (tension: string) => (p: Procedure) => {
      frameOf(p).with!['tension'] = tension;
    };
    expect(bent(torque('42'))).toEqual([['torque_no_unit', row, 'bolt']]);
    expect(bent(torque('42 N·m / 58 lbf·ft'))).toEqual([['torque_pair', row, 'bolt']]);
  });

  it('is refused for a block that is not there, lacks a parameter or uses itself, and for two steps of one name', () => {
    const use = (u: Partial<Use>) => (p: Procedure) => p.steps.push({ use: 'safe', as: 'more', ...u });
    expect(bent(use({ use: 'gone' }))).toEqual([['block_unknown', row, 'more']]);
    expect(bent(use({ use: 'place' }))).toEqual([['param_missing', row, 'more']]);
    expect(bent((p) => p.steps.push({ id: 'tension', kind: 'tension', text: 'x' }))).toEqual([
      ['step_twice', row, 'tension'],
    ]);
    const loop = bent((_, pack) =>
      pack.procedures.find((p) => p.id === 'safe')!.steps.push({ use: 'safe', as: 'self' }),
    );
    expect([...new Set(loop.map(([code]) => code))]).toEqual(['block_loop']);
  });

  it('says what is wrong with the step that a shape comes nearest to', () => {
    const pack = structuredClone(demoPack()) as unknown as { procedures: { id: string; steps: object[] }[] };
    const p = pack.procedures.find((x) => x.id === 'corm-belt')!;
    p.steps[0] = { id: 'cold', kind: 'wait', text: 'x' };
    const [issue] = readPackJson(JSON.stringify(pack)).issues;
    expect([issue!.table, issue!.row, issue!.column]).toEqual(['procedures', row, 'steps.0.kind']);
  });

  it('is refused with law and step where a fitter could not work by it', () => {
    const block = (pack: Pack, id: string) => pack.procedures.find((p) => p.id === id)!;
    const without = (id: string, step: string) => (_: Procedure, pack: Pack) => {
      const b = block(pack, id);
      b.steps = b.steps.filter((s) => !('id' in s) || s.id !== step);
      for (const p of pack.procedures)
        if (p.gates)
          p.gates = p.gates.filter(
            (g) => ![g.before, ...[g.after].flat()].some((x) => x.split('.').at(-1) === step),
          );
    };
    const laws = (change: (p: Procedure, pack: Pack) => void) => {
      const pack = structuredClone(demoPack());
      change(pack.procedures[0]!, pack);
      return new Set(
        readPackJson(JSON.stringify(pack)).issues.map((i) =>
          i.reason.code === 'law_broken' ? `${i.reason.law} ${i.reason.thing}` : i.reason.code,
        ),
      );
    };
    expect(laws(without('belt-wheels', 'side')).has('left_off crank-sprocket')).toBeTrue();
    expect(laws(without('close-fluids', 'coolant')).has('not_filled coolant')).toBeTrue();
    expect(laws(without('verify', 'out')).has('tool_left locks')).toBeTrue();
    expect(laws(without('chain-on', 'feed')).has('feed_dry tensioner@0')).toBeTrue();
  });

  it('travels with a case together with the blocks that it uses', () => {
    const cat = catalogueOf(demoPack());
    const part = extractPack(cat, 'OL25-FLET', undefined);
    const names = part.procedures.map((p) => p.id);
    expect(names).toContain('opposed-belt');
    expect(names).toContain('eccentric-idler');
    expect(names).not.toContain('chain-on');
    expect(readPackJson(JSON.stringify(part)).issues).toEqual([]);
  });
});
