import { TestBed } from '@angular/core/testing';
import { numberOf, textOf, thingsOf } from '@core/facts/read';
import { placedOf } from '@core/facts/read';
import { Cases } from '../../data/cases';
import type { CaseDesk } from '../../data/case-desk';
import { DeskSettingsStore } from '../../data/desk-settings';
import { closeDesk, openDesk, paint, type Painted, until } from '../../testing/demo-desk';
import { CallPage } from './call-page';

const BUSES =
  'bus 3: Causeway, 88 400 km on the clock. bus 5: Causeway, 41 000 km on the clock. bus 9: Furrow Bus, plate K, P0017 stored. When is the belt due?';

describe('a message that tells of several', () => {
  let desk: CaseDesk;
  let page: Painted<CallPage>;
  const say = async (text: string) => {
    const area = page.one<HTMLTextAreaElement>('textarea[aria-label="What was said"]');
    area.value = text;
    area.dispatchEvent(new Event('input'));
    area.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    await until(() => page.all('.understood .take').length > 0);
    await page.fixture.whenStable();
  };
  const labels = () => page.all('.understood .take').map((r) => r.getAttribute('aria-label') ?? '');
  const summaries = () => TestBed.inject(Cases).summaries();
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

  it('is one case each, with its own facts and the message, and the first stays in hand', async () => {
    await say(BUSES);
    expect(labels().filter((l) => l.startsWith('Distance now')).length).toBe(1);
    expect(labels().join()).not.toContain('P0017');
    const [own, before] = [desk.currentId()!, summaries().length];
    page.one<HTMLButtonElement>('.several button').click();
    await until(() => summaries().length === before + 2 && desk.currentId() === own);
    const furrow = summaries().find((s) => s.engine === 'QU16-WHIN' && s.id !== own)!;
    await desk.open(furrow.id);
    const state = desk.current()!.state;
    expect(numberOf(state, 'call.which')).toBe(3);
    expect(textOf(state, 'call.message')).toBe(BUSES);
    expect(numberOf(state, 'vehicle.odometer')).toBeUndefined();
    // read again there, it shows what is of that one
    await page.fixture.whenStable();
    expect(page.words).toContain('This case is bus 9');
  });

  it('opens no second case for a claim that is here', async () => {
    await desk.file({ key: 'claim.number', value: 'C-30631', how: 'document' });
    await desk.newCase();
    await page.fixture.whenStable();
    await say('C-30630: fitted 03.03.2026 at 41 200 km.\nC-30631: fitted 03.03.2026 at 77 800 km.');
    const before = summaries().length;
    page.one<HTMLButtonElement>('.several button').click();
    await until(() => document.body.textContent.includes('here already'));
    expect(summaries().length).toBe(before);
  });

  it('files what is told of one of several parts, of the new part and of places about just that', async () => {
    await say(
      'QU30-VASK, iron housing. Left ratchet 14 clicks out, right 13. Chain kit is here. Guide groove 1.1 at 60 mm from the pivot.',
    );
    expect(labels()).toContain(jasmine.stringContaining('left secondary'));
    page
      .one('.understood')
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    await until(() => textOf(desk.current()!.state, 'engine.code') === 'QU30-VASK');
    const state = desk.current()!.state;
    const parts = thingsOf(state, desk.registry()).filter(
      (t) => t.kind === 'tensioner' && t.place !== undefined,
    );
    const steps = parts.map((t) => [t.place, numberOf(state, 'tensioner.ratchet_steps', t.id)]);
    expect(steps.sort()).toEqual([
      ['left secondary', 14],
      ['right secondary', 13],
    ]);
    expect(placedOf(state, 'guide.groove').map((p) => [p.place.from, p.value])).toEqual([[60, 1.1]]);
    await page.fixture.whenStable();
    // and all of it counts as filed
    expect(page.all('.understood .take').length).toBe(0);
  });

  it('reads words that the house taught, and marks what nothing takes', async () => {
    const taught = [{ phrase: 'like a bottle brush', key: 'belt.edge_front', option: 'frayed' }];
    TestBed.inject(DeskSettingsStore).change({ taught });
    await say(
      'TE16-CORM. One side of it is like a bottle brush. The hose clamp of the pump was left hanging.',
    );
    expect(labels()).toContain(jasmine.stringMatching(/front.*rayed/));
    expect(page.one('.untaken').textContent).toContain('hose clamp');
    TestBed.inject(DeskSettingsStore).change({ taught: [] });
  });
});
