import { arc, circle, type Drawings, framed, line, rectPath, type ThingPicture } from './picture';

/** What surrounds the parts: a box, a cover, sump and screens, the cooling, the rims of the wheels. */
const AROUND: Readonly<Record<string, ThingPicture>> = {
  packing: {
    box: framed(-40, -35, 90, 70, 0.06),
    shapes: [
      { d: rectPath(-35, -20, 70, 45), look: 'body' },
      { d: line([-35, -20], [-22, -33], [22, -33], [35, -20]), look: 'body' },
      { d: rectPath(10, -8, 18, 12), look: 'fine', title: 'label' },
    ],
    zones: [
      { key: 'box', x: -15, y: 5 },
      { key: 'label', x: 19, y: -2 },
    ],
    words: [],
  },
  cover: {
    box: framed(-45, -55, 90, 110, 0.04),
    shapes: [
      {
        d: 'M-35 48V0a20 22 0 0 1 5-30a32 22 0 0 1 60 0a20 22 0 0 1 5 30V48Z',
        look: 'body',
      },
      { d: 'M-28 42V2a16 18 0 0 1 5-28a24 16 0 0 1 46 0a16 18 0 0 1 5 28V42Z', look: 'fine', title: 'seal' },
    ],
    zones: [
      { key: 'body', x: 0, y: 0 },
      { key: 'rim', x: 31, y: 25 },
    ],
    words: [],
  },
  wheels: {
    box: framed(-45, -40, 100, 80, 0.04),
    shapes: [
      { d: circle(-15, -12, 20), look: 'body' },
      { d: circle(-15, -12, 23), look: 'fine', title: 'rim' },
      { d: circle(25, 14, 14), look: 'body' },
      { d: circle(25, 14, 17), look: 'fine', title: 'rim' },
    ],
    zones: [{ key: 'rims', x: -15, y: -34 }],
    words: [],
  },
  kit: {
    box: framed(-40, -30, 80, 60, 0.06),
    shapes: [
      { d: rectPath(-32, -22, 64, 44), look: 'body' },
      { d: circle(-12, 0, 12), look: 'fine', title: 'part' },
      { d: rectPath(8, -12, 16, 24), look: 'fine', title: 'part' },
    ],
    zones: [{ key: 'box', x: -12, y: 0 }],
    words: [],
  },
  engine: {
    box: framed(-40, -45, 80, 90, 0.05),
    shapes: [
      { d: rectPath(-30, -5, 60, 42), look: 'body', title: 'block' },
      { d: rectPath(-26, -34, 52, 26), look: 'body', title: 'head' },
      { d: line([-30, -7], [30, -7]), look: 'fine', title: 'gasket' },
      { d: rectPath(-10, 2, 20, 22), look: 'fine', title: 'cylinder' },
    ],
    zones: [{ key: 'cylinder', x: 0, y: 12 }],
    words: [],
  },
  noise: {
    box: framed(-50, -40, 100, 80, 0.05),
    shapes: [
      { d: circle(-22, 0, 18), look: 'body', title: 'where it is heard' },
      { d: arc(-22, 0, 26, -40, 40), look: 'fine' },
      { d: arc(-22, 0, 34, -40, 40), look: 'fine' },
      { d: circle(28, 0, 14), look: 'body', title: 'when it is heard' },
      { d: line([28, 0], [28, -9]), look: 'fine' },
      { d: line([28, 0], [34, 4]), look: 'fine' },
    ],
    zones: [
      { key: 'place', x: -22, y: 0 },
      { key: 'time', x: 28, y: 6 },
    ],
    words: [],
  },
  oil: {
    box: framed(-60, -45, 120, 90, 0.04),
    shapes: [
      { d: line([-55, -5], [55, -5], [38, 36], [-38, 36], [-55, -5]), look: 'body', title: 'sump' },
      { d: line([-50, 8], [50, 8]), look: 'fine', title: 'oil level' },
      { d: rectPath(-14, 20, 28, 8), look: 'body', title: 'pickup' },
      { d: line([0, 20], [0, -30], [24, -30]), look: 'fine' },
      { d: rectPath(24, -40, 18, 24), look: 'body', title: 'filter' },
      { d: circle(-36, -30, 10), look: 'body', title: 'lamp' },
    ],
    zones: [
      { key: 'sump', x: -32, y: 18 },
      { key: 'pickup', x: 0, y: 24 },
      { key: 'filter', x: 33, y: -28 },
      { key: 'lamp', x: -36, y: -30 },
    ],
    words: [],
  },
  cooling: {
    box: framed(-55, -40, 110, 80, 0.04),
    shapes: [
      { d: rectPath(-45, -15, 45, 42), look: 'body', title: 'tank' },
      { d: line([-45, 2], [0, 2]), look: 'fine', title: 'level' },
      { d: rectPath(-30, -24, 15, 9), look: 'body' },
      { d: arc(30, 10, 20, 20, 160), look: 'body', title: 'gauge' },
      { d: line([30, 10], [42, -4]), look: 'fine' },
    ],
    zones: [
      { key: 'tank', x: -22, y: 14 },
      { key: 'gauge', x: 30, y: -2 },
    ],
    words: [],
  },
};

/** Drawn alike whatever was found. */
export const AROUND_DRAWINGS: Drawings = Object.fromEntries(
  Object.entries(AROUND).map(([kind, picture]) => [kind, { draw: () => picture }]),
);
