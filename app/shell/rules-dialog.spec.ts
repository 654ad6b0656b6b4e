import { TestBed } from '@angular/core/testing';
import { CHOICES } from '@core/house/rules';
import { Commands } from '../commands/commands';
import type { CaseDesk } from '../data/case-desk';
import { HouseStore } from '../data/house';
import { HouseRules } from '../data/house-rules';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { RulesDialog } from './rules-dialog';

describe('house rules', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);
  const modal = () => [...document.querySelectorAll<HTMLElement>('.ant-modal')].at(-1);
  const dialog = async () => {
    TestBed.inject(Commands).overlay.set('rules');
    const page = await paint(RulesDialog);
    await until(() => modal()?.querySelectorAll('hs-segmented').length === CHOICES.length);
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
    await until(() => picked(CHOICES.at(-1)!.question) !== undefined);
    const words = modal()!.textContent;
    for (const c of CHOICES) {
      expect(words).toContain(c.question);
      expect(words).toContain(c.why);
      const wording = c.options.find((o) => o.key === c.default)!.wording;
      expect(picked(c.question)).withContext(c.key).toBe(`${wording} ◦`);
    }
    pick('Turning back', 'Never');
    await until(() => TestBed.inject(HouseRules).rules().chosen['turning_back'] === 'never');
    await page.fixture.whenStable();
    expect(picked('Turning back')).toContain('Never');
    TestBed.inject(HouseStore).settings.update((s) => ({ ...s, chosen: {} }));
    const house = TestBed.inject(HouseStore);
    for (let k = 0; k < 50 && house.settings().chosen['turning_back'] !== 'never'; k++) await house.load();
    expect(house.settings().chosen['turning_back']).toBe('never');
    page.fixture.destroy();
  });

  it('say where the case in hand keeps its own, and let it be judged by today’s', async () => {
    await desk.open('demo-2033');
    await desk.file({
      key: 'case.rules',
      value: { is: 'house answers', chosen: { turns: '4' } },
      how: 'decided',
    });
    const page = await dialog();
    await page.fixture.whenStable();
    const caution = () => modal()!.querySelector('.caution');
    expect(caution()!.textContent).toContain(CHOICES.find((c) => c.key === 'turns')!.question);
    expect(desk.current()!.answers!.rules.chosen['turns']).toBe('4');
    caution()!.querySelector('button')!.click();
    await until(() => desk.current()!.answers!.rules.chosen['turns'] === '2');
    await page.fixture.whenStable();
    expect(caution()).toBeNull();
    expect(desk.current()!.answers!.rules.chosen['turns']).toBe('2');
    page.fixture.destroy();
  });
});
