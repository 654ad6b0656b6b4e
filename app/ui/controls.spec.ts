import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { FileRef } from '@core/facts/fact';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { DatePick } from './date-pick';
import { FileButton } from './file-button';
import { FileStrip } from './file-strip';
import { Modal } from './modal';
import { Pick } from './pick';
import { Segmented } from './segmented';
import { ShortField } from './short-field';
import { StateCard } from './state';

@Component({
  selector: 'hs-test-dialog',
  imports: [Modal],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<hs-modal title="A question" [open]="open()" (closed)="closed.emit()"><p>Inside</p></hs-modal>`,
})
class Dialog {
  readonly open = input(false);
  readonly closed = output();
}

const over = (selector: string) => document.querySelector<HTMLElement>(`.cdk-overlay-container ${selector}`);
const escape = () =>
  new KeyboardEvent('keydown', { key: 'Escape', keyCode: 27, bubbles: true, cancelable: true });

describe('controls in our wrapping', () => {
  beforeEach(() => openDesk(false));
  afterEach(closeDesk);

  it('a pick is named by its label, shows what stands and gives out the key of what is taken', async () => {
    const options = ['Cam', 'Crank', 'Idler'].map((wording) => ({ key: wording.toLowerCase(), wording }));
    const pick = await paint(Pick, { label: 'Wheel', options, value: 'crank' });
    const heard: string[] = [];
    pick.fixture.componentInstance.picked.subscribe((k) => heard.push(k));
    const box = pick.one<HTMLInputElement>('input');
    expect(pick.one<HTMLLabelElement>('label').htmlFor).toBe(box.id);
    expect(pick.words).toContain('Crank');
    pick.one('nz-select').click();
    await until(() => over('nz-option-item') !== null);
    [...document.querySelectorAll<HTMLElement>('nz-option-item')]
      .find((o) => o.textContent.includes('Idler'))!
      .click();
    await until(() => heard.length > 0);
    expect(heard).toEqual(['idler']);
  });

  it('a segmented one of few says by its radio buttons what stands, and by nothing that is not allowed', async () => {
    const options = [
      { value: 'over', label: 'Overlaid' },
      { value: 'beside', label: 'Side by side' },
    ];
    const seg = await paint(Segmented, { label: 'Compared', options, value: 'over' });
    expect(seg.element.getAttribute('role')).toBe('group');
    expect(seg.element.getAttribute('aria-label')).toBe('Compared');
    const checked = () => seg.all('input').map((i) => (i as HTMLInputElement).checked);
    await until(() => checked()[0] === true);
    expect(checked()).toEqual([true, false]);
    const heard: string[] = [];
    seg.fixture.componentInstance.picked.subscribe((v) => heard.push(v));
    seg.all('label')[1]!.click();
    await until(() => heard.length > 0);
    expect(heard).toEqual(['beside']);
    await until(() => seg.all('[aria-selected]').length === 0);
  });

  it('a dialog has a name, holds what it is given, and asks to be closed by Escape', async () => {
    const dialog = await paint(Dialog);
    let closed = 0;
    dialog.fixture.componentInstance.closed.subscribe(() => closed++);
    expect(over('[role=dialog]')).toBeNull();
    dialog.fixture.componentRef.setInput('open', true);
    await until(() => over('[role=dialog]')?.getAttribute('aria-label') === 'A question');
    expect(over('[role=dialog]')!.textContent).toContain('Inside');
    document.body.dispatchEvent(escape());
    await until(() => closed === 1);
    dialog.fixture.componentRef.setInput('open', false);
    await until(() => over('[role=dialog]') === null);
  });

  it('a calendar opens on the day that stands, gives out a day as year-month-day, and goes', async () => {
    const dates = await paint(DatePick, { label: 'Fitted on', day: '2026-02-10' });
    const heard: string[] = [];
    dates.fixture.componentInstance.picked.subscribe((d) => heard.push(d));
    expect(over('.ant-picker-panel')).toBeNull();
    dates.one('button').click();
    await until(() => over('.ant-picker-cell-selected') !== null);
    expect(over('.ant-picker-cell-selected')!.textContent.trim()).toBe('10');
    const days = [...document.querySelectorAll<HTMLElement>('.ant-picker-cell-in-view')];
    // February 2026 has 28 days
    expect(days.length).toBe(28);
    days.at(-1)!.click();
    await until(() => heard.length > 0 && over('.ant-picker-panel') === null);
    expect(heard).toEqual(['2026-02-28']);
  });

  it('a short field gives out what was typed once it is left, under its name and with its unit', async () => {
    const field = await paint(ShortField, { label: 'Rim', unit: 'mm', value: 3.5 });
    const heard: string[] = [];
    field.fixture.componentInstance.typed.subscribe((t) => heard.push(t));
    const box = field.one<HTMLInputElement>('input');
    expect(field.one<HTMLLabelElement>('label').htmlFor).toBe(box.id);
    expect([box.value, field.one('span').textContent]).toEqual(['3.5', 'mm']);
    box.value = '4,25';
    box.dispatchEvent(new Event('input'));
    expect(heard).toEqual([]);
    box.dispatchEvent(new Event('change'));
    expect(heard).toEqual(['4,25']);
  });

  it('a state is spoken only when it comes by itself', async () => {
    const role = async (inputs: Record<string, unknown>) =>
      (await paint(StateCard, { title: 'T', ...inputs })).element.getAttribute('role');
    expect(await role({ kind: 'empty' })).toBeNull();
    expect(await role({ kind: 'sealed' })).toBeNull();
    expect(await role({ kind: 'loading' })).toBe('status');
    expect(await role({ kind: 'offline', urgent: true })).toBe('alert');
  });
});

describe('files on the screen', () => {
  beforeEach(() => openDesk(false));
  afterEach(closeDesk);

  const ref = (name: string, type: string): FileRef => ({ name, type, hash: name, bytes: 3 });

  it('are pictures where they can be, names else, and told where their content is not here', async () => {
    const files = [ref('seen.png', 'image/png'), ref('trace.csv', 'text/csv'), ref('gone.png', 'image/png')];
    // a type that could run something is not shown as a picture
    files.push(ref('drawn.svg', 'image/svg+xml'));
    const read = (f: FileRef) =>
      Promise.resolve(f.name === 'gone.png' ? undefined : new Blob(['abc'], { type: f.type }));
    const strip = await paint(FileStrip, { files, read });
    await until(() => strip.all('button').length === 3);
    await strip.fixture.whenStable();
    expect(strip.all('img').map((i) => i.getAttribute('alt'))).toEqual(['seen.png']);
    expect(strip.all('.missing').map((m) => m.textContent.includes('gone.png'))).toEqual([true]);
    const taken: string[] = [];
    strip.fixture.componentInstance.taken.subscribe((f) => taken.push(f.name));
    for (const b of strip.all('button')) b.click();
    expect(taken).toEqual(['seen.png', 'trace.csv', 'drawn.svg']);
  });

  it('are chosen again although they were chosen before', async () => {
    const button = await paint(FileButton, { wording: 'Attach', label: 'Files' });
    const heard: string[][] = [];
    button.fixture.componentInstance.chosen.subscribe((f) => heard.push(f.map((x) => x.name)));
    const chooser = button.one<HTMLInputElement>('input[type=file]');
    for (let k = 0; k < 2; k++) {
      const given = new DataTransfer();
      given.items.add(new File(['x'], 'a.png'));
      chooser.files = given.files;
      chooser.dispatchEvent(new Event('change'));
      expect(chooser.files.length).toBe(0);
    }
    chooser.dispatchEvent(new Event('change'));
    expect(heard).toEqual([['a.png'], ['a.png']]);
  });
});
