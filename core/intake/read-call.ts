import { nth } from '@core/quantity/must';
import { groupBy, hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import type { Speech } from './said';
import { WORDS } from './words';

/** Characters of what is kept of a deadline. */
const LONGEST = 70;
const FLEET =
  /\b(?:bus|truck|van|ambulance|tender|lorry|coach|taxi|tractor)\s+(?:no\.?\s*)?(\d{1,3})\b(?!\s*(?:km|mm|h\b))/i;

/** By when they want it, in their words; and what a fleet calls the vehicle. */
export function readCall(said: Speech): Proposal[] {
  const out: Proposal[] = [];
  for (const clause of groupBy(said.tokens, 'clause')) {
    if (!hasPhrase(clause, WORDS.urgent)) continue;
    const [from, to] = [nth(clause, 0).from, nth(clause, clause.length - 1).to];
    out.push({
      key: 'call.until',
      value: said.text.slice(from, Math.min(to, from + LONGEST)).trim(),
      how: 'reported',
      sure: 'likely',
      spans: [{ from, to }],
    });
    break;
  }
  const fleet = FLEET.exec(said.text);
  if (fleet)
    out.push({
      key: 'vehicle.fleet',
      value: fleet[0],
      how: 'reported',
      sure: 'likely',
      spans: [{ from: fleet.index, to: fleet.index + fleet[0].length }],
    });
  return out;
}
