import { formatNumber } from '@core/quantity/format-quantity';
import { counted } from '../language/plural';
import type { Mail } from '../workers/read-mailbox.protocol';

/** What was read of a message of a mailbox, in a few words. */
export function mailWords(mail: Mail): string {
  const r = mail.read;
  if ('code' in r)
    switch (r.code) {
      case 'broken':
        return 'Its parts do not hold together: save it as text and paste that.';
      case 'empty':
        return 'It has no words.';
      case 'too_long':
        return `${formatNumber(r.length, 0)} characters, and a message has ${formatNumber(r.most, 0)} at most: paste the part of it that is about a case.`;
    }
  return [
    r.engine,
    r.claim && `claim ${r.claim}`,
    r.cases > 1 ? `${r.cases} vehicles or claims` : '',
    r.taken + r.asked === 0 ? 'nothing understood' : counted(r.taken, 'fact', 'facts'),
    r.asked > 0 ? `${r.asked} to ask` : '',
    mail.files.length > 0 ? counted(mail.files.length, 'file', 'files') : '',
    mail.begins && `“${mail.begins}…”`,
  ]
    .filter(Boolean)
    .join(' · ');
}

export const mailboxWords = (all: number, here: number): string =>
  `${counted(all, 'message', 'messages')}${here > 0 ? `, ${here} of ${here === 1 ? 'it' : 'them'} here already` : ''}`;
