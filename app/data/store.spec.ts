import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { deleteDB, openDB } from 'idb';
import { demoPack } from '../../demo/catalogue';
import { demoFacts } from '../../demo/cases';
import { SEED } from '../../demo/scenario';
import { extractPack } from '@core/catalogue/extract-pack';
import { catalogueOf } from '@core/catalogue/find-records';
import { writeCaseFile } from '@core/claim/case-file';
import type { Fact } from '@core/facts/fact';
import { closeDesk, failWrites, openDesk, paint, until, wake } from '../testing/demo-desk';
import { DeskSession } from '../entry/desk-session';
import { Field } from '../entry/field';
import { FactLine } from '../entry/fact-line';
import { Tape } from '../shell/tape';
import { CaseDesk } from './case-desk';
import { Cases } from './cases';
import { SummaryKeeper } from './summary-keeper';
import { Packs } from './packs';
import { CaseFiles } from '../commands/case-files';
import { Database } from './database';
import { Drafts } from './drafts';
import { FactRepository } from './fact-repository';
import { LEFT_OVER } from '../records/upgrade-layout';
import { DATABASE, ofCase } from '../records/records';
import { allStanding, has, standing } from '@core/facts/read';

const cat = catalogueOf(demoPack());
const own = (tag: string) => demoFacts(SEED).filter((f) => f.case === `demo-${tag}`);
const fileOf = (id: string, facts: readonly Fact[], pack = extractPack(cat, 'TE16-CORM', 'MF-K121-1')) =>
  new File([JSON.stringify(writeCaseFile(id, facts, pack, '2026-11-24T10:00:00.000Z'))], `${id}.json`);
const valueOf = (desk: CaseDesk, key: string) => standing(desk.current()!.state, key)?.value;

describe('a write that fails', () => {
  let desk: CaseDesk;
  beforeEach(async () => {
    desk = await openDesk();
    await desk.open('demo-2041');
  });
  afterEach(closeDesk);

  it('keeps the text in its field, says so, and files it when the store works again', async () => {
    const field = await paint(Field, { session: TestBed.inject(DeskSession), key: 'vehicle.odometer' });
    const mend = failWrites('QuotaExceededError');
    await field.type('Distance now', '48 200');
    await until(() => desk.trouble() !== undefined);
    await field.fixture.whenStable();
    expect(desk.trouble()?.code).toBe('full');
    expect(field.one<HTMLInputElement>('input').value).toBe('48 200');
    expect(field.words).toContain('NOT filed');
    expect(has(desk.current()!.state, 'vehicle.odometer')).toBeFalse();
    mend();
    await field.type('Distance now', '48 200');
    await until(() => valueOf(desk, 'vehicle.odometer') === 48200);
    expect(desk.trouble()).toBeUndefined();
  });

  it('leaves the line and the choices as they were', async () => {
    const line = await paint(FactLine);
    const choice = await paint(Field, { session: TestBed.inject(DeskSession), key: 'symptom' });
    const mend = failWrites('AbortError');
    await line.type('Fact line', 'odo 51000; market inland');
    await until(() => desk.trouble() !== undefined);
    await line.fixture.whenStable();
    expect(line.one<HTMLInputElement>('input').value).toBe('odo 51000; market inland');
    expect(has(desk.current()!.state, 'vehicle.market')).toBeFalse();
    const leak = choice.one('[role=option][aria-label=Leak]');
    leak.click();
    await until(() => choice.words.includes('NOT filed'));
    await choice.fixture.whenStable();
    expect(leak.getAttribute('aria-selected')).toBe('false');
    mend();
    await line.type('Fact line', 'odo 51000; market inland');
    await until(() => valueOf(desk, 'vehicle.market') === 'inland');
    expect(valueOf(desk, 'vehicle.odometer')).toBe(51000);
  });

  it('opens the store again when another thread of the browser closed it', async () => {
    (await TestBed.inject(Database).open()).close();
    expect((await desk.file({ key: 'vehicle.market', value: 'coast', how: 'reported' })).ok).toBeTrue();
    expect(valueOf(desk, 'vehicle.market')).toBe('coast');
  });
});

