import { answersFor } from '@core/answer/answers';
import { registryFor, worldOf } from '@core/answer/world';
import { featureKey } from '@core/catalogue/feature-observables';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import type { Variant } from '@core/catalogue/pack';
import { fileFacts, type NewFact } from '@core/facts/change';
import { reduce } from '@core/facts/state';
import { sheetFor } from '@core/fitting/sheet';
import { stepNames } from '@core/fitting/named-steps';
import { readText } from '@core/intake/read-text';
import { policyWith } from '@core/policy/policy';
import { demoPack } from '../../demo/catalogue';
import type { CallerQuestion } from './advice';
import { advise } from './advise';

const cat = catalogueOf(demoPack());
const today = '2026-11-25' as const;
let ids = 0;
const author = { by: 'T', now: () => '2026-11-25T08:00:00.000Z', newId: () => `f${++ids}` };
const told = (key: string, value: NewFact['value']): NewFact => ({ key, value, how: 'reported' });
const design = (v: Variant): NewFact[] => [
  told('engine.code', v.engine),
  ...Object.entries(v.features).map(([f, values]) => told(featureKey(f), values[0]!)),
  ...((v.built.from ?? v.built.to) ? [told('vehicle.built', (v.built.from ?? v.built.to)!)] : []),
];
const on = (asked: CallerQuestion, facts: NewFact[], rules: Record<string, string> = {}) => {
  const world = worldOf(cat, { policy: policyWith(rules) });
  const state = reduce(fileFacts(reduce([]), 'c', facts, author));
  return advise(asked, { world, state, a: answersFor(world, state), today });
};

describe('an answer about what was named', () => {
  it('law: asked for a bolt by its name on the sheet, its torque is told, and that of no bolt of another name', () => {
    let narrowed = 0;
    for (const v of cat.pack.variants) {
      const steps = sheetFor(cat, v, stagesFor(cat, v.layout!)).steps.filter((s) => s.torque);
      for (const s of steps) {
        const name = s.torque!.fastener;
        const a = on('torque', [...design(v), told('call.bolt', `the ${name}, please`)]);
        if (a.lead.code !== 'torques') return fail(`${v.id} ${a.lead.code}`);
        const got = a.lead.steps.map((x) => x.torque.fastener);
        expect(got).withContext(`${v.id} ${name}`).toContain(name);
        if (got.length === steps.length) continue;
        narrowed++;
        expect(a.because).toContain(jasmine.objectContaining({ code: 'bolt', of: steps.length }));
        expect(a.lead.steps.find((x) => x.id === s.id)?.torque).toEqual(s.torque);
      }
      const none = on('torque', [...design(v), told('call.bolt', 'the one behind the radio')]);
      expect(none.lead.code === 'torques' && none.lead.steps.length).toBe(steps.length);
    }
    expect(narrowed).toBeGreaterThan(cat.pack.variants.length);
  });

  it('tells what stands in for a tool with its risk, whatever the house says; the house’s word leads', () => {
    let some = 0;
    for (const v of cat.pack.variants) {
      const accepting = sheetFor(
        cat,
        v,
        stagesFor(cat, v.layout!),
        policyWith({ locking_tools: 'substitutes' }),
      );
      const wanted = new Map(
        accepting.steps.flatMap(({ tool }) => (tool?.instead ? [[tool.name, tool.instead] as const] : [])),
      );
      const [not, does] = [
        on('tools', design(v), { locking_tools: 'proper' }),
        on('tools', design(v), { locking_tools: 'substitutes' }),
      ];
      if (wanted.size === 0) {
        expect(not.lead.code).toBe('no_substitute');
        continue;
      }
      some++;
      for (const [a, allowed] of [
        [not, false],
        [does, true],
      ] as const) {
        if (a.lead.code !== 'tools') return fail(`${v.id} ${a.lead.code}`);
        expect(a.lead.allowed).toBe(allowed);
        expect(a.standing).toBe(allowed ? 'if' : 'no');
        expect(new Map(a.lead.tools.map((t) => [t.name, t.instead]))).toEqual(wanted);
      }
    }
    expect(some).toBeGreaterThan(10);
  });

  it('tells what the pistons do where the crank rests: by the rod’s length alone, within half a millimetre', () => {
    let some = 0;
    for (const v of cat.pack.variants) {
      const a = on('lost', design(v));
      const said = a.because.find((r) => r.code === 'pistons');
      if (a.lead.code !== 'may_turn' || !said) continue;
      some++;
      const g = stagesFor(cat, v.layout!)
        .map((s) => s.layout.valves)
        .find((x) => x !== undefined)!;
      expect(said.roomMm).withContext(v.id).toBeGreaterThan(0);
      expect(said.at.flatMap((p) => p.cylinders).sort()).toEqual(g.cylinders.map((c) => c.name).sort());
      for (const p of said.at)
        for (const name of p.cylinders) {
          const { firingDeg } = g.cylinders.find((c) => c.name === name)!;
          const height = (deg: number) => {
            // second method: the height at which the rod reaches from crank pin to piston pin, by halving
            const at = ((deg - firingDeg) * Math.PI) / 180;
            const [x, y] = [(g.strokeMm / 2) * Math.sin(at), (g.strokeMm / 2) * Math.cos(at)];
            let [low, high] = [y, y + g.rodMm + 1];
            for (let k = 0; k < 60; k++) {
              const m = (low + high) / 2;
              if (Math.hypot(x, m - y) < g.rodMm) low = m;
              else high = m;
            }
            return low;
          };
          const top = g.strokeMm / 2 + g.rodMm;
          expect(p.mm)
            .withContext(`${v.id} ${name}`)
            .toBeCloseTo(top - height(said.crankDeg), 0);
          const moved = height(said.crankDeg + 0.1) - height(said.crankDeg - 0.1);
          if (p.going !== 'top') expect(moved < 0 ? 'down' : 'up').toBe(p.going);
        }
    }
    expect(some).toBeGreaterThan(5);
  });

  it('tells what a label says if it is changed now: the interval on, from today’s reading', () => {
    for (const i of cat.pack.intervals) {
      const facts = [
        told('engine.code', i.engine),
        told('vehicle.name', i.vehicle),
        told('vehicle.odometer', 104_321),
      ];
      const label = on('due', facts).because.find((r) => r.code === 'label');
      expect(label?.next.dueKm)
        .withContext(i.engine)
        .toBe(104_321 + i.km);
      expect(Number(label?.next.dueDay.slice(0, 4)) * 12 + Number(label?.next.dueDay.slice(5, 7)))
        .withContext(i.engine)
        .toBe(2026 * 12 + 11 + i.months);
      expect(on('due', facts.slice(0, 2)).because).toEqual([]);
    }
  });
});

