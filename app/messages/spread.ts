import { counted, plural } from '../language/plural';
import type { SpreadAnswer } from '@core/examination/spread-answer';
import { formatNumber } from '@core/quantity/format-quantity';

const WHAT = { groove: 'The grooves are deeper', thickness: 'It is thicker' } as const;

/** Where on it the damage lies, in a sentence. */
export function spreadWords(s: SpreadAnswer): string {
  if (s.kind === 'sprocket') {
    const a = s.answer;
    switch (a.verdict) {
      case 'too_few':
        return `${a.marks} damaged ${plural(a.marks, 'tooth', 'teeth')}: too few to say whether they lie to one side; it takes ${a.least}.`;
      case 'one_side':
        return `The ${a.marks} damaged teeth lie to one side, about tooth ${a.tooth} (chance does as well in ${share(a.p)}): look at runout and seat.`;
      case 'around':
        return `The ${a.marks} damaged teeth lie all around (chance is as one-sided in ${share(a.p)}).`;
    }
  }
  const a = s.answer;
  if (a.verdict === 'too_few')
    return `${counted(a.readings, 'station', 'stations')}: it takes ${a.least} to say how it changes along the guide.`;
  const figures = `${signed(a.per100)} mm per 100 mm from the pivot, 95 % from ${signed(a.low)} to ${signed(a.high)}`;
  switch (a.verdict) {
    case 'to_end':
      return `${WHAT[s.what]} towards the free end: ${figures}.`;
    case 'to_pivot':
      return `${WHAT[s.what]} towards the pivot: ${figures}.`;
    case 'even':
      return `Even along the guide: ${figures}.`;
    case 'cannot_tell':
      return `Cannot tell whether it is even along the guide: ${figures}. Read more stations.`;
  }
}

const signed = (v: number): string => (v > 0 ? '+' : '') + formatNumber(v, 2);
const share = (p: number): string =>
  p < 0.002 ? 'fewer than 2 of 1,000' : `${Math.round(p * 1000)} of 1,000`;
