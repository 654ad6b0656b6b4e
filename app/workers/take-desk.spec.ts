import { TestBed } from '@angular/core/testing';
import { deskFileFrame } from '@core/claim/desk-file';
import type { Fact } from '@core/facts/fact';
import { closeDesk, openDesk } from '../testing/demo-desk';
import { Database } from '../data/database';
import { ofCase } from '../records/records';
import { takeDesk } from './take-desk';

const fact = (id: string, of: string, more: Partial<Fact> = {}): Fact => ({
  id,
  case: of,
  key: 'complaint',
  value: 'rattles',
  how: 'reported',
  by: 'T',
  at: '2026-11-25T10:00:00.000Z',
  ...more,
});
/** A desk file of cases that are named after their number. */
const desk = (cases: number, ...more: Fact[]): Blob => {
  const [head, foot] = deskFileFrame('2026-11-25T10:00:00.000Z', { 'n0:complaint': 'half' });
  const facts = Array.from({ length: cases }, (_, i) => fact(`f${i}`, `n${i}`)).concat(more);
  return new Blob([head, facts.map((f) => JSON.stringify(f)).join(','), foot]);
};
const QUIET = { progress: () => undefined, cancelled: () => false };

describe('a desk file is taken in', () => {
  beforeEach(() => openDesk());
  afterEach(closeDesk);
  const open = () => TestBed.inject(Database).open();
  /** Everything that the records hold. */
  const held = async () => {
    const db = await open();
    return JSON.stringify([await db.getAll('facts'), await db.getAll('heads')]);
  };

  it('case by case with their heads, once however often it comes, telling how far it is', async () => {
    const db = await open();
    const steps: number[] = [];
    const first = await takeDesk(db, desk(30), { ...QUIET, progress: ({ done }) => steps.push(done) });
    expect(first.ok && first.value.cases.length).toBe(30);
    expect(first.ok && first.value.drafts).toEqual({ 'n0:complaint': 'half' });
    expect(steps).toEqual(Array.from({ length: 30 }, (_, i) => i + 1));
    expect((await db.get('heads', 'n7'))?.id).toBe('n7');
    const after = await held();
    expect((await takeDesk(db, desk(30), QUIET)).ok).toBeTrue();
    expect(await held()).toBe(after);
  });

  it('or not at all: stopped on the way, or where a fact of it belongs to another case or cannot be merged', async () => {
    const db = await open();
    const before = await held();
    let done = 0;
    const cut = await takeDesk(db, desk(30), { progress: () => done++, cancelled: () => done === 12 });
    expect(!cut.ok && cut.error.code).toBe('cut');
    expect(await held()).toBe(before);
    const mine = (await db.getAll('facts', ofCase('demo-2041')))[0]!;
    const why = async (...more: Fact[]) => {
      const taken = await takeDesk(db, desk(5, ...more), QUIET);
      expect(await held()).toBe(before);
      return taken.ok ? 'taken' : taken.error.code;
    };
    expect(await why(fact(mine.id, 'zz'))).toBe('foreign');
    expect(await why({ ...mine, value: 'other' })).toBe('no_merge');
    expect(await why(fact('f1', 'zz'))).toBe('fact_twice');
  });

  it('without what cannot stand with the rest of its case, which is told', async () => {
    const db = await open();
    const ghost = fact('g', 'n1', { about: 'ghost', key: 'tensioner.extension', value: 7 });
    const taken = await takeDesk(db, desk(3, ghost), QUIET);
    expect(taken.ok && taken.value.left.map((d) => d.id)).toEqual(['g']);
    expect((await db.getAll('facts', ofCase('n1'))).map((f) => f.id)).toEqual(['f1']);
  });
});
