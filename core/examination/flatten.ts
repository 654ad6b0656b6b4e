import { nth, num, pixelAt } from '@core/quantity/must';
import { type Projective, project, rectify, type PicturePoint } from './photo';

/** How a picture is laid flat: the flat one shows the plane from straight above. */
export type FlatFrame = {
  width: number;
  height: number;
  pxPerMm: number;
  /** From a pixel of the flat picture to one of the original. */
  back: Projective;
};

/** The plane is shown this many times the rectangle's sides beyond it, at most. */
const BEYOND = 3;

const times = (a: readonly number[], b: readonly number[]): number[] =>
  Array.from({ length: 9 }, (_, i) =>
    [0, 1, 2].reduce((sum, k) => sum + num(a, 3 * Math.floor(i / 3) + k) * num(b, 3 * k + (i % 3)), 0),
  );
/** The inverse, by the adjugate, up to a factor that a projective map has not got; its weights are positive at `at`. */
export function inverse(m: Projective, at: PicturePoint): Projective {
  const [A, B, C, D, E, F, G, H, I] = m as Nine;
  const out = [
    E * I - F * H,
    C * H - B * I,
    B * F - C * E,
    F * G - D * I,
    A * I - C * G,
    C * D - A * F,
    D * H - E * G,
    B * G - A * H,
    A * E - B * D,
  ];
  const weight = num(out, 6) * at.x + num(out, 7) * at.y + num(out, 8);
  return out.map((v) => v / weight);
}
type Nine = [number, number, number, number, number, number, number, number, number];

/**
 * The frame of the flat picture: what of the picture lies in the plane around the rectangle, as fine as the rectangle's sides are in the original on average, but no larger
 * than so many pixels. None when the corners do not give a plane.
 * @param size of the picture, pixels; @param sides width and height of the rectangle, mm
 */
export function flatFrame(
  size: { width: number; height: number },
  corners: readonly PicturePoint[],
  sides: { width: number; height: number },
  mostPixels: number,
): FlatFrame | undefined {
  const h = rectify(corners, sides.width, sides.height);
  if (!h) return undefined;
  const edge = (k: number) => {
    const [p, q] = [nth(corners, k), nth(corners, (k + 1) % 4)];
    return Math.hypot(q.x - p.x, q.y - p.y);
  };
  const fine = (edge(0) + edge(1) + edge(2) + edge(3)) / (2 * (sides.width + sides.height));
  const clamp = (v: number, side: number) => Math.max(-BEYOND * side, Math.min((1 + BEYOND) * side, v));
  // Where the picture's rim lies in the plane; beyond the horizon it reaches as far as is shown at all.
  const rim = [...Array(21).keys()].flatMap((k) => {
    const t = k / 20;
    const [x, y] = [t * size.width, t * size.height];
    return [
      { x, y: 0 },
      { x, y: size.height },
      { x: 0, y },
      { x: size.width, y },
    ];
  });
  const seen = rim.map((s) => project(h, s));
  const xs = seen.flatMap((p) =>
    p ? [clamp(p.x, sides.width)] : [-BEYOND * sides.width, (1 + BEYOND) * sides.width],
  );
  const ys = seen.flatMap((p) =>
    p ? [clamp(p.y, sides.height)] : [-BEYOND * sides.height, (1 + BEYOND) * sides.height],
  );
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  const [w, d] = [Math.max(...xs) - x0, Math.max(...ys) - y0];
  const pxPerMm = Math.min(fine, Math.sqrt(mostPixels / (w * d)));
  const place = [pxPerMm, 0, -x0 * pxPerMm, 0, pxPerMm, -y0 * pxPerMm, 0, 0, 1];
  const middle = { x: (sides.width / 2 - x0) * pxPerMm, y: (sides.height / 2 - y0) * pxPerMm };
  return {
    width: Math.max(1, Math.floor(w * pxPerMm)),
    height: Math.max(1, Math.floor(d * pxPerMm)),
    pxPerMm,
    back: inverse(times(place, h), middle),
  };
}

/**
 * The flat picture: each of its pixels taken from the original between its four neighbours. What lies outside the original is clear.
 * @param rgba four bytes a pixel; @returns the same
 */
export function flatten(
  rgba: Uint8ClampedArray,
  size: { width: number; height: number },
  { width, height, back }: Pick<FlatFrame, 'width' | 'height' | 'back'>,
): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(4 * width * height);
  const [a, b, c, d, e, f, g, h, i] = back as Nine;
  const [lastX, lastY] = [size.width - 1, size.height - 1];
  const row = 4 * size.width;
  let to = 0;
  for (let v = 0; v < height; v++) {
    let nx = b * v + c;
    let ny = e * v + f;
    let w = h * v + i;
    for (let u = 0; u < width; u++, to += 4, nx += a, ny += d, w += g) {
      if (w <= 1e-9) continue;
      const x = nx / w;
      const y = ny / w;
      if (x < 0 || y < 0 || x > lastX || y > lastY) continue;
      const left = x | 0;
      const upper = y | 0;
      const at = row * upper + 4 * left;
      const right = left < lastX ? 4 : 0;
      const lower = upper < lastY ? row : 0;
      const fx = x - left;
      const fy = y - upper;
      const p = (1 - fx) * (1 - fy);
      const q = fx * (1 - fy);
      const r = (1 - fx) * fy;
      const s = fx * fy;
      out[to] =
        pixelAt(rgba, at) * p +
        pixelAt(rgba, at + right) * q +
        pixelAt(rgba, at + lower) * r +
        pixelAt(rgba, at + lower + right) * s;
      out[to + 1] =
        pixelAt(rgba, at + 1) * p +
        pixelAt(rgba, at + right + 1) * q +
        pixelAt(rgba, at + lower + 1) * r +
        pixelAt(rgba, at + lower + right + 1) * s;
      out[to + 2] =
        pixelAt(rgba, at + 2) * p +
        pixelAt(rgba, at + right + 2) * q +
        pixelAt(rgba, at + lower + 2) * r +
        pixelAt(rgba, at + lower + right + 2) * s;
      out[to + 3] = 255;
    }
  }
  return out;
}
