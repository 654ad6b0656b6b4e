import fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import { placesAlong } from './along';
import { fitCentres } from './fit-centres';
import { coolingWait, heatEffect } from './heat';
import { growCentres } from './move';
import { nominalLength } from './layout';
import { solveDrive, solveFixed } from './solve-drive';
import { slotDegrees, slotRoom, slotTravel } from './slots';
import { judgeBand } from '@core/quantity/judge';
import { lengthDifference } from './stack-up';
import {
  deflectionFromTension,
  frequencyFromTension,
  tensionFromDeflection,
  tensionFromFrequency,
} from './strand-tension';
import { turnedBy } from './turned';
import { isSafe, pistonDrop, safeCrankRanges, smallestGaps } from './valve-safety';
import { elongation, extensionRemainder, wearState } from './wear';

const value = <T>(r: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!r.ok) throw new Error(JSON.stringify(r.error));
  return r.value;
};
const layouts = demoPack().layouts;
const chain = layouts.find((l) => l.id === 'stoat-a')!;
const belt = layouts.find((l) => l.id === 'corm-121')!;
const seed = fc.readConfigureGlobal()?.seed ?? 11;

describe('extension against elongation', () => {
  it('is explained when the chain alone gives it, and leaves guide wear when the shoes are worn', () => {
    const e = { value: 0.002, u: 0.0001 };
    const { reading } = value(wearState(chain, e.value));
    const fair = value(extensionRemainder(chain, { value: reading!.worn + 0.1, u: 0.2 }, e));
    expect(fair.verdict).toBe('explained');
    // second method: wear the shoes by 1.5 mm in the data and read what the drive then shows
    const worn = {
      ...chain,
      wheels: chain.wheels.map((w) => (w.arc ? { ...w, outsideMm: w.outsideMm! - 1.5 } : w)),
    };
    const shown = value(solveDrive(worn, e.value * nominalLength(worn))).setting!.reading;
    const r = value(extensionRemainder(chain, { value: shown, u: 0.2 }, e));
    expect(r.verdict).toBe('more');
    expect(r.guideWear!.value).toBeCloseTo(1.5, 6);
    expect(r.guideWear!.u).toBeGreaterThan(0);
    expect(value(extensionRemainder(chain, { value: reading!.worn - 4, u: 0.2 }, e)).verdict).toBe('less');
  });
});

describe('pistons and valves', () => {
  it('fall as the slider-crank does: stroke at the bottom, closed form at 90°', () => {
    const g = { strokeMm: 80, rodMm: 140 };
    expect(pistonDrop(g, 0)).toBe(0);
    expect(pistonDrop(g, 180)).toBeCloseTo(80, 12);
    expect(pistonDrop(g, 90)).toBeCloseTo(40 + 140 - Math.sqrt(140 ** 2 - 40 ** 2), 12);
  });

  it('are safe exactly where every crown lies below the deepest valve, by dense scan', () => {
    const g = belt.valves!;
    const { ranges } = safeCrankRanges(g);
    const reach = Math.max(...g.valves.map((v) => v.reachMm));
    for (let d = 0; d < 720; d += 0.37) {
      const clear = g.cylinders.every((c) => g.deckMm + pistonDrop(g, d - c.firingDeg) > reach);
      expect(isSafe(ranges, d)).withContext(String(d)).toBe(clear);
    }
    expect(isSafe(ranges, 90)).toBeTrue();
    expect(isSafe(ranges, 0)).toBeFalse();
  });

  it('meet when the intake comes too early or the exhaust too late, and not as made', () => {
    const gap = (deg: number) => smallestGaps(belt.valves!, () => deg).map((c) => c.gapMm);
    const [exhaust, intake] = gap(0);
    expect(Math.min(exhaust!, intake!)).toBeGreaterThan(0.5);
    expect(gap(36)[1]).toBeLessThan(0);
    expect(gap(-36)[0]).toBeLessThan(0);
    expect(gap(36)[0]).toBeGreaterThan(exhaust!);
    expect(safeCrankRanges({ ...belt.valves!, deckMm: 20 }).ranges).toEqual([{ fromDeg: 0, toDeg: 360 }]);
  });
});

