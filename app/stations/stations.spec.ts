import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { Drafts } from '../data/drafts';
import { closeDesk, failWrites, openDesk, paint, until } from '../testing/demo-desk';
import type { CaseDesk } from '../data/case-desk';
import { Commands } from '../commands/commands';
import { commandFor } from '../shell/keyboard';
import { Palette } from '../shell/palette';
import { Rack } from '../shell/rack';
import { Tape } from '../shell/tape';
import { FactLine } from '../entry/fact-line';
import { CausePage } from './cause/cause-page';
import { CheckPanel } from './fit/check-panel';
import { JobPanel } from './identify/job-panel';
import { IdentifyPage } from './identify/identify-page';
import { SettlePage } from './settle/settle-page';
import { has, standing as standingOf } from '@core/facts/read';

describe('stations', () => {
  let desk: CaseDesk;
  const standing = (key: string) => standingOf(desk.current()!.state, key);
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  it('Identify: asks the cheapest telling question, answers in three values, and follows an answer', async () => {
    await desk.open('demo-2041');
    const page = await paint(IdentifyPage);
    expect(page.words).toContain('Ask next 3 minutes');
    expect(page.words).toMatch(/MF-K121-1.*\? Fits if/);
    await desk.file({ key: 'feature.cover-screws', value: 'seven', how: 'reported' });
    await page.fixture.whenStable();
    expect(page.words).toContain('One design is left');
    expect(page.words).toMatch(/MF-K123-1.*✓ Fits/);
    expect(page.words).toMatch(/MF-K121-1.*✕ Does not fit/);
    expect((await paint(JobPanel)).words).toContain('What the job needs with kit MF-K123-1');
  });

  it('Identify: shows facts that rule everything out instead of choosing', async () => {
    await desk.open('demo-2041');
    await desk.file({ key: 'feature.cover-screws', value: 'seven', how: 'reported' });
    await desk.file({ key: 'feature.guide-roller', value: 'steel', how: 'seen' });
    const page = await paint(IdentifyPage);
    expect(page.words).toContain('The facts rule out every design.');
  });

  it('Fit: puts what a mark must show beside the field, and a caution where it does not', async () => {
    await desk.open('demo-2044');
    const page = await paint(CheckPanel);
    expect(page.words).toContain('Right upper cam: 0.46 teeth ahead');
    await desk.file({ key: 'mark.right-upper', value: 1.46, u: 0.05, how: 'seen' });
    await page.fixture.whenStable();
    expect(page.words).toContain('✕ 1 tooth out, advanced');
    expect(page.all('.caution').some((c) => c.textContent.includes('No go, 1 of 4 marks'))).toBeTrue();
  });

  it('Cause: takes the leader at once, another only with a reason', async () => {
    await desk.open('demo-2036');
    const page = await paint(CausePage);
    page
      .all('button')
      .find((b) => b.textContent.includes('each below'))!
      .click();
    await page.fixture.whenStable();
    const second = page.all('.cause')[1]!;
    second.click();
    await page.fixture.whenStable();
    await page.press('Decide:');
    expect(standing('cause.decided')).toBeUndefined();
    // the reason is typed, and Enter decides
    await page.type('Not the leader', 'Bearing was seized when it came.');
    await until(() => standing('cause.decided') !== undefined);
    expect(standing('cause.decided')).toEqual(
      jasmine.objectContaining({ how: 'decided', note: 'Bearing was seized when it came.' }),
    );
    expect(standing('cause.decided')!.value).not.toBe('guide_worn');
  });

  it('Cause: proposes why nothing can be decided, from the rivals as they stand, and keeps what was typed over it', async () => {
    await desk.open('demo-2038');
    const page = await paint(CausePage);
    const rivals = desk.current()!.answers!.ranking.causes.filter((c) => c.probability >= 0.1);
    page
      .all('.cause')
      .find((b) => b.textContent.includes('Undecidable'))!
      .click();
    await page.fixture.whenStable();
    const reason = page.one<HTMLInputElement>('#overrule');
    for (const r of rivals.slice(0, 4))
      if (rivals.length > 1) expect(reason.value).toContain(r.cause.wording);
    reason.value = 'The sprockets stayed with the car.';
    reason.dispatchEvent(new Event('input'));
    await desk.file({ key: 'belt.width', value: 25, how: 'measured' });
    await page.fixture.whenStable();
    expect(reason.value).toBe('The sprockets stayed with the car.');
    const mend = failWrites('QuotaExceededError');
    await page.press('Decide: Undecidable');
    await until(() => page.all('[role=alert]').length > 0);
    await page.fixture.whenStable();
    expect(reason.value).toBe('The sprockets stayed with the car.');
    mend();
    await page.press('Decide: Undecidable');
    await until(() => standing('cause.decided') !== undefined);
    expect(standing('cause.decided')).toEqual(
      jasmine.objectContaining({ value: 'undecidable', note: 'The sprockets stayed with the car.' }),
    );
  });

  it('Settle: will not issue a decline on stories, and says what is missing', async () => {
    await desk.open('demo-2033');
    const page = await paint(SettlePage);
    await desk.file({ key: 'claim.decision', value: 'decline', how: 'decided' });
    await page.fixture.whenStable();
    expect(page.words).toContain('Declining needs an alternative cause that was considered.');
    const issue = page.all('button').find((b) => b.textContent.includes('Seal and issue'))!;
    expect((issue as HTMLButtonElement).disabled).toBeTrue();
  });
});