describe('a desk without a catalogue', () => {
  afterEach(closeDesk);

  it('files by the line what no catalogue has to name, and says what was filed in words', async () => {
    const desk = await openDesk(false);
    expect((await desk.newCase()).ok).toBeTrue();
    const [line, tape] = [await paint(FactLine), await paint(Tape)];
    await line.type('Fact line', 'odo 51000; symptom noise');
    await until(() => valueOf(desk, 'vehicle.odometer') === 51000);
    expect(valueOf(desk, 'symptom')).toBe('noise');
    await tape.fixture.whenStable();
    expect(tape.words).not.toContain('vehicle.odometer');
    expect(tape.words).toMatch(/51\D000.*km/);
  });
});

describe('a store that another window holds', () => {
  afterEach(closeDesk);

  it('is said while it lasts, opens by itself after, and can be opened again when it could not be', async () => {
    localStorage.clear();
    await deleteDB(DATABASE);
    const old = await openDB(DATABASE, 1, {
      upgrade(db) {
        db.createObjectStore('facts', { keyPath: 'id' }).createIndex('case', 'case');
        for (const name of ['packs', 'packRows', 'settings']) db.createObjectStore(name);
      },
    });
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const database = TestBed.inject(Database);
    const opening = database.open();
    await until(() => database.trouble()?.code === 'blocked');
    old.close();
    await opening;
    expect(database.trouble()).toBeUndefined();
    // a version from the future cannot be opened; when it is gone, it can
    (await database.open()).close();
    database.lost();
    (await openDB(DATABASE, 99)).close();
    await expectAsync(database.open()).toBeRejected();
    expect(database.trouble()?.code).toBe('newer');
    await deleteDB(DATABASE);
    await expectAsync(database.open()).toBeResolved();
    expect(database.trouble()).toBeUndefined();
  });
});

describe('quick hands', () => {
  afterEach(closeDesk);

  it('end twelve corrections in one standing value, and Enter with leaving the field in one fact', async () => {
    const desk = await openDesk();
    await desk.open('demo-2041');
    await Promise.all(
      Array.from({ length: 12 }, (_, i) =>
        desk.file({ key: 'vehicle.odometer', value: 1000 + i, how: 'reported' }),
      ),
    );
    expect(valueOf(desk, 'vehicle.odometer')).toBe(1011);
    expect(allStanding(desk.current()!.state).flatMap((s) => s.rivals).length).toBe(0);

    const field = await paint(Field, { session: TestBed.inject(DeskSession), key: 'vehicle.market' });
    const box = field.one<HTMLInputElement>('input');
    box.value = 'coast';
    box.dispatchEvent(new Event('input'));
    box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    box.dispatchEvent(new Event('blur'));
    await until(() => valueOf(desk, 'vehicle.market') === 'coast');
    expect(desk.current()!.state.log.filter((f) => f.key === 'vehicle.market').length).toBe(1);
  });

  it('tick several boxes at once without one undoing the other', async () => {
    const desk = await openDesk();
    await desk.open('demo-2041');
    const field = await paint(Field, { session: TestBed.inject(DeskSession), key: 'parts.sent' });
    for (const tile of field.all('[role=option]').slice(0, 3)) tile.click();
    await until(() => (valueOf(desk, 'parts.sent') as string[] | undefined)?.length === 3);
    expect(allStanding(desk.current()!.state).flatMap((s) => s.rivals).length).toBe(0);
  });

  it('correct from two windows at once and leave one standing value in both', async () => {
    const desk = await openDesk();
    await desk.open('demo-2041');
    const other = TestBed.runInInjectionContext(() => new FactRepository());
    const file =
      (value: number) =>
      (facts: readonly Fact[]): Fact[] => {
        const old = facts.filter((f) => f.key === 'vehicle.odometer');
        const last = old.find((f) => !old.some((g) => g.supersedes === f.id));
        return [
          {
            id: `w${value}`,
            case: 'demo-2041',
            key: 'vehicle.odometer',
            value,
            how: 'reported',
            by: 'Other',
            at: new Date(Date.UTC(2026, 10, 25) + value).toISOString(),
            ...(last ? { supersedes: last.id } : {}),
          },
        ];
      };
    await Promise.all(
      Array.from({ length: 6 }, (_, i) => [
        desk.file({ key: 'vehicle.odometer', value: 2000 + i, how: 'reported' }),
        other.extend('demo-2041', file(3000 + i)),
      ]).flat(),
    );
    await until(() => desk.current()!.state.log.filter((f) => f.key === 'vehicle.odometer').length === 12);
    expect(allStanding(desk.current()!.state).flatMap((s) => s.rivals).length).toBe(0);
    other.ngOnDestroy();
  });
});

