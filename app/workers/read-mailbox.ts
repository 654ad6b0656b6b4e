import type { IDBPDatabase } from 'idb';
import PostalMime, { type Email } from 'postal-mime';
import type { Catalogue } from '@core/catalogue/find-records';
import { registryFor, worldOf } from '@core/answer/world';
import type { Registry } from '@core/facts/observable';
import { plainText } from '@core/facts/value';
import { stepNames } from '@core/fitting/named-steps';
import type { IntakeContext } from '@core/intake/context';
import { headOf, sentOn, writerOf } from '@core/intake/mail-head';
import { type MailPiece, mailsIn } from '@core/intake/mailbox';
import { readText } from '@core/intake/read-text';
import { policyWith } from '@core/policy/policy';
import { dayOf } from '@core/quantity/dates';
import { newestCatalogue } from '../records/all-cases';
import type { Records } from '../records/records';
import { type Mail, type MailboxAnswer, type MailboxAsk, MOST_MAILS } from './read-mailbox.protocol';

type Line = { progress: (done: number) => void; cancelled: () => boolean };

/** Messages are told of every so many. */
const TELL = 5;
const BATCH = 8000;
/** Characters of its words that stand for a message. */
const BEGINS = 120;

/** Reads every message of a mailbox: from whom, of what, and which are here already. Nothing is filed. */
export async function readMailbox(
  db: IDBPDatabase<Records>,
  ask: MailboxAsk,
  line: Line,
): Promise<MailboxAnswer> {
  const catalogue = await newestCatalogue(db);
  if (!catalogue) return { mails: [], left: 0 };
  const registry = registryFor(worldOf(catalogue));
  const ctx = contextOf(catalogue, registry, ask);
  const pieces: MailPiece[] = [];
  for (const blob of ask.blobs)
    pieces.push(...mailsIn(signsOf(new Uint8Array(await blob.arrayBuffer())), registry));
  const mails: Mail[] = [];
  const taken = pieces.slice(0, MOST_MAILS);
  for (const piece of taken) {
    if (line.cancelled()) break;
    mails.push(readMail(mails.length + 1, await partsOf(piece), ctx));
    if (mails.length % TELL !== 0) continue;
    line.progress(Math.floor((100 * mails.length) / taken.length));
    // so that a cancel is heard
    await new Promise((resolve) => setTimeout(resolve));
  }
  await findHere(db, mails);
  return { mails, left: Math.max(0, pieces.length - MOST_MAILS) };
}

function contextOf(catalogue: Catalogue, registry: Registry, ask: MailboxAsk): IntakeContext {
  const policy = policyWith(ask.chosen);
  return {
    catalogue,
    registry,
    notation: ask.notation,
    today: ask.today,
    taught: ask.taught,
    steps: (engine) => stepNames(catalogue, engine, policy),
  };
}

/** One sign a byte, and back: parted so, each message keeps the encoding that it says it has. */
function signsOf(bytes: Uint8Array): string {
  let out = '';
  for (let i = 0; i < bytes.length; i += BATCH) out += String.fromCharCode(...bytes.subarray(i, i + BATCH));
  return out;
}
const bytesOf = (signs: string): Uint8Array<ArrayBuffer> => Uint8Array.from(signs, (c) => c.charCodeAt(0));

/** Words without a heading that names their encoding. */
function wordsOf(signs: string): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytesOf(signs));
  } catch {
    return new TextDecoder('windows-1252').decode(bytesOf(signs));
  }
}

type Parts = { text: string; files: Mail['files']; broken?: true };

/** The words of a message with its heading, and what came with it. */
async function partsOf(piece: MailPiece): Promise<Parts> {
  if (piece.form === 'words') return { text: wordsOf(piece.text).trim(), files: [] };
  try {
    const mail = await PostalMime.parse(bytesOf(piece.text));
    const words = (mail.text ?? textOfPage(mail.html ?? '')).replace(/\r\n?/g, '\n').trim();
    return { text: [...headingOf(mail), '', words].join('\n').trim(), files: filesOf(mail) };
  } catch {
    return { text: wordsOf(piece.text), files: [], broken: true };
  }
}

