import { answersFor } from '@core/answer/answers';
import { worldOf } from '@core/answer/world';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { featureKey } from '@core/catalogue/feature-observables';
import type { Variant } from '@core/catalogue/pack';
import { driveHas } from '@core/drive/drive-has';
import { tensionerIndex } from '@core/drive/layout';
import { solveDrive } from '@core/drive/solve-drive';
import { pistonDepth } from '@core/drive/valve-safety';
import { fileFacts, type NewFact } from '@core/facts/change';
import { reduce } from '@core/facts/state';
import { sheetFor } from '@core/fitting/sheet';
import { jobList } from '@core/match/job-list';
import { demoPack } from '../../demo/catalogue';
import type { Advice, CallerQuestion, SettingOf } from './advice';
import { advise, questionsAsked } from './advise';
import { agreedMarksOf, predictedMarks } from './marks';
import { reuseStanding } from './reuse';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
let ids = 0;
const author = { by: 'T', now: () => '2026-11-25T08:00:00.000Z', newId: () => `f${++ids}` };
const told = (key: string, value: NewFact['value'], about?: string): NewFact => ({
  key,
  value,
  how: 'reported',
  ...(about === undefined ? {} : { about }),
});
const caseOf = (...facts: NewFact[]) => {
  const state = reduce(fileFacts(reduce([]), 'c', facts, author));
  return { world, state, a: answersFor(world, state), today: '2026-11-25' as const };
};
const on = (asked: CallerQuestion, ...facts: NewFact[]): Advice => advise(asked, caseOf(...facts));
const layoutsOf = (v: Variant) => stagesFor(cat, v.layout!).map((s) => s.layout);

/** Cases of which only the engine is known, and of each design once its features are; with the designs left. */
const open = [
  ...cat.pack.engines.map((e) => [e.code, caseOf(told('engine.code', e.code))] as const),
  ...cat.pack.variants.map(
    (v) =>
      [
        v.engine,
        caseOf(
          told('engine.code', v.engine),
          ...Object.entries(v.features).map(([f, [value]]) => told(featureKey(f), value!)),
        ),
      ] as const,
  ),
].flatMap(([code, c]) => {
  const possible = c.a.identification?.possible ?? [];
  return possible.length > 0 ? [{ engine: cat.pack.engines.find((e) => e.code === code)!, c, possible }] : [];
});

