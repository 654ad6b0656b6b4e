import { TestBed } from '@angular/core/testing';
import { SHIPPED_POLICY } from '@core/policy/policy';
import type { CaseDesk } from '../../data/case-desk';
import { Clock } from '../../data/clock';
import { DeskSession } from '../../entry/desk-session';
import { closeDesk, openDesk, paint, until } from '../../testing/demo-desk';
import { PressPanel } from './press-panel';

describe('a slow press by the clock', () => {
  let desk: CaseDesk;
  const panel = () => paint(PressPanel, { session: TestBed.inject(DeskSession) });
  const at = (ms: number) =>
    spyOn(TestBed.inject(Clock), 'now').and.callFake(() => new Date(ms + later).toISOString());
  let later = 0;
  beforeEach(async () => {
    later = 0;
    desk = await openDesk();
  });
  afterEach(closeDesk);

  it('counts turns from how far the plunger is out, goes on while one looks elsewhere, and ends in a look', async () => {
    // the demo's plunger stands out 21.6 mm
    await desk.open('demo-2036');
    const turns = 21.6 / SHIPPED_POLICY.press.pitchMm;
    const minute = 60_000;
    at(Date.parse('2026-11-26T08:00:00Z'));
    let page = await panel();
    const says = () => page.element.querySelector('.says')?.textContent ?? '';
    page.one('button').click();
    await until(() => says().includes('1'));
    later = 3 * minute;
    await until(() => says().includes(`${3 * SHIPPED_POLICY.press.turnsPerMin + 1}`));
    page.fixture.destroy();
    later = (turns / SHIPPED_POLICY.press.turnsPerMin) * minute + SHIPPED_POLICY.press.waitS * 500;
    page = await panel();
    const waits = says();
    later += SHIPPED_POLICY.press.waitS * 1000;
    await until(() => says() !== waits);
    expect(/\d/.test(says())).toBeFalse();
    page.one('button').click();
    await page.fixture.whenStable();
    expect(says()).toBe('');
    page.fixture.destroy();
  });

  it('has no clock while nobody measured how far it is out', async () => {
    await desk.open('demo-2027');
    const page = await panel();
    expect(page.element.querySelector('button')).toBeNull();
    page.fixture.destroy();
  });
});
