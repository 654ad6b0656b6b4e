import type { Difference } from '@core/answer/difference';
import type { Reread } from '@core/answer/sealing';
import type { Objection } from '@core/claim/decision';
import { nameOfId } from '@core/facts/thing';
import { list } from '../language/list';
import { objectionWords, percent } from './answers';
import type { SentenceContext } from './sentence-context';

/** What two readings of a case do not have in common, in one line: "Setting shown: nothing → wrong way". */
export function differenceWords(
  d: Difference,
  v: SentenceContext,
  name: (table: string, key: string) => string,
): string {
  return `${ofWords(d, v, name)}: ${saysWords(d, d.before)} → ${saysWords(d, d.after)}`;
}

/** What of the world is another here. Only an altered file or seal is altered; another catalogue is no alteration. */
function changedWords({ part, as, stated }: Reread['changed'][number]): string {
  if (part === 'rules') return 'another policy than this';
  if (part === 'knowledge') return 'other knowledge than this';
  return as === 'another'
    ? `the catalogue ${stated}, where another answers here`
    : `the catalogue ${stated}, of which another make is here (it was built anew, or changed since)`;
}

/** Whether an issue would read the same today. */
export function rereadWords(r: Reread): string {
  const changed = r.changed.length
    ? `Judged with ${list(r.changed.map(changedWords))}`
    : 'Judged with the same catalogue, knowledge and policy as here and now';
  return r.differs.length
    ? `${changed}; today it would read otherwise:`
    : `${changed}; today it reads the same.`;
}

function ofWords(d: Difference, v: SentenceContext, name: (table: string, key: string) => string): string {
  switch (d.what) {
    case 'designs':
      return 'Possible drives';
    case 'setting':
      return d.of === '' ? 'Setting shown' : `Setting shown (${v.thing?.(d.of) ?? nameOfId(d.of)})`;
    case 'marks':
      return 'Marks';
    case 'cause':
      return name('cause', d.of);
    case 'terms':
      return 'Terms';
    case 'fault':
      return `Fault ${d.of}`;
    case 'decision':
      return objectionOf(d.of);
    case 'kit':
      return d.of;
  }
}

/** An objection from how a line names it: its code, and the document where it is about one. */
function objectionOf(line: string): string {
  const [code, document] = line.split(' ');
  // a line of an issue keeps that a sum wanted it, not which
  if (code === 'amount_unsigned') return 'Second signature for its sum';
  return objectionWords({ code, document } as Objection).replace(/\.$/, '');
}

function saysWords(d: Difference, says: Difference['before']): string {
  if (typeof says === 'number' || d.what === 'cause') return percent(Number(says ?? 0));
  return says === undefined || says === '' ? 'nothing' : says.replace(/_/g, ' ');
}
