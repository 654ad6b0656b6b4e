import type { PhotoOverlay } from '@core/examination/photo-overlay';
import { nextSpot } from './photo';

describe('what is pressed next on a photograph', () => {
  const marks = [1, 2, 3, 4].map((x) => ({ x, y: 2.5 * x }));
  const overlay: Pick<PhotoOverlay, 'scale' | 'marks' | 'spots'> = { scale: 'rectangle', marks, spots: [] };

  it('is said for each spot in turn, the scale first, and nothing once a length or an angle is set', () => {
    const steps = [0, 1, 2].map((n) => nextSpot({ ...overlay, spots: marks.slice(0, n) }, 'length'));
    expect(new Set(steps).size).toBe(3);
    expect(steps[2]).toBe('');
    expect(nextSpot({ ...overlay, spots: marks.slice(0, 2) }, 'angle')).not.toBe('');
    const corners = [0, 1, 2, 3].map((n) => nextSpot({ ...overlay, marks: marks.slice(0, n) }, 'length'));
    expect(new Set(corners).size).toBe(4);
    // an outline and a count go on, and can be filed once they have enough
    for (const what of ['area', 'count'] as const) {
      const says = [0, 3].map((n) => nextSpot({ ...overlay, spots: marks.slice(0, n) }, what));
      expect(says[0]).not.toBe('');
      expect(says[1]).not.toBe(says[0]);
    }
  });
});
