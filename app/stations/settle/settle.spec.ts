import { factsOf, textOf, thingsWith } from '@core/facts/read';
import type { CaseDesk } from '../../data/case-desk';
import { closeDesk, openDesk, paint, until } from '../../testing/demo-desk';
import { CostsCard } from './costs-card';
import { SettlePage } from './settle-page';

const BELT = 'demo-2027';

describe('settling', () => {
  let desk: CaseDesk;
  beforeEach(async () => {
    desk = await openDesk();
  });
  afterEach(closeDesk);
  const costs = () => desk.current()!.answers!.costs;

  /** The card, with what types into the boxes of a line by their words. */
  async function card() {
    const page = await paint(CostsCard);
    const box = (name: string) =>
      page
        .all('.entry label')
        .find((l) => l.textContent.trim().startsWith(name))!
        .querySelector('input')!;
    const type = (name: string, text: string) => {
      box(name).value = text;
      box(name).dispatchEvent(new Event('input'));
    };
    const enter = () =>
      box('Rate').dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    return { page, box, type, enter };
  }

  it('names the other case in which the number of a claim stands', async () => {
    await desk.newCase([{ key: 'claim.number', value: 'c 20272', how: 'document' }]);
    const page = await paint(SettlePage);
    const links = () => page.all('section[aria-label="Terms and documents"] .caution a');
    expect(links().map((l) => l.getAttribute('href'))).toEqual([`/case/${BELT}/settle`]);
    await desk.file({ key: 'claim.number', value: 'C-99999', how: 'document' });
    await until(() => links().length === 0);
  });

  it('files a line whole, refuses it whole, changes it, removes it in one act and brings it back in one', async () => {
    await desk.newCase([{ key: 'claim.cost_other', value: 20, how: 'reported' }]);
    const { page, box, type, enter } = await card();
    expect(page.all('table').length).toBe(0);
    await page.press('Lines of cost');
    type('What', 'Belt out and in');
    type('Quantity', '1.5');
    type('Rate', '-3');
    enter();
    await until(() => page.all('[role=alert]').length === 1);
    expect(costs().lines.length).toBe(1);
    type('Rate', '40');
    type('Tax', '10');
    enter();
    await until(() => costs().lines.length === 2);
    expect([costs().net, costs().taxed, costs().gross]).toEqual([8000, 600, 8600]);
    await page.fixture.whenStable();
    // the next line is begun, taxed alike
    expect([box('What').value, box('Rate').value, box('Tax').value]).toEqual(['', '', '10']);
    await page.press('Change');
    type('Quantity', '2');
    type('Our share', '50');
    enter();
    await until(() => costs().gross === 2000 + 8800);
    // what is left blank at a change is gone: its own share, its tax
    await page.fixture.whenStable();
    await desk.file({ key: 'claim.decision', value: 'accept', how: 'decided' });
    await until(() => costs().ours === 2000 + 4400);
    await page.press('Change');
    type('Our share', '');
    enter();
    await until(() => costs().ours === 2000 + 8800);
    await page.fixture.whenStable();
    expect(thingsWith(desk.current()!.state, 'cost.rate').length).toBe(1);
    await page.fixture.whenStable();
    (page.all('[aria-label^=Remove]')[1] as HTMLButtonElement).click();
    await until(() => costs().lines.length === 1);
    await desk.redo();
    await until(() => costs().lines.length === 2);
    expect(costs().gross).toBe(10_800);
    await page.press('Remove');
    await until(() => factsOf(desk.current()!.state, 'claim.cost_other').length === 0);
    expect(costs().gross).toBe(8800);
  });

  it('asks for a second signature where the sum is large, and for none where it is not', async () => {
    const open = async (rate: number) => {
      await desk.newCase([
        { key: 'claim.cost_part', value: rate, how: 'document' },
        { key: 'claim.decision', value: 'accept', how: 'decided' },
      ]);
      return (await paint(SettlePage)).all('#field-claim-second').length;
    };
    expect(await open(1999.99)).toBe(0);
    expect(await open(2000)).toBe(1);
  });

  it('says how often the workshop had this fault before, and takes a share for it', async () => {
    await desk.open(BELT);
    const first = desk.current()!;
    const facts = first.state.log.filter((f) => !f.key.startsWith('report.'));
    await desk.newCase(
      facts
        .filter((f) => f.strikes === undefined)
        .map(({ key, value, how, about, basis }) => ({
          key,
          value,
          how,
          ...(about === undefined ? {} : { about }),
          ...(basis ? { basis } : {}),
        })),
    );
    const page = await paint(SettlePage);
    const links = page.all('.fault .caution a').map((a) => a.textContent.trim());
    expect(links).toEqual([textOf(first.state, 'case.tag')!]);
    await page.type('Share laid to it', '40');
    await until(() => desk.current()!.answers!.faults.some((f) => f.share === 0.4));
    // the first of them had none before it
    await desk.open(BELT);
    expect((await paint(SettlePage)).all('.fault .caution').length).toBe(0);
  });
});
