import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { textsOf } from '@core/catalogue/check-procedures';
import type { Variant } from '@core/catalogue/pack';
import { isUse, type StepRow } from '@core/catalogue/procedure';
import { ambiguousValues, checkWording } from '@core/catalogue/check-wording';
import { CAUSES, inputsOf, weighedFindings } from '@core/cause/cause-data';
import { carrierKind } from '@core/drive/carrier';
import { driveHas, HAS } from '@core/drive/drive-has';
import { tensionerIndex } from '@core/drive/layout';
import { senseWord, typedSense } from '@core/drive/sense';
import { restDeg } from '@core/drive/valve-safety';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { solveDrive } from '@core/drive/solve-drive';
import type { Fact } from '@core/facts/fact';
import { optionsOf } from '@core/facts/observable';
import { reduce } from '@core/facts/state';
import { type SheetStep, sheetFor } from '@core/fitting/sheet';
import { answersFor } from './answers';
import { registryFor, worldOf } from './world';

const cat = catalogueOf(demoPack());
const registry = registryFor(worldOf(cat));
let n = 0;
const fact = (key: string, value: Fact['value'], how: Fact['how'] = 'seen'): Fact => ({
  id: `f${++n}`,
  case: 'law',
  key,
  value,
  how,
  by: 'T',
  at: new Date(Date.UTC(2026, 0, 1) + n * 1000).toISOString(),
});
/** Facts that leave just this design. */
const identified = (v: Variant): Fact[] => [
  fact('engine.code', v.engine),
  ...Object.entries(v.features).map(([f, values]) => fact(`feature.${f}`, values[0]!)),
  ...((v.built.from ?? v.built.to) ? [fact('vehicle.built', (v.built.from ?? v.built.to)!)] : []),
];
const designs = [...cat.variants.values()];
const sheets = designs.map((v) => ({
  v,
  stages: stagesFor(cat, v.layout!),
  sheet: sheetFor(cat, v, stagesFor(cat, v.layout!)),
}));
/** All that a step says. */
const allOf = (s: SheetStep): string => textsOf(s).join(' ');

