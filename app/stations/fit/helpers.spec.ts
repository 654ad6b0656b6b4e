import { TestBed } from '@angular/core/testing';
import { structuredOf, valueOf } from '@core/facts/read';
import { Sheets } from '../../commands/sheets';
import type { CaseDesk } from '../../data/case-desk';
import { closeDesk, failWrites, openDesk, paint, type Painted, until } from '../../testing/demo-desk';
import { FitStore } from './fit-store';
import { FitHeatPanel } from './heat-panel';
import { LostPanel } from './lost-panel';
import { TorquePanel } from './torque-panel';
import { WhyPanel } from './why-panel';

/** Facts that leave the design with the left-hand bolt. */
const REAR = [
  { key: 'engine.code', value: 'OL15-QUOI', how: 'reported' as const },
  { key: 'feature.rear-cover', value: 'yes', how: 'seen' as const },
];

describe('help at the fitting', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk(true, [FitStore])));
  afterEach(closeDesk);

  const dial = async <T>(page: Painted<T>, label: string, value: string) => {
    const field = page.all('hs-dial-field').find((f) => f.textContent.trim().startsWith(label))!;
    const box = field.querySelector('input')!;
    box.value = value;
    box.dispatchEvent(new Event('input', { bubbles: true }));
    box.dispatchEvent(new Event('change', { bubbles: true }));
    box.dispatchEvent(new Event('blur', { bubbles: true }));
    await page.fixture.whenStable();
  };

  it('a torque is read out stage by stage, a left-hand thread with it, and a wrench is set for its extension', async () => {
    await desk.newCase(REAR);
    expect(desk.current()!.answers!.variant?.id).toBe('OL15-QUOI/A');
    const page = await paint(TorquePanel);
    page
      .all('.pick')
      .find((b) => b.textContent.includes('cassette bolt'))!
      .click();
    await page.fixture.whenStable();
    expect(page.words).toContain('goes the other way');
    expect(page.words).toContain('Set 50.0 N·m');
    await dial(page, 'Wrench, drive to grip', '400');
    await dial(page, 'Extension', '100');
    expect(page.words).toContain('Set 40.0 N·m on the wrench for 50 N·m at the bolt');
    await dial(page, 'Wrench from', '60');
    await dial(page, 'to', '300');
    expect(page.words).toContain('✕ Below the range of the wrench');
  });

  it('two readings of a cooling engine give a wait with its spread, and what setting it now would cost', async () => {
    await desk.open('demo-2027');
    const page = await paint(FitHeatPanel);
    expect(page.words).not.toMatch(/Wait \d|Cold enough now/);
    for (const [label, v] of [
      ['First', '82'],
      ['Second', '60'],
      ['Minutes', '30'],
      ['Air', '18'],
    ] as const)
      await dial(page, label, v);
    // τ = 30/ln(64/42), wait = τ·ln(42/5)
    const tau = 30 / Math.log(64 / 42);
    expect(page.words).toContain(`Wait ${Math.round(tau * Math.log(42 / 5))} ±`);
    expect(page.words).toMatch(/set at 60 °C and held, it is \d\.\d\d mm slack/);
    await dial(page, 'Second', '90');
    expect(page.words).not.toContain('Wait ');
  });

  it('no way back is shown before every shaft is known, nor where valves are not known; else every move has its room', async () => {
    await desk.newCase();
    expect((await paint(LostPanel)).words).toContain('turn no shaft alone');
    await desk.open('demo-2036');
    expect((await paint(LostPanel)).all('hs-dial-field').length).toBe(3);
    await desk.open('demo-2027');
    const page = await paint(LostPanel);
    await dial(page, 'Crank', '20');
    expect(page.all('ol').length).toBe(0);
    await dial(page, 'Cam', '30');
    const refused = page.all('.caution[role=status]').length;
    expect(refused + page.all('ol').length).toBe(1);
    await dial(page, 'Crank', '0');
    await dial(page, 'Cam', '0');
    expect(page.words).toContain('Lock the shafts');
    expect(page.words).toContain('First take the belt off');
    expect(page.words).not.toContain('Turn the crank by itself');
  });

  it('what went wrong asks eight questions at most, the leader first, and each answer is a fact', async () => {
    await desk.open('demo-2036');
    const page = await paint(WhyPanel);
    const asked = () => page.all('section');
    expect(asked().length).toBe(8);
    const first = desk.current()!.answers!.why[0]!;
    expect(asked()[0]!.textContent).toContain(`Step ${first.step.number}`);
    asked()[0]!.querySelectorAll('button')[0]!.click();
    await until(() => desk.current()!.answers!.fitted?.said.get(first.step.id)?.state === 'done');
    await page.fixture.whenStable();
    const now = desk.current()!.answers!.why.find((s) => s.step.id === first.step.id)!;
    expect(now.share).toBeLessThan(first.share);
    await desk.newCase();
    await page.fixture.whenStable();
    expect(page.all('button').length).toBe(0);
  });

  it('a sheet that was sent is a fact with its version and its rules, undone as one; one that could not be filed says so', async () => {
    await desk.open('demo-2033');
    const sheets = TestBed.inject(Sheets);
    const asked = spyOn(window, 'fetch').and.resolveTo(new Response('let x;'));
    await sheets.page();
    expect(asked).toHaveBeenCalledWith('fitter.js');
    const state = () => desk.current()!.state;
    expect(valueOf(state(), 'case.rules')).toEqual({ is: 'policy', chosen: {} });
    const { sheet, steps, of } = structuredOf('sheet', state(), 'fit.sheet_sent')!;
    expect([sheet.length, steps]).toEqual([64, of]);
    await desk.undo();
    expect(valueOf(state(), 'case.rules')).toBeUndefined();
    expect(valueOf(state(), 'fit.sheet_sent')).toBeUndefined();
    asked.and.resolveTo(new Response('', { status: 404 }));
    const facts = state().log.length;
    await sheets.page();
    expect(state().log.length).toBe(facts);
    asked.and.resolveTo(new Response('let x;'));
    const again = failWrites('QuotaExceededError');
    await sheets.page();
    again();
    expect(state().log.length).toBe(facts);
  });
});
