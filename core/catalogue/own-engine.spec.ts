import { demoPack } from '../../demo/catalogue';
import { nth } from '@core/quantity/must';
import { randomFrom } from '@core/quantity/random';
import { builtDay, EMPTY_ENGINE, type OwnEngine } from './own-engine';
import { ownFaults } from './own-faults';
import { headOfNext, ownRows, partsLacking } from './own-rows';
import type { Pack } from './pack';
import {
  addChange,
  diffPacks,
  type RowChange,
  rowDifferences,
  rowFromCells,
  rowKey,
  withChanges,
} from './pack-changes';
import { readPackJson } from './read-pack';
import { COLUMNS } from './table-columns';
import { tableCells } from './tables';

const demo = demoPack();
const drive = nth(demo.layouts, 0);

const FORM: OwnEngine = {
  ...EMPTY_ENGINE,
  catalogue: 'Fenwright',
  source: 'typed in',
  code: 'QL20',
  maker: 'Orlando Works',
  vehicles: 'Heron 2.0, Heron Van; Lapwing',
  designs: [
    { name: 'narrow belt', from: '2011', to: '2014-03', seen: 'Black', drive: true },
    { name: 'wide belt', from: '2014-02', to: '', seen: 'grey', drive: false },
  ],
  tell: { wording: 'Colour of the cover', say: 'Which colour has the cover?', look: 'eye' },
  kit: {
    number: 'FK-77',
    name: '',
    months: '24',
    km: '60 000',
    parts: [
      { number: 'FB-1', kind: 'belt', name: 'Timing belt', quantity: '1' },
      { number: 'FR-2', kind: 'idler', name: 'Guide roller', quantity: '2' },
    ],
  },
};
const built = (form: OwnEngine, base: Pack | undefined) =>
  withChanges(headOfNext(form, base, '2026-05-04'), ownRows(form, base, drive));
const codes = (form: Partial<OwnEngine>, base?: Pack) =>
  ownFaults({ ...FORM, ...form }, base, drive).map((f) =>
    [f.step, f.at, f.code].filter((x) => x !== undefined),
  );

describe('an engine that is typed in', () => {
  it('makes a catalogue that is read without a fault, alone or as the next version of another', () => {
    expect(ownFaults(FORM, undefined, drive)).toEqual([]);
    for (const base of [undefined, demo]) {
      const pack = built(FORM, base);
      const read = readPackJson(JSON.stringify(pack));
      expect(read.issues).toEqual([]);
      const own = (read.pack?.variants ?? []).filter((v) => v.engine === 'QL20');
      expect(own.map((v) => Object.values(v.features))).toEqual([[['black']], [['grey']]]);
      expect(own.map((v) => v.layout !== undefined)).toEqual([true, false]);
      expect(own.map((v) => v.built)).toEqual([
        { from: '2011-01-01', to: '2014-03-31', slackDays: 30 },
        { from: '2014-02-01', slackDays: 30 },
      ]);
      expect(pack.engines.at(-1)?.vehicles).toEqual(['Heron 2.0', 'Heron Van', 'Lapwing']);
      expect(pack.kits.at(-1)?.terms).toEqual({ months: 24, km: 60000 });
    }
  });

  it('touches no other row of the catalogue that it joins', () => {
    const added = diffPacks(demo, built(FORM, demo));
    expect(added.every((d) => d.changed === 0 && d.removed === 0)).toBe(true);
    expect(added.reduce((n, d) => n + d.added, 0)).toBe(10);
  });

  it('gives the belt what the drive says of it, and leaves a part that is here as it is', () => {
    const known = nth(demo.parts, 0);
    const kit = {
      ...FORM.kit,
      parts: [...FORM.kit.parts, { number: known.number, kind: 'seal' as const, name: '', quantity: '1' }],
    };
    expect(ownFaults({ ...FORM, kit }, demo, drive)).toEqual([]);
    const pack = built({ ...FORM, kit }, demo);
    expect(pack.parts.find((p) => p.number === 'FB-1')?.attributes).toEqual({
      teeth: drive.count,
      pitchMm: drive.pitchMm,
    });
    expect(pack.parts.filter((p) => p.number === known.number)).toEqual([known]);
  });

  it('names what is missing or wrong with its place', () => {
    const [a, b] = [nth(FORM.designs, 0), nth(FORM.designs, 1)];
    expect(codes({ catalogue: ' ' })).toEqual([['engine', 'missing']]);
    expect(codes({ catalogue: ' ' }, demo)).toEqual([]);
    expect(codes({ code: nth(demo.engines, 0).code.toLowerCase() }, demo)).toEqual([
      ['engine', 'here_already'],
    ]);
    expect(codes({ designs: [{ ...a, from: '2014-13' }, b] })).toEqual([['designs', 0, 'not_a_day']]);
    expect(codes({ designs: [{ ...a, from: '2015' }, b] })).toEqual([['designs', 0, 'window_backwards']]);
    expect(codes({ designs: [a, { ...b, seen: '' }] })).toEqual([['designs', 1, 'missing']]);
    expect(codes({ designs: [a, { ...b, seen: 'BLACK' }] })).toEqual([['designs', 'not_parted']]);
    expect(codes({ designs: [a, { ...b, name: a.name }] })).toEqual([['designs', 1, 'twice']]);
    expect(codes({ designs: FORM.designs.map((d) => ({ ...d, drive: false })) })).toEqual([
      ['drive', 'drive_of_none'],
    ]);
    const kit = (k: Partial<OwnEngine['kit']>) => codes({ kit: { ...FORM.kit, ...k } }, demo);
    expect(kit({ number: nth(demo.kits, 0).number })).toEqual([['kit', 'here_already']]);
    expect(kit({ months: 'two' })).toEqual([['kit', 'no_number']]);
    expect(kit({ parts: FORM.kit.parts.slice(1) })).toEqual([['kit', 'no_belt']]);
    expect(kit({ parts: FORM.kit.parts.map((p) => ({ ...p, quantity: '1.5' })) })).toEqual([
      ['kit', 0, 'no_number'],
      ['kit', 1, 'no_number'],
    ]);
  });

  it('is parted by the days alone where nothing is asked and no day has both', () => {
    const tell = { ...FORM.tell, wording: '' };
    const [a, b] = [nth(FORM.designs, 0), nth(FORM.designs, 1)];
    expect(codes({ tell })).toEqual([['designs', 'not_parted']]);
    expect(codes({ tell, designs: [{ ...a, to: '2014-01' }, b] })).toEqual([]);
  });

  it('asks of a kit for what its drive has, each as often as the drive has it, and for nothing that is there', () => {
    const kinds = (parts: { kind: 'belt' | 'chain' | 'tensioner' | 'idler' | 'pump' }[]) =>
      partsLacking(drive, parts).map((p) => p.kind);
    const wanted = drive.wheels
      .filter((w) => ['tensioner', 'guide', 'idler'].includes(w.role))
      .map((w) => w.role);
    expect(kinds([{ kind: 'pump' }]).sort()).toEqual(['belt', ...wanted].sort() as never);
    expect(kinds([{ kind: 'belt' }, { kind: 'belt' }])).not.toContain('belt');
    const two = { ...drive, wheels: [...drive.wheels, ...drive.wheels.filter((w) => w.role === 'idler')] };
    expect(partsLacking(two, [{ kind: 'belt' }, { kind: 'tensioner' }, { kind: 'idler' }])).toEqual([
      {
        kind: 'idler',
        wheel: nth(
          drive.wheels.filter((w) => w.role === 'idler'),
          0,
        ).name,
      },
    ]);
  });

  it('takes a year or a month for its first or last day', () => {
    expect(builtDay('2012', 'to')).toBe('2012-12-31');
    expect(builtDay('2012-02', 'to')).toBe('2012-02-29');
    expect(builtDay('2011-02', 'to')).toBe('2011-02-28');
    expect(builtDay('2012-02', 'from')).toBe('2012-02-01');
    expect(builtDay('2012-02-30', 'from')).toBeUndefined();
  });
});

