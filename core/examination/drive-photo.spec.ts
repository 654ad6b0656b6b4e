import { checkLoop } from '@core/drive/check-loop';
import { type Layout, pitchRadius } from '@core/drive/layout';
import { solveDrive } from '@core/drive/solve-drive';
import { nth } from '@core/quantity/must';
import { randomFrom } from '@core/quantity/random';
import { cameraOver } from '@core/simulate/photograph';
import { demoPack } from '../../demo/catalogue';
import { measureDrive } from './drive-photo';
import type { DrivePhoto } from './photo-sheet';

type Spot = { x: number; y: number };
const CARD = { width: 85, height: 54 };
/** Normal noise from two uniform ones (Box and Muller 1958). */
const noise = (random: () => number) =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** A drive as it stands, seen by a camera that is held by hand, with a card beside it, and picked with an unsteady hand. */
function picked(layout: Layout, seed: number, pickPx: number): { photo: DrivePhoto; layout: Layout } {
  const s = solveDrive(layout);
  if (!s.ok) throw new Error(layout.id);
  const { circles } = s.value;
  const reach = circles.map((c) => c.r + 40);
  const xs = circles.flatMap((c, i) => [c.x - nth(reach, i), c.x + nth(reach, i)]);
  const ys = circles.flatMap((c, i) => [-c.y - nth(reach, i), -c.y + nth(reach, i)]);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const view = { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y + CARD.height };
  const camera = cameraOver(view, seed, 2400, 1800);
  const random = randomFrom(seed + 1);
  const hand = ({ x: px, y: py }: Spot): Spot => ({
    x: px + pickPx * noise(random),
    y: py + pickPx * noise(random),
  });
  const see = (p: Spot) => hand(camera.see({ x: p.x, y: -p.y }));
  const low = -(view.y + view.h);
  const card = [
    { x: view.x, y: low + CARD.height },
    { x: view.x + CARD.width, y: low + CARD.height },
    { x: view.x + CARD.width, y: low },
    { x: view.x, y: low },
  ];
  const wheels = layout.wheels.map((w, i) => {
    const c = nth(circles, i);
    const r = w.teeth === undefined ? (w.outsideMm ?? 0) : pitchRadius(layout, w) - 0.6;
    const [from, to] = w.arc && c.arc ? [c.arc[0], c.arc[1]] : [0, 2 * Math.PI];
    const spots = Array.from({ length: 6 }, (_, k) => {
      const a = from + ((to - from) * k) / (w.arc ? 5 : 6);
      return see({ x: c.x + r * Math.cos(a), y: c.y + r * Math.sin(a) });
    });
    const { id, name, role, side } = w;
    return {
      id,
      name,
      role,
      side,
      spots,
      ...(w.teeth === undefined ? {} : { teeth: w.teeth }),
      ...(w.arc ? { shoe: true } : {}),
    };
  });
  const { kind, runs, pitchMm, count, backMm, toothMm } = layout;
  const photo: DrivePhoto = {
    ...{ kind, runs, pitchMm, count, backMm, toothMm },
    scale: 'rectangle',
    sides: [CARD.width, CARD.height],
    sideU: 0.05,
    marks: card.map(see),
    wheels,
    distances: [],
  };
  return {
    photo,
    layout: { ...layout, wheels: layout.wheels.map((w, i) => ({ ...w, ...at(nth(circles, i)) })) },
  };
}
const at = ({ x, y }: Spot): Spot => ({ x, y });
const drives = demoPack().layouts.filter((l) => l.follows === undefined && solveDrive(l).ok);
const measured = (p: DrivePhoto, px: number) => {
  const m = measureDrive(p, px, 'own');
  if (!m.ok) throw new Error(JSON.stringify(m.error));
  return m.value;
};

