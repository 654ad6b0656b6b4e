import { type Overlay, overlayLines, readOverlay, scaleOf } from './photo-overlay';

const overlay: Overlay = {
  hash: 'ab',
  key: 'belt.width',
  scale: 'rectangle',
  sides: [85, 54],
  sideU: 0.1,
  marks: [1, 2, 3, 4].map((x) => ({ x, y: 2.5 * x })),
  spots: [{ x: 9.25, y: 8 }],
};

describe('what was picked on a photograph', () => {
  it('is written as lines and read back alike; anything else is none', () => {
    expect(readOverlay(overlayLines(overlay))).toEqual(overlay);
    const ruler: Overlay = { ...overlay, scale: 'ruler', sides: [100], marks: [], spots: [] };
    expect(readOverlay(overlayLines(ruler))).toEqual(ruler);
    for (const bad of [undefined, 'x', [], ['picture a'], overlayLines({ ...overlay, sides: [-1, 2] })])
      expect(readOverlay(bad)).toBeUndefined();
  });

  it('is a scale once all of its marks and sides are there', () => {
    expect(scaleOf(overlay)?.kind).toBe('rectangle');
    expect(scaleOf({ ...overlay, marks: overlay.marks.slice(0, 3) })).toBeUndefined();
    expect(scaleOf({ ...overlay, sides: [85] })).toBeUndefined();
  });
});
