import * as fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import type { ValveGeometry } from '@core/drive/valves-schema';
import { readyTime } from '@core/drive/heat';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { tighteningOrder } from './pattern';
import { recover, roomAt, type Shafts } from './recover';
import { extensionSetting, wrenchFit } from './wrench';

describe('a pattern', () => {
  const pattern = fc.record({
    rows: fc.integer({ min: 1, max: 4 }),
    columns: fc.integer({ min: 1, max: 8 }),
    rounds: fc.constant(3),
  });
  it('has every bolt once, goes outward from the middle, and is undone backwards', () => {
    fc.assert(
      fc.property(pattern, (p) => {
        const out = tighteningOrder({ ...p, from: 'middle' });
        expect(out.bolts.map((b) => b.number)).toEqual(out.bolts.map((_, i) => i + 1));
        expect(new Set(out.bolts.map((b) => `${b.row} ${b.column}`)).size).toBe(p.rows * p.columns);
        const off = out.bolts.map((b) => Math.abs(b.column - (p.columns - 1) / 2));
        if (p.rows <= 2) expect([...off].sort((a, b) => a - b)).toEqual(off);
        const back = tighteningOrder({ ...p, from: 'ends' });
        expect([...back.bolts].reverse().map((b) => `${b.row} ${b.column}`)).toEqual(
          out.bolts.map((b) => `${b.row} ${b.column}`),
        );
      }),
    );
  });
});

describe('a wrench', () => {
  it('fits its range but for the lowest fifth', () => {
    const range = { from: 5, to: 50 };
    expect([4, 8, 10, 50, 51].map((nm) => wrenchFit(nm, range))).toEqual([
      'below',
      'low',
      'fits',
      'fits',
      'above',
    ]);
  });

  it('with an extension is set so that force times whole lever gives the torque', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 5, max: 200 }),
        fc.integer({ min: 150, max: 800 }),
        fc.integer({ min: 0, max: 150 }),
        fc.integer({ min: 0, max: 180 }),
        (nm, length, a, deg) => {
          const set = extensionSetting(nm, length, a, deg);
          // second method: hand force at the grip, moment about the bolt
          const force = set / (length / 1000);
          expect(force * (length + a * Math.cos((deg * Math.PI) / 180))).toBeCloseTo(nm * 1000, 6);
          if (deg === 90) expect(set).toBeCloseTo(nm, 9);
        },
      ),
    );
  });
});

describe('the time when it is cold', () => {
  it('is that of an engine that cools by Newton’s law, with an uncertainty that grows with the readings’', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 120 }),
        fc.integer({ min: 60, max: 100 }),
        fc.integer({ min: 10, max: 40 }),
        (tauMin, start, after) => {
          const [air, tau] = [18, tauMin * 60];
          const at = (s: number) => air + (start - air) * Math.exp(-s / tau);
          const second = at(after * 60);
          if (second - air < 8) return;
          const r = readyTime({ s: 0, c: start }, { s: after * 60, c: second }, air, 5, 0.5);
          if (!r.ok) return fail(r.error.code);
          expect(at(after * 60 + r.value.waitS) - air).toBeCloseTo(5, 6);
          const finer = readyTime({ s: 0, c: start }, { s: after * 60, c: second }, air, 5, 0.25);
          expect(finer.ok && finer.value.uS < r.value.uS).toBeTrue();
          // second method: the same spread from many noisy pairs of readings, within a third
          const waits = [-1, 0, 1].flatMap((i) =>
            [-1, 0, 1].flatMap((j) =>
              [-1, 0, 1].map((k) => {
                const d = 0.05 * Math.sqrt(1.5);
                const w = readyTime(
                  { s: 0, c: start + i * d },
                  { s: after * 60, c: second + j * d },
                  air + k * d,
                  5,
                  0,
                );
                return w.ok ? w.value.waitS : NaN;
              }),
            ),
          );
          const mean = waits.reduce((a, b) => a + b, 0) / waits.length;
          const sd = Math.sqrt(waits.reduce((a, b) => a + (b - mean) ** 2, 0) / waits.length);
          const small = readyTime({ s: 0, c: start }, { s: after * 60, c: second }, air, 5, 0.05);
          expect(small.ok && Math.abs(small.value.uS / sd - 1)).toBeLessThan(0.34);
        },
      ),
      { numRuns: 40 },
    );
  });
});

const LEAST = SHIPPED_POLICY.leastRoomMm;
const geometries = demoPack().layouts.flatMap((l) => (l.valves ? [{ id: l.id, g: l.valves }] : []));

/** Room between crown and valve, computed anew: slider-crank by coordinates, lift by the valve's own law. */
function roomAgain(g: ValveGeometry, s: Shafts): number {
  let least = Infinity;
  for (const v of g.valves)
    for (const c of g.cylinders) {
      if (v.bank !== undefined && c.bank !== undefined && v.bank !== c.bank) continue;
      const a = ((s.crankDeg - c.firingDeg) * Math.PI) / 180;
      const r = g.strokeMm / 2;
      const pin = { x: r * Math.sin(a), y: r * Math.cos(a) };
      const crown = g.deckMm + r + g.rodMm - (pin.y + Math.sqrt(g.rodMm ** 2 - pin.x ** 2));
      const into = ((((s.cams[v.wheel] ?? 0) - c.firingDeg - v.openDeg) % 720) + 1440) % 720;
      const span = v.closeDeg - v.openDeg;
      if (into >= span) continue;
      const lift = (v.reachMm * (1 - Math.cos((2 * Math.PI * into) / span))) / 2;
      if (lift > 0) least = Math.min(least, crown - lift);
      if (g.crossMm === undefined || lift <= 0) continue;
      for (const w of g.valves) {
        if (w.wheel === v.wheel || (w.bank !== undefined && c.bank !== undefined && w.bank !== c.bank))
          continue;
        const other = ((((s.cams[w.wheel] ?? 0) - c.firingDeg - w.openDeg) % 720) + 1440) % 720;
        const wide = w.closeDeg - w.openDeg;
        const second = other >= wide ? 0 : (w.reachMm * (1 - Math.cos((2 * Math.PI * other) / wide))) / 2;
        if (second > 0) least = Math.min(least, g.crossMm - lift - second);
      }
    }
  return least;
}

