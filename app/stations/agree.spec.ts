import { TestBed } from '@angular/core/testing';
import { advise } from '@core/advice/advise';
import { nameIn } from '@core/answer/read-context';
import { nameWorld } from '@core/answer/world';
import { hasPlunger } from '@core/examination/extension';
import { featureKey } from '@core/catalogue/feature-observables';
import { stagesFor } from '@core/catalogue/find-records';
import type { Variant } from '@core/catalogue/pack';
import { tensionerIndex } from '@core/drive/layout';
import { extensionRemainder } from '@core/drive/wear';
import type { NewFact } from '@core/facts/change';
import { formatQuantity } from '@core/quantity/format-quantity';
import { Sheets } from '../commands/sheets';
import { CaseSentences } from '../commands/case-sentences';
import type { CaseDesk } from '../data/case-desk';
import { DriveStore } from '../drive/drive-store';
import { SettingPanel } from '../drive/panels/setting-panel';
import { WearPanel } from '../drive/panels/wear-panel';
import { Packs } from '../data/packs';
import { SettingsPair } from '../entry/settings-pair';
import { reportDocument } from '../report/report-document';
import { closeDesk, openDesk, paint } from '../testing/demo-desk';
import { findingWords } from '../messages/answers';
import { spokenText } from '../messages/advice';
import { JobPanel } from './identify/job-panel';

const plain = (text: string) => text.replace(/\s/g, ' ');
const figures = (text: string, pattern: RegExp) => [...plain(text).matchAll(pattern)].map((m) => m[1]!);
const EXPLAINS = /length explains ([^;]+);/g;

describe('one number, one sentence', () => {
  let desk: CaseDesk;
  let store: DriveStore;
  beforeEach(async () => {
    desk = await openDesk(true, [DriveStore]);
    store = TestBed.inject(DriveStore);
  });
  afterEach(closeDesk);

  const catalogue = () => TestBed.inject(Packs).newest()!;
  const designs = () => [...catalogue().variants.values()];
  const voice = () => TestBed.inject(CaseSentences).voice();
  /** A new case of one design, with more facts. */
  async function begin(v: Variant, ...more: NewFact[]): Promise<void> {
    const features = Object.entries(v.features).map(
      ([f, [value]]): NewFact => ({ key: featureKey(f), value: value!, how: 'reported' }),
    );
    const opened = await desk.newCase([
      { key: 'engine.code', value: v.engine, how: 'reported' },
      ...features,
      ...more,
    ]);
    if (!opened.ok) throw new Error(opened.error.detail);
  }
  const measured = (key: string, value: number, u: number): NewFact => ({ key, value, u, how: 'measured' });
  function said(asked: 'reuse' | 'also'): string {
    const { state, answers, world } = desk.current()!;
    const advice = advise(asked, { world: world!, state, a: answers!, today: '2026-11-25' });
    return spokenText(advice, voice());
  }

  it('for an extension: Call, Examine, Drive, Cause and report, on every drive with plunger and chain', async () => {
    let looked = 0;
    for (const v of designs()) {
      const stages = stagesFor(catalogue(), v.layout!);
      const stage = stages.findIndex(({ layout: l }) => l.kind === 'chain' && hasPlunger(l));
      const layout = stages[stage]?.layout;
      const carrier = layout?.wheels[tensionerIndex(layout)]?.carrier;
      if (!layout || carrier?.kind !== 'arm' || !carrier.plunger) continue;
      const links = 20;
      const long = links * layout.pitchMm * 1.002;
      const out = carrier.plunger.window.to;
      await begin(
        v,
        measured('chain.length', long, 0.05),
        { key: 'chain.links_over', value: links, how: 'seen' },
        measured('tensioner.extension', out, 0.1),
      );
      const { answers: a, state, world } = desk.current()!;
      // the first chain that is measured is that of the stage with the plunger, or there is none to compare
      if (!a!.drive!.extensions.length) continue;
      // second method: from the layout alone
      const rest = extensionRemainder(
        layout,
        { value: out, u: 0.1 },
        { value: long / (links * layout.pitchMm) - 1, u: 0.05 / (links * layout.pitchMm) },
      );
      if (!rest.ok) continue;
      const { expected } = rest.value;
      const wanted = formatQuantity('length', expected.value, { u: expected.u, decimals: 1 });
      store.reset();
      store.pickStage(stage);
      const report = JSON.stringify(
        reportDocument({
          tag: '1',
          state,
          answers: a!,
          world: nameWorld(world!),
          voice: voice(),
          name: (t, k) => nameIn(a, t, k),
          today: '2026-11-25',
          house: '',
        }),
      );
      const cause = a!.findings.find((f) => f.finding === 'extension.rest')!;
      const verdict = findingWords(cause, voice()).split(': ')[1]!;
      const texts = {
        call: said('reuse'),
        examine: (await paint(SettingsPair, { drive: a!.drive })).words,
        drive: (await paint(WearPanel)).words,
        report,
      };
      for (const [station, text] of Object.entries(texts)) {
        expect(figures(text, EXPLAINS))
          .withContext(`${v.id} ${station}`)
          .toEqual([plain(wanted)]);
        expect(text).withContext(`${v.id} ${station}`).toContain(verdict);
      }
      looked++;
    }
    console.log(`one extension at five stations: ${looked} designs`);
    expect(looked).toBeGreaterThan(8);
  });

  it('for the growth that a tensioner follows, on every drive with one', async () => {
    let looked = 0;
    for (const v of designs()) {
      await begin(v);
      const drive = desk.current()!.answers!.drive;
      if (!drive?.right) continue;
      const pair = await paint(SettingsPair, { drive });
      const panel = await paint(SettingPanel);
      const mine = figures(pair.words, /Can still follow\s*([\d.]+) mm/g);
      expect(mine.length).withContext(v.id).toBeGreaterThan(0);
      expect(figures(panel.words, /Follows ([\d.]+) mm/g))
        .withContext(v.id)
        .toEqual(mine);
      looked++;
    }
    console.log(`one growth at two stations: ${looked} designs`);
    expect(looked).toBeGreaterThan(25);
  });

  it('for the parts of a job: Identify, Call and the printed sheet, with a kit named or none', async () => {
    let looked = 0;
    for (const v of designs()) {
      const kit = catalogue().kitsOf.get(v.id)!.at(-1)!;
      for (const named of [[], [{ key: 'kit.number', value: kit, how: 'reported' } as NewFact]]) {
        await begin(v, ...named);
        expect(desk.current()!.answers!.variant?.id).withContext(v.id).toBe(v.id);
        expect(desk.current()!.answers!.kit?.number).toBe(named.length > 0 ? kit : undefined);
        const identify = (await paint(JobPanel)).all('tbody tr').map((tr) => {
          const [from, what] = [...tr.querySelectorAll('td')];
          const item = what!.firstChild!.textContent!.trim().replace(/^\d+ × /, '');
          return [item, from!.textContent.trim()] as const;
        });
        const call = said('also');
        for (const [item, from] of identify)
          if (from !== 'in the kit')
            expect(call).withContext(`${v.id} ${item}`).toContain(`${item} (${from})`);
        const paper = await TestBed.inject(Sheets).paper();
        for (const [item, from] of identify)
          expect(paper?.parts.some((p) => p.endsWith(`× ${item}: ${from}`)))
            .withContext(`${v.id} ${item}`)
            .toBeTrue();
        looked++;
      }
    }
    console.log(`one list of parts at three places: ${looked} cases`);
    expect(looked).toBeGreaterThan(40);
  });
});