describe('a drive drawn up from a photograph', () => {
  it('has every wheel where it is, to scale, however the camera was held, as near as it says', () => {
    for (const [k, l] of drives.entries()) {
      const { photo, layout } = picked(l, 100 + k, 0);
      const m = measured(photo, 0.5);
      const origin = nth(layout.wheels, 0);
      layout.wheels.forEach((w, i) => {
        const got = nth(m.wheels, i);
        const true_ = Math.hypot(w.x - origin.x, w.y - origin.y);
        // Nothing was picked wrongly here: only where exactly a rim is seen is not known.
        expect(Math.abs(Math.hypot(got.x, got.y) - true_)).toBeLessThan(got.u + 1e-6);
        if (w.teeth === undefined)
          expect(Math.abs((got.rimMm ?? 0) - (w.outsideMm ?? 0))).toBeLessThan(got.rimU ?? 0);
      });
      const check = checkLoop(m.layout, m.lengthU ?? 0);
      expect(Math.abs(check.offMm ?? 99)).toBeLessThan(check.u);
    }
    expect(drives.length).toBeGreaterThan(12);
  });

  it('is surer by far with every rim on its circle and one distance measured than by a small card alone', () => {
    const { photo, layout } = picked(nth(drives, 0), 9, 0);
    const far = layout.wheels.findIndex((w) => w.role === 'cam');
    const [o, c] = [nth(layout.wheels, 0), nth(layout.wheels, far)];
    const alone = measured(
      { ...photo, wheels: photo.wheels.map((w) => ({ ...w, spots: w.spots.slice(0, 3) })) },
      1.5,
    );
    const rims = measured(photo, 1.5);
    const distance = { a: o.id, b: c.id, mm: Math.hypot(c.x - o.x, c.y - o.y), u: 0.3 };
    const all = measured({ ...photo, distances: [distance] }, 1.5);
    expect(rims.lengthU ?? 99).toBeLessThan((alone.lengthU ?? 0) / 2);
    expect(all.lengthU ?? 99).toBeLessThan((rims.lengthU ?? 0) / 2);
    expect(all.wheels[far]?.u ?? 99).toBeLessThan(0.31);
  });

  it('closes exactly once the belt is known to lie on it, and moves nothing further than it was unsure', () => {
    for (const l of drives.slice(0, 6)) {
      const { photo } = picked(l, 41, 0.7);
      const [open, closed] = [false, true].map((c) => {
        const m = measureDrive(photo, 0.7, 'own', c);
        if (!m.ok) throw new Error(m.error.code);
        return m.value;
      });
      expect(Math.abs(checkLoop(nth([closed], 0)!.layout, 1).offMm ?? 9)).toBeLessThan(0.1);
      closed!.wheels.forEach((w, i) => {
        const before = nth(open!.wheels, i);
        const moved = Math.abs(Math.hypot(w.x, w.y) - Math.hypot(before.x, before.y));
        expect(moved).toBeLessThan(3 * before.u + 1e-6);
      });
    }
  });

  it('doubts the spot that was picked on another rim, and the distance that was read wrongly, first', () => {
    const { photo, layout } = picked(nth(drives, 0), 6, 0.3);
    const wheels = photo.wheels.map((w, i) =>
      i === 3 ? { ...w, spots: w.spots.map((s, k) => (k === 2 ? { x: s.x + 25, y: s.y - 30 } : s)) } : w,
    );
    expect(measured({ ...photo, wheels }, 0.5).doubts[0]).toEqual(
      jasmine.objectContaining({ is: 'spot', wheel: 3, spot: 2 }),
    );
    const between = (i: number, k: number) => {
      const [a, b] = [nth(layout.wheels, i), nth(layout.wheels, k)];
      return { a: a.id, b: b.id, mm: Math.hypot(a.x - b.x, a.y - b.y), u: 0.3 };
    };
    const distances = [between(0, 3), between(0, 1), { ...between(1, 3), mm: between(1, 3).mm + 40 }];
    expect(measured({ ...photo, distances }, 0.5).doubts[0]).toEqual(
      jasmine.objectContaining({ is: 'distance', at: 2 }),
    );
    expect(measured(photo, 0.5).doubts).toEqual([]);
  });

  it('is not mirrored when the corners were picked the other way round, and does not hang on the first of them', () => {
    const { photo } = picked(nth(drives, 0), 5, 0);
    const marks = photo.marks;
    const other = { ...photo, marks: [nth(marks, 1), nth(marks, 0), nth(marks, 3), nth(marks, 2)] };
    const turned = { ...photo, marks: [nth(marks, 2), nth(marks, 3), nth(marks, 0), nth(marks, 1)] };
    const places = (p: DrivePhoto) => measured(p, 0.5).layout.wheels.map(at);
    for (const p of [other, turned])
      places(p).forEach((w, i) => {
        expect(w.x).toBeCloseTo(nth(places(photo), i).x, 3);
        expect(w.y).toBeCloseTo(nth(places(photo), i).y, 3);
      });
  });

  it('shows on the picture what was measured: back through the camera every rim lies on its spots', () => {
    const { photo } = picked(nth(drives, 1), 8, 0);
    const m = measured(photo, 0.5);
    m.layout.wheels.forEach((w, i) => {
      const r = m.wheels[i]?.rimMm ?? 0;
      for (const s of nth(photo.wheels, i).spots) {
        const near = Array.from({ length: 720 }, (_, k) => {
          const a = (k * Math.PI) / 360;
          const p = m.seen({ x: w.x + r * Math.cos(a), y: w.y + r * Math.sin(a) });
          return p ? Math.hypot(p.x - s.x, p.y - s.y) : Infinity;
        });
        expect(Math.min(...near)).toBeLessThan(2);
      }
    });
  });

  it('tells how unsure the length is as it turns out: 200 unsteady hands over five drives', () => {
    let square = 0;
    let n = 0;
    for (const [k, l] of drives.slice(0, 5).entries())
      for (let seed = 0; seed < 40; seed++) {
        const { photo } = picked(l, 31 * k, 0);
        const random = randomFrom(1000 * k + seed);
        const shake = (s: Spot): Spot => ({ x: s.x + 1.5 * noise(random), y: s.y + 1.5 * noise(random) });
        const side = (v: number) => v + 0.05 * noise(random);
        const m = measured(
          {
            ...photo,
            marks: photo.marks.map(shake),
            sides: photo.sides.map(side),
            wheels: photo.wheels.map((w) => ({ ...w, spots: w.spots.map(shake) })),
          },
          1.5,
        );
        const check = checkLoop(m.layout, m.lengthU ?? 0);
        square += ((check.offMm ?? 0) / check.u) ** 2;
        n++;
      }
    // Mean square of 200 standard normals: 1 ± 0.1; slack of three of that.
    expect(square / n).toBeGreaterThan(0.7);
    expect(square / n).toBeLessThan(1.3);
  });

  it('says what is missing, and at which wheel', () => {
    const { photo } = picked(nth(drives, 0), 3, 0);
    const fault = (p: Partial<DrivePhoto>) => {
      const m = measureDrive({ ...photo, ...p }, 0.5, 'own');
      return m.ok ? undefined : m.error;
    };
    const spots = (i: number, n: number) =>
      photo.wheels.map((w, k) => (k === i ? { ...w, spots: w.spots.slice(0, n) } : w));
    expect(fault({ marks: photo.marks.slice(1) })).toEqual({ code: 'no_scale' });
    expect(fault({ marks: [0, 1, 3, 2].map((i) => nth(photo.marks, i)) })).toEqual({
      code: 'flat_rectangle',
    });
    expect(fault({ pitchMm: undefined })).toEqual({ code: 'no_pitch' });
    expect(fault({ count: undefined })).toEqual({ code: 'no_count' });
    expect(fault({ wheels: photo.wheels.slice(0, 1) })).toEqual({ code: 'too_few_wheels' });
    expect(fault({ wheels: spots(2, 0) })).toEqual({ code: 'not_picked', wheel: 2 });
    const smooth = photo.wheels.findIndex((w) => w.teeth === undefined);
    expect(fault({ wheels: spots(smooth, 1) })).toEqual({ code: 'no_size', wheel: smooth });
    expect(fault({ wheels: spots(0, 2) })).toEqual({
      code: 'no_rim',
      wheel: 0,
      why: { code: 'too_few_points' },
    });
    const eccentric = { turn: 'cw' as const, from: 80, nominal: 90, to: 100, end: 150 };
    const carried = (more: object) =>
      photo.wheels.map((w, k) => (k === smooth ? { ...w, eccentric: { ...eccentric, ...more } } : w));
    expect(fault({ wheels: carried({}) })).toEqual({ code: 'no_pivot', wheel: smooth });
    expect(fault({ wheels: carried({ pivot: { x: 9, y: 9 }, to: 70 }) })).toEqual({
      code: 'carrier',
      wheel: smooth,
      why: { code: 'marks_out_of_order' },
    });
    // One spot is enough where the teeth are counted.
    expect(fault({ wheels: spots(0, 1) })).toBeUndefined();
  });

  it('bears a rim whose spots lie nearly in a line, or nearly at the horizon: nothing breaks, nothing is seen behind the camera', () => {
    const { photo } = picked(nth(drives, 0), 12, 0.5);
    const [a, b] = [nth(photo.wheels, 3).spots[0]!, nth(photo.wheels, 3).spots[3]!];
    const between = (t: number, off: number) => ({
      x: a.x + t * (b.x - a.x) + off,
      y: a.y + t * (b.y - a.y),
    });
    let hidden = 0;
    for (const off of [0.5, 2, 8, 40])
      for (const far of [1, 4, 12]) {
        const spots = [between(0, 0), between(0.5 * far, off), between(far, 0)];
        const wheels = photo.wheels.map((w, i) => (i === 3 ? { ...w, spots } : w));
        const m = measureDrive({ ...photo, wheels }, 1.5, 'own');
        if (!m.ok) {
          expect(['behind', 'no_rim', 'not_held']).toContain(m.error.code);
          continue;
        }
        for (let k = 0; k < 72; k++) {
          const reach = 50_000;
          const seen = m.value.seen({ x: reach * Math.cos(k), y: reach * Math.sin(k) });
          if (seen === undefined) hidden++;
          else expect(Number.isFinite(seen.x) && Number.isFinite(seen.y)).toBe(true);
        }
      }
    expect(hidden).toBeGreaterThan(0);
  });

  it('by a ruler is the same where the camera looks straight down, and unsure of how it leaned', () => {
    const { photo, layout } = picked(nth(drives, 0), 3, 0);
    const k = 0.31;
    const flat = (p: Spot): Spot => ({ x: 500 + p.x / k, y: 900 - p.y / k });
    const m = measured(
      {
        ...photo,
        scale: 'ruler',
        sides: [200],
        marks: [flat({ x: 0, y: 0 }), flat({ x: 120, y: 160 })],
        wheels: photo.wheels.map((w, i) => {
          const at = nth(layout.wheels, i);
          const r = at.teeth === undefined ? (at.outsideMm ?? 0) : pitchRadius(layout, at) - 0.8;
          const on = [0, 1, 2, 3].map((q) => flat({ x: at.x + r * Math.cos(q), y: at.y + r * Math.sin(q) }));
          return { ...w, spots: on };
        }),
      },
      0.5,
    );
    const check = checkLoop(m.layout, m.lengthU ?? 0);
    expect(Math.abs(check.offMm ?? 99)).toBeLessThan(1e-3);
    expect(check.u).toBeGreaterThan(1);
    expect(m.wheels[3]?.u ?? 0).toBeGreaterThan(0.5);
  });
});