describe('a catalogue that is corrected', () => {
  it('is the other catalogue once every row that differs is put in, whatever was changed', () => {
    const random = randomFrom(3);
    for (let round = 0; round < 20; round++) {
      const other: Pack = {
        ...demo,
        parts: demo.parts.flatMap((p) => (random() < 0.1 ? [] : [random() < 0.2 ? { ...p, name: 'x' } : p])),
        cross: [...demo.cross, { number: `N${round}`, names: nth(demo.kits, 0).number }],
      };
      let changes: RowChange[] = [];
      for (const d of rowDifferences(demo, other, 1e6)) {
        const row = other[d.table].find((r) => rowKey(d.table, r) === d.key);
        changes = addChange(demo, changes, { table: d.table, key: d.key, ...(row ? { row } : {}) });
      }
      expect(withChanges(demo, changes)).toEqual(other);
      // What is put back as it was is no change any more.
      const back = changes.reduce((list, c) => {
        const row = demo[c.table].find((r) => rowKey(c.table, r) === c.key);
        return addChange(demo, list, { table: c.table, key: c.key, ...(row ? { row } : {}) });
      }, changes);
      expect(back).toEqual([]);
    }
  });

  it('tells a changed row field by field', () => {
    const part = nth(demo.parts, 2);
    const changed = { ...part, name: 'Other name' };
    const after = withChanges(demo, [{ table: 'parts', key: part.number, row: changed }]);
    expect(rowDifferences(demo, after, 9)).toEqual([
      {
        table: 'parts',
        key: part.number,
        is: 'changed',
        fields: [{ field: 'name', before: part.name, after: 'Other name' }],
      },
    ]);
  });

  it('reads a row that is typed anew as the file would be read, and refuses it cell by cell', () => {
    const kit = nth(demo.kits, 0);
    const cells = (tableCells('kits', [kit])[1] ?? []).map(String);
    const at = (column: string) => COLUMNS.kits.findIndex((c) => c.name === column);
    expect(rowFromCells('kits', cells)).toEqual({ ok: true, value: kit });
    const longer = rowFromCells('kits', cells.with(at('terms_months'), '30'));
    expect(longer.ok && (longer.value as typeof kit).terms).toEqual({ ...kit.terms, months: 30 });
    expect(rowFromCells('kits', cells.with(at('status'), 'gone').with(at('name'), ' '))).toEqual({
      ok: false,
      error: [
        { column: 'name', reason: { code: 'empty' } },
        {
          column: 'status',
          reason: { code: 'not_allowed', typed: 'gone', allowed: ['current', 'discontinued'] },
        },
      ],
    });
  });
});
