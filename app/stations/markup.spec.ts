import { TestBed } from '@angular/core/testing';
import type { Type } from '@angular/core';
import type { NewFact } from '@core/facts/change';
import { oldThing } from '@core/facts/thing';
import { CaseFiles } from '../commands/case-files';
import { Notices } from '../commands/notices';
import { Sheets } from '../commands/sheets';
import type { CaseDesk } from '../data/case-desk';
import { FactRepository } from '../data/fact-repository';
import { DeskSettingsStore } from '../data/desk-settings';
import { sheetHtml } from '../report/sheet-html';
import { CasePage } from '../shell/case-page';
import { Rack } from '../shell/rack';
import { Tape } from '../shell/tape';
import { WelcomePage } from '../shell/welcome-page';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { CASE_PAGES } from '../testing/pages';

/** Markup that would show as elements of its own wherever it is not taken as text. */
const MARKUP =
  '<form class="injected"><b class="injected">Sign in</b><img class="injected" src="data:,"></form>';
const PAGES: readonly Type<unknown>[] = [...CASE_PAGES, Rack, Tape, WelcomePage];
const injected = (root: ParentNode = document) => root.querySelectorAll('.injected').length;

describe('markup in text', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  it('is text in every field, note, name of a thing, of a file and of a person, on every page and on the sheet', async () => {
    const settings = TestBed.inject(DeskSettingsStore);
    settings.change({ by: MARKUP.slice(0, 100) });
    await desk.open('demo-2036');
    const paper = (await TestBed.inject(Sheets).paper())!;
    const texts = [...desk.registry().values()].filter(
      (o) => o.type.kind === 'text' && o.station !== undefined,
    );
    const entries = texts.map(
      (o): NewFact => ({
        key: o.key,
        value: MARKUP,
        how: 'reported',
        note: MARKUP,
        ...(o.part === 'old' ? { about: oldThing('tensioner') } : {}),
      }),
    );
    const file = { hash: 'a'.repeat(64), name: MARKUP, type: 'image/png', bytes: 3 };
    const part = (key: string, value: string): NewFact => ({ about: 'tensioner-2', key, value, how: 'seen' });
    const filed = await desk.fileAll([
      part('thing.kind', 'tensioner'),
      part('thing.place', MARKUP),
      part('thing.number', MARKUP),
      ...entries.filter((e) => e.key !== 'case.catalogue' && e.key !== 'case.rules'),
      { key: 'thing.file', about: 'tensioner', value: MARKUP, how: 'seen', files: [file] },
    ]);
    expect(filed.ok).toBeTrue();
    let shown = 0;
    for (const page of PAGES) {
      const painted = await paint(page);
      expect(injected(painted.element)).withContext(page.name).toBe(0);
      const boxes = painted.all('input, textarea').map((b) => (b as HTMLInputElement).value);
      if (painted.words.includes('class="injected"') || boxes.some((b) => b.includes('class="injected"')))
        shown++;
    }
    const whole = await paint(CasePage, { id: 'demo-2036' });
    expect(injected(whole.element)).toBe(0);
    expect(texts.length).toBeGreaterThan(8);
    // it was there to be seen
    expect(shown).toBeGreaterThan(4);
    const html = new DOMParser().parseFromString(
      sheetHtml({ ...paper, name: MARKUP, kit: MARKUP, parts: [MARKUP], tools: [MARKUP] }, ''),
      'text/html',
    );
    expect(injected(html)).toBe(0);
    expect(html.body.textContent).toContain('class="injected"');
  });

  it('is text in what is said of files that came in, by their names, formats and ids', async () => {
    const files = TestBed.inject(CaseFiles);
    const repository = TestBed.inject(FactRepository);
    const facts = await repository.factsOf('demo-2041');
    const contents = [
      '{',
      JSON.stringify({ format: MARKUP }),
      JSON.stringify({ format: 'hollow-sprocket-case', formatVersion: 3, [MARKUP]: 1 }),
      JSON.stringify({
        format: 'hollow-sprocket-desk',
        formatVersion: 1,
        exportedAt: '2026-11-25T10:00:00.000Z',
        drafts: {},
        facts: [
          { ...facts[0], id: MARKUP.slice(0, 70) },
          { ...facts[0], id: MARKUP.slice(0, 70) },
        ],
      }),
    ];
    const said = spyOn(TestBed.inject(Notices), 'say').and.callThrough();
    for (const text of contents) await files.open(new File([text], `${MARKUP}.json`));
    await files.open(new File(['no zip'], `${MARKUP}.zip`));
    expect(said.calls.count()).toBe(contents.length + 1);
    await until(() => document.body.textContent.includes('class="injected"'));
    expect(injected()).toBe(0);
  });
});
