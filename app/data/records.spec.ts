import { TestBed } from '@angular/core/testing';
import { largePack } from '../../demo/large-catalogue';
import { demoPack } from '../../demo/catalogue';
import { textOf, has, standing } from '@core/facts/read';
import { packId } from '@core/catalogue/version';
import { closeDesk, failWrites, openDesk, until, wake } from '../testing/demo-desk';
import { summaryOf } from '@core/answer/case-summary';
import { checkFacts } from '@core/facts/consistent';
import type { Fact } from '@core/facts/fact';
import { ofCase } from '../records/records';
import { CaseDesk } from './case-desk';
import { Cases } from './cases';
import { SummaryKeeper } from './summary-keeper';
import { Packs } from './packs';
import { Database } from './database';
import { DriveFiles } from '../commands/drive-files';
import { FactRepository } from './fact-repository';
import { Find } from './find';
import { DeskSettingsSchema } from './desk-settings';
import { getPack, writePack } from '../records/pack-records';

const rack = () => TestBed.inject(Cases);
async function newest() {
  await until(() => TestBed.inject(Packs).newest() !== undefined);
  return TestBed.inject(Packs).newest()!;
}

describe('records', () => {
  afterEach(closeDesk);

  it('are there again for the next opening, facts, heads and catalogue alike', async () => {
    const first = await openDesk();
    await first.open('demo-2036');
    const [summaries, log] = [rack().summaries(), first.current()!.state.log];
    const pack = (await newest()).pack;
    (await TestBed.inject(Database).open()).close();
    TestBed.resetTestingModule();
    const desk = await wake();
    expect(rack().summaries()).toEqual(summaries);
    expect(summaries.length).toBe(6);
    await desk.open('demo-2036');
    expect(desk.current()!.state.log).toEqual(log);
    expect((await newest()).pack).toEqual(pack);
  });

  it('of which a browser was killed between a filing and its head get that head at the next opening', async () => {
    const desk = await openDesk();
    await desk.open('demo-2041');
    const repository = TestBed.inject(FactRepository);
    const head = () =>
      rack()
        .find('brindle 9')
        .map((h) => h.id);
    const keeper = TestBed.inject(SummaryKeeper);
    await keeper.check();
    // the facts are on the disk, and nothing came after them
    await desk.open(undefined);
    const file = (id: string, value: string) =>
      repository.extend('demo-2041', (facts) => [
        { ...facts[0]!, id, key: 'claim.number', value, seen: facts.length + 1 },
      ]);
    const filed = await file('late', 'Brindle 9');
    expect(filed.ok && filed.value.fresh.length).toBe(1);
    expect(await repository.behind()).toEqual(['demo-2041']);
    expect(head()).toEqual([]);
    // a summary of fewer facts than there are by now leaves it behind
    const old = rack()
      .summaries()
      .find((h) => h.id === 'demo-2041')!;
    await repository.keepSummaries([{ summary: old, facts: 1 }]);
    expect(await repository.behind()).toEqual(['demo-2041']);
    await keeper.check();
    await until(() => head().length === 1);
    expect(await repository.behind()).toEqual([]);
  });

  it('are read once where nobody else wrote: what the desk has seen is what a filing stands on', async () => {
    const desk = await openDesk();
    await desk.open('demo-2041');
    const repository = TestBed.inject(FactRepository);
    const seen = desk.current()!.state.log;
    const built: (readonly Fact[])[] = [];
    const build = (facts: readonly Fact[]): Fact[] => {
      built.push(facts);
      return [{ ...facts[0]!, id: `x${facts.length}`, key: 'claim.number', value: 'a' }];
    };
    await repository.extend('demo-2041', build, seen);
    expect(built.length).toBe(1);
    expect(built[0]).toBe(seen);
    // another window filed since: it is made again, from what stands
    await repository.extend('demo-2041', build, seen);
    expect(built.map((b) => b.length)).toEqual([seen.length, seen.length, seen.length + 1]);
  });

  it('keep a large catalogue in pieces and give it back whole', async () => {
    await openDesk(false);
    const db = await TestBed.inject(Database).open();
    const pack = largePack(300, 6000);
    await writePack(db, pack);
    expect((await db.getAllKeys('packRows')).length).toBeGreaterThan(11);
    expect(await getPack(db, packId(pack))).toEqual(pack);
    expect(await getPack(db, 'no such pack')).toBeUndefined();
  });

  it('take a fact in once, however often it comes', async () => {
    const desk = await openDesk();
    await desk.open('demo-2036');
    const log = desk.current()!.state.log;
    expect((await TestBed.inject(FactRepository).add({ facts: log })).ok).toBeTrue();
    await desk.open(undefined);
    await desk.open('demo-2036');
    expect(desk.current()!.state.log).toEqual(log);
  });

  it('of another window show here: on the rack at once, and in the case in hand', async () => {
    const desk = await openDesk();
    await desk.open('demo-2041');
    const other = TestBed.runInInjectionContext(() => new FactRepository());
    const fact: Fact = {
      ...desk.current()!.state.log[0]!,
      id: 'far',
      key: 'claim.number',
      value: 'Brindle 7',
    };
    const world = desk.current()!.world;
    await other.add({ facts: [fact] }, (id, all) => summaryOf(id, all, world));
    await until(() => textOf(desk.current()!.state, 'claim.number') === 'Brindle 7');
    expect(
      rack()
        .find('brindle 7')
        .map((h) => h.id),
    ).toEqual(['demo-2041']);
    other.ngOnDestroy();
  });

  it('take nothing in that cannot stand with what is here, and then nothing at all of it', async () => {
    const desk = await openDesk();
    const repository = TestBed.inject(FactRepository);
    const base: Fact = { ...(await repository.factsOf('demo-2041'))[0]!, key: 'thing.kind', about: 'p-2' };
    expect((await repository.add({ facts: [{ ...base, id: 'k1', value: 'belt' }] })).ok).toBeTrue();
    const before = await repository.factsOf('demo-2041');
    const more = [
      { ...base, id: 'fine', key: 'complaint', about: 'belt', value: 'x' },
      { ...base, id: 'k2', value: 'chain' },
    ];
    const filed = await repository.add({ facts: more });
    expect(!filed.ok && filed.error.code).toBe('unfit');
    expect(await repository.factsOf('demo-2041')).toEqual(before);
    await desk.open('demo-2041');
    expect((await desk.file({ key: 'claim.number', value: 'n'.repeat(30_000), how: 'seen' })).ok).toBeFalse();
    expect(await repository.factsOf('demo-2041')).toEqual(before);
  });

  it('that cannot stand together are set aside and told; the rest opens, grows and can be given out', async () => {
    const desk = await openDesk();
    const db = await TestBed.inject(Database).open();
    const base = (await db.getAll('facts', ofCase('demo-2041')))[0]!;
    await db.put('facts', { ...base, id: 'c1', supersedes: 'c2' });
    await db.put('facts', { ...base, id: 'c2', supersedes: 'c1' });
    await db.put('facts', { ...base, id: 'g', key: 'tensioner.extension', about: 'ghost', value: 7 });
    await desk.open('demo-2041');
    const set = TestBed.inject(FactRepository)
      .damaged()
      .map((d) => d.id);
    expect([...set].sort()).toEqual(['c1', 'c2', 'g']);
    expect((await desk.file({ key: 'claim.number', value: 'B 7', how: 'seen' })).ok).toBeTrue();
    expect(checkFacts(desk.current()!.state.log)).toBeUndefined();
    expect(textOf(desk.current()!.state, 'claim.number')).toBe('B 7');
  });

  it('that lie there damaged are mended by the whole ones under the same id', async () => {
    await openDesk();
    const repository = TestBed.inject(FactRepository);
    const db = await TestBed.inject(Database).open();
    const facts = await repository.factsOf('demo-2041');
    await db.put('facts', { id: facts[1]!.id, case: 'demo-2041' } as Fact);
    expect((await repository.factsOf('demo-2041')).length).toBe(facts.length - 1);
    expect((await repository.add({ facts })).ok).toBeTrue();
    expect(await repository.factsOf('demo-2041')).toEqual(facts);
  });

  it('of which a file is one are kept once per content', async () => {
    await openDesk(false);
    const repository = TestBed.inject(FactRepository);
    const file = (name: string) => ({ sha256: 'a'.repeat(64), name, type: '', blob: new Blob(['x']) });
    await repository.keepFile(file('first.png'));
    await repository.keepFile(file('again.png'));
    expect((await repository.fileOf('a'.repeat(64)))?.name).toBe('first.png');
    expect(await repository.fileOf('b'.repeat(64))).toBeUndefined();
  });
});

