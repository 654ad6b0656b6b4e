import Papa from 'papaparse';
import { readContextOf } from '@core/answer/read-context';
import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { guessForm, headingAt } from '@core/intake/claims-form';
import { type ClaimsReader, claimsReader, readsAs } from '@core/intake/claims-table';
import { addDays } from '@core/quantity/dates';
import { readRows } from '../app/workers/read-table';
import { demoPack } from '../demo/catalogue';
import { compare, type Row } from './measure';

const ROWS = 50_000;

/** A claims table of 50,000 rows, read and checked cell by cell, beside the parser alone. */
export function claimsBench(): Row[] {
  const pack = demoPack();
  const catalogue = catalogueOf(pack);
  const registry = registryFor(worldOf(catalogue));
  const notation = { dateOrder: 'dmy' as const, units: {} };
  const ctx = readContextOf(undefined, catalogue, notation, '2026-11-25');
  const house = { dateOrder: 'dmy', distance: 'km' } as const;
  const reads = readsAs(registry, ctx);
  const text = claimsText(pack.kits.map((k) => k.number));
  const parser = () => Papa.parse<string[]>(text).data.length;
  const whole = () => {
    let reader: ClaimsReader | undefined;
    readRows(text, (rows) => {
      if (!reader) {
        const at = headingAt(rows, registry);
        const { form } = guessForm(rows, at, registry, [], house, reads);
        reader = claimsReader(at, form, registry, ctx);
      }
      reader.push(rows);
    });
    return reader?.rows.length;
  };
  if (whole() !== ROWS) throw new Error('not every row was read');
  return [
    compare(
      `Read and check a claims table of ${ROWS} rows`,
      whole,
      'the CSV parser alone',
      parser,
      '≤ 1.5× parser',
    ),
  ];
}

function claimsText(kits: readonly string[]): string {
  const day = (n: number) => addDays('2023-01-02', n).split('-').reverse().join('.');
  const rows = Array.from({ length: ROWS }, (_, i) => [
    `C-${100_000 + i}`,
    `Workshop ${i % 700}, Mirefield`,
    kits[i % kits.length] ?? '',
    `LT-${i % 400}`,
    day(i % 900),
    `${20_000 + ((i * 37) % 90_000)}`,
    day(200 + (i % 1100)),
    `${30_000 + ((i * 41) % 150_000)} km`,
    ['rattles when cold', 'engine would not start', 'squeals, then stopped', 'coolant at the cover'][i % 4] ??
      '',
    `${80 + (i % 300)},${String(i % 100).padStart(2, '0')}`,
    `${100 + (i % 900)},50`,
    i % 3 === 0 ? '' : '120,00',
    i % 2 === 0 ? 'yes' : 'no',
    `order ${i % 5000}`,
  ]);
  const head =
    'Claim number;Workshop;Kit;Lot;Fitted on;Km at fitting;Date of failure;Km at failure;Complaint;Parts cost;Labour;Other cost;Invoice;Order';
  return `${head}\n${Papa.unparse(rows, { delimiter: ';' })}`;
}
