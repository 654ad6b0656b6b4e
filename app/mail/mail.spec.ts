import { TestBed } from '@angular/core/testing';
import type { CaseDesk } from '../data/case-desk';
import { Database } from '../data/database';
import { Mailbox } from '../data/mailbox';
import { closeDesk, openDesk } from '../testing/demo-desk';
import { readMailbox } from '../workers/read-mailbox';
import { type MailboxAsk, MOST_MAILS } from '../workers/read-mailbox.protocol';

const QUIET = { progress: () => undefined, cancelled: () => false };
const ask = (...blobs: (string | Uint8Array<ArrayBuffer>)[]): MailboxAsk => ({
  blobs: blobs.map((b) => new Blob([b])),
  notation: { dateOrder: 'dmy', units: {} },
  today: '2026-11-25',
  chosen: {},
  taught: [],
});
const SENT = [
  'From: =?utf-8?Q?Wystan_M=C3=A9rrow?= <w@mire.example>',
  'Date: Thu, 12 Nov 2026 09:14:00 +0000',
  'Subject: TE16-CORM',
  'MIME-Version: 1.0',
  'Content-Type: multipart/mixed; boundary=part',
  '',
  '--part',
  'Content-Type: text/plain; charset=utf-8',
  'Content-Transfer-Encoding: quoted-printable',
  '',
  'Fitted yesterday, claim C-98765, pointer at 112=C2=B0.',
  '--part',
  'Content-Type: image/png; name="belt.png"',
  'Content-Disposition: attachment; filename="belt.png"',
  'Content-Transfer-Encoding: base64',
  '',
  'AAEC/w==',
  '--part--',
].join('\r\n');

describe('a mailbox', () => {
  let desk: CaseDesk;
  const read = async (...blobs: Parameters<typeof ask>) =>
    TestBed.inject(Database).read((db) => readMailbox(db, ask(...blobs), QUIET));
  beforeEach(async () => {
    desk = await openDesk();
  });
  afterEach(closeDesk);

  it('gives each mail decoded, with its heading, what is read of it and what came with it', async () => {
    const { mails } = await read(SENT);
    const [mail] = mails;
    expect(mail).toEqual(
      jasmine.objectContaining({
        text: 'From: Wystan Mérrow <w@mire.example>\nDate: 2026-11-12\nSubject: TE16-CORM\n\nFitted yesterday, claim C-98765, pointer at 112°.',
        from: 'Wystan Mérrow',
        day: '2026-11-12',
        subject: 'TE16-CORM',
      }),
    );
    expect(mail?.read).toEqual(jasmine.objectContaining({ engine: 'TE16-CORM', claim: 'C-98765', cases: 1 }));
    expect(mail?.files.map((f) => [f.name, f.type, [...f.bytes]])).toEqual([
      ['belt.png', 'image/png', [0, 1, 2, 255]],
    ]);
  });

  it('reads each in the encoding that it says, a page as its words, and what says none as what it can be', async () => {
    const latin = Uint8Array.from(
      'MIME-Version: 1.0\nSubject: one\nContent-Type: text/plain; charset=iso-8859-1\n\n112\u00b0 with an \u00e9',
      (c) => c.charCodeAt(0),
    );
    const page =
      'MIME-Version: 1.0\nSubject: two\nContent-Type: text/html\n\n<style>p {}</style><p>Belt &amp; roller</p><p>112&#176; &quot;now&quot;</p>';
    const { mails } = await read(latin, page, 'From: Ä\nSubject: three\n\n5 °C');
    expect(mails.map((m) => m.text)).toEqual([
      'Subject: one\n\n112° with an é',
      'Subject: two\n\nBelt & roller\n112° "now"',
      'From: Ä\nSubject: three\n\n5 °C',
    ]);
  });

  it('marks what a case has: the message word for word, else its claim; and ends when it is cancelled', async () => {
    await desk.newCase([{ key: 'claim.number', value: 'C-98765', how: 'reported' }]);
    const claim = desk.currentId();
    expect((await read(SENT)).mails[0]?.here).toEqual({ id: claim ?? '', by: 'claim' });
    const [mail] = (await read(SENT)).mails;
    const opened = await TestBed.inject(Mailbox).open(mail!);
    expect((await read(SENT)).mails[0]?.here).toEqual({ id: opened.ok ? opened.value : '', by: 'message' });
    const cut = await TestBed.inject(Database).read((db) =>
      readMailbox(db, ask(SENT, SENT), { ...QUIET, cancelled: () => true }),
    );
    expect(cut.mails).toEqual([]);
  });

  it('tells what is too long for one message, and counts what stands behind the last that is read', async () => {
    const { mails } = await read(`From: a\nSubject: long\n\n${'rattle '.repeat(4000)}`);
    expect(mails[0]?.read).toEqual(jasmine.objectContaining({ code: 'too_long' }));
    const row = (n: number) => `Claim number;Kit;Symptom\n${`C-${n};MF-K121-1;noise\n`.repeat(n)}`;
    expect((await read(row(3))).left).toBe(0);
    const cut = readMailbox(
      await TestBed.inject(Database).read((d) => Promise.resolve(d)),
      ask(row(MOST_MAILS + 2)),
      {
        ...QUIET,
        cancelled: () => true,
      },
    );
    expect((await cut).left).toBe(2);
  });
});
