import { nth, num } from '@core/quantity/must';
import { randomFrom } from '@core/quantity/random';

/** A point of the plane, mm, or of a picture, pixels. */
type Spot = { x: number; y: number };

/** A flat patch in the plane of the bench: its outline in mm, and its colour as red, green, blue. */
export type Patch = { outline: readonly Spot[]; colour: Colour };
export type Colour = readonly [number, number, number];

/** A camera over the plane: where a spot of it, mm, comes to lie on the picture, pixels. */
export type Camera = { width: number; height: number; see: (mm: Spot) => Spot };
export type Photograph = { width: number; height: number; rgb: Uint8Array };

/** Radians that the camera leans or turns at most either way. */
const LEAN = 0.35;
const ROLL = 0.12;
/** Focal length in widths of the picture. */
const FOCAL = 1.1;

/**
 * A camera that looks at the middle of a view in the plane, held by hand: leaning, panned and rolled a little by its seed (pinhole; Hartley & Zisserman 2004, 6.1).
 * @param view what has to be in the picture, mm
 */
export function cameraOver(
  view: { x: number; y: number; w: number; h: number },
  seed: number,
  width = 960,
  height = 640,
): Camera {
  const random = randomFrom(seed);
  const [tilt, pan] = [0, 1].map(() => (2 * random() - 1) * LEAN) as [number, number];
  const roll = (2 * random() - 1) * ROLL;
  const focal = FOCAL * width;
  // So far that the view fits with room for the lean.
  const far = 1.26 * Math.max((view.w * focal) / width, (view.h * focal) / height);
  const [cr, sr, cp, sp, ct, st] = [roll, pan, tilt].flatMap((a) => [Math.cos(a), Math.sin(a)]) as Six;
  return {
    width,
    height,
    see: ({ x, y }) => {
      const [px, py] = [x - view.x - view.w / 2, y - view.y - view.h / 2];
      const [a, b] = [px * cr - py * sr, px * sr + py * cr];
      const [u, z] = [a * cp, -a * sp];
      const [v, depth] = [b * ct - z * st, far + b * st + z * ct];
      return { x: width / 2 + (focal * u) / depth, y: height / 2 + (focal * v) / depth };
    },
  };
}
type Six = [number, number, number, number, number, number];

/** Fills a polygon on a picture, by rows, even and odd. */
function fill({ width, height, rgb }: Photograph, outline: readonly Spot[], [r, g, b]: Colour): void {
  const ys = outline.map((p) => p.y);
  const [top, bottom] = [
    Math.max(0, Math.ceil(Math.min(...ys) - 0.5)),
    Math.min(height - 1, Math.floor(Math.max(...ys) - 0.5)),
  ];
  for (let row = top; row <= bottom; row++) {
    const y = row + 0.5;
    const cuts = outline.flatMap((p, i) => {
      const q = nth(outline, (i + 1) % outline.length);
      return p.y <= y === q.y <= y ? [] : [p.x + ((y - p.y) / (q.y - p.y)) * (q.x - p.x)];
    });
    cuts.sort((c, d) => c - d);
    for (let k = 0; k + 1 < cuts.length; k += 2) {
      const [from, to] = [
        Math.max(0, Math.ceil(num(cuts, k) - 0.5)),
        Math.min(width - 1, Math.floor(num(cuts, k + 1) - 0.5)),
      ];
      for (let x = from; x <= to; x++) {
        const at = 3 * (row * width + x);
        rgb[at] = r;
        rgb[at + 1] = g;
        rgb[at + 2] = b;
      }
    }
  }
}

/** What the camera takes of patches on a bench, the later ones over the earlier. */
export function photograph(
  { width, height, see }: Camera,
  bench: Colour,
  patches: readonly Patch[],
): Photograph {
  const picture: Photograph = { width, height, rgb: new Uint8Array(3 * width * height) };
  for (let k = 0; k < picture.rgb.length; k++) picture.rgb[k] = bench[(k % 3) as 0 | 1 | 2];
  for (const p of patches) fill(picture, p.outline.map(see), p.colour);
  return picture;
}
