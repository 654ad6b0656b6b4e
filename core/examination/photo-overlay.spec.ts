import { OverlaySchema } from '@core/facts/value';
import { type PhotoOverlay, readOverlay, scaleOf } from './photo-overlay';

const overlay: PhotoOverlay = {
  is: 'overlay',
  hash: 'ab',
  key: 'belt.width',
  scale: 'rectangle',
  sides: [85, 54],
  sideU: 0.1,
  marks: [1, 2, 3, 4].map((x) => ({ x, y: 2.5 * x })),
  spots: [{ x: 9.25, y: 8 }],
};
/** As earlier makes wrote it. */
const LINES = [
  'picture ab',
  'of belt.width',
  'rectangle 85 54 ± 0.1',
  'mark 1 2.5',
  'mark 2 5',
  'mark 3 7.5',
  'mark 4 10',
  'spot 9.25 8',
];

describe('what was picked on a photograph', () => {
  it('is read as it is filed, and from the lines of earlier makes; anything else is none', () => {
    expect(OverlaySchema.parse(JSON.parse(JSON.stringify(overlay)))).toEqual(overlay);
    expect(readOverlay(overlay)).toEqual(overlay);
    expect(readOverlay(LINES)).toEqual(overlay);
    expect(readOverlay(['picture ab', 'of belt.width', 'ruler 100 ± 0.1'])).toEqual({
      ...overlay,
      scale: 'ruler',
      sides: [100],
      marks: [],
      spots: [],
    });
    const negative = LINES.map((l) => l.replace('85', '-85'));
    for (const bad of [undefined, 'x', [], ['picture a'], negative, { is: 'sheet' }])
      expect(readOverlay(bad)).toBeUndefined();
  });

  it('is a scale once all of its marks and sides are there', () => {
    expect(scaleOf(overlay)?.kind).toBe('rectangle');
    expect(scaleOf({ ...overlay, marks: overlay.marks.slice(0, 3) })).toBeUndefined();
    expect(scaleOf({ ...overlay, sides: [85] })).toBeUndefined();
  });
});
