import type { CaseDesk } from '../data/case-desk';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { LedgerPage } from './ledger-page';

describe('the ledger on the screen', () => {
  let desk: CaseDesk;
  beforeEach(async () => {
    desk = await openDesk();
  });
  afterEach(closeDesk);

  it('adds up what the filter leaves, by the decision, and turns its order round', async () => {
    await desk.newCase([
      { key: 'claim.number', value: 'C-31415', how: 'document' },
      { key: 'claim.cost_part', value: 10.05, how: 'document' },
      { key: 'claim.decision', value: 'accept', how: 'decided' },
    ]);
    const page = await paint(LedgerPage);
    const says = () => page.one('[role=status]').textContent;
    await until(() => says().includes('7 cases'));
    const find = page.one<HTMLInputElement>('input[type=search]');
    find.value = 'c-31415';
    find.dispatchEvent(new Event('input'));
    await until(() => says().includes('1 case,'));
    expect(says()).toContain('asked 10.05 AC · we bear 10.05 AC');
    // the sums beside it follow once the hand rests
    await until(() => page.all('.sum').length === 1);
    expect(page.all('.sum').map((s) => s.textContent.trim())).toEqual(['Accept10.05 AC of 10.05 AC']);
    const sorted = () => page.all('th').map((th) => th.getAttribute('aria-sort'));
    expect(sorted()[0]).toBe('descending');
    await page.press('Case');
    expect(sorted()[0]).toBe('ascending');
    find.value = 'no such thing';
    find.dispatchEvent(new Event('input'));
    await until(() => page.all('hs-state').length === 1);
    expect(says()).toContain('0 cases');
  });

  it('is gathered into groups that unfold, keeps a view under a name, and looks at it again', async () => {
    const page = await paint(LedgerPage);
    await until(() => page.all('tr a').length > 0);
    const groups = () => page.all('tr.group').length;
    await page.pick('Gathered by', 'engine');
    expect(page.all('tr a').length).toBe(0);
    expect(groups()).toBeGreaterThan(1);
    const before = groups();
    page.one('tr.group button').click();
    await until(() => page.all('tr a').length > 0);
    expect(groups()).toBe(before);
    await page.press('Keep this view');
    const name = page.one<HTMLInputElement>('.name');
    expect(document.activeElement).toBe(name);
    name.value = 'By engine';
    name.dispatchEvent(new Event('input'));
    name.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await until(() => page.all('.name').length === 0);
    await page.pick('Gathered by', 'nothing');
    await until(() => groups() === 0);
    await page.pick('View', 'By engine');
    await until(() => groups() === before);
    await page.press('Forget');
    expect(page.all('button').some((b) => b.textContent.includes('Forget'))).toBeFalse();
  });
});
