import { num } from '@core/quantity/must';
import { err, ok, type Result } from '@core/quantity/result';

/** A reluctor wheel by its slots around one turn, in running direction: true where there is a tooth. */
export type ToothWheel = { notation: string; teeth: readonly boolean[] };
export type WheelError = { code: 'no_wheel'; text: string };

/** Wheels that are tried when nobody says which one it is. */
export const USUAL_WHEELS = [
  '60-2',
  '36-1',
  '36-2',
  '36-2-2-2',
  '60-2-2',
  '48-2',
  '30-2',
  '12-1',
  '24',
] as const;
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

/** Slots by which the wheel has to be turned to look the same: all of them with gaps that stand once, one without a gap. */
export function periodSlots({ teeth }: Pick<ToothWheel, 'teeth'>): number {
  const n = teeth.length;
  for (let by = 1; by < n; by++)
    if (n % by === 0 && teeth.every((t, i) => t === teeth[(i + by) % n])) return by;
  return n;
}

/** Degrees of the crank after which the wheel looks the same: 360 with a gap that stands once, a pitch without a gap, half a turn with two alike. */
export const periodDeg = (w: Pick<ToothWheel, 'teeth'>): number => (periodSlots(w) * 360) / w.teeth.length;

/** Arrangements of more gaps than this are not gone through. */
const MOST_GAPS = 3;
const arranged = new Map<string, readonly ToothWheel[]>();

/**
 * All wheels that a notation may mean: it says how wide its gaps are, not where they stand. Each begins with the first tooth
 * behind a gap, turned alike in every capture, so that two captures of one wheel have one zero. A pattern is itself alone.
 */
export function arrangementsOf(wheel: ToothWheel): readonly ToothWheel[] {
  const [slots, ...gaps] = /^\d{1,3}(?:-\d){2,}$/.test(wheel.notation)
    ? wheel.notation.split('-').map(Number)
    : [];
  if (slots === undefined || gaps.length > MOST_GAPS) return [wheel];
  const known = arranged.get(wheel.notation);
  if (known) return known;
  const found = new Map<string, boolean[]>();
  const place = (runs: number[], left: number): void => {
    if (runs.length === gaps.length - 1) {
      const teeth = [...runs, left].flatMap((r, i) => [
        ...Array<boolean>(r).fill(true),
        ...Array<boolean>(num(gaps, i)).fill(false),
      ]);
      const turned = foremost(teeth);
      found.set(turned.map(Number).join(''), turned);
      return;
    }
    for (let r = 1; r <= left - (gaps.length - 1 - runs.length); r++) place([...runs, r], left - r);
  };
  place([], slots - gaps.reduce((a, b) => a + b, 0));
  const all = [...found.values()].map((teeth): ToothWheel => ({ notation: wheel.notation, teeth }));
  arranged.set(wheel.notation, all);
  return all;
}

/** The same wheel begun at the tooth behind a gap from which its slots come first in order. */
export function foremost(teeth: readonly boolean[]): boolean[] {
  const n = teeth.length;
  let best: { text: string; teeth: boolean[] } | undefined;
  for (let k = 0; k < n; k++) {
    if (!teeth[k] || teeth[(k + n - 1) % n]) continue;
    const turned = [...teeth.slice(k), ...teeth.slice(0, k)];
    const text = turned.map(Number).join('');
    if (!best || text > best.text) best = { text, teeth: turned };
  }
  return best?.teeth ?? [...teeth];
}
