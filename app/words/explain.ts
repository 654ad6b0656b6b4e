import type { Explanation, Line, Working } from '@core/cause/explain';
import { formatNumber } from '@core/quantity/format-quantity';
import { findingWords, percent } from './answers';
import { list } from './list';
import type { Voice } from './voice';

/** How sure a share is, in words with the number. */
export function sureWords(p: number): string {
  const word =
    p >= 0.95 ? 'almost certain' : p >= 0.8 ? 'probable' : p >= 0.5 ? 'more likely than not' : 'open';
  return `${word}, ${percent(p)}`;
}

/** A finding's weight between leader and runner-up. */
export const lineWords = ({ finding, decibans }: Line, v: Voice): string =>
  `${decibans >= 0 ? '+' : '−'}${formatNumber(Math.abs(decibans), 1)} ${findingWords(finding, v)}`;

/** A mechanism with how surely it is at work, and what shows it. */
export const workingWords = ({ wording, probability, shows }: Working, v: Voice): string =>
  `${wording}: ${percent(probability)}${shows.length === 0 ? ', not seen' : `, by ${list(shows.map((f) => findingWords(f, v)))}`}`;

/** What would turn the order. */
export function turnsWords({ turns, leader }: Explanation, v: Voice): string | undefined {
  if (turns.length === 0) return undefined;
  return `Without ${list(turns.map((f) => `“${findingWords(f, v)}”`))}, “${leader.wording}” would not lead.`;
}

/** Two causes that explain more together. */
export function pairWords({ pair }: Explanation): string | undefined {
  if (!pair) return undefined;
  const odds = pair.odds >= 100 ? 'more than 100' : formatNumber(pair.odds, 0);
  return `Two causes together explain it better than one: ${pair.causes.map((c) => `“${c.wording}”`).join(' and ')}, ${odds} to 1.`;
}
