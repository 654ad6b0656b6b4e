import { toothOutline } from '../ui/drive-shapes';
import {
  pointAt,
  circle,
  framed,
  line,
  rectPath,
  type DrawnShape,
  type ThingPicture,
  type Drawings,
} from './picture';
import type { PartAppearance } from './appearance';

const around = (r: number, spread = 1.25) =>
  framed(-r * spread, -r * spread, 2 * r * spread, 2 * r * spread, 0.02);

/** A smooth guide roller from its face, with its side beside it. */
function rollerPicture(appearance: PartAppearance): ThingPicture {
  const r = (appearance.size('outsideMm') ?? 2 * (appearance.wheel?.outsideMm ?? 30)) / 2;
  const side = r * 1.5;
  return {
    box: framed(-r, -r, r * 3.2, 2 * r, 0.08),
    shapes: [
      { d: circle(0, 0, r), look: 'body' },
      { d: circle(0, 0, r * 0.62), look: 'fine' },
      { d: circle(0, 0, r * 0.2), look: 'body' },
      ...[0, 60, 120, 180, 240, 300].map((deg): DrawnShape => {
        const p = pointAt(0, 0, r * 0.41, deg);
        return { d: circle(p.x, p.y, r * 0.12), look: 'fine' };
      }),
      { d: rectPath(side, -r, r * 0.6, 2 * r), look: 'body', title: 'from the side' },
      { d: line([side - r * 0.15, 0], [side + r * 0.75, 0]), look: 'fine' },
    ],
    zones: [
      { key: 'face', x: side + r * 0.3, y: -r * 0.5 },
      { key: 'bearing', x: r * 0.41, y: 0 },
      { key: 'bolt', x: 0, y: 0 },
    ],
    words: [],
  };
}

const TEETH = 40;
/** Teeth are drawn this high where nothing says, as a share of the radius. */
const TOOTH = 0.07;
/** A toothed wheel whose gaps are at r. */
const wheelOutline = (teeth: number, r: number): string => toothOutline(teeth, r * (1 + TOOTH), r * TOOTH);

/** A toothed wheel with its own number of teeth, keyway at its mark, slots where it has them, and the damaged teeth. */
function sprocketPicture(appearance: PartAppearance): ThingPicture {
  const teeth =
    appearance.number('sprocket.tooth_count') ?? appearance.size('teeth') ?? appearance.wheel?.teeth ?? TEETH;
  const r = 40;
  const shapes: DrawnShape[] = [
    { d: wheelOutline(teeth, r), look: 'body' },
    { d: circle(0, 0, r * 0.3), look: 'body' },
    { d: rectPath(-r * 0.06, -r * 0.38, r * 0.12, r * 0.1), look: 'body', title: 'keyway' },
    { d: line([0, -r * 0.88], [0, -r * 0.72]), look: 'fine', title: 'mark' },
    { d: rectPath(r * 1.3, -r, r * 0.3, 2 * r), look: 'body', title: 'from the side' },
    { d: rectPath(r * 1.6, -r * 0.35, r * 0.25, r * 0.7), look: 'body', title: 'boss' },
  ];
  if (appearance.wheel?.slots || appearance.number('sprocket.slot_travel') !== undefined)
    for (const deg of [30, 150, 270]) {
      const p = pointAt(0, 0, r * 0.55, deg);
      shapes.push({ d: circle(p.x, p.y, r * 0.07), look: 'fine', title: 'slot' });
    }
  for (const { from } of appearance.placed('sprocket.tooth_damage')) {
    const p = pointAt(0, 0, r * (1 + TOOTH), 90 - ((from - 1) * 360) / teeth);
    shapes.push({ d: circle(p.x, p.y, r * 0.07), look: 'found', title: `tooth ${from}` });
  }
  return {
    box: framed(-r * 1.1, -r * 1.1, r * 3.1, r * 2.2, 0.03),
    shapes,
    zones: [
      { key: 'teeth', ...pointAt(0, 0, r, 200) },
      { key: 'keyway', x: 0, y: -r * 0.33 },
      { key: 'seat', x: r * 1.72, y: 0 },
      { key: 'slots', ...pointAt(0, 0, r * 0.55, 30) },
      { key: 'mark', x: 0, y: -r * 0.8 },
    ],
    words: [{ x: 0, y: r * 0.62, text: `${teeth} teeth` }],
  };
}

