import { err, ok, type Result } from '@core/quantity/result';
import { readWheel } from './wheel';

/** An offset that somebody tells: degrees of the crank, late positive, standard uncertainty, the wheel whose teeth were counted, and where it stands in the text. */
export type ToldOffset = { deg: number; u: number; wheel?: string; from: number; to: number };
export type ToldError =
  /** No number with degrees or teeth behind it. */
  | { code: 'no_figure' }
  /** Neither late nor early. */
  | { code: 'no_side' }
  /** Teeth of which wheel is not said, and no drive says it. */
  | { code: 'which_teeth' };

const FIGURE =
  /(?<number>[-−+]?\d+(?:[.,]\d+)?)\s*(?:(?<teeth>teeth|tooth)\b(?:\s+(?:of|on)\s+(?:the\s+|a\s+)?(?<wheel>\d{2,3}(?:-\d)*)(?:[ -](?:tooth|teeth))?(?:\s+(?:wheel|ring|sensor wheel|trigger wheel))?)?|(?:°|degrees?\b|deg\b)(?:\s*(?:of\s+)?(?:the\s+)?(?<shaft>crank|cam)(?:shaft)?\b)?)/giu;
const LATE = /\b(?:late|later|retarded|behind|lags?|lagging)\b/iu;
const EARLY = /\b(?:early|earlier|advanced|ahead|leads?|leading)\b/iu;
/** What a figure on the telephone is good to: a tenth of a tooth, half a degree, never better than half its last digit. */
const GOOD_TO = { teeth: 0.1, deg: 0.5 };
/** Signs before and behind the figure in which late or early is looked for. */
const ABOUT = 60;

/**
 * Reads an offset of a cam as it is told: "2.75 teeth of the 60 wheel late", "16 degrees crank late", "8° of the cam early". A
 * degree of the cam is two of the crank; degrees of nothing are the crank's.
 * @param wheel of the crank sensor by the drive, where teeth are told of no wheel
 * @param explicit only where the shaft or the wheel is named: in a message, "one tooth late" is a mark
 */
export function toldOffset(text: string, wheel?: string, explicit = false): Result<ToldOffset, ToldError> {
  let why: ToldError = { code: 'no_figure' };
  for (const m of text.matchAll(FIGURE)) {
    const { number = '', teeth, wheel: said, shaft } = m.groups ?? {};
    if (explicit && said === undefined && shaft === undefined) continue;
    const value = Number(number.replace('−', '-').replace(',', '.'));
    const about = text.slice(Math.max(0, m.index - ABOUT), m.index + m[0].length + ABOUT);
    const side = EARLY.test(about) ? -1 : LATE.test(about) ? 1 : value < 0 ? 1 : undefined;
    if (side === undefined) {
      why = { code: 'no_side' };
      continue;
    }
    const last = 0.5 * 10 ** -(/[.,](\d+)$/.exec(number)?.[1]?.length ?? 0);
    const place = { from: m.index, to: m.index + m[0].length };
    const signed = value < 0 ? value : side * value;
    if (teeth === undefined) {
      const perDeg = shaft?.toLowerCase() === 'cam' ? 2 : 1;
      return ok({ deg: perDeg * signed, u: perDeg * Math.max(GOOD_TO.deg, last), ...place });
    }
    // The wheel of 60 less 2 is called by its slots or by what stands on it.
    const named = said ?? wheel;
    const read = named === undefined ? undefined : readWheel(named);
    if (!read?.ok || named === undefined) {
      why = { code: 'which_teeth' };
      continue;
    }
    const pitch = 360 / read.value.teeth.length;
    const notation = wheel !== undefined && sameSlots(wheel, named) ? wheel : named;
    return ok({
      deg: signed * pitch,
      u: pitch * Math.max(GOOD_TO.teeth, last / 5),
      wheel: notation,
      ...place,
    });
  }
  return err(why);
}

/** True when two notations count as many slots: a drive's "60-2" is the "60 wheel" of the telephone. */
function sameSlots(a: string, b: string): boolean {
  const [x, y] = [readWheel(a), readWheel(b)];
  return x.ok && y.ok && x.value.teeth.length === y.value.teeth.length;
}
