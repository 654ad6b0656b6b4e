import { TestBed } from '@angular/core/testing';
import { Database } from '../data/database';
import { DeskSettingsStore } from '../data/desk-settings';
import { WordTrial } from '../data/word-trial';
import type { CaseDesk } from '../data/case-desk';
import { wordsInAll } from '../workers/words-all';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { WordsPage } from './words-page';

const WORD = { phrase: 'like a bottle brush', key: 'belt.edge_front', option: 'frayed' };
const QUIET = { progress: () => undefined, cancelled: () => false };

describe('words of the house', () => {
  let desk: CaseDesk;
  const settings = () => TestBed.inject(DeskSettingsStore);
  const db = () => TestBed.inject(Database).read((d) => Promise.resolve(d));
  const ask = (after: (typeof WORD)[]) => ({
    before: [],
    after,
    notation: settings().notation(),
    today: '2026-11-25',
    chosen: {},
  });
  beforeEach(async () => {
    desk = await openDesk();
    for (const value of [
      'TE16-CORM. One side is like a bottle brush.',
      'OL25-FLET. Which kit? The hose of the pump was off.',
    ])
      await desk.newCase([{ key: 'call.message', value, how: 'reported', series: 'messages' }]);
  });
  afterEach(async () => {
    settings().change({ taught: [] });
    await closeDesk();
  });

  it('are tried on all kept messages: what would change, and what nothing takes, with progress and cancel', async () => {
    const told: number[] = [];
    const all = await wordsInAll(await db(), ask([WORD]), {
      progress: (n) => told.push(n),
      cancelled: () => false,
    });
    expect(all.messages).toBe(2);
    expect(told.at(-1)).toBe(all.messages);
    expect(all.changed.map((c) => c.tag).length).toBe(1);
    expect(all.untaken.map((u) => u.text).join()).toContain('hose of the pump');
    const none = await wordsInAll(await db(), ask([]), QUIET);
    expect(none.changed).toEqual([]);
    const cut = await wordsInAll(await db(), ask([WORD]), { ...QUIET, cancelled: () => true });
    expect(cut.messages).toBe(0);
  });

  it('are kept, listed, removed, taken out and read in; a word is taken only after it was tried', async () => {
    settings().change({ taught: [WORD] });
    const page = await paint(WordsPage, { phrase: 'toothbrush side' });
    expect(page.words).toContain('“like a bottle brush”');
    expect(page.one<HTMLInputElement>('.phrase input').value).toBe('toothbrush side');
    // nothing is said of it yet: it can neither be tried nor taken
    const buttons = page.all('[aria-label="Teach a word"] button') as HTMLButtonElement[];
    expect(buttons.map((b) => b.disabled)).toEqual([true, true]);
    await page.press('Remove');
    expect(settings().settings().taught).toEqual([]);
    expect(page.words).toContain('No word was taught yet');
    // a file: one word that can be taken, one that cannot
    const file = (words: unknown[]) =>
      new File([JSON.stringify({ format: 'hollow-sprocket-words', formatVersion: 1, words })], 'w.json');
    const component = page.fixture.componentInstance as unknown as { import(f: File[]): Promise<void> };
    await component.import([file([WORD, { ...WORD, phrase: 'x y z', option: 'purple' }])]);
    expect(settings().settings().taught).toEqual([WORD]);
    await component.import([new File(['{'], 'broken.json')]);
    expect(settings().settings().taught).toEqual([WORD]);
    expect(TestBed.inject(WordTrial).answer()).toBeUndefined();
    await until(() => page.words.includes('like a bottle brush'));
  });
});
