import { randomFrom } from '@core/quantity/random';
import { flatFrame, flatten, inverse } from './flatten';
import { project, type PicturePoint } from './photo';

const SIDES = { width: 100, height: 70 };
const SIZE = { width: 400, height: 300 };
const CORNERS: PicturePoint[] = [
  { x: 90, y: 70 },
  { x: 300, y: 82 },
  { x: 290, y: 230 },
  { x: 100, y: 220 },
];
const frame = () => flatFrame(SIZE, CORNERS, SIDES, 12e6)!;

describe('a picture laid flat', () => {
  it('shows the rectangle as a rectangle of its sides, to a thousandth of a pixel', () => {
    const { back, pxPerMm } = frame();
    const flat = CORNERS.map((c) => project(inverse(back, CORNERS[0]!), c)!);
    const side = (k: number) =>
      Math.hypot(flat[(k + 1) % 4]!.x - flat[k]!.x, flat[(k + 1) % 4]!.y - flat[k]!.y);
    [100, 70, 100, 70].forEach((mm, k) => expect(side(k)).toBeCloseTo(mm * pxPerMm, 3));
    expect(Math.hypot(flat[2]!.x - flat[0]!.x, flat[2]!.y - flat[0]!.y)).toBeCloseTo(
      Math.hypot(100, 70) * pxPerMm,
      3,
    );
  });

  it('leads back and forth to the same spot', () => {
    const random = randomFrom(5);
    const { back } = frame();
    for (let k = 0; k < 50; k++) {
      const s = { x: 80 + 240 * random(), y: 60 + 180 * random() };
      const there = project(back, project(inverse(back, CORNERS[0]!), s)!)!;
      expect(Math.hypot(there.x - s.x, there.y - s.y)).toBeLessThan(1e-6);
    }
  });

  it('takes each of its pixels from where it lies in the original: a slope stays the slope', () => {
    // brightness is a plane over the original, so that between pixels it is known exactly
    const bright = (s: PicturePoint) => 20 + 0.3 * s.x + 0.25 * s.y;
    const rgba = new Uint8ClampedArray(4 * SIZE.width * SIZE.height);
    for (let y = 0; y < SIZE.height; y++)
      for (let x = 0; x < SIZE.width; x++)
        rgba.fill(bright({ x, y }), 4 * (y * SIZE.width + x), 4 * (y * SIZE.width + x) + 4);
    const f = frame();
    const out = flatten(rgba, SIZE, f);
    let [seen, clear] = [0, 0];
    for (let v = 0; v < f.height; v += 7)
      for (let u = 0; u < f.width; u += 7) {
        const at = project(f.back, { x: u, y: v });
        const inside = at && at.x >= 0 && at.y >= 0 && at.x <= SIZE.width - 1 && at.y <= SIZE.height - 1;
        const k = 4 * (v * f.width + u);
        if (inside) {
          seen++;
          // both pictures round to whole steps of brightness
          expect(Math.abs(out[k]! - bright(at))).toBeLessThanOrEqual(1.01);
          expect(out[k + 3]).toBe(255);
        } else {
          clear++;
          expect(out[k + 3]).toBe(0);
        }
      }
    expect(seen).toBeGreaterThan(500);
    expect(clear).toBeGreaterThan(10);
  });

  it('is no larger than asked for, and shows no more than a few of the rectangle where the picture reaches the horizon', () => {
    const small = flatFrame(SIZE, CORNERS, SIDES, 5000)!;
    expect(small.width * small.height).toBeLessThanOrEqual(5000);
    const steep: PicturePoint[] = [
      { x: 190, y: 160 },
      { x: 210, y: 160 },
      { x: 390, y: 290 },
      { x: 10, y: 290 },
    ];
    const far = flatFrame(SIZE, steep, SIDES, 12e6)!;
    expect(far.width / far.pxPerMm).toBeLessThanOrEqual(7 * SIDES.width + 1e-6);
    expect(far.height / far.pxPerMm).toBeLessThanOrEqual(7 * SIDES.height + 1e-6);
    // the sky above the horizon is in the picture, and the rectangle is still shown whole
    const grey = new Uint8ClampedArray(4 * SIZE.width * SIZE.height).fill(99);
    const out = flatten(grey, SIZE, far);
    for (const c of steep) {
      const p = project(inverse(far.back, { x: c.x, y: c.y - 1 }), { x: c.x, y: c.y - 1 })!;
      const inner = steep[0]!.y < c.y ? p : { x: p.x, y: p.y + 3 };
      expect(out[4 * (Math.round(inner.y) * far.width + Math.round(inner.x)) + 3]).toBe(255);
    }
  });
});
