import { emptyState, reduce } from './state';
import { type NewFact, fileFact, redoTarget, retractFact, undoTarget } from './change';
import type { Author, Fact } from './fact';
import { factOf } from './facts.fixture';
import { completions, readDeclaration } from './fact-line';
import { isBeyond } from './place';
import { found } from '@core/quantity/must';
import { OBSERVABLES, registryWith } from './registry';
import { MONTH_U } from '@core/quantity/dates';
import { showValue } from './show-value';

const registry = registryWith(OBSERVABLES, []);
const notation = { dateOrder: 'dmy' as const, units: {} };

describe('a further part, as it is declared on the fact line', () => {
  it('is of a kind by its name or another one of it, with where it belongs', () => {
    expect(readDeclaration('another tensioner left, secondary')).toEqual({
      kind: 'tensioner',
      place: 'left, secondary',
    });
    expect(readDeclaration('  Another RAIL  slack side ')).toEqual({ kind: 'guide', place: 'slack side' });
    expect(readDeclaration('another belt')).toEqual({ kind: 'belt', place: '' });
  });

  it('is nothing that is no part, nor anything that is not said to be another', () => {
    for (const line of ['another engine', 'another claim', 'another', 'another thing', 'tensioner left', ''])
      expect(readDeclaration(line)).withContext(line).toBeUndefined();
  });
});

describe('completions', () => {
  it('are none of nothing, at most as many as are asked for, and only of what applies', () => {
    expect(completions('', registry)).toEqual([]);
    expect(completions('   ', registry)).toEqual([]);
    expect(completions('t', registry, 3).length).toBe(3);
    const belts = completions('edge', registry, 50, (o) => o.part === 'belt');
    expect(belts.length).toBeGreaterThan(1);
    expect(belts.every((o) => o.part === 'belt')).toBeTrue();
  });
});

describe('a counted place', () => {
  it('lies beyond what there is before the first and behind the last, by its far end', () => {
    const at = (from: number, to?: number) => ({ on: 'tooth' as const, from, ...(to ? { to } : {}) });
    expect([at(0), at(1), at(120), at(121)].map((p) => isBeyond(p, 120))).toEqual([true, false, false, true]);
    expect([at(118, 120), at(119, 121)].map((p) => isBeyond(p, 120))).toEqual([false, true]);
    expect(isBeyond({ on: 'edge' }, 120)).toBeFalse();
  });
});

describe('a day as it is shown', () => {
  it('is a month where no more than the month is known', () => {
    const day = found(registry.get('vehicle.built'));
    const show = (u?: number) => showValue(day, '2016-05-03', notation, (_, k) => k, u);
    expect(show()).toContain('03');
    expect(show(MONTH_U)).not.toContain('03');
    expect(show(MONTH_U)).toContain('2016');
  });
});

describe('redo, among several people', () => {
  let n = 0;
  const by = (name: string): Author => ({
    by: name,
    now: () => new Date(Date.UTC(2026, 5, 1) + ++n * 1000).toISOString(),
    newId: () => `${name}${++n}`,
  });
  const [ida, max] = [by('Ida'), by('Max')];
  const entry: NewFact = { key: 'case.tag', value: '1', how: 'decided' };
  const plus = (log: readonly Fact[], who: Author, e = entry): Fact[] => [
    ...log,
    fileFact(reduce(log), 'c', e, who),
  ];
  const undo = (log: readonly Fact[], who: Author): Fact[] => [
    ...log,
    retractFact(found(undoTarget(reduce(log), who.by)), who, log),
  ];

  it('is of one’s own undoing, whatever another filed since; what one filed oneself since ends it', () => {
    const undone = undo(plus([], ida), ida);
    const strike = found(undone.at(-1));
    expect(redoTarget(reduce(undone), 'Ida')?.id).toBe(strike.id);
    expect(redoTarget(reduce(undone), 'Max')).toBeUndefined();
    const others = plus(undone, max, { key: 'engine.code', value: 'TE16-CORM', how: 'reported' });
    expect(redoTarget(reduce(others), 'Ida')?.id).toBe(strike.id);
    const own = plus(others, ida, { key: 'call.who', value: 'x', how: 'reported' });
    expect(redoTarget(reduce(own), 'Ida')).toBeUndefined();
    // Redone, it is not redone once more.
    const redone = [...undone, retractFact(strike, ida, undone)];
    expect(redoTarget(reduce(redone), 'Ida')).toBeUndefined();
    expect(redoTarget(emptyState([]), 'Ida')).toBeUndefined();
  });
});

describe('facts of earlier makes, which do not say what they had seen', () => {
  it('come before all others, by time, however they are given', () => {
    const old = (id: string, at: string): Fact => {
      const { seen, ...rest } = factOf('call.who', id, { id, at });
      void seen;
      return rest;
    };
    const [a, b] = [old('a', '2026-01-02T00:00:00.000Z'), old('b', '2026-01-01T00:00:00.000Z')];
    const late = factOf('call.who', 'c', { id: 'c', at: '2025-01-01T00:00:00.000Z' });
    for (const given of [
      [a, b, late],
      [late, a, b],
      [b, late, a],
    ])
      expect(reduce(given).log.map((f) => f.id)).toEqual(['b', 'a', 'c']);
  });
});
