import { LONGEST_TEXT } from '@core/facts/fact';
import type { Registry } from '@core/facts/observable';
import { headAt } from './mail-head';
import { tableOf } from './table';

/** One of many messages that came in together. A `mail` is as it was sent, with encodings and parts; `words` are as they were copied. */
export type MailPiece = { form: 'mail' | 'words'; text: string };

/** A line that parts the mails of a mailbox file: who, and when it came (RFC 4155). */
const PARTING = /^From \S+.*\b\d{4}\s*$/;
/** A line of a mail that looks like one is marked there, once more each time it is stored. */
const MARKED = /^>(>*From )/;
const SENT_AS_IS = /^(?:received|mime-version|return-path|message-id|content-type|delivered-to)\s*:/im;
const ANSWER = /^(?:\s*(?:re|aw|fw|fwd|antw|sv)\s*(?:\[\d+\])?\s*:)+\s*/i;

/**
 * Parts what came in into messages: a mailbox file by its parting lines, mails that were copied one behind the other by their
 * headings, a table by its rows. A heading whose subject is the one above belongs to what is answered there, and parts nothing.
 */
export function mailsIn(text: string, registry: Registry): MailPiece[] {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const stored = lines.findIndex((l) => l.trim() !== '');
  if (PARTING.test(lines[stored] ?? '')) return storedMails(lines.slice(stored));
  const begins = lines.slice(0, 40).join('\n').trimStart();
  if (headAt(begins.split('\n'), 0) === undefined && !SENT_AS_IS.test(begins.slice(0, 200))) {
    const table = tableOf(text, registry);
    if (table.kind === 'rows') return table.texts.map((t) => ({ form: 'words', text: t }));
  }
  if (SENT_AS_IS.test(begins.split('\n\n', 1)[0] ?? '')) return [{ form: 'mail', text: lines.join('\n') }];
  return copiedMails(lines);
}

function storedMails(lines: readonly string[]): MailPiece[] {
  const out: string[][] = [];
  lines.forEach((line, i) => {
    if (PARTING.test(line) && (i === 0 || lines[i - 1]?.trim() === '')) out.push([]);
    else out.at(-1)?.push(line.replace(MARKED, '$1'));
  });
  return out.map((l): MailPiece => ({ form: 'mail', text: l.join('\n').trim() })).filter(notEmpty);
}

function copiedMails(lines: readonly string[]): MailPiece[] {
  const heads = lines.flatMap((_, i) => {
    const before = lines[i - 1]?.trim() ?? '';
    const head = before === '' || /^[-–—_=*]{3,}/.test(before) ? headAt(lines, i) : undefined;
    return head ? [{ at: i, subject: rootOf(head.subject ?? head.from ?? '') }] : [];
  });
  const first = heads[0];
  if (!first) return [wordsOf(lines)].filter(notEmpty);
  let subject: string | undefined;
  const cuts = heads.filter((h) => {
    const own = h.subject !== subject;
    subject = h.subject;
    return own;
  });
  const parts = lines.slice(0, first.at).join('\n').trim() === '' ? [] : [lines.slice(0, first.at)];
  cuts.forEach((c, i) => parts.push(...pieces(lines, c.at, cuts[i + 1]?.at ?? lines.length, heads)));
  return parts.map(wordsOf).filter(notEmpty);
}

/** One exchange is one message; one that is longer than a message can be is taken mail by mail. */
function pieces(
  lines: readonly string[],
  from: number,
  to: number,
  heads: readonly { at: number }[],
): string[][] {
  const whole = lines.slice(from, to);
  if (whole.join('\n').length <= LONGEST_TEXT) return [whole];
  const at = heads.map((h) => h.at).filter((a) => a >= from && a < to);
  return at.map((a, i) => lines.slice(a, at[i + 1] ?? to));
}

const wordsOf = (lines: readonly string[]): MailPiece => ({ form: 'words', text: lines.join('\n').trim() });
const rootOf = (subject: string): string => subject.replace(ANSWER, '').trim().toLowerCase();
const notEmpty = (p: MailPiece): boolean => p.text !== '';
