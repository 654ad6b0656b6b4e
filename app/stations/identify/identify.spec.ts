import { attributeKey } from '@core/catalogue/attribute-observables';
import { oldThing } from '@core/facts/thing';
import type { CaseDesk } from '../../data/case-desk';
import { closeDesk, openDesk, paint, type Painted } from '../../testing/demo-desk';
import { ComparePartsPanel } from './compare-panel';
import { DuePanel } from './due-panel';
import { IdentifyPage } from './identify-page';

describe('beside the question which drive it is', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  const old = (part: string, key: string, value: number | string) =>
    desk.file({ key: attributeKey(key), about: oldThing(part), value, how: 'measured' });

  it('an old part is compared attribute by attribute, and one that differs makes it the wrong part', async () => {
    await desk.open('demo-2027');
    const panel = await paint(ComparePartsPanel);
    const part = desk.current()!.catalogue!.parts.get(
      desk
        .current()!
        .answers!.kit!.contents.map((c) => c.part)
        .find((p) => {
          const attributes = desk.current()!.catalogue!.parts.get(p)?.attributes ?? {};
          return 'teeth' in attributes;
        })!,
    )!;
    const lines = () => panel.all('.line').length;
    expect(lines()).toBeGreaterThan(2);
    expect(panel.words).toContain('Still to measure');
    await old(part.kind, 'teeth', Number(part.attributes['teeth']));
    await panel.fixture.whenStable();
    expect(panel.all('.line .caution').length).toBe(0);
    await old(part.kind, 'teeth', Number(part.attributes['teeth']) + 2);
    await panel.fixture.whenStable();
    // what a wrong one does stands beside it
    expect(panel.all('.line .caution').length).toBe(1);
    expect(panel.one('.verdict').textContent).toContain('✕');
  });

  it('the next change is due by what comes first, and only once a fitting is known', async () => {
    await desk.open('demo-2027');
    const panel = await paint(DuePanel);
    expect(panel.all('button').some((b) => b.textContent.includes('Label'))).toBeTrue();
    await desk.open('demo-2041');
    await panel.fixture.whenStable();
    expect(panel.all('button').some((b) => b.textContent.includes('Label'))).toBeFalse();
    await desk.file({ key: 'kit.fitted', value: '2024-05-01', how: 'document' });
    await desk.file({ key: 'kit.fitted_odometer', value: 90_000, how: 'document' });
    await panel.fixture.whenStable();
    expect(panel.all('button').some((b) => b.textContent.includes('Label'))).toBeTrue();
  });

  it('kits that have one answer for one reason stand together, and every kit stands once', async () => {
    await desk.open('demo-2041');
    const page: Painted<IdentifyPage> = await paint(IdentifyPage);
    const kits = desk.current()!.answers!.kits;
    const rows = () => page.all('[aria-label=Kits] tbody tr').map((r) => r.textContent);
    const numbers = () =>
      page
        .all('[aria-label=Kits] .number')
        .map((n) => n.textContent)
        .sort();
    expect(numbers()).toEqual(kits.map((k) => k.kit.number).sort());
    expect(rows().length).toBeLessThan(kits.length);
    expect(new Set(rows().map((r) => r.replace(/^.*?(?=[✓?✕])/s, ''))).size).toBe(rows().length);
    await desk.file({ key: 'feature.cover-screws', value: 'five', how: 'reported' });
    await page.fixture.whenStable();
    expect(numbers()).toEqual(kits.map((k) => k.kit.number).sort());
  });
});