function headingOf(mail: Email): string[] {
  const one = (s: string) => s.replace(/\s+/g, ' ').trim();
  const from = mail.from;
  const who = from && one([from.name, from.address ? `<${from.address}>` : ''].filter(Boolean).join(' '));
  const at = mail.date === undefined ? NaN : Date.parse(mail.date);
  return [
    who ? `From: ${who}` : '',
    Number.isNaN(at) ? '' : `Date: ${dayOf(at)}`,
    mail.subject === undefined ? '' : `Subject: ${one(mail.subject)}`,
  ].filter(Boolean);
}

const ENTITIES: Record<string, string> = { nbsp: ' ', lt: '<', gt: '>', amp: '&', quot: '"', apos: "'" };
/** A mail that has no words but a page: what stands on it. */
const textOfPage = (html: string): string =>
  html
    .replace(/<(style|script|head)\b[\s\S]*?<\/\1>/gi, '')
    .replace(/\s+/g, ' ')
    .replace(/<(?:br|\/p|\/div|\/tr|\/li|\/h\d)\b[^>]*>\s*/gi, '\n')
    .replace(/<[^>]*>/g, '')
    .replace(/&(?:#(\d{1,6})|([a-z]+));/gi, (whole, no: string | undefined, name: string | undefined) =>
      no === undefined
        ? (ENTITIES[(name ?? '').toLowerCase()] ?? whole)
        : String.fromCodePoint(Math.min(Number(no), 0x10ffff)),
    );

const filesOf = (mail: Email): Mail['files'] =>
  mail.attachments.flatMap((a, i) => {
    const bytes = typeof a.content === 'string' ? new TextEncoder().encode(a.content) : a.content;
    return [
      { name: a.filename ?? `file ${i + 1}`, type: a.mimeType, bytes: new Uint8Array(bytes as ArrayBuffer) },
    ];
  });

function readMail(no: number, parts: Parts, ctx: IntakeContext): Mail {
  const { text, files } = parts;
  const head = headOf(text);
  const read = parts.broken ? { code: 'broken' as const } : readText(text, ctx);
  const begins = text
    .slice(head?.body ?? 0)
    .trim()
    .slice(0, BEGINS)
    .replace(/\s+/g, ' ');
  const value = (key: string) => {
    const p = 'code' in read ? undefined : read.proposals.find((x) => x.key === key && x.sure !== 'ask');
    return p ? plainText(p.value) : '';
  };
  const asked = 'code' in read ? 0 : read.proposals.filter((p) => p.sure === 'ask').length;
  return {
    no,
    text,
    from: head?.from === undefined ? value('call.who') : writerOf(head.from),
    subject: head?.subject ?? begins,
    begins: head?.subject === undefined ? '' : begins,
    day: sentOn(head?.sent, ctx.notation.dateOrder, ctx.today) ?? '',
    files,
    read:
      'code' in read
        ? read
        : {
            taken: read.proposals.length - asked,
            asked,
            cases: read.cases.count,
            engine: value('engine.code'),
            claim: value('claim.number'),
          },
  };
}

/** Marks the messages that a case has word for word, or whose claim a case is of: one way through all facts. */
async function findHere(db: IDBPDatabase<Records>, mails: readonly Mail[]): Promise<void> {
  const byText = new Map(mails.map((m) => [m.text, m]));
  const byClaim = new Map(
    mails.flatMap((m) => ('claim' in m.read && m.read.claim ? [[m.read.claim, m]] : [])),
  );
  if (mails.length === 0) return;
  let last: [string, string] | undefined;
  for (;;) {
    const range = last === undefined ? null : IDBKeyRange.lowerBound(last, true);
    const facts = await db.getAll('facts', range, BATCH);
    for (const f of facts) {
      if (typeof f.value !== 'string') continue;
      const [mail, claim] = [
        f.key === 'call.message' ? byText.get(f.value) : undefined,
        f.key === 'claim.number' ? byClaim.get(f.value) : undefined,
      ];
      if (mail) mail.here = { id: f.case, by: 'message' };
      else if (claim && claim.here === undefined) claim.here = { id: f.case, by: 'claim' };
    }
    const end = facts.at(-1);
    if (facts.length < BATCH || !end) return;
    last = [end.case, end.id];
  }
}
