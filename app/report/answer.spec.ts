import { answerDocument } from './answer-document';
import { answerMail } from './answer-mail';
import { callBackEvent, followUpsCalendar } from './call-back-event';

const HEAD = {
  tag: '2044',
  engine: 'OL25-FLET',
  to: 'Jory Péllbrook, Tidewall Garage',
  by: 'Ida Fennimore',
  day: '2026-11-25',
};
const TEXT =
  'Are the marks right? No go, 1 of 4 marks.\nLeft lower cam: 0.50 teeth behind – ✕.\nCaution: stop.';
const SVG = '<svg xmlns="http://www.w3.org/2000/svg"><text>Ä 90°</text></svg>';

const utf8 = (base64: string): string =>
  new TextDecoder().decode(Uint8Array.from(atob(base64.replace(/\s/g, '')), (c) => c.charCodeAt(0)));

/** Parts of a mail as a mail program reads them: headings, and the content decoded. */
function partsOf(eml: string): { head: string; body: string }[] {
  const boundary = /boundary="?([^"\s;]+)"?/.exec(eml)?.[1];
  const pieces = boundary === undefined ? [eml] : eml.split(`--${boundary}`).slice(1, -1);
  return pieces.map((p) => {
    const [head = '', ...rest] = p.trimStart().split(/\r?\n\r?\n/);
    const body = rest.join('\n\n').trim();
    return { head, body: /base64/i.test(head) ? utf8(body) : body };
  });
}

describe('an answer that leaves the house', () => {
  it('is a message that a mail program opens as a draft, with its words and its drawing whole', () => {
    const eml = answerMail(HEAD, TEXT, SVG, '2026-11-25T09:00:00.000Z');
    expect(eml).toMatch(/^X-Unsent: 1\r?$/m);
    expect(eml).toMatch(/^Date: Wed, 25 Nov 2026 09:00:00 (GMT|\+0000)\r?$/m);
    const parts = partsOf(eml);
    const text = parts.find((p) => p.head.includes('text/plain'))!;
    for (const line of TEXT.split('\n')) expect(text.body).toContain(line);
    const drawing = parts.find((p) => p.head.includes('image/svg+xml'))!;
    expect(drawing.body).toBe(SVG);
    expect(drawing.head).toContain('drawing-2044.svg');
    expect(
      partsOf(answerMail(HEAD, TEXT, undefined, '2026-11-25T09:00:00.000Z')).some((p) =>
        p.head.includes('svg'),
      ),
    ).toBeFalse();
  });

  it('is a page with every line of it, and the drawing where there is one', () => {
    const doc = JSON.stringify(answerDocument(HEAD, TEXT, SVG).content);
    for (const line of TEXT.split('\n')) expect(doc).toContain(line);
    expect(doc).toContain('"svg"');
    expect(JSON.stringify(answerDocument(HEAD, TEXT, undefined).content)).not.toContain('"svg"');
  });
});

describe('a call that was promised', () => {
  const model = {
    id: 'c-1',
    tag: '2044',
    day: '2026-12-31',
    who: 'Jory',
    engine: 'OL25-FLET',
    what: 'marks; again, and kit',
    at: '2026-11-25T09:00:00.000Z',
  };
  const made = callBackEvent(model);
  const lines = made.ok ? made.value.replace(/\r?\n[ \t]/g, '').split(/\r?\n/) : [];
  const line = (name: string) => lines.find((l) => l.startsWith(name)) ?? '';

  it('is a whole day of a calendar, over the end of the year, and one and the same entry each time', () => {
    expect(lines[0]).toBe('BEGIN:VCALENDAR');
    expect(line('DTSTART')).toMatch(/VALUE=DATE:20261231$/);
    expect(line('DTEND')).toMatch(/VALUE=DATE:20270101$/);
    const again = callBackEvent({ ...model, day: '2027-01-05' });
    expect(again.ok && again.value.includes(line('UID'))).toBeTrue();
    expect(line('SUMMARY')).toContain('2044');
    // RFC 5545, 3.3.11: marks inside a text are escaped
    expect(line('DESCRIPTION')).toContain('marks\\; again\\, and kit');
  });

  it('stands beside the answer that the same case waits for in one calendar, each its own entry', () => {
    const both = followUpsCalendar([
      { ...model, kind: 'call' },
      { ...model, kind: 'answer', day: '2027-01-02' },
    ]);
    const all = both.ok ? both.value.split(/\r?\n/) : [];
    expect(all.filter((l) => l === 'BEGIN:VCALENDAR').length).toBe(1);
    expect(all.filter((l) => l.startsWith('DTSTART')).map((l) => l.slice(-8))).toEqual([
      '20261231',
      '20270102',
    ]);
    expect(new Set(all.filter((l) => l.startsWith('UID'))).size).toBe(2);
    expect(all).toContain(line('UID'));
  });
});
