import { nth } from '@core/quantity/must';
import { fleetNamed } from './fleet';
import { groupBy, hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import type { Speech } from './said';
import { WORDS } from './words';

/** Characters of what is kept of a deadline. */
const LONGEST = 70;

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
  // A letter, or a number with no kind before it, may be anything where but one vehicle is told of.
  const fleet = fleetNamed(said.text).find(
    (f) => f.kind !== undefined && !WORDS.fleetLoose.includes(f.kind) && /\d/.test(f.id),
  );
  if (fleet)
    out.push({
      key: 'vehicle.fleet',
      value: fleet.name,
      how: 'reported',
      sure: 'likely',
      spans: [{ from: fleet.from, to: fleet.from + fleet.name.length }],
    });
  return out;
}
