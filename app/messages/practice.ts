import type { PracticeFileError } from '@core/practice/practice-file';
import type { OwnError } from '@core/practice/own-return';
import type { After, Fairness } from '@core/practice/after';
import type { Agreement } from '@core/practice/agreement';
import type { Seen } from '@core/practice/look';
import type { Calibration, Spaced } from '@core/practice/record';
import { formatNumber } from '@core/quantity/format-quantity';
import { counted } from '../language/plural';
import { percent } from './answers';

/** What came of a look that shows nothing, in words. @param by name of the look that destroyed it */
export function seenWords(seen: Exclude<Seen, { is: 'found' }>, by = ''): string {
  switch (seen.is) {
    case 'nothing':
      return 'Nothing to be seen at any place.';
    case 'unknown':
      return 'Nobody can tell.';
    case 'not_sent':
      return 'It did not come.';
    case 'destroyed':
      return `It can no longer be read: ${by} destroyed it.`;
    case 'rung_off':
      return 'The caller has rung off, and answers nothing more.';
  }
}

/** How long the caller still listens. */
export const patienceWords = (left: number): string =>
  left <= 0 ? 'the caller has rung off' : `the caller has ${left} min left`;

export const spentWords = (minutes: number): string => `${minutes} min`;

/** Why a file of returns was not taken in. */
export function practiceFileWords(name: string, e: PracticeFileError): string {
  switch (e.code) {
    case 'no_json':
      return `${name} is no JSON file. Nothing was taken in.`;
    case 'no_practice_file':
      return `${name} holds no returns for practice. Nothing was taken in.`;
    case 'newer_version':
      return `${name} was written by a newer version (${e.version}). Update this program first. Nothing was taken in.`;
    case 'wrong':
      return `${name} does not fit at ${e.at || 'the top'}: ${e.why}. Nothing was taken in.`;
    case 'unknown_cause':
      return `${name} names at ${e.at} the cause “${e.cause}”, which this desk does not know. Nothing was taken in.`;
    case 'unknown_observable':
      return `${name} tells at ${e.at} of “${e.key}”, which this desk’s catalogue cannot observe. Nothing was taken in.`;
  }
}

/** Why a case cannot be made a return for practice, and what it lacks. */
export function ownReturnWords(e: OwnError): string {
  switch (e.code) {
    case 'not_decided':
      return 'Its cause is not decided: decide it at Cause first.';
    case 'not_issued':
      return 'Its report is not issued: only a settled case teaches what is known.';
    case 'too_little':
      return 'Too little was looked at for anybody to find the cause.';
  }
}

/** Own minutes beside those of the best path that is known. */
export function minutesBesideWords(own: number, best: number): string {
  if (own <= best) return `${own} min; the path of the desk’s own advice takes ${best} min.`;
  return `${own} min, ${counted(own - best, 'minute', 'minutes')} more than the path of the desk’s own advice.`;
}

/** Who bears what, by the causes' own words of it. */
const BEARER: Readonly<Record<string, string>> = {
  fitter: 'the fitter',
  supplier: 'the supplier',
  engine: 'the engine’s owner',
  owner: 'the owner',
  carrier: 'the carrier',
  dealer: 'the dealer',
  nobody: 'nobody',
};
export function fairnessWords(f: Fairness): string {
  const [by, truly] = [BEARER[f.by] ?? f.by, BEARER[f.truly] ?? f.truly];
  return f.fair
    ? `Fair: by your verdict ${by} bears it, and so it is.`
    : `Not fair: by your verdict ${by} would bear it, and truly it is ${truly}.`;
}

/** How a verdict came out, in a sentence. */
export const verdictOfRunWords = (a: Pick<After, 'right' | 'family'>, truth: string, said: string): string =>
  a.right
    ? `Right: ${truth}.`
    : `It was: ${truth}. You said: ${said}${a.family ? '; the family is right' : ''}.`;

/** Calibration in words, for those who do not see the chart. */
export function calibrationWords(c: Calibration): string {
  if (c.n === 0)
    return 'Nothing is decided yet: after each return it stands here how sure you were, and how often right.';
  const mean = c.bands.reduce((s, b) => s + b.mean * b.n, 0) / c.n;
  return `Of ${counted(c.n, 'return', 'returns')} ${percent(c.right / c.n)} right, at ${percent(mean)} stated on average. Brier ${formatNumber(c.brier, 2)}: 0 is perfect, 0.25 a coin.`;
}

/** Where two judges stand, in words. */
export function agreementWords(a: Agreement, other: string): string {
  if (a.n === 0) return `${other} and you have decided none of the same returns yet.`;
  const k = a.kappa;
  const beyond =
    k === undefined
      ? 'one and the same cause throughout, so that nothing can be said of agreement beyond chance'
      : `κ ${formatNumber(k.value, 2)} (95 %: ${formatNumber(k.from, 2)} to ${formatNumber(k.to, 2)})`;
  return `On ${counted(a.n, 'return', 'returns')} that both decided you agree in ${percent(a.observed)}; ${percent(a.expected)} would be chance: ${beyond}.`;
}

/** When a family is due again. */
export const spacedWords = (s: Spaced): string =>
  s.seen === 0
    ? 'never met so far'
    : s.due <= 0
      ? 'due now'
      : `due after ${counted(s.due, 'return', 'returns')}`;

export function beginErrorWords(e: { code: string; detail?: string }): string {
  if (e.code === 'no_catalogue') return 'There is no catalogue to draw a return from. Bring one in first.';
  if (e.code === 'no_such_drive')
    return 'No drive of this catalogue can have what this set is about. Choose another set.';
  return `It could not be begun: ${e.detail ?? e.code}. Try again.`;
}
