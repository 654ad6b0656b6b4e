import { NO_DESIGN } from '@core/fitting/design-values';
import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { tensionerIndex } from '@core/drive/layout';
import { safeCrankRanges, isSafe } from '@core/drive/valve-safety';
import { recover } from '@core/fitting/recover';
import { makeSheet } from '@core/fitting/sheet';
import { valuesAt } from '@core/fitting/values';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { recoveryPicture } from './recovery-picture';
import type { StepShape } from './step-shape';
import { isDrawn, stepPicture } from './step-picture';
import { LETTERS, shapesSvg, stampSvg } from './step-svg';

const cat = catalogueOf(demoPack());
const designs = [...cat.variants.values()].map((v) => {
  const stages = stagesFor(cat, v.layout!);
  return { v, stages, sheet: makeSheet(cat, v, stages, SHIPPED_POLICY) };
});
const figures = (s: StepShape): number[] =>
  s.tag === 'path'
    ? (s.d.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number)
    : s.tag === 'circle'
      ? [s.x, s.y, s.r]
      : [s.x, s.y];

describe('the drive at a step, on every design of the catalogue', () => {
  it('is drawn wherever the step touches it, within its sheet, and says only what then holds', () => {
    let drawn = 0;
    for (const { v, stages, sheet } of designs)
      for (const step of sheet.steps) {
        const where = `${v.id} ${step.id}`;
        const p = stepPicture(step, stages);
        expect(p !== undefined)
          .withContext(where)
          .toBe(isDrawn(step));
        if (!p) continue;
        drawn++;
        const now = step.now.stages[step.spot.stage]!;
        expect(p.loop.length)
          .withContext(where)
          .toBe(now.loop === 'off' ? 0 : 1);
        if (p.loop[0]) expect(p.loop[0].is).toBe(`loop ${now.loop}`);
        for (const s of [...p.base, ...p.loop, ...p.over])
          expect(figures(s).every(Number.isFinite)).withContext(`${where} ${s.tag}`).toBeTrue();
        const words = p.over.flatMap((s) => (s.tag === 'text' ? [s.text] : []));
        const { layout } = stages[step.spot.stage]!;
        const cams = layout.wheels.filter((w) => w.role === 'cam').length;
        const locked =
          (step.now.lockedCams ? cams : 0) +
          (step.now.lockedCrank && layout.wheels[0]!.role === 'crank' ? 1 : 0);
        expect(words.filter((w) => w === 'locked').length)
          .withContext(where)
          .toBe(locked);
        expect(words.includes('pinned'))
          .withContext(where)
          .toBe(now.pin === 'in' && now.tensioner !== 'off');
        // every word has its letter on paper
        for (const w of words) expect(LETTERS[w]).withContext(w).toBeDefined();
        for (const s of p.over)
          if (s.tag === 'text')
            expect(s.x > p.box.x - 30 && s.x < p.box.x + p.box.width + 30)
              .withContext(where)
              .toBeTrue();
      }
    expect(drawn).toBeGreaterThan(700);
  });

  it('turns key and pointer the way the layout turns them', () => {
    /** +1 when an arrow's arc runs anticlockwise as drawn: its sweep flag is 0, y downwards. */
    const sense = (d: string) => (/A[\d.]+ [\d.]+ 0 1 0/.test(d) ? 'ccw' : 'cw');
    let seen = 0;
    for (const { v, stages, sheet } of designs) {
      const step = sheet.steps.find((s) => s.sets?.includes('show-key'));
      if (!step) continue;
      const { layout } = stages[step.spot.stage]!;
      const carrier = layout.wheels[tensionerIndex(layout)]!.carrier!;
      if (carrier.kind !== 'eccentric') return fail(v.id);
      const arrows = stepPicture(step, stages)!.over.filter(
        (s) => s.tag === 'path' && s.is.startsWith('arrow'),
      );
      expect(arrows.map((a) => (a.tag === 'path' ? sense(a.d) : '')))
        .withContext(v.id)
        .toEqual([carrier.keyTurn, carrier.turn]);
      seen++;
    }
    expect(seen).toBeGreaterThan(10);
  });

  it('names a safe range that is one, before and after the mark', () => {
    let told = 0;
    for (const { v, stages } of designs) {
      const { valves } = stages[0]!.layout;
      const text = valuesAt(stages, { stage: 0 }, SHIPPED_POLICY, NO_DESIGN).texts.safe;
      expect(text === undefined)
        .withContext(v.id)
        .toBe(valves === undefined);
      if (!valves) continue;
      const { ranges } = safeCrankRanges(valves);
      for (const m of text!.matchAll(/between (\d+)° and (\d+)° after/g))
        for (const deg of [Number(m[1]), Number(m[2])])
          expect(isSafe(ranges, deg)).withContext(`${v.id} ${deg}`).toBeTrue();
      for (const m of text!.matchAll(/between (\d+)° before and (\d+)° after/g))
        for (const deg of [-Number(m[1]), Number(m[2])])
          expect(isSafe(ranges, deg)).withContext(`${v.id} ${deg}`).toBeTrue();
      told += ranges.length;
    }
    expect(told).toBeGreaterThan(10);
  });

  it('is a stamp on paper without names, and escapes what a name may hold', () => {
    const { stages, sheet } = designs[0]!;
    const p = stepPicture(sheet.steps.find((s) => s.id === 'place.lock')!, stages)!;
    const stamp = new DOMParser().parseFromString(stampSvg(p, 46), 'image/svg+xml');
    expect(stamp.querySelector('parsererror')).toBeNull();
    expect([...stamp.querySelectorAll('text')].map((t) => t.textContent)).toEqual(['L', 'L']);
    const evil = shapesSvg([{ tag: 'text', is: 'name', x: 0, y: 0, text: '<b a="1">&' }], 10, true);
    expect(
      new DOMParser().parseFromString(
        `<svg xmlns="http://www.w3.org/2000/svg">${evil}</svg>`,
        'image/svg+xml',
      ).documentElement.textContent,
    ).toBe('<b a="1">&');
  });

  it('draws a dial for every move of the way back', () => {
    const ways = designs.flatMap(({ stages }) => {
      const g = stages[0]!.layout.valves;
      const wheel = g?.valves[0]!.wheel ?? '';
      const r = g && recover(g, { crankDeg: 70, cams: { [wheel]: 40 } }, SHIPPED_POLICY.leastRoomMm);
      return r?.ok && r.value.moves.length > 1 ? [r] : [];
    });
    const [r] = ways;
    if (!r) return fail('no way at all');
    const p = recoveryPicture(r.value, 'cw', () => 'cam');
    expect(p.over.filter((s) => s.tag === 'text').length).toBe(r.value.moves.length);
    expect(p.over.every((s) => figures(s).every(Number.isFinite))).toBeTrue();
    expect(p.box.width).toBeGreaterThan(0);
  });
});
