import { TestBed } from '@angular/core/testing';
import { largePack } from '../../demo/large-catalogue';
import { demoPack } from '../../demo/catalogue';
import { textOf, has, standing } from '@core/facts/read';
import { packId } from '@core/catalogue/pack';
import { closeDesk, openDesk, until } from '../testing/demo-desk';
import { CaseDesk } from './case-desk';
import { Database } from './database';
import { DriveFiles } from './drive-files';
import { FactRepository } from './fact-repository';
import { Find } from './find';
import { HouseSchema } from './house';
import { getPack, writePack } from './pack-records';

describe('records', () => {
  afterEach(closeDesk);

  it('are there again for the next opening, facts and catalogue alike', async () => {
    const first = await openDesk();
    const [tags, pack] = [first.cases().map((c) => c.tag), first.newestPack()];
    const db = await TestBed.inject(Database).open();
    db.close();
    TestBed.resetTestingModule();
    const again = TestBed.inject(FactRepository);
    await again.load();
    const desk = TestBed.inject(CaseDesk);
    expect(desk.cases().map((c) => c.tag)).toEqual(tags);
    expect(desk.newestPack()).toEqual(pack);
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
    const repository = TestBed.inject(FactRepository);
    const log = desk.cases()[0]!.state.log;
    await repository.add(log);
    expect(desk.cases()[0]!.state.log.length).toBe(log.length);
  });

  it('reach another window through the channel', async () => {
    const desk = await openDesk();
    const other = new BroadcastChannel('hollow-sprocket-facts');
    const fact = {
      ...desk.cases()[0]!.state.log[0]!,
      id: 'from-elsewhere',
      key: 'complaint',
      value: 'heard',
    };
    other.postMessage({ facts: [fact], packIds: [], extracts: [] });
    await until(() => textOf(desk.cases().find((c) => c.id === fact.case)!.state, 'complaint') !== undefined);
    await until(() => desk.cases().some((c) => c.state.log.some((f) => f.id === 'from-elsewhere')));
    other.close();
    expect(desk.cases().some((c) => c.state.log.some((f) => f.id === 'from-elsewhere'))).toBeTrue();
  });
});

describe('the desk', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  it('gives a new case the next tag and the newest catalogue, with what is known already', async () => {
    const opened = await desk.newCase([{ key: 'engine.code', value: 'TE16-CORM', how: 'reported' }]);
    const view = desk.cases().find((c) => opened.ok && c.id === opened.value)!;
    expect(view.tag).toBe('2045');
    expect(textOf(view.state, 'case.catalogue')).toBe('Marrowfen 2026.3');
    expect(view.answers?.engine?.code).toBe('TE16-CORM');
  });

  it('takes back and brings back one’s own last fact, and nobody else’s', async () => {
    desk.currentId.set('demo-2041');
    expect(await desk.undo()).toBeUndefined();
    await desk.file({ key: 'vehicle.odometer', value: 52000, how: 'reported' });
    expect((await desk.undo())?.value).toBe(52000);
    expect(has(desk.current()!.state, 'vehicle.odometer')).toBeFalse();
    await desk.redo();
    expect(standing(desk.current()!.state, 'vehicle.odometer')?.value).toBe(52000);
  });

  it('computes a case again only when its facts or its own catalogue change', async () => {
    const before = new Map(desk.cases().map((c) => [c.id, c]));
    const newer = { ...demoPack(), version: '2027.1', issued: '2026-11-24' };
    await TestBed.inject(FactRepository).add([], [newer]);
    expect(desk.newestPack()?.version).toBe('2027.1');
    for (const c of desk.cases()) expect(c).toBe(before.get(c.id)!);
    desk.currentId.set('demo-2041');
    await desk.file({ key: 'vehicle.odometer', value: 1000, how: 'reported' });
    for (const c of desk.cases()) expect(c === before.get(c.id)).toBe(c.id !== 'demo-2041');
  });

  it('finds in the newest catalogue as soon as its search is built', async () => {
    const find = TestBed.inject(Find);
    expect(find.hits('')).toEqual([]);
    TestBed.tick();
    await until(() => find.hits('te16').length > 0);
    expect(find.hits('te 16 c0rm')[0]!.key).toBe('TE16-CORM');
    await TestBed.inject(FactRepository).add([], [largePack(800, 2000)]);
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
    expect(HouseSchema.parse(good).labelStep).toBe(1000);
    for (const bad of [{ by: '' }, { distance: 'furlongs' }, { labelStep: 0 }, { colour: 'red' }])
      expect(HouseSchema.safeParse({ ...good, ...bad }).success).toBeFalse();
  });
});
