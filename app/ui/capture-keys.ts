/** What a capture's picture shows: cursor and mark in what its axis counts, the part of the range that is seen in hundredths. */
export type CaptureSight = {
  at: number | undefined;
  mark: number | undefined;
  window: readonly [number, number];
};
export type CaptureNow = CaptureSight & {
  range: readonly [number, number];
  step: number;
  /** Edges that the cursor jumps to, growing. */
  stops: readonly number[];
};
type Press = Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'>;

/** A shifted arrow goes so many steps; a key zooms by this. */
const FAST = 10;
const ZOOM = 0.5;
/** Least part of the range that is seen, hundredths. */
const CLOSEST = 0.01;

/** What a key does on a capture's picture: arrows move the cursor, n and b jump to the next edge and back, m marks, + and − zoom about it. Nothing for other keys. */
export function pressedOnCapture(now: CaptureNow, e: Press): CaptureSight | undefined {
  if (e.ctrlKey || e.metaKey || e.altKey) return undefined;
  const [low, high] = now.range;
  const wide = high - low;
  const middle = low + ((now.window[0] + now.window[1]) / 200) * wide;
  const at = now.at ?? middle;
  const to = (where: number): CaptureSight => {
    const held = Math.max(low, Math.min(high, where));
    return { at: held, mark: now.mark, window: around(now.window, (100 * (held - low)) / wide) };
  };
  switch (e.key) {
    case 'ArrowLeft':
    case 'ArrowRight': {
      const by = now.step * (e.shiftKey ? FAST : 1);
      return to(at + (e.key === 'ArrowLeft' ? -by : by));
    }
    case 'Home':
      return to(low);
    case 'End':
      return to(high);
    case 'n':
      return to(now.stops.find((s) => s > at + 1e-9) ?? at);
    case 'b':
      return to(now.stops.filter((s) => s < at - 1e-9).at(-1) ?? at);
    case 'm':
      return { at, mark: at, window: now.window };
    case 'Escape':
      return now.at === undefined && now.mark === undefined
        ? undefined
        : { at: undefined, mark: undefined, window: now.window };
    case '+':
      return { at: now.at, mark: now.mark, window: zoomed(now.window, ZOOM, (100 * (at - low)) / wide) };
    case '-':
      return { at: now.at, mark: now.mark, window: zoomed(now.window, 1 / ZOOM, (100 * (at - low)) / wide) };
    default:
      return undefined;
  }
}

/** A window of the same width that holds a place; itself where it does. */
function around([from, to]: readonly [number, number], place: number): [number, number] {
  const by = place < from ? place - from : place > to ? place - to : 0;
  return [from + by, to + by];
}

function zoomed([from, to]: readonly [number, number], by: number, about: number): [number, number] {
  const wide = Math.max(CLOSEST, Math.min(100, (to - from) * by));
  const share = to > from ? (about - from) / (to - from) : 0.5;
  const start = Math.max(0, Math.min(100 - wide, about - share * wide));
  return [start, start + wide];
}
