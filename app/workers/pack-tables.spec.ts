import { TABLES } from '@core/catalogue/pack-issue';
import { tableCells } from '@core/catalogue/tables';
import { demoPack } from '../../demo/catalogue';
import { readPackFiles } from './read-pack-files';
import { readTablesOfWorkbook, writeTablesAsWorkbook } from './workbook';

const quiet = () => undefined;
const demo = demoPack();

describe('a catalogue as tables of a house', () => {
  it('comes back from a workbook as it went out, days, numbers and lists too', async () => {
    const blob = await writeTablesAsWorkbook(TABLES.map((t) => ({ sheet: t, rows: tableCells(t, demo[t]) })));
    const sheets = await readTablesOfWorkbook('all.xlsx', new Uint8Array(await blob.arrayBuffer()));
    if (!sheets.ok) throw new Error(sheets.error.code);
    const { layouts, procedures } = demo;
    const empty = { ...demo, ...Object.fromEntries(TABLES.map((t) => [t, []])), layouts, procedures };
    const read = readPackFiles({ texts: [], sheets: sheets.value }, empty, quiet);
    expect(read.issues).toEqual([]);
    expect({ ...read.pack, version: demo.version }).toEqual(demo);
  });

  it('is read under names of its own once they are said, and headings as the screen shows them need no saying', () => {
    const rows = [
      ['Our no.', 'Refers to', 'Shelf'],
      ['X-1', demo.kits[0]?.number ?? '', 'B4'],
    ];
    const first = readPackFiles({ texts: [], sheets: [{ sheet: 'Old Numbers', rows }] }, demo, quiet);
    expect([first.pack, first.unread]).toEqual([undefined, ['old numbers']]);
    const tables = { 'old numbers': 'cross' as const };
    const second = readPackFiles({ texts: [], sheets: [{ sheet: 'Old Numbers', rows }] }, demo, quiet, {
      tables,
      columns: {},
    });
    expect(second.issues.map((i) => [i.column, i.reason.code]).slice(0, 5)).toEqual([
      ['our no.', 'unknown_column'],
      ['refers to', 'unknown_column'],
      ['shelf', 'unknown_column'],
      ['number', 'missing_column'],
      ['names', 'missing_column'],
    ]);
    const named = { cross: { 'our no.': 'number', 'refers to': 'names', shelf: '' } };
    const third = readPackFiles({ texts: [], sheets: [{ sheet: 'Old Numbers', rows }] }, demo, quiet, {
      tables,
      columns: named,
    });
    expect(third.pack?.cross).toEqual([{ number: 'X-1', names: demo.kits[0]?.number ?? '' }]);
    const shown = 'Engine,Vehicle,Km,Months\nTE16-CORM,Heron,60000,48';
    const plain = readPackFiles({ texts: [{ name: 'Intervals.csv', text: shown }] }, demo, quiet);
    expect(plain.pack?.intervals).toEqual([{ engine: 'TE16-CORM', vehicle: 'Heron', km: 60000, months: 48 }]);
  });
});