describe('while several designs are possible', () => {
  it('there are engines of one and of more than one', () => {
    expect(open.filter((o) => o.possible.length === 1).length).toBeGreaterThan(5);
    expect(open.filter((o) => o.possible.length > 1).length).toBeGreaterThan(5);
  });

  it('a setting is said once only where each drive, solved alone, gives the same', () => {
    for (const { engine, c, possible } of open) {
      const said = advise('setting', c);
      const solved = possible.map((v) =>
        layoutsOf(v).flatMap((layout) => {
          if (tensionerIndex(layout) < 0) return [];
          const s = solveDrive(layout);
          return s.ok && s.value.setting ? [{ layout, reading: s.value.setting.reading }] : [];
        }),
      );
      const told = (of: readonly SettingOf[]) => of.map((s) => s.reading);
      if (solved.every((s) => s.length === 0)) {
        expect(said.lead.code).withContext(engine.code).toBe('no_setting');
        continue;
      }
      const carriers = solved.map((s) =>
        JSON.stringify(
          s.map(({ layout }) => ({ ...layout.wheels[tensionerIndex(layout)]!.carrier, pivot: 0, arm: 0 })),
        ),
      );
      const near = solved.every(
        (s) =>
          s.length === solved[0]!.length &&
          s.every((x, i) => Math.abs(x.reading - solved[0]![i]!.reading) < 0.5),
      );
      const one = near && new Set(carriers).size === 1;
      expect(said.standing)
        .withContext(engine.code)
        .toBe(one ? 'yes' : 'if');
      if (said.lead.code === 'setting') {
        expect(told(said.lead.settings)).toEqual(solved[0]!.map((s) => s.reading));
        expect(said.draw === 'setting').toBe(possible.length === 1);
        // the stage is named only where there are several
        for (const s of said.lead.settings) expect(s.stage === '').toBe(layoutsOf(possible[0]!).length === 1);
      }
      if (said.lead.code === 'setting_by_design')
        expect(said.lead.branches.map((b) => told(b.settings))).toEqual(
          solved.map((s) => s.map((x) => x.reading)),
        );
    }
  });

  it('only what every design takes besides its kit is called for, and it is certain when none takes more', () => {
    let looked = 0;
    for (const { engine, c, possible } of open) {
      const said = advise('also', c);
      // no kit is named and none fits all, so each list is that of the catalogue alone
      if (c.a.kits.some((k) => k.verdict === 'fits')) continue;
      looked++;
      const items = possible.map((v) =>
        jobList(cat, v.id, undefined)
          .filter((l) => l.source !== 'in_kit')
          .map((l) => l.item.item),
      );
      const all = items[0]!.filter((x) => items.every((i) => i.includes(x)));
      const certain = items.every((i) => i.length === all.length);
      if (said.lead.code === 'also') {
        expect(said.lead.lines.map((l) => l.item.item))
          .withContext(engine.code)
          .toEqual(all);
        expect(said.lead.certain).toBe(certain);
        expect(said.standing).toBe(certain ? 'yes' : 'if');
      } else expect([all.length, said.standing]).toEqual([0, certain ? 'cannot' : 'open']);
      expect(said.missing.length > 0).toBe(!certain);
    }
    expect(looked).toBeGreaterThan(5);
  });

  it('torques are read out only where every sheet tightens the same, and steps counted only where all are alike', () => {
    const codes = new Set<string>();
    for (const { engine, c, possible } of open) {
      const said = advise('torque', c);
      const sheets = possible.map((v) => sheetFor(cat, v, stagesFor(cat, v.layout!), c.a.policy));
      const same = (of: (s: (typeof sheets)[number]) => unknown) =>
        new Set(sheets.map((s) => JSON.stringify(of(s)))).size === 1;
      const torques = same((s) => s.steps.filter((x) => x.torque).map((x) => [x.id, x.torque]));
      const steps = same((s) => s.steps.map((x) => [x.id, x.text]));
      codes.add(`${torques} ${steps}`);
      if (!torques) {
        expect([said.standing, said.lead.code]).withContext(engine.code).toEqual(['open', 'no_procedure']);
        continue;
      }
      expect(said.standing).withContext(engine.code).toBe('yes');
      expect(said.lead.code === 'torques' && said.lead.of)
        .withContext(engine.code)
        .toBe(steps ? sheets[0]!.steps.length : 0);
      expect(said.missing.length > 0)
        .withContext(engine.code)
        .toBe(!steps);
    }
    expect(codes.size).toBeGreaterThan(1);
  });

  it('a crank may be turned where no piston of any design reaches its deepest valve, degree by degree', () => {
    let turned = 0;
    for (const { engine, c, possible } of open) {
      const said = advise('lost', c);
      const valves = possible.map((v) => layoutsOf(v).find((l) => l.valves)?.valves);
      if (engine.interference === 'no' || valves.some((v) => !v)) {
        expect(said.lead.code)
          .withContext(engine.code)
          .toBe(engine.interference === 'no' ? 'turn_free' : 'do_not_turn');
        continue;
      }
      const room = (deg: number) =>
        Math.min(
          ...valves.flatMap((g) =>
            g!.cylinders.map(
              (cyl) => pistonDepth(g!, cyl.firingDeg, deg) - Math.max(...g!.valves.map((v) => v.reachMm)),
            ),
          ),
        );
      const ranges = said.lead.code === 'may_turn' ? said.lead.ranges : [];
      for (let d = 0; d < 360; d++) {
        // a hair beside an edge is nobody's claim
        if (Math.abs(room(d)) < 1e-3) continue;
        const inside = ranges.some(
          (r) => (d >= r.fromDeg && d <= r.toDeg) || (d + 360 >= r.fromDeg && d + 360 <= r.toDeg),
        );
        expect(inside)
          .withContext(`${engine.code} ${d}`)
          .toBe(room(d) > 0);
      }
      expect(said.standing).toBe(ranges.length > 0 ? 'yes' : 'no');
      turned += Number(ranges.length > 0);
    }
    expect(turned).toBeGreaterThan(8);
  });

  it('a used part is answered for where a design has it, and said to be in some where not all do', () => {
    for (const { engine, c, possible } of open) {
      const said = advise('reuse', c);
      const has = possible.map((v) => driveHas(stagesFor(cat, v.layout!)));
      const kinds = (['plunger', 'chain', 'belt'] as const).filter((k) => has.some((h) => h.has(k)));
      if (said.lead.code !== 'reuse') {
        expect(kinds).withContext(engine.code).toEqual([]);
        continue;
      }
      expect([...new Set(said.lead.parts.map((p) => p.part))])
        .withContext(engine.code)
        .toEqual(kinds);
      for (const p of said.lead.parts) expect(p.some).toBe(!has.every((h) => h.has(p.part)));
      const standings = new Set(said.lead.parts.map(reuseStanding));
      expect(said.standing).toBe(
        standings.size === 1 ? [...standings][0]! : standings.has('open') ? 'open' : 'if',
      );
      const asked = said.missing.map((m) => m.key);
      expect(asked.includes('chain.length')).withContext(engine.code).toBe(kinds.includes('chain'));
      expect(asked.includes('tensioner.extension'))
        .withContext(engine.code)
        .toBe(kinds.includes('chain') && kinds.includes('plunger'));
      expect(asked).not.toContain('tensioner.leak_series');
    }
  });

  it('marks are predicted only where every design shows them, to a fiftieth of a tooth', () => {
    const none = reduce([]);
    expect(agreedMarksOf([], none)).toBeUndefined();
    let differ = 0;
    for (const { engine, possible, c } of open) {
      const designs = possible.map((v) => stagesFor(cat, v.layout!));
      const each = designs.map((d) => predictedMarks(d, none));
      const keyed = each.map((marks) => new Map(marks.map((m) => [m.about, m.teeth])));
      const same = keyed.every(
        (k) =>
          k.size === keyed[0]!.size &&
          [...k].every(([about, teeth]) => Math.abs(teeth - (keyed[0]!.get(about) ?? 9)) < 0.02),
      );
      const agreed = agreedMarksOf(designs, none);
      expect(agreed !== undefined)
        .withContext(engine.code)
        .toBe(same);
      if (agreed) expect(agreed).toEqual(each[0]!);
      else differ++;
      const said = advise('marks', c);
      const shared = [...keyed[0]!.keys()].filter((a) => keyed.every((k) => k.has(a)));
      if (said.lead.code === 'no_marks') expect(shared).toEqual([]);
      else expect(said.missing.filter((m) => m.key === 'mark').map((m) => m.about)).toEqual(shared);
    }
    expect(differ).toBeGreaterThan(0);
  });
});

