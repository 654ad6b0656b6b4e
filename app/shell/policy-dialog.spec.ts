import { TestBed } from '@angular/core/testing';
import { POLICY_QUESTIONS } from '@core/policy/policy';
import { Commands } from '../commands/commands';
import type { CaseDesk } from '../data/case-desk';
import { DeskSettingsStore } from '../data/desk-settings';
import { DeskPolicy } from '../data/desk-policy';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { PolicyDialog } from './policy-dialog';

describe('policy', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);
  const modal = () => [...document.querySelectorAll<HTMLElement>('.ant-modal')].at(-1);
  const dialog = async () => {
    TestBed.inject(Commands).overlay.set('policy');
    const page = await paint(PolicyDialog);
    await until(() => modal()?.querySelectorAll('hs-segmented').length === POLICY_QUESTIONS.length);
    return page;
  };
  const group = (question: string) =>
    [...modal()!.querySelectorAll<HTMLElement>('hs-segmented')].find(
      (g) => g.getAttribute('aria-label') === question,
    )!;
  const picked = (question: string) =>
    group(question).querySelector('input:checked')?.closest('.ant-segmented-item')?.textContent.trim();
  const pick = (question: string, answer: string) => {
    const item = [...group(question).querySelectorAll<HTMLElement>('.ant-segmented-item')].find((i) =>
      i.textContent.includes(answer),
    )!;
    item.click();
  };

  it('stand with every question, its reason and its default, and are kept from one opening to the next', async () => {
    const page = await dialog();
    await until(() => picked(POLICY_QUESTIONS.at(-1)!.question) !== undefined);
    const words = modal()!.textContent;
    for (const c of POLICY_QUESTIONS) {
      expect(words).toContain(c.question);
      expect(words).toContain(c.why);
      const wording = c.options.find((o) => o.key === c.default)!.wording;
      expect(picked(c.question)).withContext(c.key).toBe(`${wording} ◦`);
    }
    pick('Turning back', 'Never');
    await until(() => TestBed.inject(DeskPolicy).rules().chosen['turning_back'] === 'never');
    await page.fixture.whenStable();
    expect(picked('Turning back')).toContain('Never');
    TestBed.inject(DeskSettingsStore).settings.update((s) => ({ ...s, chosen: {} }));
    const settings = TestBed.inject(DeskSettingsStore);
    for (let k = 0; k < 50 && settings.settings().chosen['turning_back'] !== 'never'; k++)
      await settings.load();
    expect(settings.settings().chosen['turning_back']).toBe('never');
    page.fixture.destroy();
  });

  it('say where the case in hand keeps its own, and let it be judged by today’s', async () => {
    await desk.open('demo-2033');
    await desk.file({
      key: 'case.rules',
      value: { is: 'policy', chosen: { turns: '4' } },
      how: 'decided',
    });
    const page = await dialog();
    await page.fixture.whenStable();
    const caution = () => modal()!.querySelector('.caution');
    expect(caution()!.textContent).toContain(POLICY_QUESTIONS.find((c) => c.key === 'turns')!.question);
    expect(desk.current()!.answers!.policy.chosen['turns']).toBe('4');
    caution()!.querySelector('button')!.click();
    await until(() => desk.current()!.answers!.policy.chosen['turns'] === '2');
    await page.fixture.whenStable();
    expect(caution()).toBeNull();
    expect(desk.current()!.answers!.policy.chosen['turns']).toBe('2');
    page.fixture.destroy();
  });
});
