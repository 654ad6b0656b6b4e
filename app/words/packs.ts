import type { IssueReason, PackIssue } from '@core/catalogue/pack-issue';
import { list } from './reading';

/** Where and why a catalogue row was refused, as one sentence. */
export function issueSentence(i: PackIssue): string {
  return `${placeWords(i)}: ${reasonWords(i.reason)}`;
}

const placeWords = (i: PackIssue) => `${i.table}, line ${i.row}${i.column ? `, ${i.column}` : ''}`;

function reasonWords(r: IssueReason): string {
  switch (r.code) {
    case 'missing_column':
      return `the column ${r.column} is missing.`;
    case 'unknown_column':
      return `there is no column ${r.column}; correct its name or take it out.`;
    case 'empty':
      return 'this cell must not be empty.';
    case 'too_few_cells':
      return `${r.have} cells where ${r.want} belong.`;
    case 'not_allowed':
      return `“${r.typed}” is not one of ${list(r.allowed, 'or')}.`;
    case 'not_a_day':
      return `“${r.typed}” is not a day; write it as 2026-03-12.`;
    case 'bad_pair':
      return `“${r.typed}” is not of the form ${r.shape}.`;
    case 'bad_shape':
      return r.detail;
    case 'duplicate':
      return `${r.key} stands already in line ${r.firstRow}.`;
    case 'dangling':
      return `${r.key} is not in the table ${r.table}.`;
    case 'supersession_loop':
      return `the numbers replace each other in a circle: ${r.chain.join(' → ')}.`;
    case 'window_impossible':
      return `the window begins ${r.from}, after its end ${r.to}.`;
    case 'windows_overlap':
      return `its build window overlaps that of ${r.other} and no feature or market tells them apart.`;
    case 'value_not_of_feature':
      return `“${r.value}” is no answer of ${r.feature}; allowed are ${list(r.allowed, 'or')}.`;
    case 'layout_impossible':
      return `this layout cannot exist (${r.detail}).`;
    case 'unknown_attribute':
      return `“${r.key}” is no attribute of a part.`;
    case 'not_a_number':
      return `“${r.typed}” is not a number.`;
    case 'wrong_unit':
      return `“${r.typed}”: give it in millimetres, without another unit.`;
    case 'not_positive':
      return `“${r.typed}” must be above zero.`;
    case 'not_whole':
      return `“${r.typed}” must be a whole number.`;
    case 'not_a_word':
      return `“${r.typed}” is not one of ${list(r.allowed, 'or')}.`;
  }
}
