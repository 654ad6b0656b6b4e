import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import { has, standing } from '@core/facts/read';
import type { CaseDesk } from '../data/case-desk';
import { DeskSettingsStore } from '../data/desk-settings';
import { type Heard, SPEECH, type SpeechHearing } from '../instruments/speech';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { DeskSession } from './desk-session';
import { Field } from './field';

const KEY = 'claim.reason';

describe('dictation', () => {
  let desk: CaseDesk;
  let heard: Subject<Heard>;
  let stops: number;
  const open = async (here: boolean | undefined) => {
    heard = new Subject<Heard>();
    stops = 0;
    const speech: SpeechHearing | undefined =
      here === undefined
        ? undefined
        : {
            here,
            listen: (stop) => {
              stop.addEventListener('abort', () => stops++);
              return heard;
            },
          };
    desk = await openDesk(true, [{ provide: SPEECH, useValue: Promise.resolve(speech) }]);
    await desk.open('demo-2033');
    const field = await paint(Field, { session: TestBed.inject(DeskSession), key: KEY });
    await field.fixture.whenStable();
    return field;
  };
  const button = (field: Awaited<ReturnType<typeof open>>) =>
    field.all('hs-dictate button')[0] as HTMLButtonElement | undefined;
  afterEach(closeDesk);

  it('is not offered where the browser hears nothing', async () => {
    expect(button(await open(undefined))).toBeUndefined();
  });

  it('writes what stays where the cursor is, and files it as if it had been typed', async () => {
    const field = await open(true);
    const box = field.one<HTMLTextAreaElement>('textarea');
    box.value = 'Seen: . Nothing else.';
    box.dispatchEvent(new Event('input'));
    box.focus();
    box.setSelectionRange(5, 6);
    button(field)!.click();
    heard.next({ kind: 'hearing', words: 'the guide' });
    await field.fixture.whenStable();
    expect(field.words).toContain('the guide');
    expect(box.value).toBe('Seen: . Nothing else.');
    heard.next({ kind: 'said', words: 'the guide is' });
    heard.next({ kind: 'said', words: 'worn through' });
    expect(box.value).toBe('Seen: the guide is worn through. Nothing else.');
    expect(has(desk.current()!.state, KEY)).toBeFalse();
    box.blur();
    expect(stops).toBe(1);
    await until(() => has(desk.current()!.state, KEY));
    expect(standing(desk.current()!.state, KEY)!.value).toBe(
      'Seen: the guide is worn through. Nothing else.',
    );
  });

  it('asks before words leave this machine, once, and listens not before that', async () => {
    const field = await open(false);
    const asked = () => [...document.querySelectorAll<HTMLElement>('.ant-popover-buttons button')];
    const settings = TestBed.inject(DeskSettingsStore).settings;
    button(field)!.click();
    await until(() => asked().length === 2);
    expect([heard.observed, settings().dictation]).toEqual([false, 'here']);
    asked()[0]!.click();
    await field.fixture.whenStable();
    expect([heard.observed, settings().dictation]).toEqual([false, 'here']);
    button(field)!.click();
    await until(() => asked().length === 2);
    asked()[1]!.click();
    await until(() => heard.observed);
    expect(settings().dictation).toBe('service');
    await field.fixture.whenStable();
    button(field)!.click();
    expect(stops).toBe(1);
    heard.next({ kind: 'ended' });
    await field.fixture.whenStable();
    button(field)!.click();
    expect(heard.observed).toBeTrue();
  });

  it('says why it ended, and lets go when the field does', async () => {
    const field = await open(true);
    button(field)!.click();
    heard.next({ kind: 'ended', why: 'no_microphone' });
    await field.fixture.whenStable();
    const says = () => field.one('hs-dictate [role=status]').textContent.trim();
    expect(says()).not.toBe('');
    heard = new Subject();
    button(field)!.click();
    await field.fixture.whenStable();
    expect(says()).toBe('');
    expect(heard.observed).toBeTrue();
    field.fixture.destroy();
    expect(heard.observed).toBeFalse();
  });
});