describe('the desk', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  it('gives a new case the next tag and the newest catalogue, with what is known already', async () => {
    const opened = await desk.newCase([{ key: 'engine.code', value: 'TE16-CORM', how: 'reported' }]);
    const view = desk.current()!;
    expect(opened.ok && opened.value).toBe(view.id);
    expect(view.tag).toBe('2045');
    expect(textOf(view.state, 'case.catalogue')).toBe('Marrowfen 2026.3');
    expect(view.answers?.engine?.code).toBe('TE16-CORM');
    expect(rack().summaries()[0]).toEqual(
      jasmine.objectContaining({ id: view.id, tag: '2045', engine: 'TE16-CORM', waits: 'identify' }),
    );
  });

  it('keeps the case in hand when a new one cannot be written', async () => {
    await desk.open('demo-2041');
    const mend = failWrites('QuotaExceededError');
    expect((await desk.newCase()).ok).toBeFalse();
    mend();
    expect(desk.current()?.id).toBe('demo-2041');
    expect(rack().summaries().length).toBe(6);
  });

  it('takes back and brings back one’s own last fact, and nobody else’s', async () => {
    await desk.open('demo-2041');
    expect(await desk.undo()).toBeUndefined();
    await desk.file({ key: 'vehicle.odometer', value: 52000, how: 'reported' });
    expect((await desk.undo())?.value).toBe(52000);
    expect(has(desk.current()!.state, 'vehicle.odometer')).toBeFalse();
    await desk.redo();
    expect(standing(desk.current()!.state, 'vehicle.odometer')?.value).toBe(52000);
  });

  it('answers with the case’s own catalogue when a newer one comes, and changes over when told', async () => {
    await desk.open('demo-2041');
    const before = desk.current()!;
    const newer = { ...demoPack(), version: '2027.1', issued: '2026-11-24' };
    await TestBed.inject(FactRepository).add({ packs: [newer] });
    await until(() => TestBed.inject(Packs).newest()?.pack.version === '2027.1');
    expect(desk.current()).toBe(before);
    await desk.file({ key: 'case.catalogue', value: packId(newer), how: 'decided' });
    expect(desk.current()!.catalogue?.pack.version).toBe('2027.1');
    expect(
      rack()
        .summaries()
        .find((h) => h.id === 'demo-2041')?.world,
    ).toBe(packId(newer));
    await desk.file({ key: 'case.catalogue', value: before.state.log[1]!.value, how: 'decided' });
    const kept = desk.current()!;
    await desk.file({ key: 'vehicle.odometer', value: 1000, how: 'reported' });
    expect(desk.current()!.answers!.identification).toBe(kept.answers!.identification);
    expect(desk.current()!.answers!.usage).not.toBe(kept.answers!.usage);
  });

  it('heads are what the facts make of them, through filing, taking back and making anew', async () => {
    await desk.open('demo-2041');
    await desk.file({ key: 'complaint', value: 'Squeals When Cold', how: 'reported' });
    expect(rack().find('squeals 2041').length).toBe(1);
    await desk.undo();
    expect(rack().find('squeals')).toEqual([]);
    await desk.file({ key: 'vehicle.odometer', value: 4711, how: 'reported' });
    const right = rack().summaries();
    const db = await TestBed.inject(Database).open();
    await db.clear('heads');
    await rack().load();
    expect(rack().summaries()).toEqual([]);
    expect(await TestBed.inject(SummaryKeeper).rebuild()).toBeTrue();
    await until(() => rack().summaries().length === right.length);
    expect(rack().summaries()).toEqual(right);
  });

  it('finds in the newest catalogue as soon as its search is built', async () => {
    const find = TestBed.inject(Find);
    expect(find.hits('')).toEqual([]);
    await newest();
    TestBed.tick();
    await until(() => find.hits('te16').length > 0);
    expect(find.hits('te 16 c0rm')[0]!.key).toBe('TE16-CORM');
    await TestBed.inject(FactRepository).add({ packs: [largePack(800, 2000)] });
    await until(() => TestBed.inject(Packs).newest()?.pack.name !== 'Marrowfen');
    TestBed.tick();
    await until(() => find.hits('te16 corm').every((h) => h.key !== 'TE16-CORM'));
    expect(find.hits('').length).toBe(0);
  });

  it('refuses a layout file with its name, its place and the reason', () => {
    const files = TestBed.inject(DriveFiles);
    const file = (layout: unknown) =>
      JSON.stringify({ format: 'hollow-sprocket-layout', formatVersion: 1, layout });
    const [layout] = demoPack().layouts;
    expect(files.read('good.json', file(layout))).toEqual(layout);
    expect(files.read('cut.json', '{"format"')).toBeUndefined();
    expect(files.read('other.json', '{"format":"else"}')).toBeUndefined();
    expect(files.read('zero.json', file({ ...layout, pitchMm: 0 }))).toBeUndefined();
    expect(
      files.read('newer.json', file(layout).replace('"formatVersion":1', '"formatVersion":2')),
    ).toBeUndefined();
    expect(files.read('none.json', file(layout).replace('"formatVersion":1,', ''))).toBeUndefined();
  });

  it('knows a broken house record from a good one', () => {
    const good = { by: 'Ida', dateOrder: 'dmy', distance: 'km', density: 'bench' };
    expect(DeskSettingsSchema.parse(good).labelStep).toBe(1000);
    for (const bad of [{ by: '' }, { distance: 'furlongs' }, { labelStep: 0 }, { colour: 'red' }])
      expect(DeskSettingsSchema.safeParse({ ...good, ...bad }).success).toBeFalse();
  });
});