describe('a fitting sheet, on every drive of the catalogue', () => {
  it('fixes no sense in its data: what it says of turning is what the layout says', () => {
    for (const p of cat.pack.procedures)
      for (const s of p.steps)
        for (const text of isUse(s) ? Object.values(s.with ?? {}) : textsOf(s))
          expect(typedSense(text)).withContext(`${p.id} ${text}`).toBeUndefined();
    let [turned, told] = [0, 0];
    for (const { v, stages, sheet } of sheets) {
      for (const s of sheet.steps) {
        const { layout } = stages[s.spot.stage]!;
        const wheel = s.spot.wheel ?? tensionerIndex(layout);
        const carrier = layout.wheels[wheel]?.carrier;
        const [runs, against] = [senseWord(layout.runs), senseWord(layout.runs === 'cw' ? 'ccw' : 'cw')];
        const senses = allOf(s).match(/\b(?:anti)?clockwise\b/g) ?? [];
        if (senses.length === 0) continue;
        // Each says from where it is seen; the pointer's stands beside its key's.
        const seen = allOf(s).match(
          /clockwise \(seen from|that is (?:anti)?clockwise for|moves (?:anti)?clockwise/g,
        );
        expect(seen?.length).withContext(`${v.id} ${s.id}`).toBe(senses.length);
        if (!/\bkey\b.*clockwise/.test(s.text)) {
          const rest = layout.valves && restDeg(layout.valves, SHIPPED_POLICY.leastRoomMm);
          const alone = s.text.includes('by itself') && rest !== undefined && rest < 0;
          const [first, other] = alone ? [against, runs] : [runs, against];
          expect(new Set(senses))
            .withContext(`${v.id} ${s.id}`)
            .toEqual(new Set(layout.end === 'rear' ? [first, other] : [first]));
          expect(senses[0]).withContext(`${v.id} ${s.id}`).toBe(first);
          told++;
          continue;
        }
        if (carrier?.kind !== 'eccentric') return fail(`${v.id} ${s.id} turns what cannot be turned`);
        const wanted = [
          senseWord(carrier.keyTurn),
          ...(s.spot.wheel === undefined ? [senseWord(carrier.turn)] : []),
        ];
        expect(senses).withContext(`${v.id} ${s.id}`).toEqual(wanted);
        if (s.spot.wheel !== undefined) continue;
        // second method: in that sense the path gets longer, so that slack is taken up
        const solved = solveDrive(layout);
        if (!solved.ok) return fail(v.id);
        expect(solved.value.setting!.takeUp).withContext(v.id).toBe(carrier.turn);
        turned++;
      }
    }
    expect(turned).toBeGreaterThan(10);
    expect(told).toBeGreaterThan(100);
  });

  it('speaks of the parts that the drive has, and of no other kind', () => {
    for (const { v, stages, sheet } of sheets) {
      const has = driveHas(stages);
      const main = stages[0]!.layout;
      const carrier = main.wheels[tensionerIndex(main)]?.carrier;
      for (const g of sheet.gates) {
        expect(g.why)
          .withContext(`${v.id} ${g.before}`)
          .not.toMatch(/[{}]|undefined/);
        if (!has.has('belt')) expect(g.why).not.toMatch(/\bbelt\b/);
        if (!has.has('chain')) expect(g.why).not.toMatch(/\bchains?\b/);
        expect(typedSense(g.why)).toBeUndefined();
      }
      for (const s of sheet.steps) {
        const text = allOf(s);
        const where = `${v.id} ${s.id}: ${text}`;
        expect(text)
          .withContext(where)
          .not.toMatch(/[{}]|undefined| {2}| ,|: \./);
        if (!has.has('belt'))
          expect(text)
            .withContext(where)
            .not.toMatch(/\bbelt\b/);
        if (!has.has('chain'))
          expect(text)
            .withContext(where)
            .not.toMatch(/\bchain\b/);
        if (!has.has('sprung'))
          expect(text)
            .withContext(where)
            .not.toMatch(/spring|pointer/i);
        if (!has.has('plunger'))
          expect(text)
            .withContext(where)
            .not.toMatch(/plunger/i);
        if (!has.has('slots'))
          expect(text)
            .withContext(where)
            .not.toMatch(/slotted/i);
        if (!has.has('belt_pump'))
          expect(text)
            .withContext(where)
            .not.toMatch(/water pump/i);
        if (s.kind === 'tension' && carrier?.kind === 'eccentric') {
          expect(text).withContext(where).toContain(`${carrier.window.nominal}°`);
          const right = solveDrive(main);
          expect(
            right.ok && Math.abs(right.value.setting!.reading - carrier.window.nominal) < 0.5,
          ).toBeTrue();
        }
        if (s.id === 'route.route')
          main.wheels
            .slice(1)
            .forEach((w) => expect(text.toLowerCase()).withContext(where).toContain(w.name.toLowerCase()));
        // second method: links counted between marks are whole, and those of both marks add up within the chain
        if (s.id.startsWith('build.count.'))
          expect(s.proof!.asks[0]!.from).withContext(where).toBeLessThan(stages[s.spot.stage]!.layout.count);
      }
    }
  });

  it('is there for every design, of as many steps as hands need, and not where it is for another kind of drive', () => {
    for (const { v, stages, sheet } of sheets) {
      expect(sheet.status).withContext(v.id).toBe('ready');
      expect(sheet.steps.length).withContext(v.id).toBeGreaterThanOrEqual(55);
      expect(sheet.steps.length).withContext(v.id).toBeLessThanOrEqual(120);
      const other = sheetFor(cat, { ...v, procedure: 'manual-belt' }, stages);
      if (
        carrierKind(stages[0]!.layout.wheels[tensionerIndex(stages[0]!.layout)]!.carrier!) !==
        'manual_eccentric'
      )
        expect(other).toEqual(jasmine.objectContaining({ status: 'other_kind', steps: [] }));
    }
    expect(sheetFor(cat, { ...designs[0]!, procedure: 'ready' }, sheets[0]!.stages).status).toBe('none');
    const bent = { ...demoPack() };
    bent.variants = bent.variants.map((v) => ({ ...v, procedure: 'manual-belt' }));
    const kinds = new Set(checkWording(bent, (_t, i) => i).map((i) => i.reason.code));
    expect([...kinds]).toEqual(['other_kind_of_drive']);
  });

  it('leaves a typed sense out rather than contradict the drive', () => {
    const v = designs.find((x) => x.procedure === 'corm-belt')!;
    const typed = structuredClone(cat.pack);
    const step = typed.procedures
      .find((p) => p.id === 'belt-frame')!
      .steps.find((s): s is StepRow => !isUse(s) && s.kind === 'tension')!;
    step.text = 'Turn the key CLOCKWISE to the mark.';
    step.caution = 'Never anti-clockwise.';
    const other = catalogueOf(typed);
    const written = sheetFor(other, v, stagesFor(other, v.layout!)).steps.find((s) => s.kind === 'tension')!;
    expect(written.unsafe).toBeTrue();
    expect(typedSense(allOf(written))).toBeUndefined();
    expect(checkWording(typed, (_t, i) => i).map((i) => i.reason.code)).toContain('sense_typed');
  });
});

describe('causes, findings and checks, on every drive of the catalogue', () => {
  it('need only what drives can have', () => {
    const known = new Set<string>(HAS);
    for (const o of registry.values()) {
      for (const need of [...(o.needs ?? []), ...optionsOf(o).flatMap((x) => x.needs ?? [])])
        expect(known.has(need)).withContext(`${o.key} needs ${need}`).toBeTrue();
    }
  });

  it('are only those that it can have, in its own words', () => {
    for (const v of designs) {
      const a = answersFor(worldOf(cat), reduce(identified(v)));
      expect(a.variant?.id).withContext(v.id).toBe(v.id);
      const has = driveHas(a.drive!.stages);
      const said = [
        ...a.ranking.causes.map(({ cause: c }) => ({
          ...c,
          text: `${c.wording} ${c.mechanism} ${c.consequence}`,
        })),
        ...a.causes.mechanisms.map((m) => ({ ...m, text: m.wording })),
      ];
      for (const { key, needs, text } of said) {
        const where = `${v.id} ${key}`;
        for (const need of needs ?? []) expect(has.has(need)).withContext(where).toBeTrue();
        expect(text).withContext(where).not.toMatch(/[{}]/);
        if (!has.has('belt'))
          expect(text)
            .withContext(where)
            .not.toMatch(/\bbelt|\bcord|rubber/i);
        if (!has.has('chain'))
          expect(text)
            .withContext(where)
            .not.toMatch(/\bchain/i);
        if (!has.has('eccentric'))
          expect(text)
            .withContext(where)
            .not.toMatch(/eccentric|wrong way/i);
      }
      for (const check of a.checks)
        for (const { key } of check.inspections) {
          const o = registry.get(key)!;
          for (const need of o.needs ?? [])
            expect(has.has(need as 'belt'))
              .withContext(`${v.id} asks ${key}`)
              .toBeTrue();
        }
    }
  });

  it('are, while several designs are open, those that one of them can have', () => {
    for (const engine of cat.engines.keys()) {
      const a = answersFor(worldOf(cat), reduce([fact('engine.code', engine)]));
      const any = new Set(
        (cat.variantsOf.get(engine) ?? []).flatMap((v) => [...driveHas(stagesFor(cat, v.layout!))]),
      );
      for (const { cause } of a.ranking.causes)
        for (const need of cause.needs ?? [])
          expect(any.has(need)).withContext(`${engine} ${cause.key}`).toBeTrue();
      for (const check of a.checks)
        for (const { key } of check.inspections)
          for (const need of registry.get(key)!.needs ?? [])
            expect(any.has(need as 'belt'))
              .withContext(`${engine} asks ${key}`)
              .toBeTrue();
    }
  });

  it('do not let a noise alone decide on a chain', () => {
    const facts = [...identified(cat.variants.get('QU13-STOA/A')!), fact('symptom', 'noise')];
    const at = (km: number) => [...facts, fact('vehicle.odometer', km), fact('kit.fitted_odometer', 0)];
    for (const f of [facts, at(20_000), at(90_000)])
      expect(answersFor(worldOf(cat), reduce(f)).ranking.causes[0]!.probability).toBeLessThan(0.5);
  });

  it('ask for every input of a finding, so that filing them gives it', () => {
    const v = cat.variants.get('QU13-STOA/A')!;
    const facts = identified(v);
    const keys = new Map(
      answersFor(worldOf(cat), reduce(facts)).checks.map((c) => [
        c.finding,
        c.inspections.map((l) => (l.about ? `${l.key} ${l.about}` : l.key)),
      ]),
    );
    expect(keys.get('marks.verdict')).toEqual(['mark wheel:exhaust', 'mark wheel:intake']);
    expect(keys.get('extension.rest')).toEqual(['tensioner.extension', 'chain.length', 'chain.links_over']);
    expect(keys.get('chain.long')).toEqual(['chain.length', 'chain.links_over']);
    const values: Record<string, number> = {
      'tensioner.extension': 7,
      'chain.length': 320.1,
      'chain.links_over': 40,
      'mark.exhaust': 0,
      'mark.intake': 0,
    };
    const filed = [...facts, ...Object.entries(values).map(([k, x]) => fact(k, x, 'measured'))];
    const found = answersFor(worldOf(cat), reduce(filed)).findings.map((f) => f.finding);
    expect(found).toEqual(jasmine.arrayContaining(['marks.verdict', 'extension.rest', 'chain.long']));
  });

  it('cover every evidence row with observables that exist', () => {
    for (const finding of weighedFindings(CAUSES))
      for (const key of inputsOf(CAUSES, finding)) expect(registry.has(key)).withContext(finding).toBeTrue();
  });
});

describe('kits and questions of the catalogue', () => {
  it('hold what the drive has: every belt and chain by its place, with its teeth or links', () => {
    for (const v of designs) {
      const stages = stagesFor(cat, v.layout!);
      for (const number of cat.kitsOf.get(v.id) ?? []) {
        const kit = cat.kits.get(number)!;
        if (kit.status === 'discontinued') continue;
        const parts = kit.contents.flatMap((c) =>
          Array.from({ length: c.quantity }, () => cat.parts.get(c.part)!),
        );
        const loops = parts.filter((p) => p.kind === 'belt' || p.kind === 'chain');
        const held = loops
          .map((p) => `${p.kind} ${String(p.attributes['teeth'] ?? p.attributes['links'])}`)
          .sort();
        const wanted = stages.map((s) => `${s.layout.kind} ${s.layout.count}`).sort();
        expect(held).withContext(number).toEqual(wanted);
        expect(new Set(loops.map((p) => p.name)).size)
          .withContext(number)
          .toBe(loops.length);
        if (stages.length > 1 && stages[0]!.layout.kind === 'chain')
          expect(loops.map((p) => p.name).sort()).toEqual(stages.map((s) => s.layout.name!).sort());
        if (parts.some((p) => p.kind === 'pump'))
          expect(driveHas(stages).has('belt_pump')).withContext(number).toBeTrue();
      }
    }
  });

  it('name exactly what a figure measures, and a pack that does not is told', () => {
    for (const f of cat.pack.features) expect(ambiguousValues(f)).withContext(f.id).toEqual([]);
    const option = (wording: string, key = 'a') => ({ key, wording });
    expect(ambiguousValues({ options: [option('8 mm'), option('10 mm')] })).toEqual(['8 mm', '10 mm']);
    expect(ambiguousValues({ options: [option('Eight', 'm8'), option('Ten', 'm10')] })).toEqual([
      'Eight',
      'Ten',
    ]);
    expect(ambiguousValues({ measures: 'thread', options: [option('8 mm')] })).toEqual(['8 mm']);
    expect(
      ambiguousValues({ measures: 'key', options: [option('M8'), option('13 mm across flats')] }),
    ).toEqual(['M8']);
    expect(ambiguousValues({ options: [option('Five'), option('Black')] })).toEqual([]);
  });
});