describe('records of an earlier version', () => {
  afterEach(closeDesk);

  it('are carried over word for word, and what belongs to no case is kept for export', async () => {
    localStorage.clear();
    await deleteDB(DATABASE);
    const facts = own('2027');
    const old = await openDB(DATABASE, 2, {
      upgrade(db) {
        db.createObjectStore('facts', { keyPath: 'id' }).createIndex('case', 'case');
        for (const name of ['packs', 'packRows', 'settings', 'drafts']) db.createObjectStore(name);
        db.createObjectStore('extracts', { keyPath: 'case' });
      },
    });
    for (const f of facts) await old.put('facts', f);
    await old.put('facts', { id: 'stray', value: 1 });
    old.close();
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const repository = TestBed.inject(FactRepository);
    const byId = (a: Fact, b: Fact) => (a.id < b.id ? -1 : 1);
    expect((await repository.factsOf('demo-2027')).sort(byId)).toEqual([...facts].sort(byId));
    expect(await repository.foreign(facts)).toBeUndefined();
    const thief = { ...facts[3]!, case: 'thief' };
    expect(await repository.foreign([{ ...thief, id: 'own' }, thief])).toBe(thief);
    await repository.recallLeftOver();
    expect(repository.damaged().map((d) => d.id)).toEqual(['stray']);
    const db = await TestBed.inject(Database).open();
    expect([...db.objectStoreNames]).not.toContain('facts-by-id' as never);
    expect(await repository.setting(LEFT_OVER)).toEqual([{ id: 'stray', value: 1 }]);
  });
});

describe('half-typed text', () => {
  afterEach(closeDesk);

  it('is on the disk soon after the last key, and there again after the window was killed', async () => {
    await openDesk();
    TestBed.inject(Drafts).keep('demo-2041', 'complaint', 'It rattles when');
    const db = await TestBed.inject(Database).open();
    let kept: { text: string }[] = [];
    // read with the store's own eyes, as the next window would
    for (let k = 0; k < 2000 && kept.length === 0; k++) {
      kept = await db.getAll('drafts');
      await new Promise((rest) => setTimeout(rest));
    }
    expect(kept.map((d) => d.text)).toEqual(['It rattles when']);
    // the small store was never written, as after a kill that came too soon for it
    localStorage.clear();
    const next = TestBed.runInInjectionContext(() => new Drafts());
    await next.load();
    expect(next.read('demo-2041', 'complaint')).toBe('It rattles when');
    next.keep('demo-2041', 'complaint', '');
    await next.write();
    // cleared text does not come back from the copy that is older
    localStorage.setItem('hs-draft:demo-2041:complaint', JSON.stringify({ text: 'old', at: '2020-01-01' }));
    const last = TestBed.runInInjectionContext(() => new Drafts());
    await last.load();
    expect(last.read('demo-2041', 'complaint')).toBe('');
  });

  it('of a desk file comes back, and what is half-typed here already stays', async () => {
    await openDesk();
    const drafts = TestBed.inject(Drafts);
    drafts.keep('demo-2041', '|complaint', 'mine');
    drafts.bringBack({ 'demo-2041:|complaint': 'theirs', 'demo-2027:|complaint': 'theirs' });
    expect(drafts.read('demo-2041', '|complaint')).toBe('mine');
    expect(drafts.read('demo-2027', '|complaint')).toBe('theirs');
  });

  it('and filing both go on where the small store is forbidden', async () => {
    const desk = await openDesk();
    await desk.open('demo-2041');
    const forbidden = spyOnProperty(window, 'localStorage', 'get').and.throwError(
      new DOMException('no', 'SecurityError'),
    );
    const drafts = TestBed.inject(Drafts);
    drafts.keep('demo-2041', 'complaint', 'half');
    expect(drafts.read('demo-2041', 'complaint')).toBe('half');
    expect((await desk.file({ key: 'vehicle.market', value: 'coast', how: 'reported' })).ok).toBeTrue();
    forbidden.and.callThrough();
  });
});

