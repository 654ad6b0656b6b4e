import { circle, framed, line, rectPath, type DrawnShape, type ThingPicture, type Drawings } from './picture';
import type { PartAppearance } from './appearance';

const GUIDE_MM = 150;
/** Depth of a groove is drawn this many times as deep as it is. */
const DEEPER = 4;

/** A guide or arm in profile from its pivot, by station; grooves, thickness and cracks where they were found. */
function guidePicture(appearance: PartAppearance): ThingPicture {
  const length = appearance.number('guide.length') ?? appearance.size('lengthMm') ?? GUIDE_MM;
  const rise = length * 0.14;
  const thick = length * 0.08;
  // The running face as a shallow parabola over the length: no catalogue says more of it.
  const face = (x: number) => -4 * rise * (x / length) * (1 - x / length);
  const steps = Array.from({ length: 25 }, (_, i) => (i * length) / 24);
  const top = steps.map((x): [number, number] => [x, face(x)]);
  const under = [...steps].reverse().map((x): [number, number] => [x, face(x) + thick]);
  const shapes: DrawnShape[] = [
    { d: `${line(...top, ...under)}Z`, look: 'body' },
    { d: circle(0, thick * 0.6, thick * 0.8), look: 'body', title: 'pivot' },
    { d: circle(0, thick * 0.6, thick * 0.35), look: 'fine' },
    ...[0.3, 0.7].map(
      (share): DrawnShape => ({
        d: rectPath(length * share, face(length * share) + thick, thick * 0.6, thick * 0.7),
        look: 'fine',
        title: 'clip',
      }),
    ),
    ...[0, 0.25, 0.5, 0.75, 1].map(
      (share): DrawnShape => ({
        d: line([length * share, rise * 0.9], [length * share, rise * 1.05]),
        look: 'fine',
      }),
    ),
    { d: line([0, rise * 0.97], [length, rise * 0.97]), look: 'fine' },
  ];
  const inside = (x: number) => x >= 0 && x <= length;
  for (const { from, value } of appearance.placed('guide.groove').filter((p) => inside(p.from)))
    shapes.push({
      d: line([from, face(from)], [from, face(from) + Number(value) * DEEPER]),
      look: 'found',
      title: `groove ${value} mm at ${from} mm`,
    });
  for (const { from } of appearance.placed('guide.crack').filter((p) => inside(p.from)))
    shapes.push({
      d: line([from, face(from)], [from + 2, face(from) + thick * 0.5], [from - 1, face(from) + thick]),
      look: 'found',
      title: `crack at ${from} mm`,
    });
  return {
    box: framed(-thick, -rise - thick, length + 2 * thick, rise * 2.2 + thick * 2, 0.04),
    shapes,
    zones: [
      { key: 'pivot', x: 0, y: thick * 0.6 },
      { key: 'face', x: length * 0.5, y: -rise },
      { key: 'clips', x: length * 0.7 + thick * 0.3, y: face(length * 0.7) + thick * 1.5 },
      { key: 'body', x: length * 0.32, y: face(length * 0.32) + thick * 0.5 },
      { key: 'tip', x: length, y: thick * 0.5 },
    ],
    words: [
      { x: 0, y: rise * 1.35, text: '0' },
      { x: length, y: rise * 1.35, text: `${length} mm` },
    ],
  };
}

function cassettePicture(): ThingPicture {
  return {
    box: framed(-60, -22, 120, 50, 0.08),
    shapes: [
      { d: rectPath(-55, -15, 110, 36), look: 'body' },
      { d: rectPath(-45, -5, 90, 16), look: 'fine', title: 'way of the chain' },
      { d: rectPath(-40, -22, 14, 7), look: 'body', title: 'tab' },
      { d: rectPath(26, -22, 14, 7), look: 'body', title: 'tab' },
      { d: line([-55, 3], [55, 3]), look: 'fine' },
    ],
    zones: [
      { key: 'body', x: -50, y: 14 },
      { key: 'tabs', x: 33, y: -19 },
      { key: 'face', x: 0, y: 3 },
    ],
    words: [],
  };
}

/** A bolt to scale: its size and its length, neck and thread. */
function boltPicture(appearance: PartAppearance): ThingPicture {
  const m = appearance.size('boltM') ?? 10;
  const length = appearance.number('bolt.length') ?? appearance.size('lengthMm') ?? 60;
  const thread = length * 0.55;
  const pitches = Math.max(4, Math.round(thread / 3));
  return {
    box: framed(-m * 1.2, -m * 1.2, length + m * 2.4, m * 2.4, 0.06),
    shapes: [
      { d: rectPath(-m * 0.7, -m * 0.85, m * 0.7, m * 1.7), look: 'body', title: 'head' },
      { d: rectPath(0, -m * 0.45, length - thread, m * 0.9), look: 'body', title: 'shank' },
      { d: rectPath(length - thread, -m * 0.5, thread, m), look: 'body', title: 'thread' },
      ...Array.from({ length: pitches }, (_, i): DrawnShape => {
        const x = length - thread + ((i + 0.5) * thread) / pitches;
        return { d: line([x, -m * 0.5], [x + 1, m * 0.5]), look: 'fine' };
      }),
    ],
    zones: [
      { key: 'head', x: -m * 0.35, y: 0 },
      { key: 'shank', x: (length - thread) * 0.35, y: 0 },
      { key: 'neck', x: (length - thread) * 0.85, y: 0 },
      { key: 'thread', x: length - thread * 0.5, y: 0 },
    ],
    words: [{ x: length / 2, y: m * 1.05, text: `M${m} × ${length} mm` }],
  };
}

/** A belt or chain unrolled in one row, with the places where something was found; drawn small beside others. */
export function loopPicture(count: number, found: readonly { from: number }[]): ThingPicture {
  const tall = count * 0.16;
  return {
    box: { x: 0, y: -tall * 0.2, w: count, h: tall * 1.4 },
    shapes: [
      { d: rectPath(0, 0, count, tall), look: 'body' },
      ...[0.25, 0.5, 0.75].map(
        (share): DrawnShape => ({
          d: line([count * share, tall * 0.75], [count * share, tall]),
          look: 'fine',
        }),
      ),
      ...found.map(
        ({ from }): DrawnShape => ({
          d: line([from - 0.5, 0], [from - 0.5, tall]),
          look: 'found',
          title: String(from),
        }),
      ),
    ],
    zones: [],
    words: [],
  };
}

/** By kind of part. */
export const LONG_DRAWINGS: Drawings = {
  guide: { draw: guidePicture, wheel: (w) => w.arc !== undefined },
  cassette: { draw: cassettePicture },
  bolt: { draw: boltPicture },
};