function phaserPicture(appearance: PartAppearance): ThingPicture {
  const teeth = appearance.size('teeth') ?? appearance.wheel?.teeth ?? TEETH;
  const r = 40;
  return {
    box: around(r),
    shapes: [
      { d: wheelOutline(teeth, r), look: 'body' },
      { d: circle(0, 0, r * 0.72), look: 'fine' },
      ...[45, 135, 225, 315].map((deg): DrawnShape => {
        const [p, q] = [pointAt(0, 0, r * 0.3, deg), pointAt(0, 0, r * 0.7, deg)];
        return { d: line([p.x, p.y], [q.x, q.y]), look: 'body', title: 'vane' };
      }),
      { d: circle(0, 0, r * 0.26), look: 'body' },
      { d: circle(0, 0, r * 0.12), look: 'fine', title: 'valve' },
    ],
    zones: [
      { key: 'rotor', ...pointAt(0, 0, r * 0.5, 90) },
      { key: 'valve', x: 0, y: 0 },
      { key: 'screen', ...pointAt(0, 0, r * 0.3, 270) },
      { key: 'ring', ...pointAt(0, 0, r, 20) },
      { key: 'cover', ...pointAt(0, 0, r * 0.72, 200) },
    ],
    words: [],
  };
}

function damperPicture(): ThingPicture {
  const r = 60;
  return {
    box: around(r, 1.1),
    shapes: [
      { d: circle(0, 0, r), look: 'body' },
      { d: circle(0, 0, r * 0.78), look: 'fine' },
      { d: circle(0, 0, r * 0.7), look: 'fine' },
      { d: circle(0, 0, r * 0.22), look: 'body' },
      { d: rectPath(-r * 0.05, -r * 0.3, r * 0.1, r * 0.09), look: 'body', title: 'keyway' },
      { d: line([0, -r], [0, -r * 0.6]), look: 'fine', title: 'mark' },
    ],
    zones: [
      { key: 'ring', ...pointAt(0, 0, r * 0.9, 100) },
      { key: 'rubber', ...pointAt(0, 0, r * 0.74, 20) },
      { key: 'hub', x: 0, y: 0 },
    ],
    words: [],
  };
}

const WINDOWS = 24;
/** A sensor ring with as many windows as were counted, else as the catalogue has. */
function ringPicture(appearance: PartAppearance): ThingPicture {
  const windows = appearance.number('ring.windows') ?? appearance.size('windows') ?? WINDOWS;
  const r = 45;
  return {
    box: around(r, 1.1),
    shapes: [
      { d: circle(0, 0, r), look: 'body' },
      { d: circle(0, 0, r * 0.45), look: 'body' },
      ...Array.from({ length: windows }, (_, i): DrawnShape => {
        const p = pointAt(0, 0, r * 0.82, 90 + (i * 360) / windows);
        return { d: circle(p.x, p.y, Math.min(r * 0.07, (r * 1.6) / windows)), look: 'fine' };
      }),
    ],
    zones: [
      { key: 'windows', ...pointAt(0, 0, r * 0.82, 20) },
      { key: 'seat', x: 0, y: 0 },
    ],
    words: [{ x: 0, y: r * 0.62, text: `${windows} windows` }],
  };
}

/** A water pump from the side: wheel, shaft, weep hole, impeller. */
function pumpPicture(appearance: PartAppearance): ThingPicture {
  const teeth = appearance.wheel?.teeth;
  const r = 30;
  const blades = [0, 72, 144, 216, 288].map((deg): DrawnShape => {
    const [p, q] = [pointAt(75, 0, r * 0.15, deg), pointAt(75, 0, r * 0.75, deg + 35)];
    return { d: line([p.x, p.y], [q.x, q.y]), look: 'body', title: 'blade' };
  });
  return {
    box: framed(-r, -r * 1.2, 140, r * 2.4, 0.05),
    shapes: [
      { d: teeth ? wheelOutline(teeth, r * 0.9) : circle(0, 0, r * 0.95), look: 'body' },
      { d: circle(0, 0, r * 0.2), look: 'fine' },
      { d: rectPath(34, -r * 0.9, 12, r * 1.8), look: 'body', title: 'sealing face' },
      { d: line([r, 0], [60, 0]), look: 'fine', title: 'shaft' },
      { d: circle(40, r * 0.95, 2.5), look: 'fine', title: 'weep hole' },
      { d: circle(75, 0, r * 0.85), look: 'fine' },
      ...blades,
    ],
    zones: [
      { key: 'wheel', x: -r * 0.6, y: 0 },
      { key: 'shaft', x: 26, y: 0 },
      { key: 'body', x: 40, y: -r * 0.6 },
      { key: 'weep', x: 40, y: r * 0.95 },
      { key: 'impeller', x: 75, y: 0 },
    ],
    words: [],
  };
}

/** By kind of part. */
export const ROUND_DRAWINGS: Drawings = {
  roller: { draw: rollerPicture, wheel: (w) => w.role === 'idler' && w.teeth === undefined },
  sprocket: { draw: sprocketPicture, wheel: (w) => w.role === 'cam' },
  phaser: { draw: phaserPicture, wheel: (w) => w.role === 'cam' },
  damper: { draw: damperPicture, wheel: (w) => w.role === 'crank' },
  ring: { draw: ringPicture, wheel: (w) => w.role === 'crank' },
  pump: { draw: pumpPicture, wheel: (w) => w.role === 'pump' },
};
