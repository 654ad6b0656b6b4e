import { type CaptureNow, pressedOnCapture } from './capture-keys';

const NONE = { shiftKey: false, ctrlKey: false, metaKey: false, altKey: false };
const start: CaptureNow = {
  at: undefined,
  mark: undefined,
  window: [0, 100],
  range: [0, 720],
  step: 0.5,
  stops: [40, 110.5, 600],
};
const after = (keys: string, from: CaptureNow = start): CaptureNow =>
  keys.split(' ').reduce((now, key) => {
    const press = { ...NONE, key: key.replace('S-', ''), shiftKey: key.startsWith('S-') };
    return { ...now, ...pressedOnCapture(now, press) };
  }, from);

describe('keys on a capture', () => {
  it('move the cursor by steps, fast, to the ends and from edge to edge, and not beyond', () => {
    expect(after('ArrowRight').at).toBe(360.5);
    expect(after('S-ArrowLeft').at).toBe(355);
    expect(after('Home ArrowLeft').at).toBe(0);
    expect(after('End').at).toBe(720);
    expect(after('Home n n').at).toBe(110.5);
    expect(after('End b b b b').at).toBe(40);
    expect(after('End n').at).toBe(720);
  });

  it('mark a place, and take cursor and mark away', () => {
    const marked = after('Home n m n');
    expect([marked.mark, marked.at]).toEqual([40, 110.5]);
    expect([after('Home m Escape').at, after('Home m Escape').mark]).toEqual([undefined, undefined]);
    expect(pressedOnCapture(start, { ...NONE, key: 'Escape' })).toBeUndefined();
    expect(pressedOnCapture(start, { ...NONE, key: 'n', ctrlKey: true })).toBeUndefined();
    expect(pressedOnCapture(start, { ...NONE, key: 'q' })).toBeUndefined();
  });

  it('zoom about the cursor, which stays in sight when it moves on, and never beyond the range', () => {
    const near = after('Home n + + +');
    const [from, to] = near.window;
    expect(to - from).toBeCloseTo(12.5, 9);
    expect(from).toBeLessThanOrEqual(100 * (40 / 720));
    expect(to).toBeGreaterThanOrEqual(100 * (40 / 720));
    const gone = after('n n', near);
    expect(gone.window[1] - gone.window[0]).toBeCloseTo(12.5, 9);
    expect(gone.window[1]).toBeGreaterThanOrEqual((100 * 600) / 720 - 1e-9);
    const back = after('- - - - -', gone);
    expect(back.window[0]).toBeCloseTo(0, 9);
    expect(back.window[1]).toBeCloseTo(100, 9);
  });
});
