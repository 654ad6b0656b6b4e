import { TestBed } from '@angular/core/testing';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { packId } from '@core/catalogue/version';
import { demoPack } from '../../demo/catalogue';
import { Database } from '../data/database';
import { hashOf } from '../records/hash';
import { getPack } from '../records/pack-records';
import { ofCase } from '../records/records';
import { closeDesk, openDesk } from '../testing/demo-desk';
import { lookAtBackup, restoreBackup } from './restore-backup';
import { saveBackup } from './save-backup';

const QUIET = { progress: () => undefined, cancelled: () => false };
const DRAFTS = { 'demo-2041:complaint': 'half' };
/** So little text in a desk file that every case has its own. */
const TINY = 1;

describe('a backup of everything', () => {
  beforeEach(() => openDesk());
  afterEach(closeDesk);
  const open = () => TestBed.inject(Database).open();
  const save = async (deskText?: number) => {
    const db = await open();
    const bytes = new Uint8Array([1, 2, 3]);
    const sha256 = await hashOf(bytes);
    await db.put('files', { sha256, name: 'a.png', type: 'image/png', blob: new Blob([bytes]) });
    await db.put('settings', [], 'knowledge-changes');
    await db.put('settings', 'secret', 'deskKey');
    const made = await saveBackup(db, { at: '2026-11-30T10:00:00.000Z', drafts: DRAFTS }, QUIET, deskText);
    return { ...made, entries: unzipSync(new Uint8Array(await made.blob.arrayBuffer())), sha256 };
  };
  /** Empties the records, as a new browser has them. */
  const clear = async () => {
    const db = await open();
    for (const store of ['facts', 'heads', 'files', 'packs', 'packRows', 'settings'] as const)
      await db.clear(store);
  };
  const zip = (entries: Record<string, Uint8Array>) => new Blob([new Uint8Array(zipSync(entries))]);

  it('comes back whole into empty records, in many desk files as in one, and leaves the key that signs behind', async () => {
    const db = await open();
    const facts = await db.getAll('facts');
    const heads = await db.getAll('heads');
    for (const deskText of [TINY, undefined]) {
      const { blob, list, entries, sha256 } = await save(deskText);
      expect(list.desks).toBe(deskText === TINY ? heads.length : 1);
      expect([list.cases, list.facts, list.damaged]).toEqual([heads.length, facts.length, 0]);
      expect(Object.keys(list.settings)).toEqual(['knowledge-changes']);
      expect(Object.values(entries).some((e) => strFromU8(e).includes('secret'))).toBeFalse();
      await clear();
      expect((await lookAtBackup('b.zip', blob)).ok).toBeTrue();
      expect(await db.count('facts')).toBe(0);
      const came = await restoreBackup(db, 'b.zip', blob, QUIET);
      if (!came.ok) return fail(JSON.stringify(came.error));
      expect(await db.getAll('facts')).toEqual(facts);
      expect((await db.getAll('heads')).map((h) => h.id)).toEqual(heads.map((h) => h.id));
      expect(await getPack(db, packId(demoPack()))).toEqual(demoPack());
      expect((await db.get('files', sha256))?.name).toBe('a.png');
      expect(came.value.drafts).toEqual(DRAFTS);
    }
  });

  it('leaves what is not what it says, tells it, and takes the rest', async () => {
    const db = await open();
    const { entries, list, sha256 } = await save(TINY);
    const mine = (await db.getAll('facts', ofCase('demo-2041')))[0]!;
    await clear();
    // here one fact of a case says something else
    await db.put('facts', { ...mine, value: 'other' });
    const came = await restoreBackup(
      db,
      'b.zip',
      zip({
        ...entries,
        'catalogues/1.json': strToU8('{"engines":[]}'),
        [`files/${sha256}.png`]: strToU8('another'),
      }),
      QUIET,
    );
    if (!came.ok) return fail(JSON.stringify(came.error));
    const { badFiles, badPacks, refused, cases, packs } = came.value;
    expect([badFiles, badPacks, packs]).toEqual([['a.png'], [packId(demoPack())], []]);
    expect(refused.map((r) => r.code)).toEqual(['no_merge']);
    expect(cases.length).toBe(list.cases - 1);
    expect((await db.getAll('facts', ofCase('demo-2041'))).map((f) => f.value)).toEqual(['other']);
    expect(await db.get('files', sha256)).toBeUndefined();
  });

  it('of which a desk file is missing or broken changes nothing', async () => {
    const db = await open();
    const { entries } = await save(TINY);
    await clear();
    const { 'desk/2.json': second, ...rest } = entries;
    for (const bad of [rest, { ...entries, 'desk/2.json': second!.slice(0, 50) }]) {
      const came = await restoreBackup(db, 'b.zip', zip(bad), QUIET);
      expect(!came.ok && came.error.code).toBe('bad_desk');
      expect(await db.count('facts')).toBe(0);
      expect(await db.count('packs')).toBe(0);
    }
  });

  it('that was stopped goes on when it is taken in again', async () => {
    const db = await open();
    const facts = await db.getAll('facts');
    const { blob } = await save(TINY);
    await clear();
    let steps = 0;
    const cut = await restoreBackup(db, 'b.zip', blob, {
      progress: () => steps++,
      cancelled: () => steps > 2,
    });
    expect(cut.ok && cut.value.refused.map((r) => r.code)).toEqual(['cut']);
    expect(await db.count('facts')).toBeLessThan(facts.length);
    expect((await restoreBackup(db, 'b.zip', blob, QUIET)).ok).toBeTrue();
    expect(await db.getAll('facts')).toEqual(facts);
  });
});