describe('the way back of lost timing', () => {
  it('ends at every mark, turns cams only where no valve can reach a piston, and touches nothing on the way', () => {
    expect(geometries.length).toBeGreaterThan(8);
    let [found, refused, long] = [0, 0, 0];
    fc.assert(
      fc.property(
        fc.constantFrom(...geometries),
        fc.integer({ min: -180, max: 180 }),
        fc.array(fc.integer({ min: -360, max: 359 }), { minLength: 4, maxLength: 4 }),
        ({ id, g }, crankDeg, offs) => {
          const wheels = [...new Set(g.valves.map((v) => v.wheel))];
          const now: Shafts = { crankDeg, cams: Object.fromEntries(wheels.map((w, i) => [w, offs[i % 4]!])) };
          const r = recover(g, now, LEAST);
          const here = roomAgain(g, now);
          const mine = roomAt(g, now).mm;
          if (here < 1e6) expect(mine).withContext(id).toBeCloseTo(here, 6);
          if (!r.ok) {
            refused++;
            if (r.error.code === 'touching') expect(here).toBeLessThanOrEqual(1e-6);
            if (r.error.code === 'too_close') expect(here).toBeLessThan(LEAST);
            return;
          }
          found++;
          const least = Math.min(LEAST, roomAgain(g, { crankDeg: 0, cams: {} }));
          let at = now;
          for (const m of r.value.moves) {
            // The other way round is as long as what is left of a turn, never more.
            const period = m.turn === 'crank' ? 360 : 720;
            expect(Math.abs(m.byDeg)).toBeLessThanOrEqual(period);
            if (Math.abs(m.byDeg) > period / 2) long++;
            for (let k = 0; k <= Math.abs(m.byDeg); k++) {
              const by = Math.sign(m.byDeg) * k;
              const s =
                m.turn === 'crank'
                  ? { ...at, crankDeg: at.crankDeg + by }
                  : { ...at, cams: { ...at.cams, [m.wheel!]: at.cams[m.wheel!]! + by } };
              expect(roomAgain(g, s))
                .withContext(id)
                .toBeGreaterThan(least - 1e-6);
            }
            at =
              m.turn === 'crank'
                ? { ...at, crankDeg: at.crankDeg + m.byDeg }
                : { ...at, cams: { ...at.cams, [m.wheel!]: at.cams[m.wheel!]! + m.byDeg } };
          }
          const zero = (deg: number, period: number) =>
            Math.min(((deg % period) + period) % period, period - (((deg % period) + period) % period));
          expect(zero(at.crankDeg, 360)).toBeCloseTo(0, 6);
          for (const w of wheels) expect(zero(at.cams[w]!, 720)).toBeCloseTo(0, 6);
        },
      ),
      // a fixed draw, since the long way round is rare and has to be among them
      { numRuns: 150, seed: 20 },
    );
    expect(found).toBeGreaterThan(10);
    expect(found + refused).toBe(150);
    expect(long).toBeGreaterThan(0);
  });

  it('is computed or refused for every engine of the catalogue, from any place; where two valves cross, by the order of the cams', () => {
    const engines = new Set(demoPack().variants.map((v) => v.layout!));
    const root = (id: string) => demoPack().layouts.find((l) => l.id === id)!;
    for (const id of engines) expect(root(id).valves).withContext(id).toBeDefined();
    const g = geometries.find((x) => x.g.crossMm !== undefined)!.g;
    // Both cams of one cylinder wide open: their valves would meet where nothing but the piston was looked at.
    const [exhaust, intake] = [g.valves[0]!, g.valves.find((v) => v.wheel !== g.valves[0]!.wheel)!];
    const open = (v: typeof exhaust) => (v.openDeg + v.closeDeg) / 2 + g.cylinders[0]!.firingDeg;
    const both = { crankDeg: 90, cams: { [exhaust.wheel]: open(exhaust), [intake.wheel]: open(intake) } };
    expect(roomAt(g, both).mm).toBeCloseTo(g.crossMm! - exhaust.reachMm - intake.reachMm, 6);
    expect(roomAt({ ...g, crossMm: 100 }, both).mm).toBeGreaterThan(1);
  });

  it('is nothing where all stands at its marks, and refused where valves reach everywhere', () => {
    const { g } = geometries.find(({ g }) => recover(g, { crankDeg: 0, cams: {} }, LEAST).ok)!;
    const r = recover(g, { crankDeg: 0, cams: {} }, LEAST);
    expect(r.ok && r.value.moves).toEqual([]);
    const deep = { ...g, valves: g.valves.map((v) => ({ ...v, reachMm: 300 })) };
    const none = recover(deep, { crankDeg: 0, cams: {} }, LEAST);
    expect(none.ok ? '' : none.error.code).toBe('no_safe_range');
  });
});
