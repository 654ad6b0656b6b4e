import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { has, standing } from '@core/facts/read';
import { Cases } from '../../data/cases';
import type { CaseDesk } from '../../data/case-desk';
import { EnginePage } from '../../catalogue/engine-page';
import { DeskSession } from '../../entry/desk-session';
import { Rack } from '../../shell/rack';
import { closeDesk, openDesk, paint, until } from '../../testing/demo-desk';
import { MarkDials } from '../../ui/mark-dials';
import { BackCard } from './back-card';
import { BeforeCard } from './before-card';

const key = (target: EventTarget, name: string) =>
  target.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true }));

describe('beside a call', () => {
  let desk: CaseDesk;
  const state = () => desk.current()!.state;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  it('earlier cases of the workshop are named, and one key looks at the first', async () => {
    await desk.newCase([
      { key: 'call.who', value: 'Somebody Else, Sallow Lane Garage', how: 'reported' },
      { key: 'engine.code', value: 'QU13-STOA', how: 'reported' },
    ]);
    const card = await paint(BeforeCard);
    const tags = card.all('a.line').map((l) => l.querySelector('b')!.textContent);
    // one shares the workshop, one only the engine
    expect(tags).toEqual(['2041']);
    document.body.append(card.element);
    const box = document.createElement('input');
    card.element.append(box);
    key(box, 'l');
    expect(TestBed.inject(Router).url).not.toContain('demo-2041');
    key(document.body, 'l');
    await until(() => TestBed.inject(Router).url === '/case/demo-2041/call');
    card.element.remove();
  });

  it('a call is promised, told on the rack, and made', async () => {
    await desk.open('demo-2027');
    const [card, rack] = [await paint(BackCard), await paint(Rack)];
    expect(card.all('button').some((b) => b.textContent.includes('called back'))).toBeFalse();
    await desk.file({ key: 'call.back', value: '2020-01-01', how: 'decided' });
    await card.fixture.whenStable();
    await until(() => TestBed.inject(Cases).summaries()[0]!.id === 'demo-2027');
    await rack.fixture.whenStable();
    expect(rack.words).toContain('late');
    await card.press('They were called back');
    await until(() => has(state(), 'call.back_done'));
    await until(() => TestBed.inject(Cases).summaries()[0]!.id !== 'demo-2027');
    // promised anew it waits again
    await desk.file({ key: 'call.back', value: '2020-02-01', how: 'decided' });
    await until(() => TestBed.inject(Cases).summaries()[0]!.id === 'demo-2027');
  });

  it('callers of own cases and vehicles of the engine are offered while one types', async () => {
    await desk.open('demo-2044');
    const session = TestBed.inject(DeskSession);
    const offers = (k: string) => session.codes(session.observable(k)!);
    expect(offers('call.who')).toContain('Wick Amberlow, Sallow Lane Garage');
    expect(new Set(offers('call.who')).size).toBe(offers('call.who').length);
    expect(offers('vehicle.name')).toEqual(['Oldhaven Moorland estate', 'Oldhaven Ridgeway']);
    expect(offers('complaint')).toEqual([]);
    expect(standing(state(), 'call.who')!.value).toBe('Jory Pellbrook, Tidewall Garage');
  });

  it('marks are drawn where they must stand and where they were told, each with its verdict in words', async () => {
    const dials = await paint(MarkDials, {
      marks: [
        { name: 'A', teeth: 0, predictedDeg: 4, seenDeg: -5, says: 'told behind', verdict: 'wrong' },
        { name: 'B', teeth: 0, predictedDeg: 0, says: 'not told yet', verdict: 'unseen' },
      ],
    });
    const turn = (e: Element | null) =>
      Number(/rotate\((-?[\d.]+)\)/.exec(e?.getAttribute('transform') ?? '')?.[1]);
    const [a, b] = dials.all('figure');
    // ahead to the right of the fixed mark, behind to its left, both by the same scale
    const must = turn(a!.querySelector('.must'));
    const seen = turn(a!.querySelector('.seen'));
    expect(must).toBeGreaterThan(0);
    expect(seen / must).toBeCloseTo(-5 / 4, 9);
    expect(a!.textContent).toContain('✕');
    expect(b!.querySelector('.seen')).toBeNull();
    expect(dials.all('svg').map((s) => s.getAttribute('aria-label'))).toEqual([
      'A: told behind',
      'B: not told yet',
    ]);
  });

  it('the page of an engine draws each design, lights the kit that led there, and begins a case', async () => {
    const page = await paint(EnginePage, { code: 'QU30-VASK', kit: 'MF-K306B-1' });
    await until(() => page.all('figure').length === 2);
    expect(page.all('figure svg').length).toBe(2);
    expect(page.one('.kit.lit').textContent).toContain('MF-K306B-1');
    await page.press('New case for it');
    await until(() => desk.current() !== undefined);
    expect(standing(state(), 'engine.code')!.value).toBe('QU30-VASK');
    const none = await paint(EnginePage, { code: 'XX-NONE' });
    expect(none.words).toContain('XX-NONE');
    expect(none.all('figure').length).toBe(0);
  });
});
