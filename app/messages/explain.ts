import { nth } from '@core/quantity/must';
import type { CodeAnswer } from '@core/answer/codes-answer';
import type { Explanation, ExplainedFinding } from '@core/cause/explain';
import type { Policy } from '@core/policy/policy';
import { formatNumber } from '@core/quantity/format-quantity';
import { findingWords, percent } from './answers';
import { list } from '../language/list';
import type { SentenceContext } from './sentence-context';

/** How sure a share is, in words with the number. */
export function sureWords(p: number, { certain, probable, likely }: Policy['sureFrom']): string {
  const word =
    p >= certain
      ? 'almost certain'
      : p >= probable
        ? 'probable'
        : p >= likely
          ? 'more likely than not'
          : 'open';
  return `${word}, ${percent(p)}`;
}

/** A finding's weight between leader and runner-up. */
export const lineWords = ({ finding, decibans }: ExplainedFinding, v: SentenceContext): string =>
  `${decibans >= 0 ? '+' : '−'}${formatNumber(Math.abs(decibans), 1)} ${findingWords(finding, v)}`;

/** Why nothing can be decided, as a proposal: the rivals, what would settle it, what cannot be had. */
export function undecidableWords(
  rivals: readonly { wording: string; p: number }[],
  looks: readonly string[],
  lost: readonly string[],
): string {
  const open =
    rivals.length > 1
      ? `Open between ${list(rivals.map((r) => `“${r.wording}” ${percent(r.p)}`))}.`
      : 'Nothing that is known parts the causes.';
  const missing = lost.length === 0 ? '' : ` Not to be had: ${lost.join('; ')}.`;
  const next = looks.length === 0 ? '' : ` Not looked at: ${looks.join('; ')}.`;
  return `${open}${missing}${next}`;
}

/** What would turn the order. */
export function turnsWords({ turns, leader }: Explanation, v: SentenceContext): string | undefined {
  if (turns.length === 0) return undefined;
  return `Without ${list(turns.map((f) => `“${findingWords(f, v)}”`))}, “${leader.wording}” would not lead.`;
}

/** Two causes that explain more together. */
export function causePairWords({ pair }: Explanation): string | undefined {
  if (!pair) return undefined;
  const odds = pair.odds >= 100 ? 'more than 100' : formatNumber(pair.odds, 0);
  return `Two causes together explain it better than one: ${pair.causes.map((c) => `“${c.wording}”`).join(' and ')}, ${odds} to 1.`;
}

const KINDS: Readonly<Record<CodeAnswer['kind'], string>> = {
  correlation: 'cam and crank do not agree',
  response: 'the cam does not follow what is asked of it',
  signal: 'a signal is missing or out of range',
};

/** A code that is none of the cam and crank families. */
export const unknownCodeWords = (code: string): string =>
  `${code}: read; what it means is not known here, and it weighs nothing.`;

/** What a code accuses and what sets it. */
export function codeWords({ code, kind, shaft, bank, sensor, setBy }: CodeAnswer): string {
  const where = shaft === 'crank' ? 'crank' : `cam of bank ${bank}, sensor ${sensor}`;
  return `${code}, ${where}: ${KINDS[kind]}. ${
    setBy.length === 0
      ? ''
      : `It is set when: ${list(
          setBy.map((w) => nth(w, 0).toLowerCase() + w.slice(1)),
          'or',
        )}. `
  }A code alone is never a cause.`;
}