describe('what a caller is still asked for', () => {
  const engine = told('engine.code', 'TE16-CORM');

  it('before it is due: when and how far, until each was asked', () => {
    const asked = (...f: NewFact[]) => on('due', engine, ...f).missing.map((m) => m.key);
    expect(asked()).toEqual(['kit.fitted', 'kit.fitted_odometer', 'vehicle.odometer', 'vehicle.yearly']);
    expect(asked(told('kit.fitted', '2024-03-12'), told('vehicle.odometer', 90_000))).toEqual([
      'kit.fitted_odometer',
      'vehicle.yearly',
    ]);
    const back = on(
      'due',
      engine,
      told('kit.fitted', '2024-03-12'),
      told('kit.fitted_odometer', 80_000),
      told('vehicle.odometer', 79_999),
    );
    expect([back.standing, back.lead.code, back.missing.map((m) => m.key)]).toEqual([
      'open',
      'odometer_back',
      ['vehicle.odometer'],
    ]);
    expect(on('due', told('engine.code', 'none')).lead.code).not.toBe('due');
  });

  it('of a noise: three inspections at most, each once; of nothing told, what was heard or read', () => {
    const nothing = on('means', engine);
    expect([nothing.standing, nothing.lead.code]).toEqual(['open', 'nothing_told']);
    const rattle = on('means', engine, told('symptom', 'rattle when cold'));
    if (rattle.lead.code !== 'noise') return fail(rattle.lead.code);
    const looks = rattle.lead.looks.map((l) => `${l.key}~${l.about}`);
    expect(looks.length).toBe(3);
    expect(new Set(looks).size).toBe(3);
    expect(rattle.because).toEqual([]);
    const after = on('means', engine, told('symptom', 'rattle when cold'), told('kit.fitted', '2026-01-05'));
    expect(after.because.map((b) => b.code)).toEqual(['after_job']);
    const nobody = on('means', told('symptom', 'rattle when cold'));
    expect(nobody.missing.map((m) => m.key)).toEqual(['engine.code']);
    const only = on('means', engine, told('fault.codes', ['P0301']));
    expect([only.standing, only.lead.code]).toEqual(['cannot', 'codes']);
  });

  it('of a part: which, and of what engine; a part of several kits is judged by the one that fits best', () => {
    expect(on('fits', engine).lead.code).toBe('which_part');
    expect(on('fits', told('kit.number', 'MF-K121-1')).lead.code).toBe('no_engine');
    const parts = new Set(cat.pack.kits.flatMap((k) => k.contents.map((x) => x.part)));
    let judged = 0;
    for (const part of parts)
      for (const { engine: e, c } of open.slice(0, 6)) {
        const said = on('fits', told('engine.code', e.code), told('thing.number', part, 'belt'));
        if (said.lead.code !== 'fits') return fail(said.lead.code);
        const verdicts = c.a.kits.filter((k) => k.kit.contents.some((x) => x.part === part));
        const best = verdicts.some((k) => k.verdict === 'fits')
          ? 'yes'
          : verdicts.some((k) => k.verdict === 'fits_if')
            ? 'if'
            : 'no';
        expect(said.standing).withContext(`${part} ${e.code}`).toBe(best);
        expect(said.lead.instead.length > 0)
          .withContext(`${part} ${e.code}`)
          .toBe(best === 'no' && c.a.kits.some((k) => k.verdict === 'fits' && k.kit.status === 'current'));
        judged++;
      }
    expect(judged).toBeGreaterThan(100);
  });

  it('why is said with the answer: the extension where one was measured, designs and interference only where they are the reason', () => {
    const chain = [told('engine.code', 'QU13-STOA'), told(featureKey('plunger-cap'), 'screw')];
    const measured = (key: string, value: number, u: number): NewFact => ({ key, value, u, how: 'measured' });
    expect(on('reuse', ...chain).because).toEqual([]);
    const length = [measured('chain.length', 321, 0.1), told('chain.links_over', 40)];
    expect(on('reuse', ...chain, ...length).because).toEqual([]);
    const extended = on('reuse', ...chain, ...length, measured('tensioner.extension', 12, 0.2));
    expect(extended.because.map((b) => b.code)).toEqual(['extension']);
    const [why] = extended.because;
    expect(why?.code === 'extension' && why.layout.kind).toBe('chain');
    for (const { engine: e, c } of open) {
      const lost = advise('lost', c);
      expect(lost.because.filter((b) => b.code !== 'pistons'))
        .withContext(e.code)
        .toEqual([{ code: 'interference', interference: e.interference }]);
      // turning free needs nothing more to be known, nor does a range
      if (lost.standing === 'yes') expect(lost.missing).toEqual([]);
      const reasons = advise('setting', c).because.map((b) => b.code);
      expect(reasons.every((r) => r === 'from_computed' || r === 'designs')).toBeTrue();
    }
  });

  it('of an engine that nobody knows is the engine; of one without sheet, interval or layout there is no answer', () => {
    const asked = ['kit', 'setting', 'marks', 'torque', 'also', 'due', 'reuse', 'lost'] as const;
    for (const question of asked) {
      const none = on(question, told('engine.code', 'none'));
      expect([none.standing, none.lead.code, none.missing.map((m) => m.key)])
        .withContext(question)
        .toEqual(['open', 'no_engine', ['engine.code']]);
    }
    const pack = demoPack();
    const bare = worldOf(
      catalogueOf({
        ...pack,
        intervals: [],
        variants: pack.variants.map(
          (v) => Object.fromEntries(Object.entries(v).filter(([k]) => k !== 'layout')) as Variant,
        ),
        procedures: [],
      }),
    );
    const state = reduce(fileFacts(reduce([]), 'c', [engine], author));
    const c = { world: bare, state, a: answersFor(bare, state), today: '2026-11-25' as const };
    const codes = (['setting', 'marks', 'torque', 'due', 'lost'] as const).map((q) => {
      const said = advise(q, c);
      return [q, said.standing, said.lead.code];
    });
    expect(codes).toEqual([
      ['setting', 'cannot', 'no_setting'],
      ['marks', 'cannot', 'no_marks'],
      ['torque', 'cannot', 'no_procedure'],
      ['due', 'cannot', 'no_interval'],
      ['lost', 'cannot', 'do_not_turn'],
    ]);
    expect(advise('reuse', c).lead.code).toBe('design_open');
  });

  it('questions are kept in the order in which they were told, and what is none is dropped', () => {
    const { state } = caseOf(told('call.asked', ['due', 'kit']));
    expect(questionsAsked(state)).toEqual(['due', 'kit']);
  });
});
