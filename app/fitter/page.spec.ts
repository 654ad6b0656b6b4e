import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { reduce } from '@core/facts/state';
import { fileFacts } from '@core/facts/change';
import { fittedAs } from '@core/fitting/fitted';
import { makeSheet } from '@core/fitting/sheet';
import { readReturn } from '@core/fitting/sheet-return';
import { policyWith } from '@core/policy/policy';
import { sheetHtml } from '../report/sheet-html';
import { sheetPaper } from '../report/sheet-paper';

const cat = catalogueOf(demoPack());
const variant = cat.variants.get('TE16-CORM/A')!;
const stages = stagesFor(cat, variant.layout!);
const policy = policyWith({ locking_tools: 'substitutes' });
const sheet = makeSheet(cat, variant, stages, policy);
const head = { tag: '7', engine: 'E', design: 'D', kit: 'K', to: '', by: 'me', day: '2026-11-26' };

/** The sheet as it lies on a telephone: its markup in this page, its script run once. */
describe('a sheet on a telephone', () => {
  let host: HTMLElement;
  /** The page as it was before anything was pressed. */
  let begun: { bar: string; steps: number; places: number };
  const one = <T extends HTMLElement>(selector: string) => host.querySelector<T>(selector)!;
  const step = (id: string) => one(`article[data-step="${id}"]`);
  const answer = (id: string, went: string) => {
    const radio = step(id).querySelector<HTMLInputElement>(`.ways [value=${went}]`)!;
    radio.checked = true;
    radio.dispatchEvent(new Event('change'));
  };
  const type = (box: HTMLInputElement | HTMLTextAreaElement, text: string) => {
    box.value = text;
    box.dispatchEvent(new Event('change'));
  };
  const home = { caseId: 'case-7', sheet, state: reduce([]) };
  const kept = () => Object.keys(localStorage).filter((k) => k.startsWith('fitting-sheet-'));
  const said = () => {
    const read = readReturn(one('#code').textContent, home);
    if (!read.ok) throw new Error(read.error.code);
    let n = 0;
    const author = { by: 'T', now: () => new Date(++n).toISOString(), newId: () => `i${++n}` };
    return fittedAs(sheet, reduce(fileFacts(home.state, 'case-7', read.value.entries, author)), policy)!;
  };

  beforeAll(async () => {
    for (const k of kept()) localStorage.removeItem(k);
    const paper = sheetPaper('case-7', head, sheet, stages, policy, []);
    const doc = new DOMParser().parseFromString(sheetHtml(paper, ''), 'text/html');
    host = document.createElement('div');
    host.append(...[...doc.body.childNodes].map((x) => document.importNode(x, true)));
    document.body.append(host);
    await import('./page');
    const read = readReturn(one('#code').textContent, home);
    begun = {
      bar: one('#bar').textContent,
      steps: read.ok ? read.value.steps : -1,
      places: host.querySelectorAll('.place:not([hidden])').length,
    };
  });
  afterAll(() => host.remove());

  it('begins empty: nothing is answered, and nothing is evidence', () => {
    expect(begun).toEqual({ bar: `0 of ${sheet.steps.length} steps answered`, steps: -1, places: 0 });
    expect(one('#qr').querySelector('svg')).not.toBeNull();
  });

  it('keeps the order in which steps are confirmed, and a place that is corrected', () => {
    const mine = ['ready.info', 'ready.battery', 'open.access', 'open.record'];
    const done = () => said().performed.done.filter((id) => mine.includes(id));
    const [info, battery, access, compare] = mine as [string, string, string, string];
    for (const id of mine) answer(id, 'done');
    expect(done()).toEqual(mine);
    const place = (id: string) => step(id).querySelector<HTMLInputElement>('[data-place]')!;
    type(place(compare), '1');
    expect(done()).toEqual([compare, info, battery, access]);
    expect(Number(place(info).value)).toBeGreaterThan(1);
    answer(battery, 'skipped');
    expect(done()).toEqual([compare, info, access]);
    expect(said().performed.skipped.has(battery)).toBeTrue();
    expect(step(battery).querySelector<HTMLElement>('.place')!.hidden).toBeTrue();
  });

  it('takes figures as people write them, points out what is none, and tells a substitute with its fault', () => {
    answer('ready.cold', 'done');
    const box = step('ready.cold').querySelector<HTMLInputElement>('[data-ask=over]')!;
    type(box, '2,5');
    expect(said().said.get('ready.cold')!.values['over']).toBe(2.5);
    type(box, 'warm');
    expect(box.getAttribute('aria-invalid')).toBe('true');
    expect(said().said.get('ready.cold')!.values['over']).toBeUndefined();
    type(step('ready.cold').querySelector<HTMLInputElement>('[data-ask=stood]')!, '20');
    expect(said().faults.map((f) => f.code)).toContain('SET-HOT');
    answer('place.lock', 'done');
    const used = step('place.lock').querySelectorAll<HTMLInputElement>('.tools input')[1]!;
    used.checked = true;
    used.dispatchEvent(new Event('change'));
    const odd = said().odd.find((o) => o.code === 'substitute');
    expect(odd).toEqual(
      jasmine.objectContaining({
        accepted: true,
        tool: sheet.steps.find((s) => s.id === 'place.lock')!.tool!.instead![0]!.name,
      }),
    );
  });

  it('keeps what was entered in the browser, and saves the same as the code says, with name and remarks', async () => {
    type(one<HTMLInputElement>('#fitter'), ' Wren Oxley ');
    answer('ready.info', 'done');
    type(step('ready.info').querySelector<HTMLTextAreaElement>('[data-note]')!, 'page torn');
    expect(kept().length).toBe(1);
    let saved: Blob | undefined;
    spyOn(URL, 'createObjectURL').and.callFake((b) => {
      saved = b as Blob;
      return 'blob:none';
    });
    const press = spyOn(HTMLAnchorElement.prototype, 'click');
    one('#save').click();
    expect(press).toHaveBeenCalledTimes(1);
    const file = await saved!.text();
    const [asFile, asCode] = [readReturn(file, home), readReturn(one('#code').textContent, home)];
    if (!asFile.ok || !asCode.ok) return fail('refused');
    const bare = (r: typeof asFile) =>
      r.value.entries
        .filter((e) => e.key.startsWith('step.') && e.key !== 'step.note')
        .map((e) => [e.about, e.key, e.value]);
    expect(bare(asFile)).toEqual(bare(asCode));
    expect(asFile.value.entries.find((e) => e.key === 'step.note')!.value).toBe('page torn');
    expect(asFile.value.entries[0]!.note).toContain('Wren Oxley');
  });
});
