import { pngBytes } from '../../testing/picture-bytes';
import { TestBed } from '@angular/core/testing';
import { factsOf, has, standing, textOf } from '@core/facts/read';
import { Cases } from '../../data/cases';
import type { CaseDesk } from '../../data/case-desk';
import { Mailbox } from '../../data/mailbox';
import { Incoming } from '../../commands/incoming';
import { closeDesk, failWrites, openDesk, paint, type Painted, until } from '../../testing/demo-desk';
import { AdviceStore } from './advice-store';
import { CallPage } from './call-page';
import { messagePieces } from './parts-of';
import { plainText } from '@core/facts/value';

const key = (e: Element, name: string, shiftKey = false) =>
  e.dispatchEvent(new KeyboardEvent('keydown', { key: name, shiftKey, bubbles: true, cancelable: true }));

describe('a call', () => {
  let desk: CaseDesk;
  let page: Painted<CallPage>;
  const state = () => desk.current()!.state;
  const list = () => page.one('.understood');
  const rows = () =>
    page
      .all('.understood .take')
      .map((r) => `${r.getAttribute('aria-checked')} ${r.getAttribute('aria-label')}`);
  const paste = async (text: string) => {
    const area = page.one<HTMLTextAreaElement>('textarea[aria-label="What was said"]');
    area.value = text;
    area.dispatchEvent(new Event('input'));
    key(area, 'Enter');
    await until(() => factsOf(state(), 'call.message').length > 0);
    await page.fixture.whenStable();
  };
  beforeEach(async () => {
    desk = await openDesk();
    await desk.newCase();
    page = await paint(CallPage);
    document.body.append(page.element);
  });
  afterEach(async () => {
    page.element.remove();
    await closeDesk();
  });

  it('files nothing unseen: a letter leaves, Enter files the rest and the words left over', async () => {
    await paste('TE16-CORM, 96 420 km. Which kit? My aunt drives it on Sundays.');
    expect(has(state(), 'engine.code')).toBeFalse();
    expect(rows().every((r) => r.startsWith('true'))).toBeTrue();
    const odometer = page
      .all('.understood .take')
      .find((r) => r.getAttribute('aria-label')!.startsWith('Distance now'))!;
    key(list(), odometer.querySelector('.letter')!.textContent.trim());
    await page.fixture.whenStable();
    key(list(), 'Enter');
    await until(() => has(state(), 'engine.code'));
    expect(has(state(), 'vehicle.odometer')).toBeFalse();
    expect(standing(state(), 'engine.code')!.how).toBe('reported');
    expect(textOf(state(), 'complaint')).toContain('aunt');
    await page.fixture.whenStable();
    expect(page.words).toContain('MF-K121-1');
  });

  it('asks which of two engines is meant, and takes one', async () => {
    await paste('Is it the TE16-CORM or the OL25-FLET? Which kit?');
    const engines = () => rows().filter((r) => r.includes('Engine code'));
    expect(engines().map((r) => r.slice(0, 5))).toEqual(['false', 'false']);
    const [first, second] = page
      .all('.understood .take')
      .filter((r) => r.getAttribute('aria-label')!.startsWith('Engine'));
    first!.click();
    await page.fixture.whenStable();
    second!.click();
    await page.fixture.whenStable();
    expect(engines().map((r) => r.startsWith('true'))).toEqual([false, true]);
    key(list(), 'Enter');
    await until(() => textOf(state(), 'engine.code') === 'OL25-FLET');
  });

  it('does not overwrite what stands, unless told to; a reading can be changed, and a wrong one is refused', async () => {
    await desk.file({ key: 'vehicle.odometer', value: 50000, how: 'document' });
    await paste('Now 96 420 km on the clock, engine TE16-CORM');
    const row = () => page.all('.line').find((l) => l.textContent.includes('Distance now'))!;
    expect(rows().find((r) => r.includes('Distance now'))).toMatch(/^false/);
    row().querySelector<HTMLElement>('.mark')!.click();
    await until(() => row().querySelector('input') !== null);
    const box = () => row().querySelector('input')!;
    box().value = 'a lot';
    key(box(), 'Enter');
    await page.fixture.whenStable();
    expect(page.one('[role=alert]').textContent).toContain('a lot');
    box().value = '96 500 km';
    key(box(), 'Enter');
    await page.fixture.whenStable();
    key(list(), 'Enter');
    await until(() => standing(state(), 'vehicle.odometer')!.value === 96500);
    expect(textOf(state(), 'engine.code')).toBe('TE16-CORM');
  });

  it('loses nothing when the store refuses', async () => {
    await paste('TE16-CORM, which kit?');
    const mend = failWrites('QuotaExceededError');
    key(list(), 'Enter');
    await until(() => page.all('[role=alert]').length > 0);
    expect(has(state(), 'engine.code')).toBeFalse();
    expect(rows().length).toBeGreaterThan(1);
    mend();
    key(list(), 'Enter');
    await until(() => has(state(), 'engine.code'));
  });

  it('answers live with each fact, and keeps what was told with the facts it stood on', async () => {
    await paste('OL25-FLET, are the marks right?');
    key(list(), 'Enter');
    await until(() => has(state(), 'call.asked'));
    await page.fixture.whenStable();
    const store = page.fixture.debugElement.injector.get(AdviceStore);
    expect(store.current()!.standing).toBe('open');
    await desk.file({ key: 'feature.gearbox', value: 'manual', how: 'reported' });
    await desk.file({ key: 'mark', about: 'wheel:right-upper', value: 3, u: 0.1, how: 'reported' });
    await page.fixture.whenStable();
    expect(store.current()!.standing).toBe('no');
    expect(page.all('hs-mark-dials figure.wrong').length).toBe(1);
    key(document.body, 't');
    await until(() => factsOf(state(), 'call.told').length === 1);
    const told = factsOf(state(), 'call.told')[0]!;
    const mark = standing(state(), 'mark', 'wheel:right-upper')!;
    expect(told.basis).toContain(mark.id);
    expect(told.basis).toContain(standing(state(), 'feature.gearbox')!.id);
    // telling twice keeps both
    key(document.body, 't');
    await until(() => factsOf(state(), 'call.told').length === 2);
    // typed in a box the letter is a letter
    key(page.one('input.ant-input'), 't');
    expect(factsOf(state(), 'call.told').length).toBe(2);
  });

  it('puts a promised call on top of the rack until it is made', async () => {
    const cases = TestBed.inject(Cases);
    const id = desk.currentId()!;
    await desk.open('demo-2027');
    await desk.file({ key: 'call.back', value: '2026-11-26', how: 'decided' });
    await until(() => cases.summaries()[0]!.id === 'demo-2027');
    expect(cases.summaries()[0]!.back).toBe('2026-11-26');
    await desk.file({ key: 'call.back_done', value: '2026-11-26', how: 'decided' });
    await until(() => cases.summaries()[0]!.id === id);
  });

  it('takes texts and tables at one door, and refuses what is too much with a way on', async () => {
    const door = TestBed.inject(Incoming);
    const count = TestBed.inject(Cases).summaries().length;
    // what is more than one message is looked through first, and begins no case
    const box = TestBed.inject(Mailbox);
    expect(await door.text('x'.repeat(200_000))).toBeTrue();
    await until(() => box.mails()?.length === 1);
    expect(box.mails()?.[0]?.read).toEqual(jasmine.objectContaining({ code: 'too_long' }));
    expect(await door.text('Kit;Distance now;Symptom\na;1;b\nc;2;d')).toBeTrue();
    await until(() => box.mails()?.length === 2);
    const megabyte = new Uint8Array(1 << 20);
    expect(await door.mailbox('large', [new Blob(Array.from({ length: 65 }, () => megabyte))])).toBeFalse();
    expect(TestBed.inject(Cases).summaries().length).toBe(count);
    expect(await door.text('Kit;Distance now;Symptom\nMF-K121-1;5 000 km;Leak')).toBeTrue();
    await until(() => desk.current()?.state.log.some((f) => f.key === 'call.message') === true);
    expect(plainText(factsOf(state(), 'call.message')[0]!.value)).toContain('Kit: MF-K121-1');
    await door.files([new File(['\u0000\u0001'], 'thing.bin')]);
    await door.files([new File(['Which kit for the TE16-CORM?'], 'note.txt', { type: 'text/plain' })]);
    await until(() => factsOf(state(), 'call.message').some((f) => plainText(f.value).includes('TE16')));
    await door.files([new File([pngBytes('x')], 'photo.png', { type: 'image/png' })], true);
    await until(() => factsOf(state(), 'thing.file').length === 1);
  });
});

describe('a message with its marks', () => {
  it('is whole, whatever was read from it', () => {
    const text = 'TE16-CORM and 96 420 km';
    const row = (from: number, to: number, letter: string) => ({
      letter,
      take: 'take' as const,
      proposal: {
        key: 'x',
        value: 1,
        how: 'reported' as const,
        sure: 'sure' as const,
        spans: [{ from, to }],
      },
    });
    for (const rows of [
      [],
      [row(0, 9, 'a')],
      [row(14, 23, 'b'), row(0, 9, 'a')],
      [row(0, 9, 'a'), row(5, 12, 'b')],
    ]) {
      const parts = messagePieces(text, rows);
      expect(parts.map((p) => p.text).join('')).toBe(text);
      expect(parts.every((p) => p.text !== '')).toBeTrue();
    }
  });
});
