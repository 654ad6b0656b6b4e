import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { factsOf } from '@core/facts/read';
import { Commands } from '../commands/commands';
import type { CaseDesk } from '../data/case-desk';
import { Cases } from '../data/cases';
import { FactRepository } from '../data/fact-repository';
import { DeskSettingsStore } from '../data/desk-settings';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { PLACE_KEYS, placeOf } from '../messages/keys';
import { AnswerNews } from './answer-news';
import { BeginLine } from './begin-line';
import { HelpStrip } from './help-strip';
import { SettingsDialog } from './settings-dialog';
import { Rack } from './rack';
import { Tape } from './tape';
import { WelcomePage } from './welcome-page';

const key = (e: HTMLElement, k: string, code = 0) =>
  e.dispatchEvent(new KeyboardEvent('keydown', { key: k, keyCode: code, bubbles: true, cancelable: true }));

describe('the frame', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  it('speaks what a fact changed in the answers once, and nothing of another case', async () => {
    await desk.open('demo-2041');
    const news = await paint(AnswerNews);
    const said = () => news.one('[role=status]').textContent;
    const turn = () => new Promise((done) => setTimeout(done, 0));
    await turn();
    expect(said()).toBe('');
    await desk.file({ key: 'feature.cover-screws', value: 'seven', how: 'reported' });
    await until(() => said() !== '');
    const first = said();
    expect(first).toContain('second design, 123 teeth');
    // what changes no answer says nothing new
    await desk.file({ key: 'vehicle.market', value: 'coast', how: 'reported' });
    await news.fixture.whenStable();
    await turn();
    expect(said()).toBe(first);
    await desk.open('demo-2027');
    await news.fixture.whenStable();
    expect(said()).toBe(first);
  });

  it('lists what is to be done, what is sealed not, goes to the station that lacks, and narrows to one task', async () => {
    const page = await paint(WelcomePage);
    const lines = (region: string) =>
      page.all(`section[aria-label="${region}"] .line`) as unknown as HTMLAnchorElement[];
    const summaries = TestBed.inject(Cases).summaries();
    const waiting = summaries.filter((h) => h.waits !== 'sealed');
    expect(waiting.length).toBeLessThan(summaries.length);
    const tags = () => lines('To do').map((l) => l.querySelector('b')!.textContent);
    // what is not due yet stands behind one press, which says how much it is
    const later = page.all('section[aria-label="To do"] [aria-expanded]')[0]!;
    expect(tags().length).toBeLessThan(waiting.length);
    expect(later.textContent).toContain(String(waiting.length - tags().length));
    later.click();
    await page.fixture.whenStable();
    expect(tags().sort()).toEqual(waiting.map((h) => h.tag).sort());
    for (const l of lines('To do')) {
      const summary = summaries.find((h) => h.tag === l.querySelector('b')!.textContent)!;
      if (['call', 'identify', 'examine', 'cause'].includes(summary.waits))
        expect(l.getAttribute('href')).toBe(`/case/${summary.id}/${summary.waits}`);
    }
    expect(lines('What came in last').length).toBe(Math.min(6, summaries.length));
    for (const button of page.all('section[aria-label="To do"] [aria-pressed]')) {
      button.click();
      await page.fixture.whenStable();
      expect(lines('To do').length).toBe(Number(button.querySelector('b')!.textContent));
      button.click();
      await page.fixture.whenStable();
    }
    expect(tags().length).toBe(waiting.length);
  });

  it('begins a case with an engine that is meant, else with the words as a message', async () => {
    const line = await paint(BeginLine);
    const box = line.one<HTMLTextAreaElement>('textarea');
    const type = async (text: string) => {
      box.value = text;
      box.dispatchEvent(new Event('input'));
      await line.fixture.whenStable();
    };
    await type('2036');
    expect(line.all('[role=option]')[0]!.textContent).toContain('Case 2036');
    await type('rattles on cold mornings');
    expect(line.all('[role=option]').length).toBe(1);
    key(box, 'Enter');
    await until(() => desk.current() !== undefined);
    expect(factsOf(desk.current()!.state, 'call.message').map((f) => f.value)).toEqual([
      'rattles on cold mornings',
    ]);
    await until(() => TestBed.inject(Router).url.endsWith('/call'));
    // Enter that comes before the offers are painted loses nothing either
    const before = desk.currentId();
    box.value = 'it leaks at the front';
    box.dispatchEvent(new Event('input'));
    key(box, 'Enter');
    await until(() => desk.current() !== undefined && desk.currentId() !== before);
    expect(factsOf(desk.current()!.state, 'call.message').map((f) => f.value)).toEqual([
      'it leaks at the front',
    ]);
    // arrows walk to another offer
    await type('2036');
    key(box, 'ArrowDown', 40);
    key(box, 'ArrowDown', 40);
    await line.fixture.whenStable();
    expect(box.getAttribute('aria-activedescendant')).toBe(line.all('[role=option]')[1]!.id);
  });

  it('shows the tags of a short rack as they are, of a long one those in sight, and the one in hand among them', async () => {
    const rack = await paint(Rack);
    rack.element.style.height = '600px';
    const cases = TestBed.inject(Cases);
    const all = cases.summaries();
    expect(rack.all('a.tag').length).toBe(all.length);
    // two thousand more than the rack shows at once
    const many = Array.from({ length: 2000 }, (_, i) => ({ ...all[0]!, id: `far-${i}`, tag: `far ${i}` }));
    TestBed.inject(FactRepository).tell({ grown: [], packs: [], extracts: [], summaries: many });
    await rack.fixture.whenStable();
    await until(() => rack.all('hs-rack-list').length === 1);
    await desk.open('demo-2041');
    await until(() => rack.all('a.tag[aria-current]').length === 1);
    expect(rack.one('a.tag[aria-current]').getAttribute('href')).toContain('demo-2041');
    expect(rack.all('a.tag').length).toBeLessThan(many.length);
  });

  it('narrows rack and tape, keeps it, and opens the tape for whoever wants the fact line', async () => {
    await desk.open('demo-2041');
    const [rack, tape] = [await paint(Rack), await paint(Tape)];
    const settings = TestBed.inject(DeskSettingsStore);
    for (const part of ['rack', 'tape'] as const) settings.flip(part);
    await rack.fixture.whenStable();
    await tape.fixture.whenStable();
    // in a narrow window the rack lies on top, and stays whole
    const narrow = matchMedia('(max-width: 900px)').matches;
    expect(rack.element.classList.contains('rail')).toBe(!narrow);
    expect(tape.words).toMatch(/\d+ facts/);
    expect(tape.all('ol').length).toBe(0);
    settings.settings.update((s) => ({ ...s, rack: 'whole' }));
    await settings.load();
    expect(settings.settings().rack).toBe('rail');
    TestBed.inject(Commands).factLineAsked.set(true);
    await tape.fixture.whenStable();
    expect(tape.all('ol').length).toBe(1);
  });

  it('puts the help of the field in focus on one strip, and the usual keys where there is none', async () => {
    const strip = await paint(HelpStrip);
    const main = document.createElement('main');
    main.innerHTML = `<div data-field="lacks"><span class="label">Guide rail, left</span>
      <input id="x" aria-describedby="x-help"><span id="x-help">Look along it.</span></div><button>b</button>`;
    document.body.append(main);
    main.querySelector('input')!.focus();
    await strip.fixture.whenStable();
    expect(strip.words).toContain('Look along it.');
    expect(strip.words).toContain('guide: ');
    main.querySelector('button')!.focus();
    await strip.fixture.whenStable();
    expect(strip.words).not.toContain('Look along it.');
    expect(strip.words).toContain('F2');
    main.remove();
  });

  it('keeps a house setting at once, shows what is kept, and refuses an empty name', async () => {
    const settings = TestBed.inject(DeskSettingsStore);
    const dialog = await paint(SettingsDialog);
    TestBed.inject(Commands).overlay.set('settings');
    await until(() => document.querySelector('#settings-by') !== null);
    await dialog.fixture.whenStable();
    const by = document.querySelector<HTMLInputElement>('#settings-by')!;
    const type = async (text: string) => {
      by.value = text;
      by.dispatchEvent(new Event('input'));
      await dialog.fixture.whenStable();
    };
    expect(by.value).toBe(settings.settings().by);
    await type('Ida Fennimore');
    expect(settings.settings().by).toBe('Ida Fennimore');
    await type('');
    expect(settings.settings().by).toBe('Ida Fennimore');
    // an empty name does not keep another setting back
    [...document.querySelectorAll<HTMLElement>('.ant-segmented-item')]
      .find((e) => e.textContent.includes('gloves'))!
      .click();
    await until(() => settings.settings().density === 'large');
    expect(document.documentElement.dataset['density']).toBe('large');
    // a second opening begins with what is kept
    await type('');
    by.dispatchEvent(new Event('blur'));
    await dialog.fixture.whenStable();
    expect(by.value).toBe('Ida Fennimore');
    TestBed.inject(Commands).close('settings');
  });

  it('tells the keys of each place apart', () => {
    expect(['/', '/case/x/fit', '/case/x/drive', '/drive', '/catalogue'].map(placeOf)).toEqual([
      'start',
      'case',
      'drive',
      'drive',
      'catalogue',
    ]);
    for (const keys of Object.values(PLACE_KEYS)) expect(keys.length).toBeGreaterThan(0);
  });
});
