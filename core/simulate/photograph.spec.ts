import { measureOnPhoto, type PicturePoint } from '@core/examination/photo';
import { cameraOver, type Colour, photograph } from './photograph';

const BENCH: Colour = [200, 190, 180];
const RED: Colour = [200, 20, 20];
const view = { x: 0, y: 0, w: 220, h: 140 };
const box = (x: number, y: number, w: number, h: number): PicturePoint[] => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + h },
  { x, y: y + h },
];

describe('a simulated photograph', () => {
  it('shows the whole view whatever the seed, and what was laid in the plane measures what it is', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const camera = cameraOver(view, seed);
      for (const p of box(view.x, view.y, view.w, view.h).map(camera.see)) {
        expect(p.x > 0 && p.x < camera.width && p.y > 0 && p.y < camera.height).toBeTrue();
      }
      const corners = box(10, 100, 60, 30).map(camera.see) as [
        PicturePoint,
        PicturePoint,
        PicturePoint,
        PicturePoint,
      ];
      const spots = [
        { x: 20, y: 20 },
        { x: 190, y: 45 },
      ].map(camera.see);
      const read = measureOnPhoto(
        { kind: 'rectangle', corners, width: 60, height: 30, u: 0 },
        { what: 'length', spots },
        1,
      );
      expect(read.ok && read.value.value).toBeCloseTo(Math.hypot(170, 25), 6);
    }
  });

  it('paints a patch where the camera sees it, the later one on top, as large as its outline to a row of pixels', () => {
    const camera = cameraOver(view, 3, 480, 320);
    const mine = box(60, 40, 80, 50);
    const { rgb } = photograph(camera, BENCH, [
      { outline: mine, colour: [0, 0, 0] },
      { outline: mine, colour: RED },
    ]);
    const at = ({ x, y }: PicturePoint) => [
      ...rgb.slice(3 * (Math.floor(y) * 480 + Math.floor(x))).slice(0, 3),
    ];
    expect(at(camera.see({ x: 100, y: 65 }))).toEqual([...RED]);
    expect(at(camera.see({ x: 61, y: 41 }))).toEqual([...RED]);
    expect(at(camera.see({ x: 50, y: 65 }))).toEqual([...BENCH]);
    let painted = 0;
    for (let k = 0; k < rgb.length; k += 3) if (rgb[k] === RED[0] && rgb[k + 1] === RED[1]) painted++;
    const seen = mine.map(camera.see);
    const area =
      Math.abs(seen.reduce((s, p, i) => s + p.x * seen[(i + 1) % 4]!.y - seen[(i + 1) % 4]!.x * p.y, 0)) / 2;
    const rim = seen.reduce(
      (s, p, i) => s + Math.hypot(seen[(i + 1) % 4]!.x - p.x, seen[(i + 1) % 4]!.y - p.y),
      0,
    );
    expect(Math.abs(painted - area)).toBeLessThan(rim / 2);
  });
});
