import { demoPack } from '../../demo/catalogue';
import { registryFor, worldOf } from '@core/answer/world';
import { readSeries } from '@core/examination/read-series';
import { catalogueOf } from '@core/catalogue/find-records';
import { parseDay } from '@core/quantity/dates';
import { DEEPEST, parseJson } from '@core/quantity/parse-json';
import { readLabel } from './read-label';
import { LONGEST_TEXT } from '@core/facts/fact';
import { readText } from './read-text';
import { tableOf } from './table';

const catalogue = catalogueOf(demoPack());
const registry = registryFor(worldOf(catalogue));
const ctx = { catalogue, registry, notation: { dateOrder: 'dmy' as const, units: {} }, today: '2026-11-25' };
/** Single signs, and pairs of them that begin what a reader looks for. */
const SIGNS = [...'1aA .,-/:;\n("\'+é\t|=[{<'].concat([
  '0 ',
  '1.',
  'a ',
  '1,',
  '1-',
  'a1',
  '1/',
  '1:',
  '1 1',
  '12 km ',
  '\u0301',
  '😀',
  'P0',
  'of ',
]);

describe('what comes in is read in a time that grows with its length', () => {
  // Nothing is timed: a reader that walks back over what it read takes minutes for one of these, and ends the run.
  it(`every reader comes to an end over ${LONGEST_TEXT} of each sign`, () => {
    let read = 0;
    for (const sign of SIGNS) {
      const text = sign.repeat(Math.floor(LONGEST_TEXT / sign.length));
      const said = readText(text, ctx);
      expect('proposals' in said || said.code === 'empty')
        .withContext(JSON.stringify(sign))
        .toBeTrue();
      tableOf(text, registry);
      readLabel(text, ctx);
      readSeries(text);
      parseDay(text, 'dmy', '2026-01-01');
      read++;
    }
    expect(read).toBe(SIGNS.length);
  });

  it('a file that opens more than is read within each other is refused with its place, and nothing overflows', () => {
    const deep = parseJson(`{"a":\n${'['.repeat(300_000)}`);
    expect(deep.ok ? [] : [deep.error.line, deep.error.column]).toEqual([2, DEEPEST]);
    const fits = parseJson('['.repeat(DEEPEST) + ']'.repeat(DEEPEST));
    expect(fits.ok).toBeTrue();
    expect(parseJson(JSON.stringify({ a: '['.repeat(500), b: '\\"[' })).ok).toBeTrue();
  });
});