describe('heat', () => {
  it('finds the time constant of a cooling curve and the wait, in closed form', () => {
    const tau = 2700;
    const t = (s: number) => 18 + 70 * Math.exp(-s / tau);
    const r = value(coolingWait({ s: 600, c: t(600) }, { s: 1500, c: t(1500) }, 18, 5));
    expect(r.tauS).toBeCloseTo(tau, 6);
    expect(t(1500 + r.waitS)).toBeCloseTo(23, 9);
    expect(coolingWait({ s: 0, c: 60 }, { s: 60, c: 61 }, 18, 5)).toEqual({
      ok: false,
      error: { code: 'not_cooling' },
    });
  });

  it('lengthens a drive of two equal wheels by 2·α·d·ΔT, in closed form to 1e-9 mm', () => {
    const wheel = { role: 'crank' as const, y: 0, teeth: 20, side: 1 as const, rimMm: 0 };
    const pair = {
      ...belt,
      wheels: [
        { ...wheel, id: 'a', name: 'A', x: 0 },
        { ...wheel, id: 'b', name: 'B', x: 250 },
      ],
    };
    const length = (l: typeof pair) => value(solveFixed(l)).path.lengthMm;
    const warm = growCentres(pair, 1 + 1.8e-5 * 70) as typeof pair;
    expect(length(warm) - length(pair)).toBeCloseTo(2 * 1.8e-5 * 250 * 70, 9);
  });

  it('makes a setting fixed in the warm slack in the cold, and moves a tensioner that follows towards its start', () => {
    const h = value(heatEffect(belt, 90));
    expect(h.slackWhenColdMm).toBeGreaterThan(0.3);
    expect(h.reading.warm).toBeLessThan(h.reading.drawn);
    expect(value(heatEffect(belt, belt.heat!.drawnAtC)).slackWhenColdMm).toBeCloseTo(0, 12);
  });
});

describe('strand, slot and stack-up', () => {
  it('convert there and back, and a string behaves as tables of strings say', () => {
    const n = fc.double({ min: 1, max: 900, noNaN: true });
    fc.assert(
      fc.property(n, n, n, (a, b, c) => {
        const pressed = deflectionFromTension(c, a, b);
        expect(pressed.ok).toBe(a < 2 * c);
        if (pressed.ok) {
          const { exact, small, smallError } = pressed.value;
          expect(value(tensionFromDeflection(a, b, exact)).exact / c).toBeCloseTo(1, 9);
          // second method: forces at the middle, each half pulls with its upright part
          const up = exact / Math.hypot(exact, b / 2);
          expect((2 * c * up) / a).toBeCloseTo(1, 9);
          expect(small / exact - 1).toBeCloseTo(smallError, 12);
          expect(small).toBeLessThan(exact);
        }
        const s = { spanMm: b, kgPerM: 0.1 };
        expect(value(tensionFromFrequency(value(frequencyFromTension(c, s)), s)) / c).toBeCloseTo(1, 9);
        expect(slotTravel(slotDegrees(a, b), b)).toBeCloseTo(a, 9);
      }),
      { seed },
    );
    // 1 m, 1 g/m, 100 N: √(100/0.001)/2 = 158.1 Hz
    expect(value(frequencyFromTension(100, { spanMm: 1000, kgPerM: 0.001 }))).toBeCloseTo(158.11, 2);
    // pressed by a third of the span the usual form is 17 % short, at half of it 29 %
    expect(value(tensionFromDeflection(30, 120, 40)).smallError).toBeCloseTo(60 / Math.hypot(40, 60) - 1, 12);
    for (const bad of [
      tensionFromDeflection(30, 120, 0),
      tensionFromDeflection(-1, 120, 5),
      deflectionFromTension(-5, 10, 100),
      deflectionFromTension(10, 20, 100),
      deflectionFromTension(NaN, 20, 100),
      frequencyFromTension(-1, { spanMm: 100, kgPerM: 0.1 }),
      frequencyFromTension(1, { spanMm: 100, kgPerM: 0 }),
      tensionFromFrequency(Infinity, { spanMm: 100, kgPerM: 0.1 }),
    ])
      expect(bad.ok).toBeFalse();
    expect(elongation(0, 0, 8, 0.1).ok).toBeFalse();
    const room = slotRoom({ radiusMm: 32, halfMm: 3 }, 1);
    expect(room.advanceDeg).toBeCloseTo((2 / 32) * (180 / Math.PI), 9);
    expect(room.retardDeg).toBeCloseTo((4 / 32) * (180 / Math.PI), 9);
    expect(slotRoom({ radiusMm: 32, halfMm: 3 }, 3).atEnd).toBeTrue();
    const play = lengthDifference({ value: 20.1, u: 0.03 }, { value: 20, u: 0.04 });
    expect(play.u).toBeCloseTo(0.05, 12);
    expect(judgeBand(play.value, play.u, { from: 0.05, to: 0.15 })).toBe('cannot_tell');
    expect(judgeBand(play.value, 0.01, { from: 0.05, to: 0.15 })).toBe('within');
    // below at one end and above at the other is no "outside": a narrow band lies between
    expect(judgeBand(0.1, 0.1, { from: 0.09, to: 0.11 })).toBe('cannot_tell');
  });
});

