import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import { mailsIn } from './mailbox';
import { headOf, repeatedFrom, sentOn, writerOf } from './mail-head';
import { readText } from './read-text';

const catalogue = catalogueOf(demoPack());
const registry = registryFor(worldOf(catalogue));
const of = (text: string) => mailsIn(text, registry);
const head = (n: number, subject: string) =>
  `From: Writer ${n} <w${n}@mire.example>\nSent: Thursday, ${n} November 2026 09:14\nSubject: ${subject}\n`;

describe('what came in together', () => {
  it('is parted at the lines that part a mailbox file, and a line of a mail that looks like one is none', () => {
    const parts = of(
      'From w@mire.example Thu Nov 12 09:14:00 2026\nSubject: one\n\nFrom here it rattles.\n>From then on 2026\n\nFrom v@mire.example Fri Nov 13 09:14:00 2026\nSubject: two\n\nbelt\n',
    );
    expect(parts.map((p) => p.form)).toEqual(['mail', 'mail']);
    expect(parts[0]?.text).toContain('From here it rattles.\nFrom then on 2026');
    expect(parts[1]?.text).toBe('Subject: two\n\nbelt');
  });

  it('law: as many mails as were put in come out, each whole, in both forms', () => {
    const words = fc.array(
      fc.constantFrom('rattles', 'TE16-CORM', 'Subject matter', 'from: me', '', '> quoted', 'On the belt'),
      {
        minLength: 1,
        maxLength: 8,
      },
    );
    fc.assert(
      fc.property(fc.array(words, { minLength: 2, maxLength: 6 }), fc.boolean(), (bodies, stored) => {
        const mails = bodies.map((b, i) => `${head(i + 1, `case ${i}`)}\n${b.join('\n')}`.trim());
        const text = stored
          ? mails.map((m) => `From w@mire.example Thu Nov 12 09:14:00 2026\n${m}\n`).join('\n')
          : mails.join('\n\n');
        expect(of(text).map((p) => p.text)).toEqual(mails);
      }),
      { seed: 27, numRuns: 150 },
    );
  });

  it('is one message where an answer repeats what it answers, unless that is longer than a message can be', () => {
    const thread = `${head(3, 'RE: rattle')}\nIt is the plunger.\n\n${head(2, 'rattle')}\nPointer at 150 degrees.`;
    expect(of(thread).length).toBe(1);
    expect(of(`${thread}\n\n${head(4, 'another')}\nx`).length).toBe(2);
    expect(of(`${thread}\n${'word '.repeat(5000)}`).length).toBe(2);
  });

  it('is a message a row where it is a table, and one message where it is none of these', () => {
    expect(
      of('Claim number;Kit;Symptom\nC-1;MF-K121-1;noise\nC-2;MF-K121-1;leak').map((p) => p.text),
    ).toEqual([
      'Claim number: C-1\nKit: MF-K121-1\nSymptom: noise',
      'Claim number: C-2\nKit: MF-K121-1\nSymptom: leak',
    ]);
    expect(of('TE16-CORM rattles.\n\nFrom: the front').length).toBe(1);
    expect(of(' \n ')).toEqual([]);
    expect(of('MIME-Version: 1.0\nFrom: a\nSubject: b\n\nbody').map((p) => p.form)).toEqual(['mail']);
  });
});

describe('the heading of a mail', () => {
  it('names its writer and the day, in the forms that programs write', () => {
    const days = [
      ['Thu, 12 Nov 2026 09:14:00 +0100', '2026-11-12'],
      ['Thursday, November 12, 2026 9:14 AM', '2026-11-12'],
      ['2026-11-12T09:14', '2026-11-12'],
      ['12.11.2026 09:14', '2026-11-12'],
      ['Do., 1st December 2025', '2025-12-01'],
      ['this morning', undefined],
      ['45.99.2026', undefined],
    ] as const;
    for (const [sent, day] of days)
      expect(sentOn(sent, 'dmy', '2026-11-25'))
        .withContext(sent)
        .toBe(day);
    expect(sentOn('11/12/2026', 'mdy', '2026-11-25')).toBe('2026-11-12');
    expect(writerOf('"Wystan Merrow" <w@mire.example>')).toBe('Wystan Merrow');
    expect(writerOf('<w@mire.example>')).toBe('w@mire.example');
    expect(headOf('From: a\nhello')).toBeUndefined();
    expect(headOf('From: a\nSubject: long\n and longer\n\nhello')).toEqual({
      from: 'a',
      subject: 'long and longer',
      body: 34,
      lines: 3,
    });
  });

  it('moves what it calls yesterday, and gives the caller where nobody signs', () => {
    const read = readText(
      'From: Wystan Merrow <w@mire.example>\nSent: 5 November 2026\nSubject: TE16-CORM\n\nThe kit was fitted yesterday.',
      { catalogue, registry, notation: { dateOrder: 'dmy', units: {} }, today: '2026-11-25' },
    );
    const value = (key: string) =>
      'proposals' in read ? read.proposals.find((p) => p.key === key)?.value : undefined;
    expect(value('kit.fitted')).toBe('2026-11-04');
    expect(value('call.who')).toBe('Wystan Merrow');
  });

  it('ends what is read where an answer repeats the mail below it; what is sent on is read', () => {
    const lines = (subject: string) => `${head(3, subject)}\nYes.\n\n${head(2, 'rattle')}\nold`.split('\n');
    expect(repeatedFrom(lines('RE: rattle'))).toBe(6);
    expect(repeatedFrom(lines('FW: rattle'))).toBeUndefined();
  });
});
