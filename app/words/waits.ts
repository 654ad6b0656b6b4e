import type { Waits } from '@core/answer/head';

/** What a case waits for, as its tag on the rack says it. */
export const WAITS_WORDS: Record<Waits, string> = {
  call: 'waits: Call',
  identify: 'waits: Identify',
  fit: 'waits: Fit',
  examine: 'waits: Examine',
  cause: 'waits: Cause',
  settle: 'waits: Settle',
  answer: 'ready to answer',
  issue: 'ready to issue',
  sealed: 'settled, sealed',
  set_aside: '▲ set aside',
};
