import { normalFrom, randomFrom } from '@core/quantity/random';
import { goesAround, measureOnPhoto, type PhotoScale, project, rectify, type PicturePoint } from './photo';

/** A camera over a plane: turned, tilted and at a distance; pixels of a point in mm (pinhole, closed form). */
function camera(random: () => number): (p: PicturePoint) => PicturePoint {
  const [tilt, pan, roll] = [0, 1, 2].map(() => (random() - 0.5) * 0.9) as [number, number, number];
  const [focal, far] = [3000 + 800 * random(), 420 + 160 * random()];
  return ({ x, y }) => {
    const [cr, sr] = [Math.cos(roll), Math.sin(roll)];
    const [a, b] = [x * cr - y * sr, x * sr + y * cr];
    const [px, pz] = [a * Math.cos(pan), -a * Math.sin(pan)];
    const [py, qz] = [b * Math.cos(tilt) - pz * Math.sin(tilt), b * Math.sin(tilt) + pz * Math.cos(tilt)];
    const depth = far + qz;
    return { x: 2000 + (focal * px) / depth, y: 1500 + (focal * py) / depth };
  };
}
const CARD = { width: 85, height: 54 };
const corners = [
  { x: 0, y: 0 },
  { x: 85, y: 0 },
  { x: 85, y: 54 },
  { x: 0, y: 54 },
] as const;
const around = (see: (p: PicturePoint) => PicturePoint) =>
  corners.map(see) as unknown as [PicturePoint, PicturePoint, PicturePoint, PicturePoint];

describe('measuring on a photograph', () => {
  it('puts perspective right: spots of the plane come back within a millionth of a mm', () => {
    const random = randomFrom(3);
    for (let k = 0; k < 50; k++) {
      const see = camera(random);
      const h = rectify(around(see), CARD.width, CARD.height)!;
      for (const p of [
        { x: 12, y: 40 },
        { x: 160, y: -30 },
        { x: -40, y: 70 },
      ]) {
        const back = project(h, see(p))!;
        expect(Math.hypot(back.x - p.x, back.y - p.y)).toBeLessThan(1e-6);
      }
    }
  });

  it('lengths lie within their stated 95 % interval in 90 to 99 % of 300 generated pictures', () => {
    const random = randomFrom(11);
    const normal = () => normalFrom(random);
    const PICK = 1.5;
    const blur = (s: PicturePoint) => ({ x: s.x + PICK * normal(), y: s.y + PICK * normal() });
    let inside = 0;
    for (let k = 0; k < 300; k++) {
      const see = camera(random);
      const u = 0.05;
      // the card is a little off what it is said to be
      const real = { width: CARD.width + u * normal(), height: CARD.height + u * normal() };
      const at = (c: PicturePoint) => ({ x: (c.x / 85) * real.width, y: (c.y / 54) * real.height });
      const scale: PhotoScale = {
        kind: 'rectangle',
        corners: corners.map((c) => blur(see(at(c)))) as unknown as [
          PicturePoint,
          PicturePoint,
          PicturePoint,
          PicturePoint,
        ],
        ...CARD,
        u,
      };
      const [p, q] = [
        { x: -20 + 60 * random(), y: 60 + 30 * random() },
        { x: 60 + 60 * random(), y: 60 + 30 * random() },
      ];
      const r = measureOnPhoto(scale, { what: 'length', spots: [blur(see(p)), blur(see(q))] }, PICK);
      if (!r.ok) return fail(r.error.code);
      if (Math.abs(r.value.value - Math.hypot(q.x - p.x, q.y - p.y)) <= 1.96 * r.value.u) inside++;
    }
    expect(inside / 300).toBeGreaterThanOrEqual(0.9);
    expect(inside / 300).toBeLessThanOrEqual(0.99);
  });

  it('a ruler gives lengths, angles and areas with the closed form of their uncertainty', () => {
    const scale: PhotoScale = {
      kind: 'ruler',
      points: [
        { x: 100, y: 100 },
        { x: 1100, y: 100 },
      ],
      mm: 100,
      u: 0.2,
    };
    const of = (what: 'length' | 'angle' | 'area', ...spots: [number, number][]) => {
      const r = measureOnPhoto(scale, { what, spots: spots.map(([x, y]) => ({ x, y })) }, 2);
      if (!r.ok) throw new Error(r.error.code);
      return r.value;
    };
    const length = of('length', [200, 500], [700, 500]);
    expect(length.value).toBeCloseTo(50, 9);
    // u² = (k·√2·σ)² of its own ends + (L/D·k·√2·σ)² of the ruler's + (L/D·u)²
    const own = 0.1 * Math.SQRT2 * 2;
    expect(length.u).toBeCloseTo(Math.hypot(own, 0.5 * own, 0.5 * 0.2), 6);
    const right = of('angle', [700, 500], [200, 500], [200, 100]);
    expect(right.value).toBeCloseTo(90, 9);
    expect(right.u).toBeGreaterThan(0);
    expect(of('angle', [700, 500], [200, 500], [-300, 500]).value).toBeCloseTo(180, 9);
    expect(of('area', [0, 0], [1000, 0], [1000, 500], [0, 500]).value).toBeCloseTo(5000, 6);
  });

  it('refuses what gives no scale, by what is wrong with it', () => {
    const spots = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
    ];
    const code = (scale: PhotoScale, n = 2) => {
      const r = measureOnPhoto(scale, { what: 'length', spots: spots.slice(0, n) }, 1);
      return r.ok ? 'ok' : r.error.code;
    };
    const p = (x: number, y: number) => ({ x, y });
    expect(code({ kind: 'ruler', points: [p(5, 5), p(5, 5)], mm: 10, u: 0.1 })).toBe('no_scale');
    expect(code({ kind: 'ruler', points: [p(5, 5), p(9, 5)], mm: 0, u: 0.1 })).toBe('no_scale');
    expect(code({ kind: 'ruler', points: [p(5, 5), p(9, 5)], mm: 10, u: 0.1 }, 1)).toBe('too_few_spots');
    const rectangle = (...c: [PicturePoint, PicturePoint, PicturePoint, PicturePoint]): PhotoScale => ({
      kind: 'rectangle',
      corners: c,
      width: 85,
      height: 54,
      u: 0.1,
    });
    // in a line; crossed over
    expect(code(rectangle(p(0, 0), p(5, 0), p(10, 0), p(0, 10)))).toBe('flat_rectangle');
    expect(code(rectangle(p(0, 0), p(10, 10), p(10, 0), p(0, 10)))).toBe('flat_rectangle');
    expect(goesAround([p(0, 0), p(0, 10), p(10, 10), p(10, 0)])).toBeTrue();
    expect(code(rectangle(p(0, 0), p(100, 0), p(100, 60), p(0, 60)))).toBe('ok');
  });
});
