import { num } from '@core/quantity/must';
import { err, ok, type Result } from '@core/quantity/result';

/** A reluctor wheel by its slots around one turn, in running direction: true where there is a tooth. */
export type ToothWheel = { notation: string; teeth: readonly boolean[] };
export type WheelError = { code: 'no_wheel'; text: string };

/** Wheels that are tried when nobody says which one it is. */
export const USUAL_WHEELS = ['60-2', '36-1', '36-2', '36-2-2-2', '24'] as const;
/** A wheel with several gaps has runs of teeth that differ by so many, so that each gap can be told. */
const RUN_STEP = 2;

/**
 * Reads a wheel: "60-2" (slots less the missing ones of each gap), "58" (counted teeth of a wheel of sixty with one gap), "24" (even), or a pattern of ones and noughts
 * around a turn. Gaps of one wheel stand behind runs of teeth of different length; where they really stand, a pattern says.
 */
export function readWheel(text: string): Result<ToothWheel, WheelError> {
  const said = text.trim().replace(/[−–]/g, '-');
  const bad = err({ code: 'no_wheel' as const, text });
  if (/^[01]{6,}$/.test(said)) {
    const teeth = [...said].map((c) => c === '1');
    return teeth.filter(Boolean).length >= 4 ? ok({ notation: said, teeth }) : bad;
  }
  if (!/^\d{1,3}(?:-\d)*$/.test(said)) return bad;
  const [first, ...gaps] = said.split('-').map(Number) as [number, ...number[]];
  if (first === 58 && gaps.length === 0) return readWheel('60-2');
  const missing = gaps.reduce((a, b) => a + b, 0);
  if (first < 6 || first > 360 || first - missing < 4 || gaps.some((g) => g < 1)) return bad;
  if (gaps.length === 0) return ok({ notation: said, teeth: Array<boolean>(first).fill(true) });
  const even = Math.floor((first - missing) / gaps.length);
  const runs = gaps.map((_, i) => even + RUN_STEP * (i - (gaps.length - 1) / 2));
  runs[0] = num(runs, 0) + first - missing - runs.reduce((a, b) => a + b, 0);
  if (runs.some((r) => r < 1 || !Number.isInteger(r))) return bad;
  const teeth = gaps.flatMap((g, i) => [
    ...Array<boolean>(num(runs, i)).fill(true),
    ...Array<boolean>(g).fill(false),
  ]);
  return ok({ notation: said, teeth });
}

/** True when the wheel has no gap by which a turn could be told from the next tooth. */
export const isEven = (w: ToothWheel): boolean => w.teeth.every(Boolean);

/** Slot of the first tooth behind a gap, where angles begin; the first slot of a wheel without one. */
export function firstTooth({ teeth }: ToothWheel): number {
  const n = teeth.length;
  return Math.max(
    0,
    teeth.findIndex((t, i) => t && !teeth[(i + n - 1) % n]),
  );
}

/** Slots around a turn from that tooth on. */
export function fromFirstTooth(wheel: ToothWheel): boolean[] {
  const first = firstTooth(wheel);
  return [...wheel.teeth.slice(first), ...wheel.teeth.slice(0, first)];
}
