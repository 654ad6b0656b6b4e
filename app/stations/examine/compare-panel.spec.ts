import { TestBed } from '@angular/core/testing';
import type { CaseDesk } from '../../data/case-desk';
import { DeskSettingsStore } from '../../data/desk-settings';
import { closeDesk, openDesk, paint, type Painted, until } from '../../testing/demo-desk';
import { ExaminePage } from './examine-page';

describe('side by side', () => {
  let desk: CaseDesk;
  let page: Painted<ExaminePage>;
  const cells = () =>
    [...page.element.querySelectorAll('hs-compare-panel li')].map((li) => ({
      name: li.querySelector('b')!.textContent.trim(),
      says: li.querySelector('span')!.textContent.trim(),
      drawn: li.querySelectorAll('svg path').length,
      link: li.querySelector('a')?.getAttribute('href'),
    }));
  const press = async (key: string) => {
    page
      .one('#in-hand')
      .dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    await page.fixture.whenStable();
  };
  beforeEach(async () => {
    desk = await openDesk();
    TestBed.inject(DeskSettingsStore).change({ looks: 'list' });
  });
  afterEach(closeDesk);

  it('stand a new one, the one in hand, another of this box, and those of other returns of the engine, at the look in hand', async () => {
    await desk.open('demo-2027');
    page = await paint(ExaminePage);
    [...page.element.querySelectorAll<HTMLElement>('[role=tab]')]
      .find((t) => t.textContent.includes('Tensioner'))!
      .click();
    page.one('[data-row="tensioner.bearing"] button').click();
    await page.fixture.whenStable();
    expect(cells()).toEqual([]);
    await press('=');
    await until(() => cells().some((c) => c.link !== undefined));
    const [fresh, mine, ...rest] = cells();
    const grade = (key: string) => {
      const t = desk.current()!.answers!.registry.get('tensioner.bearing')!.type;
      return t.kind === 'choice' ? t.options.find((o) => o.key === key)!.wording : '';
    };
    expect(fresh!.says).toBe(grade('quiet'));
    expect(mine!.says).toBe(grade('quiet'));
    expect(rest.map((c) => c.link)).toContain('/case/demo-2033/examine');
    // a case of another engine is not beside it
    expect(rest.some((c) => c.link?.includes('demo-2036'))).toBeFalse();
    expect(cells().every((c) => c.drawn > 5)).toBeTrue();
    // what is found joins at once; another tensioner too
    await desk.file({ key: 'tensioner.bearing', value: 'rough', how: 'seen' });
    await page.fixture.whenStable();
    expect(cells()[1]!.says).toBe(grade('rough'));
    const before = cells().length;
    await press('+');
    await until(() => cells().length === before + 1);
    await press('=');
    expect(cells()).toEqual([]);
    page.fixture.destroy();
  });

  it('a belt is a strip with its marks, and nothing else was returned of this engine', async () => {
    await desk.open('demo-2036');
    page = await paint(ExaminePage);
    [...page.element.querySelectorAll<HTMLElement>('[role=tab]')]
      .find((t) => t.textContent.includes('Chain'))!
      .click();
    await page.fixture.whenStable();
    await press('=');
    await until(() => Boolean(page.element.querySelector('hs-compare-panel p')));
    expect(cells().length).toBe(2);
    const drawn = cells()[1]!.drawn;
    await desk.file({
      key: 'chain.link_damage',
      value: 'stiff',
      how: 'seen',
      place: { on: 'link', from: 9 },
    });
    await page.fixture.whenStable();
    expect(cells()[1]!.drawn).toBe(drawn + 1);
    page.fixture.destroy();
  });
});
