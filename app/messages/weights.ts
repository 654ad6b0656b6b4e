import type { Weight } from '@core/cause/rank';
import { formatNumber } from '@core/quantity/format-quantity';
import { findingWords } from './answers';
import type { SentenceContext } from './sentence-context';

/** A weight as the factor by which it multiplies the odds: "×8.2" for, "÷3.1" against. */
function factorWords(nats: number): string {
  const factor = Math.exp(Math.abs(nats));
  const shown = factor >= 10 ? formatNumber(factor, 0) : formatNumber(factor, 1);
  return nats >= 0 ? `×${shown}` : `÷${shown}`;
}
export const weightWords = (w: Weight, v: SentenceContext): string =>
  `${factorWords(w.nats)} ${findingWords(w, v)}`;
/** From these factors on a finding speaks strongly, or clearly, for or against a cause. */
const SPEAKS = { strongly: 10, clearly: 2.5 };
/** A weight in words: "strongly: Belt edge, front: frayed". */
export function speaksWords(w: Weight, v: SentenceContext): string {
  const factor = Math.exp(Math.abs(w.nats));
  const how = factor >= SPEAKS.strongly ? 'strongly: ' : factor >= SPEAKS.clearly ? 'clearly: ' : '';
  return `${how}${findingWords(w, v)}`;
}
