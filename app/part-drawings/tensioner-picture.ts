import { nth } from '@core/quantity/must';
import { type Carrier, carrierAt, carrierKind, limitsOf } from '@core/drive/carrier';
import type { PartAppearance } from './appearance';
import {
  arc,
  pointAt,
  circle,
  framed,
  line,
  rectPath,
  type DrawnShape,
  type ThingPicture,
  type Zone,
  type Drawings,
} from './picture';

/** Drawn where the catalogue gives no dimension, mm. */
const ROLLER_MM = 30;
const BODY_MM = 55;

/** A tensioner by its kind; of an open design, the body alone. */
function tensionerPicture(appearance: PartAppearance): ThingPicture {
  const { carrier } = appearance;
  if (!carrier) return plain(appearance);
  if (carrier.kind === 'arm' && carrierKind(carrier) === 'plunger') return plunger(appearance, carrier);
  return carrier.kind === 'arm' ? lever(appearance) : eccentric(appearance, carrier);
}

const roller = (appearance: PartAppearance): number =>
  (appearance.size('outsideMm') ?? 2 * (appearance.wheel?.outsideMm ?? ROLLER_MM)) / 2;

/** Face of an eccentric: roller, pivot, key, tab on its side, window and pointer at their angles. */
function eccentric(appearance: PartAppearance, carrier: Carrier): ThingPicture {
  const r = roller(appearance);
  const { window, end } = limitsOf(carrier);
  const angle = (reading: number) => carrierAt(carrier, reading);
  const eye = pointAt(0, 0, Math.min(carrier.arm, r * 0.5), angle(window.nominal) + 180);
  const turn = carrier.turn === 'ccw' ? 1 : -1;
  const [a, b] = [angle(window.from), angle(window.to)];
  const dial = r * 0.72;
  const shapes: DrawnShape[] = [
    { d: circle(0, 0, r), look: 'body' },
    { d: circle(0, 0, r * 0.9), look: 'fine' },
    { d: circle(0, 0, r * 0.42), look: 'body' },
    { d: circle(eye.x, eye.y, r * 0.14), look: 'body' },
    { d: turn > 0 ? arc(0, 0, dial, a, b) : arc(0, 0, dial, b, a), look: 'window', title: 'window' },
    { d: ray(angle(end), r * 0.62, r * 0.82), look: 'fine', title: 'end mark' },
    { d: ray(angle(window.nominal), r * 0.6, r * 0.84), look: 'ghost', title: 'nominal' },
  ];
  const read = appearance.number('tensioner.pointer');
  if (read !== undefined)
    shapes.push({ d: pointer(angle(read), r), look: 'found', title: 'pointer, as found' });
  const tab = tabAngle(appearance.word('tab'));
  const zones: Zone[] = [
    { key: 'pointer', ...pointAt(0, 0, r * 1.16, angle(read ?? window.nominal)) },
    { key: 'key', ...pointAt(0, 0, r * 0.25, angle(window.nominal)) },
    { key: 'bolt', x: eye.x, y: eye.y },
    { key: 'bearing', ...pointAt(0, 0, r * 0.52, angle(window.nominal) + 70) },
    { key: 'roller', ...pointAt(0, 0, r * 0.97, angle(window.nominal) + 90) },
    { key: 'face', ...pointAt(0, 0, r * 0.7, angle(window.nominal) - 75) },
  ];
  if (tab !== undefined) {
    const p = pointAt(0, 0, r * 1.16, tab);
    shapes.push({
      d: rectPath(p.x - r * 0.12, p.y - r * 0.16, r * 0.24, r * 0.32),
      look: 'body',
      title: 'tab',
    });
    zones.push({ key: 'tab', x: p.x, y: p.y });
  } else zones.push({ key: 'tab', ...pointAt(0, 0, r * 1.1, angle(window.nominal) + 200) });
  return { box: framed(-r * 1.3, -r * 1.3, r * 2.6, r * 2.6, 0), shapes, zones, words: [] };
}

const TAB: Readonly<Record<string, number>> = { left: 180, right: 0, top: 90 };
const tabAngle = (word: string | undefined): number | undefined =>
  word === undefined ? undefined : TAB[word];

const ray = (deg: number, from: number, to: number): string => {
  const [p, q] = [pointAt(0, 0, from, deg), pointAt(0, 0, to, deg)];
  return line([p.x, p.y], [q.x, q.y]);
};
function pointer(deg: number, r: number): string {
  const [tip, left, right] = [
    pointAt(0, 0, r * 0.9, deg),
    pointAt(0, 0, r * 0.44, deg + 14),
    pointAt(0, 0, r * 0.44, deg - 14),
  ];
  return `${line([left.x, left.y], [tip.x, tip.y], [right.x, right.y])}Z`;
}

