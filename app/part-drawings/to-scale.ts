import type { Part } from '@core/catalogue/pack';
import { circle, line, rectPath } from './picture';

/** A part seen from one side, in millimetres around its own middle. */
export type ScaledView = { seen: 'front' | 'side' | 'along'; d: string; w: number; h: number };

type Sizes = Readonly<Record<string, unknown>>;
const size = (a: Sizes, key: string): number | undefined => {
  const v = a[key];
  return typeof v === 'number' && v > 0 ? v : undefined;
};

/** Pitches of a belt or chain that are drawn: enough to see them, few enough to see each. */
const PITCHES = 6;
/** A head is about this many threads wide and high (ISO 4014: 1.5 to 1.6, and 0.64). */
const HEAD = { across: 1.55, high: 0.64 };

/**
 * What the catalogue's dimensions say of a part's shape, to scale; nothing is drawn that no dimension gives: an empty list where there
 * are none.
 */
export function scaledViews({ kind, attributes }: Pick<Part, 'kind' | 'attributes'>): ScaledView[] {
  const a: Sizes = attributes;
  if (kind === 'belt' || kind === 'chain') return strip(a);
  if (kind === 'bolt') return bolt(a);
  const across = size(a, 'outsideMm') ?? size(a, 'bodyMm');
  if (across !== undefined) return [{ seen: 'front', d: circle(0, 0, across / 2), w: across, h: across }];
  const long = size(a, 'lengthMm');
  return long === undefined ? [] : [{ seen: 'side', d: line([-long / 2, 0], [long / 2, 0]), w: long, h: 1 }];
}

/** Some pitches of a belt or chain from above: its width, a line at every pitch. */
function strip(a: Sizes): ScaledView[] {
  const pitch = size(a, 'pitchMm');
  if (pitch === undefined) return [];
  const width = size(a, 'widthMm') ?? 0;
  const long = PITCHES * pitch;
  const at = Array.from({ length: PITCHES + 1 }, (_, i) => -long / 2 + i * pitch);
  const tall = Math.max(width, pitch);
  const marks = at.map((x) => line([x, -tall / 2], [x, tall / 2])).join('');
  const edges = width > 0 ? rectPath(-long / 2, -width / 2, long, width) : '';
  return [{ seen: 'along', d: edges + marks, w: long, h: tall }];
}

function bolt(a: Sizes): ScaledView[] {
  const [m, long] = [size(a, 'boltM'), size(a, 'lengthMm')];
  if (m === undefined || long === undefined) return [];
  const high = HEAD.high * m;
  const across = HEAD.across * m;
  const d = rectPath(-long / 2, -m / 2, long, m) + rectPath(-long / 2 - high, -across / 2, high, across);
  return [{ seen: 'side', d, w: long + 2 * high, h: across }];
}