describe('what a message names', () => {
  const registry = registryFor(worldOf(cat));
  const read = (text: string) => {
    const r = readText(text, {
      catalogue: cat,
      registry,
      notation: { dateOrder: 'dmy', units: {} },
      today,
      steps: (engine) => stepNames(cat, engine),
    });
    if ('code' in r) throw new Error(r.code);
    return (key: string) => r.proposals.find((p) => p.key === key)?.value;
  };

  it('is the bolt that is asked for, by a name that a sheet of the engine has; no other', () => {
    for (const v of cat.pack.variants.slice(0, 12)) {
      const [first] = sheetFor(cat, v, stagesFor(cat, v.layout!)).steps.filter((s) =>
        /bolt|screw|nut/.test(s.torque?.fastener ?? ''),
      );
      if (!first) continue;
      const name = first.torque!.fastener;
      expect(read(`${v.engine}. What torque for the ${name}?`)('call.bolt'))
        .withContext(`${v.id} ${name}`)
        .toEqual(jasmine.stringContaining(name.split(' ').at(-1)!));
      expect(read(`${v.engine}. What torque for the seat bolt?`)('call.bolt')).toBeUndefined();
      expect(read(`${v.engine}. The ${name} came loose.`)('call.bolt')).toBeUndefined();
    }
  });

  it('is a tool that they have not got', () => {
    for (const said of [
      'TE16-CORM. Can I do it without the locking tool?',
      'TE16-CORM, I have no special tool, a drill bit instead of the pin?',
      'do i really need the special tool for the TE16-CORM',
    ])
      expect(read(said)('call.asked')).withContext(said).toContain('tools');
    expect(read('TE16-CORM. Locked with the tool. Which kit?')('call.asked')).toEqual(['kit']);
  });
});