describe('the frame', () => {
  let desk: CaseDesk;
  beforeEach(async () => {
    desk = await openDesk();
    await desk.open('demo-2027');
  });
  afterEach(closeDesk);

  it('rack: newest on top, each with what it waits for, found by any fact', async () => {
    const rack = await paint(Rack);
    expect(rack.all('.tag b').map((b) => b.textContent)).toEqual([
      '2044',
      '2041',
      '2038',
      '2036',
      '2033',
      '2027',
    ]);
    expect(rack.all('.tag').at(-1)!.textContent).toContain('settled, sealed');
    // its filter comes once it stands
    await until(() => rack.all('input[type=search]').length === 1);
    const find = rack.one<HTMLInputElement>('input[type=search]');
    find.value = 'stoa';
    find.dispatchEvent(new Event('input'));
    await rack.fixture.whenStable();
    expect(rack.all('.tag b').map((b) => b.textContent)).toEqual(['2036']);
    find.value = 'no such thing';
    find.dispatchEvent(new Event('input'));
    await rack.fixture.whenStable();
    expect(rack.words).toContain('No case holds that.');
  });

  it('tape: a fact opens to what it moved, and can be struck', async () => {
    const tape = await paint(Tape);
    const line = tape.all('.line').find((l) => l.textContent.includes('Pointer, as found'))!;
    line.click();
    await tape.fixture.whenStable();
    expect(tape.one('.moved').textContent).toMatch(/Setting shown.*wrong way/);
    await tape.press('Strike this fact');
    await until(() => !has(desk.current()!.state, 'tensioner.pointer'));
    await tape.fixture.whenStable();
    expect(tape.all('.line').some((l) => l.textContent.includes('Pointer, as found'))).toBeFalse();
  });

  it('fact line: completes, previews with the unit, files on Enter, and keeps half a thought', async () => {
    const line = await paint(FactLine);
    const box = line.one<HTMLInputElement>('#fact-line');
    const type = async (text: string, key?: string) => {
      box.value = text;
      box.dispatchEvent(new Event('input'));
      if (key) box.dispatchEvent(new KeyboardEvent('keydown', { key }));
      await line.fixture.whenStable();
    };
    await type('mach');
    expect(line.words).toContain('Machined off, cylinder head');
    await type('machined cylinder head 0.4');
    expect(line.words).toMatch(/Enter files: Machined off, cylinder head = 0\.40\s±\s0\.05\smm · reported/);
    await type('machined cylinder head 9');
    expect(line.words).toContain('9 is outside');
    await type('machined cylinder head 0.4', 'Enter');
    await until(() => has(desk.current()!.state, 'bank.nearer', 'bank:head'));
    expect(standingOf(desk.current()!.state, 'bank.nearer', 'bank:head')!.value).toBe(0.4);
    await type('mark cam spr');
    expect(TestBed.inject(Drafts).read('demo-2027', 'fact-line')).toBe('mark cam spr');
  });

  it('keys: one for each command, none while typing except the finder', () => {
    const list = TestBed.inject(Commands).list();
    const keys = list.flatMap((c) => (c.key ? [c.key] : []));
    expect(new Set(keys).size).toBe(keys.length);
    const press = (key: string, target: EventTarget, ctrlKey = false, shiftKey = false) => {
      const e = new KeyboardEvent('keydown', { key, ctrlKey, shiftKey });
      Object.defineProperty(e, 'target', { value: target });
      return commandFor(e, list)?.name;
    };
    expect(press('v', document.body)).toBe('Drive bench of this case');
    expect(press('v', document.createElement('input'))).toBeUndefined();
    expect(press('k', document.createElement('input'), true)).toBe('Find by name');
    expect(press('z', document.body, true)).toBe('Undo the last fact');
    expect(press('Z', document.body, true, true)).toBe('Redo');
    // with Shift or without, as the keyboard's layout has it
    expect([press('?', document.body, false, true), press('?', document.body)]).toEqual(['Keys', 'Keys']);
    expect(press('n', document.body, true)).toBeUndefined();
  });

  it('finder: opens cases, commands and engines by what they are called', async () => {
    const palette = await paint(Palette);
    const commands = TestBed.inject(Commands);
    commands.overlay.set('palette');
    const over = () => document.querySelector('.cdk-overlay-container') ?? document.body;
    const options = () => [...over().querySelectorAll('[role=option]')];
    await until(() => over().querySelector('[role=combobox]') !== null);
    const box = over().querySelector<HTMLInputElement>('[role=combobox]')!;
    expect(box.closest('[role=dialog]')?.getAttribute('aria-label')).toBe('Find by name');
    const found = async (typed: string) => {
      box.value = typed;
      box.dispatchEvent(new Event('input'));
      await palette.fixture.whenStable();
      return options().map((o) => o.textContent.trim());
    };
    expect((await found('2036')).length).toBe(1);
    expect((await found('drive bench')).length).toBe(2);
    expect(await found('nothing like it')).toEqual([]);
    // what quick hands typed before it was there, Enter too, is done when it opens
    commands.close('palette');
    await until(() => over().querySelector('[role=combobox]') === null);
    commands.typedAhead.set('2036\n');
    commands.overlay.set('palette');
    await until(() => TestBed.inject(Router).url.startsWith('/case/demo-2036/'));
    expect(commands.overlay()).toBeUndefined();
  });
});
