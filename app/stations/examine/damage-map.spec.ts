import { allStanding } from '@core/facts/read';
import type { CaseDesk } from '../../data/case-desk';
import { DeskSession } from '../../entry/desk-session';
import { TestBed } from '@angular/core/testing';
import { closeDesk, openDesk, paint, until } from '../../testing/demo-desk';
import { DamageMapPart } from './damage-map';

describe('a belt or chain unrolled', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);
  const marks = () =>
    allStanding(desk.current()!.state).filter((s) => s.meaning.key === 'belt.tooth_damage').length;
  const map = (kind: 'belt' | 'chain') =>
    paint(DamageMapPart, { session: TestBed.inject(DeskSession), kind });

  it('has as many teeth as the drive’s belt; a letter marks where one stands, the same again takes back', async () => {
    await desk.open('demo-2033');
    const page = await map('belt');
    const count = desk.current()!.answers!.drive!.layout.count;
    expect(page.all('.map [role=option]').length).toBe(count);
    const key = (k: string) =>
      page
        .one('.map')
        .dispatchEvent(new KeyboardEvent('keydown', { key: k, bubbles: true, cancelable: true }));
    key('ArrowRight');
    key('s');
    await until(() => marks() === 1);
    await page.fixture.whenStable();
    expect(page.all('.map [aria-selected=true]').map((e) => e.getAttribute('aria-label'))).toEqual([
      'tooth 2, sheared',
    ]);
    expect(page.words).toContain('1 mark: too few');
    key('End');
    key('ArrowRight');
    key(' ');
    await until(() => marks() === 2);
    await page.fixture.whenStable();
    expect(page.all('.map [aria-selected=true]').at(-1)!.getAttribute('aria-label')).toBe(
      `tooth ${count}, sheared`,
    );
    key(' ');
    await until(() => marks() === 1);
  });

  it('says which wheel marks repeat with, on the one design that is left, and shows where that wheel meets the belt', async () => {
    await desk.open('demo-2033');
    const { layout } = desk.current()!.answers!.drive!;
    const z = layout.wheels[0]!.teeth!;
    const at = Array.from({ length: 6 }, (_, i) => 4 + i * z).filter((n) => n <= layout.count);
    await desk.fileAll(
      at.map((from) => ({
        key: 'belt.tooth_damage',
        place: { on: 'tooth' as const, from },
        value: 'root_crack',
        how: 'seen' as const,
      })),
    );
    const page = await map('belt');
    expect(page.words).toContain(
      `${at.length} of ${at.length} marks repeat with the ${z} teeth of the crank sprocket`,
    );
    expect(page.all('.met').map((e) => Number(e.getAttribute('aria-label')!.split(/[ ,]/)[1]))).toEqual(
      jasmine.arrayContaining(at),
    );
    expect(desk.current()!.answers!.damage[0]!.facts.length).toBe(at.length);
  });

  it('stands on a chain with its links, and not where the design is open', async () => {
    await desk.open('demo-2036');
    const page = await map('chain');
    expect(page.all('.map [role=option]').length).toBe(desk.current()!.answers!.drive!.layout.count);
    expect(page.words).toContain('links');
    await desk.open('demo-2041');
    expect((await map('belt')).all('.map').length).toBe(0);
    expect(desk.current()!.answers!.damage).toEqual([]);
  });
});
