import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { OBSERVABLES } from '@core/facts/registry';
import { METRIC } from '@core/facts/read-value';
import { filedOf, has, measuredOf, standing, textOf } from '@core/facts/read';
import { showValue } from '@core/facts/show-value';
import { reduce } from '@core/facts/state';
import { ok } from '@core/quantity/result';
import type { CaseDesk } from '../data/case-desk';
import { demoScenario } from '../../demo/scenario';
import { commandFor } from '../shell/keyboard';
import { closeDesk, openDesk, paint, type Painted, until } from '../testing/demo-desk';
import { DeskSession } from './desk-session';
import { Field } from './field';
import type { Session } from './session';

@Component({
  selector: 'hs-test-station',
  imports: [Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<main>
    @for (k of keys(); track k) {
      <hs-field [session]="session" [key]="k" />
    }
  </main>`,
})
class Station {
  readonly session = inject(DeskSession);
  readonly keys = input.required<readonly string[]>();
}

/** The number of a key, which the library's lists of keys go by. */
const CODES: Record<string, number> = { ArrowRight: 39 };
const press = (e: HTMLElement, key: string) =>
  e.dispatchEvent(
    new KeyboardEvent('keydown', { key, keyCode: CODES[key] ?? 0, bubbles: true, cancelable: true }),
  );

describe('fields of a station', () => {
  let desk: CaseDesk;
  let page: Painted<Station>;
  const state = () => desk.current()!.state;
  const tiles = (key: string) => page.one(`#field-${key.replace('.', '-')}`);
  const picked = (key: string) =>
    [...tiles(key).querySelectorAll('[aria-selected=true]')].map((t) => t.getAttribute('aria-label'));
  beforeEach(async () => {
    desk = await openDesk();
    await desk.open('demo-2041');
    page = await paint(Station, {
      keys: ['vehicle.odometer', 'tensioner.bearing', 'belt.back', 'vehicle.market', 'parts.sent'],
    });
    document.body.append(page.element);
  });
  afterEach(async () => {
    page.element.remove();
    await closeDesk();
  });

  it('a letter files its tile and goes on to what is lacking; the same letter takes it back', async () => {
    tiles('tensioner.bearing').focus();
    press(tiles('tensioner.bearing'), 'S');
    await until(() => textOf(state(), 'tensioner.bearing') === 'seized');
    await until(() => document.activeElement === tiles('belt.back'));
    await page.fixture.whenStable();
    expect(picked('tensioner.bearing')).toEqual(['Seized']);
    tiles('tensioner.bearing').focus();
    press(tiles('tensioner.bearing'), 's');
    await until(() => !has(state(), 'tensioner.bearing'));
    // what is taken back stays in hand
    expect(document.activeElement).toBe(tiles('tensioner.bearing'));
  });

  it('Enter walks over what is lacking, past what is known, and begins anew behind the last', async () => {
    await desk.file({ key: 'tensioner.bearing', value: 'quiet', how: 'seen' });
    await page.fixture.whenStable();
    const box = page.one<HTMLInputElement>('input#field-vehicle-odometer');
    box.focus();
    press(box, 'Enter');
    expect(document.activeElement).toBe(tiles('belt.back'));
    press(tiles('belt.back'), 'Enter');
    expect(document.activeElement?.id).toBe('field-vehicle-market');
    press(document.activeElement as HTMLElement, 'Enter');
    expect(document.activeElement).toBe(tiles('parts.sent'));
    press(tiles('parts.sent'), 'Enter');
    expect(document.activeElement).toBe(box);
    expect(has(state(), 'belt.back')).toBeFalse();
  });

  it('a press that leaves a box files it when it comes up: while it is down nothing moves', async () => {
    const box = page.one<HTMLInputElement>('input#field-vehicle-odometer');
    const tile = tiles('belt.back');
    const pointer = (name: string) => tile.dispatchEvent(new PointerEvent(name, { bubbles: true }));
    box.focus();
    box.value = 'far';
    box.dispatchEvent(new Event('input', { bubbles: true }));
    pointer('pointerdown');
    tile.focus();
    await page.fixture.whenStable();
    expect(box.getAttribute('aria-invalid')).toBeNull();
    pointer('pointerup');
    await page.fixture.whenStable();
    expect(box.getAttribute('aria-invalid')).toBe('true');
    // pressed and come back into the box, it is not left
    box.focus();
    box.value = '91000';
    box.dispatchEvent(new Event('input', { bubbles: true }));
    pointer('pointerdown');
    tile.focus();
    box.focus();
    pointer('pointerup');
    expect(filedOf(state(), 'vehicle.odometer', undefined)?.value).not.toBe(91_000);
  });

  it('arrows walk over tiles and file nothing until one is pressed', async () => {
    const list = tiles('belt.back');
    list.focus();
    press(list, 'ArrowRight');
    press(list, 'ArrowRight');
    await page.fixture.whenStable();
    const second = list.querySelectorAll('[role=option]')[1]!;
    expect(list.getAttribute('aria-activedescendant')).toBe(second.id);
    expect(has(state(), 'belt.back')).toBeFalse();
    press(list, 'Enter');
    await until(() => has(state(), 'belt.back'));
    await page.fixture.whenStable();
    expect(picked('belt.back')).toEqual([second.getAttribute('aria-label')]);
  });

  it('several stay in hand, and nothing of it all is an answer too', async () => {
    const list = tiles('parts.sent');
    list.focus();
    press(list, 't');
    press(list, 'b');
    await until(() => (standing(state(), 'parts.sent')?.value as string[] | undefined)?.length === 2);
    expect(document.activeElement).toBe(list);
    press(list, 'b');
    await until(() => (standing(state(), 'parts.sent')?.value as string[]).length === 1);
    await page.fixture.whenStable();
    list.querySelector<HTMLElement>('[role=option]:last-child')!.click();
    await until(() => (standing(state(), 'parts.sent')?.value as string[]).length === 0);
  });

  it('F2 says how it is known, and files what stands anew with it', async () => {
    await desk.file({ key: 'vehicle.odometer', value: 5000, how: 'reported' });
    await page.fixture.whenStable();
    const box = page.one<HTMLInputElement>('input#field-vehicle-odometer');
    const mark = () => box.closest('.field')!.querySelector('.how')!;
    expect(mark().classList).toContain('usual');
    const ways = new Set<string>();
    for (let k = 0; k < 3; k++) {
      const before = standing(state(), 'vehicle.odometer')!.how;
      press(box, 'F2');
      await until(() => standing(state(), 'vehicle.odometer')!.how !== before);
      await page.fixture.whenStable();
      ways.add(standing(state(), 'vehicle.odometer')!.how);
    }
    expect(ways.size).toBe(3);
    expect(mark().classList).not.toContain('usual');
    expect(standing(state(), 'vehicle.odometer')!.value).toBe(5000);
  });

  it('keep plain letters from the desk while they have the focus, and no other key', () => {
    const commands = ['n', 's', '?', '2', 'Ctrl+K'].map((key) => ({ name: key, key, run: () => undefined }));
    const meant = (on: HTMLElement, init: KeyboardEventInit) => {
      const e = new KeyboardEvent('keydown', { ...init, bubbles: true });
      on.dispatchEvent(e);
      return commandFor(e, commands)?.key;
    };
    const list = tiles('belt.back');
    expect(meant(list, { key: 'n', code: 'KeyN' })).toBeUndefined();
    expect(meant(list, { key: '2', code: 'Digit2' })).toBe('2');
    expect(meant(list, { key: '?', code: 'Slash', shiftKey: true })).toBe('?');
    expect(meant(page.element, { key: 'n', code: 'KeyN' })).toBe('n');
  });
});

describe('a field without a desk', () => {
  beforeEach(() => openDesk(false));
  afterEach(closeDesk);

  it('shows any case, read-only, and files nothing', async () => {
    const facts = demoScenario().facts.filter((f) => f.case === 'demo-2036');
    const registry = new Map(OBSERVABLES.map((o) => [o.key, o]));
    const asked: unknown[] = [];
    const refuse = (what: unknown) => {
      asked.push(what);
      return Promise.resolve(ok([]));
    };
    const session: Session = {
      readOnly: true,
      observable: (key) => registry.get(key),
      state: () => reduce(facts),
      possible: () => ({ has: undefined }),
      drive: () => undefined,
      readContext: () => ({
        notation: METRIC,
        today: '2026-11-25',
        wheels: [],
        findRef: () => undefined,
        nearestRefs: () => [],
      }),
      show: (o, value, u) => showValue(o, value, METRIC, (_, key) => key, u),
      unit: () => 'mm',
      thing: () => '',
      codes: () => [],
      draft: () => '',
      keepDraft: (slot) => asked.push(slot),
      file: refuse,
      strike: refuse,
    };
    const length = await paint(Field, { session, key: 'chain.length' });
    const m = measuredOf(reduce(facts), registry, 'chain.length')!;
    expect(length.words).toContain(m.value.toFixed(2));
    expect(length.all('input, textarea, button').length).toBe(0);
    const symptom = await paint(Field, { session, key: 'symptom' });
    const list = symptom.one('[role=listbox]');
    press(list, 'l');
    symptom.one('[role=option][aria-label=Leak]').click();
    press(list, 'F2');
    expect(symptom.all('[aria-selected=true]').map((t) => t.getAttribute('aria-label'))).toEqual([
      'Noise from the drive',
    ]);
    expect(asked).toEqual([]);
  });
});