describe('a damaged or foreign record', () => {
  afterEach(closeDesk);

  it('is set aside, and the rest of the desk opens', async () => {
    await openDesk();
    const db = await TestBed.inject(Database).open();
    const [fact] = own('2027');
    await db.put('facts', { ...fact!, id: 'bad-1', basis: 'no list' as unknown as string[] });
    await db.put('facts', { id: 'bad-2', case: 'demo-2027' } as unknown as Fact);
    await db.put('packs', { id: 'Broken 1', head: {} } as never);
    await db.put('extracts', { case: 'demo-2041' } as never);
    const odd = { ...demoPack(), version: '2030.1', issued: '2030-01-01' };
    odd.variants = odd.variants.map((v) => ({ ...v, features: undefined }) as never);
    await TestBed.inject(FactRepository).add({ packs: [odd] });
    const bad = { ...fact!, id: 'bad-3', case: 'new-case', key: 'engine.code', value: 'TE16-CORM' };
    await db.put('facts', bad);
    await db.delete('heads', 'demo-2027');
    TestBed.resetTestingModule();
    const desk = await wake();
    const repository = TestBed.inject(FactRepository);
    expect(await TestBed.inject(SummaryKeeper).rebuild()).toBeTrue();
    await desk.open('demo-2041');
    expect(desk.current()!.answers?.engine).toBeDefined();
    expect(
      repository
        .damaged()
        .map((d) => `${d.store} ${d.id}`)
        .sort(),
    ).toEqual(['facts bad-1', 'facts bad-2', 'packs Broken 1']);
    // the new case answers with the newest pack, whose designs have lost their features
    await until(() => TestBed.inject(Cases).summaries().length === 7);
    const aside = TestBed.inject(Cases)
      .summaries()
      .filter((h) => h.waits === 'set_aside');
    expect(aside.map((h) => h.id)).toEqual(['new-case']);
    await desk.open('new-case');
    expect(desk.current()!.failure).toBeDefined();
    await desk.open('demo-2027');
    expect(desk.current()!.answers?.ranking.causes[0]?.cause.key).toBe('set_wrong_way');
  });

  it('never makes the catalogue that came with a case the catalogue of others', async () => {
    const desk = await openDesk(false);
    const files = TestBed.inject(CaseFiles);
    await files.open(fileOf('demo-2027', own('2027')));
    expect(
      TestBed.inject(Cases)
        .summaries()
        .map((h) => h.tag),
    ).toEqual(['2027']);
    const packs = TestBed.inject(Packs);
    expect(packs.newestId()).toBeUndefined();
    await desk.open('demo-2027');
    expect(desk.current()!.answers?.variant?.id).toBe('TE16-CORM/A');
    // and the real one still comes in, under the very name that the extract bears
    const filed = await TestBed.inject(FactRepository).add({ packs: [demoPack()] });
    expect(filed.ok).toBeTrue();
    await until(() => packs.newest()?.pack.engines.length === demoPack().engines.length);
  });

  it('of another case refuses the whole file', async () => {
    await openDesk();
    const stolen = own('2027').map((f, i) => ({ ...f, case: 'thief', id: i < 3 ? f.id : `t${i}` }));
    await TestBed.inject(CaseFiles).open(fileOf('thief', stolen));
    expect(
      TestBed.inject(Cases)
        .summaries()
        .some((h) => h.id === 'thief'),
    ).toBeFalse();
    const db = await TestBed.inject(Database).open();
    expect((await db.getAll('facts', ofCase('thief'))).length).toBe(0);
  });
});