/** A plunger from the side: body, window of a healthy extension, end of travel, and how far it stands out. */
function plunger(appearance: PartAppearance, carrier: Carrier): ThingPicture {
  const body = appearance.size('bodyMm') ?? BODY_MM;
  const { window, end } = limitsOf(carrier);
  const read = appearance.number('tensioner.extension');
  const out = read ?? window.nominal;
  const [h, w] = [body * 0.36, body * 0.2];
  const longest = Math.max(end, out) + 4;
  const ratchet = carrier.kind === 'arm' && carrier.plunger?.ratcheted === true;
  const shapes: DrawnShape[] = [
    { d: rectPath(-body, -h, body, 2 * h), look: 'body' },
    { d: rectPath(-body * 0.8, -w, body * 0.8, 2 * w), look: 'fine', title: 'bore' },
    { d: rectPath(-body * 0.8, -h * 0.78, body * 0.35, h * 0.2), look: 'fine', title: 'window' },
    {
      d: rectPath(window.from, h * 1.05, window.to - window.from, h * 0.16),
      look: 'window',
      title: 'healthy window',
    },
    { d: line([end, h * 0.95], [end, h * 1.35]), look: 'fine', title: 'end of travel' },
    {
      d: rectPath(-body * 0.3, -w * 0.9, body * 0.3 + out, w * 1.8),
      look: read === undefined ? 'ghost' : 'found',
    },
    { d: line([-body * 0.1, -w], [-body * 0.1, w]), look: 'fine', title: 'seal ring' },
    { d: line([-body, 0], [-body * 1.12, 0]), look: 'fine', title: 'oil way' },
  ];
  if (ratchet)
    for (let x = 2; x < out - 2; x += 3)
      shapes.push({ d: line([x, -w * 0.9], [x + 1.5, -w * 0.6]), look: 'fine' });
  const zones: Zone[] = [
    { key: 'plunger', x: out * 0.45, y: 0 },
    { key: 'tip', x: out, y: -w * 0.5 },
    { key: 'window', x: -body * 0.62, y: -h * 0.68 },
    { key: 'body', x: -body * 0.88, y: h * 0.7 },
    { key: 'face', x: -body * 0.35, y: h * 0.7 },
    { key: 'bore', x: -body * 0.5, y: 0 },
    { key: 'seal', x: -body * 0.1, y: w * 1.2 },
    { key: 'feed', x: -body * 1.1, y: 0 },
    { key: 'pin', x: -body * 0.1, y: -h * 0.85 },
    { key: 'bolt', x: -body * 0.88, y: -h * 0.7 },
    { key: 'groove', x: out * 0.2, y: -w * 1.25 },
    { key: 'roller', x: longest, y: w * 1.6 },
    { key: 'bearing', x: longest, y: -w * 1.6 },
  ];
  const words = [
    { x: (window.from + window.to) / 2, y: h * 1.6, text: `${window.from} to ${window.to} mm` },
    { x: end, y: h * 1.6, text: `end ${end} mm` },
  ].filter((word, i, all) => i === 0 || Math.abs(word.x - nth(all, 0).x) > body * 0.35);
  return { box: framed(-body * 1.2, -h * 1.1, body * 1.2 + longest, h * 2.9, 0.05), shapes, zones, words };
}

/** A lever with roller, pushed by a damper. */
function lever(appearance: PartAppearance): ThingPicture {
  const r = roller(appearance);
  const arm = Math.max(appearance.carrier?.arm ?? 0, r * 1.6);
  const rod = appearance.number('tensioner.rod_out') ?? r * 0.9;
  const base = -arm - r * 0.4;
  return {
    box: framed(base - r * 0.6, -r * 1.3, arm * 2 + r * 1.7, r * 3.8, 0.06),
    shapes: [
      { d: circle(0, 0, r), look: 'body' },
      { d: circle(0, 0, r * 0.4), look: 'fine' },
      { d: `${line([0, -r * 0.45], [-arm, -r * 0.3])}${line([0, r * 0.45], [-arm, r * 0.3])}`, look: 'body' },
      { d: circle(-arm, 0, r * 0.3), look: 'body', title: 'pivot' },
      { d: rectPath(base, r * 1.4, r * 1.2, r * 0.7), look: 'body', title: 'damper' },
      {
        d: rectPath(base + r * 1.2, r * 1.65, rod, r * 0.2),
        look: appearance.number('tensioner.rod_out') === undefined ? 'ghost' : 'found',
        title: 'rod',
      },
      { d: circle(base + r * 1.3 + rod, r * 1.75, r * 0.18), look: 'body' },
    ],
    zones: [
      { key: 'roller', x: r * 0.95, y: 0 },
      { key: 'bearing', x: 0, y: -r * 0.5 },
      { key: 'bolt', x: 0, y: 0 },
      { key: 'pointer', x: -arm * 0.35, y: r * 0.62 },
      { key: 'lever', x: -arm * 0.6, y: -r * 0.4 },
      { key: 'pivot', x: -arm, y: 0 },
      { key: 'key', x: -arm, y: -r * 0.7 },
      { key: 'face', x: base + r * 0.3, y: r * 1.75 },
      { key: 'rod', x: base + r * 1.2 + rod * 0.5, y: r * 1.75 },
      { key: 'tab', x: -arm - r * 0.3, y: r * 0.6 },
    ],
    words: [],
  };
}

/** Nothing is known of its kind yet. */
function plain(appearance: PartAppearance): ThingPicture {
  const r = roller(appearance);
  const keys = [...new Set(appearance.zones)];
  return {
    box: framed(-r * 1.4, -r * 1.4, r * 2.8, r * 2.8, 0),
    shapes: [
      { d: circle(0, 0, r), look: 'ghost' },
      { d: circle(0, 0, r * 0.4), look: 'ghost' },
    ],
    zones: keys.map((key, i) => ({ key, ...pointAt(0, 0, r * 1.05, 90 - (i * 360) / keys.length) })),
    words: [],
  };
}

/** By kind of part. */
export const TENSIONER_DRAWING: Drawings = {
  tensioner: { draw: tensionerPicture, wheel: (w) => w.role === 'tensioner' },
};
