import Papa from 'papaparse';

/**
 * The one way in which records leave as CSV. Text that a spreadsheet would take for a formula (=, +, -, @, tab or return in
 * front) gets an apostrophe before it; numbers stay numbers. Reading a catalogue back takes the apostrophe off again.
 */
export const writeCsv = (rows: readonly (readonly (string | number)[])[]): string =>
  Papa.unparse(rows as (string | number)[][], { escapeFormulae: true });
