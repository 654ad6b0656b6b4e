import type { RowTable } from '@core/catalogue/pack-changes';
import type { TableName } from '@core/catalogue/pack-issue';

/** A column of an open table as a heading: "built_from" is "Built from", "terms_km" is "Terms, km". */
export function headWords(name: string): string {
  const words = name.split('_');
  const unit = words.length > 1 && UNITS.has(words.at(-1) ?? '') ? words.pop() : undefined;
  const said = words.join(' ');
  return [said.charAt(0).toUpperCase() + said.slice(1), unit].filter(Boolean).join(', ');
}
const UNITS: ReadonlySet<string> = new Set(['km', 'months', 'days']);

/** What a table of the catalogue is called on the screen. */
export const TABLE_WORDS: Readonly<Record<TableName, string>> = {
  engines: 'Engines',
  features: 'Features',
  variants: 'Designs',
  parts: 'Parts',
  kits: 'Kits',
  applications: 'What fits what',
  jobs: 'What a job needs',
  intervals: 'Intervals',
  cross: 'Other numbers',
};

/** The same with what travels as JSON alone. */
export const ROW_TABLE_WORDS: Readonly<Record<RowTable, string>> = {
  ...TABLE_WORDS,
  layouts: 'Drives',
  procedures: 'Procedures',
};
