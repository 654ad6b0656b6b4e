import { nth } from '@core/quantity/must';
import type { FactValue } from '@core/facts/fact';
import { type Proposal, slotOf } from './proposal';
import type { Speech } from './said';

/** Characters before the first value in which its correction may be announced: "please replace the distance, 113 900, by ...". */
const AHEAD = 60;

const same = (a: FactValue, b: FactValue): boolean => JSON.stringify(a) === JSON.stringify(b);
const firstOf = (p: Proposal): number => Math.min(...p.spans.map((s) => s.from));
const lastOf = (p: Proposal): number => Math.max(...p.spans.map((s) => s.from));

/** One proposal a thing: like ones are joined, what was put right goes, a quoted one gives way to what the writer says; two values left are asked. */
export function settleProposals(list: readonly Proposal[], said: Speech): Proposal[] {
  const slots = new Map<string, Proposal[]>();
  for (const p of joinedLists(list)) {
    const own = slots.get(slotOf(p)) ?? [];
    const twin = own.find((q) => same(q.value, p.value));
    if (twin) {
      const asks = twin.sure === 'ask' && p.sure !== 'ask';
      own[own.indexOf(twin)] = asks
        ? { ...p, spans: [...twin.spans, ...p.spans] }
        : { ...twin, spans: [...twin.spans, ...p.spans] };
    } else own.push(p);
    slots.set(slotOf(p), own);
  }
  return [...slots.values()].flatMap((own) => settledSlot(own, said)).sort((a, b) => firstOf(a) - firstOf(b));
}

/** Codes told one by one are one list. */
function joinedLists(list: readonly Proposal[]): Proposal[] {
  const out: Proposal[] = [];
  for (const p of list) {
    const before = p.key === 'fault.codes' ? out.find((q) => q.key === p.key && q.of === p.of) : undefined;
    if (!before || !Array.isArray(before.value) || !Array.isArray(p.value)) out.push(p);
    else
      out[out.indexOf(before)] = {
        ...before,
        value: [...new Set([...before.value, ...p.value])].map(String),
        spans: [...before.spans, ...p.spans],
      };
  }
  return out;
}

function settledSlot(own: readonly Proposal[], said: Speech): Proposal[] {
  if (own.length < 2) return [...own];
  // What was said after "sorry" or in a postscript takes the place of what was said before.
  const sorted = [...own].sort((a, b) => lastOf(a) - lastOf(b));
  const [first, last] = [nth(sorted, 0), nth(sorted, sorted.length - 1)];
  const fixed = said.fixes.some((at) => at <= lastOf(last) && at > firstOf(first) - AHEAD);
  if (fixed && last.sure !== 'ask') return [last];
  const firstHand = own.filter((p) => p.hearsay === undefined);
  const open = firstHand.length > 0 ? firstHand : own;
  // What somebody else says otherwise is offered to be kept beside it, with its source.
  const others = witnesses(firstHand.length > 0 ? own : []);
  return [...settledOwn(open), ...others];
}

/** The last word of each witness that a message names. */
function witnesses(own: readonly Proposal[]): Proposal[] {
  const last = new Map(own.flatMap((p) => (p.hearsay === undefined ? [] : [[p.hearsay, p] as const])));
  return [...last.values()].map((p) => ({ ...p, sure: 'ask' as const, doubt: 'witness' as const }));
}

function settledOwn(open: readonly Proposal[]): Proposal[] {
  const told = open.filter((p) => p.sure !== 'ask');
  if (told.length === 1 && open.length > 1) return [nth(told, 0)];
  const sure = open.filter((p) => p.sure === 'sure');
  const best = sure.length > 0 && sure.length < open.length ? sure : open;
  if (best.length < 2) return [...best];
  const apart = new Set(best.map((p) => p.hearsay)).size === best.length;
  const doubt = apart ? ('witness' as const) : ('two_values' as const);
  return best.map((p) => ({ ...p, sure: 'ask' as const, doubt: p.doubt ?? doubt }));
}
