import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { boxCode } from '@core/claim/box-code';
import { has, standing, textOf } from '@core/facts/read';
import type { CaseDesk } from '../data/case-desk';
import { DeskSession } from '../entry/desk-session';
import { Field } from '../entry/field';
import { closeDesk, openDesk, paint, type Painted, until } from '../testing/demo-desk';
import { Commands } from './commands';
import { Wedge } from './wedge';

@Component({
  selector: 'hs-test-bench',
  imports: [Field],
  providers: [Wedge],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<main tabindex="-1">
    @for (k of keys(); track k) {
      <hs-field [session]="session" [key]="k" />
    }
  </main>`,
})
class Bench {
  protected readonly session = inject(DeskSession);
  protected readonly wedge = inject(Wedge);
  readonly keys = input.required<readonly string[]>();
}

const press = (target: EventTarget, key: string) =>
  target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));

describe('what types like a keyboard', () => {
  let desk: CaseDesk;
  let page: Painted<Bench>;
  let heard: string[];
  const state = () => desk.current()!.state;
  const main = () => page.one('main');
  const box = (key: string) => page.one<HTMLInputElement>(`input#field-${key}`);
  /** Keys as a device sends them: a capital has a key of its own before it. */
  const scan = (target: EventTarget, text: string) => {
    for (const sign of text) {
      if (/[A-Z]/.test(sign)) press(target, 'Shift');
      press(target, sign);
    }
    press(target, 'Enter');
  };
  const listen = (e: KeyboardEvent) => heard.push(e.key);

  beforeEach(async () => {
    heard = [];
    desk = await openDesk();
    await desk.open('demo-2027');
    page = await paint(Bench, {
      keys: ['call.who', 'kit.lot', 'belt.width', 'vehicle.yearly', 'vehicle.odometer', 'belt.back'],
    });
    document.body.append(page.element);
    document.addEventListener('keydown', listen);
  });
  afterEach(async () => {
    document.removeEventListener('keydown', listen);
    page.element.remove();
    page.fixture.destroy();
    await closeDesk();
  });

  it('is heard wherever the focus is: a figure goes to the field that waits for one, and no key of it means anything else', async () => {
    main().focus();
    scan(main(), '21.85');
    await until(() => has(state(), 'belt.width'));
    expect(standing(state(), 'belt.width')).toEqual(
      jasmine.objectContaining({ value: 21.85, how: 'measured' }),
    );
    // only the Enter that files in its box is left
    expect(heard).toEqual(['Enter']);
  });

  it('prefers the figure that somebody was in last, and corrects none that is known', async () => {
    box('vehicle-yearly').focus();
    main().focus();
    scan(main(), '30000');
    await until(() => has(state(), 'vehicle.yearly'));
    expect(standing(state(), 'vehicle.yearly')!.value).toBe(30000);
    const known = standing(state(), 'vehicle.odometer')!.value;
    box('vehicle-odometer').focus();
    main().focus();
    scan(main(), '22.1');
    await until(() => has(state(), 'belt.width'));
    expect(standing(state(), 'vehicle.odometer')!.value).toBe(known);
    expect(has(state(), 'kit.lot')).toBeFalse();
  });

  it('fills kit and lot from a label, on the page and in a box of something else, which keeps what it had', async () => {
    main().focus();
    scan(main(), 'MF-K123-1|L2507');
    await until(() => textOf(state(), 'kit.number') === 'MF-K123-1');
    expect(textOf(state(), 'kit.lot')).toBe('L2507');
    const who = box('call-who');
    const before = textOf(state(), 'call.who');
    who.focus();
    who.value = `${before}MF-K121-1`;
    scan(who, 'MF-K121-1');
    await until(() => textOf(state(), 'kit.number') === 'MF-K121-1');
    expect(who.value).toBe(before!);
    expect(textOf(state(), 'call.who')).toBe(before);
  });

  it('gives keys of a hand on, and leaves letters of tiles and what is opened over the desk alone', async () => {
    main().focus();
    press(main(), '4');
    expect(heard).toEqual([]);
    await until(() => heard.length > 0);
    expect(heard).toEqual(['4']);
    // a letter on tiles is theirs
    const tiles = page.one('#field-belt-back');
    press(tiles, 'g');
    await until(() => textOf(state(), 'belt.back') === 'glazed');
    TestBed.inject(Commands).overlay.set('palette');
    heard = [];
    scan(main(), '2027');
    expect(heard.join('')).toBe('2027Enter');
    TestBed.inject(Commands).overlay.set(undefined);
    expect(has(state(), 'belt.width')).toBeFalse();
  });

  it('says when no field waits for what was read', async () => {
    await desk.file({ key: 'belt.width', value: 22, u: 0.05, how: 'measured' });
    await desk.file({ key: 'vehicle.yearly', value: 20000, how: 'reported' });
    const facts = state().log.length;
    main().focus();
    scan(main(), 'ZZ-99887');
    await until(() => document.body.textContent.includes('no field waits for it'));
    expect(state().log.length).toBe(facts);
  });

  it('the code of a box leads to its case from any box, which keeps what it had', async () => {
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const who = box('call-who').value;
    box('call-who').focus();
    for (const sign of boxCode('demo-2041', 'belt')) {
      press(box('call-who'), sign);
      box('call-who').value += sign;
    }
    press(box('call-who'), 'Enter');
    await until(() => navigate.calls.count() === 1);
    expect(navigate.calls.first().args[0]).toEqual(['/case', 'demo-2041', 'examine']);
    expect(box('call-who').value).toBe(who);
  });
});