describe('turning', () => {
  it('brings a cam round half as fast, and the belt’s teeth to where they were after a whole number of pitches', () => {
    const { circles, path } = value(solveFixed(belt));
    const t = turnedBy(belt, circles, 720);
    expect(t.wheelDeg[0]).toBe(-720);
    expect(t.wheelDeg[3]).toBe(-360);
    expect(t.pitches).toBe(40);
    const still = placesAlong(circles, path, belt.count, 0);
    const run = placesAlong(circles, path, belt.count, 40 * (path.lengthMm / belt.count));
    // tooth 0 now stands where tooth 40 stood
    expect(Math.hypot(run[0]!.x - still[40]!.x, run[0]!.y - still[40]!.y)).toBeLessThan(1e-6);
    const gaps = still.map((p, i) => {
      const q = still[(i + 1) % still.length]!;
      return Math.hypot(q.x - p.x, q.y - p.y);
    });
    expect(Math.max(...gaps)).toBeLessThan(belt.pitchMm + 0.01);
    expect(Math.min(...gaps)).toBeGreaterThan(belt.pitchMm * 0.98);
  });
});

describe('centres from distances', () => {
  const truth = [
    { x: 0, y: 0 },
    { x: 0, y: 300 },
    { x: 80, y: 150 },
    { x: -70, y: 120 },
  ] as const;
  const pairs = [
    [0, 1],
    [0, 2],
    [0, 3],
    [1, 2],
    [1, 3],
    [2, 3],
  ] as const;
  const measured = (wrong = -1) =>
    pairs.map(([a, b], i) => ({
      a,
      b,
      mm: Math.hypot(truth[a].x - truth[b].x, truth[a].y - truth[b].y) + (i === wrong ? 2 : 0),
      u: 0.2,
    }));
  const rough = truth.map((p, i) => ({ x: p.x + (i > 1 ? 9 : 0), y: p.y - 8 * Number(i > 0) }));

  it('come back from exact distances to 1e-6 mm, on the side that the rough sketch says', () => {
    const fit = value(fitCentres(rough, measured()));
    fit.points.forEach((p, i) => expect(Math.hypot(p.x - truth[i]!.x, p.y - truth[i]!.y)).toBeLessThan(1e-6));
    expect(fit.disagree).toEqual([]);
    expect(fit.freedom).toBe(1);
  });

  it('name what cannot be placed', () => {
    const loose = fitCentres(
      rough,
      measured()
        .slice(0, 5)
        .filter((_, i) => i !== 2 && i !== 4),
    );
    expect(loose).toEqual({ ok: false, error: { code: 'loose_wheels', wheels: [3] } });
  });

  it('name the one distance that disagrees, when there are enough to tell', () => {
    const more = [...truth, { x: 10, y: 210 }];
    const all = more.flatMap((p, a) =>
      more.slice(a + 1).map((q, k) => ({ a, b: a + 1 + k, mm: Math.hypot(p.x - q.x, p.y - q.y), u: 0.2 })),
    );
    const fit = value(
      fitCentres(
        more,
        all.map((d, i) => (i === 5 ? { ...d, mm: d.mm + 4 } : d)),
      ),
    );
    expect(fit.disagree).toEqual([5]);
    // three wheels and four distances: they cannot all be right, and no one can say which is wrong
    const few = value(
      fitCentres(rough.slice(0, 3), [
        ...measured().slice(0, 2),
        measured()[3]!,
        { a: 1, b: 2, mm: 190, u: 0.2 },
      ]),
    );
    expect(few.disagree.length).toBeGreaterThan(1);
  });
});
