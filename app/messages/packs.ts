import type { IssueReason, PackIssue } from '@core/catalogue/pack-issue';
import { list } from '../language/list';
import { lawWords } from './laws';
import { torquePairWords } from './torque';

/** Where and why a catalogue row was refused, as one sentence. */
export function issueSentence(i: PackIssue): string {
  return `${placeWords(i)}: ${reasonWords(i.reason)}`;
}

/** Why a cell cannot stand, where its place is in sight. */
export function cellSentence(r: IssueReason): string {
  const words = reasonWords(r);
  return words.charAt(0).toUpperCase() + words.slice(1);
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
    case 'too_many_rows':
      return `from here on there are more than ${r.most} rows; split the table.`;
    case 'too_large':
      return `it is larger than the ${r.mostMb} MB that are read at most, packed or unpacked.`;
    case 'too_many_files':
      return `it holds more than ${r.most} files.`;
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
    case 'no_observable':
      return `“${r.key}” is nothing that is observed here; the terms may leave out by what a case can say.`;
    case 'no_such_answer':
      return `“${r.value}” is no answer of ${r.key}${r.allowed.length ? `; allowed are ${list([...r.allowed], 'or')}` : ', which has none to choose from'}.`;
    case 'layout_impossible':
      return `this layout cannot exist (${r.detail}).`;
    case 'two_readings':
      return r.measures === undefined
        ? `“${r.value}” can be read as more than one measure (thread, key, head, length, width …): say which in it, and name it under measures.`
        : `“${r.value}” does not name a ${r.measures}: a thread is written M8, other measures in mm.`;
    case 'sense_typed':
      return `“${r.typed}” is typed into a step. Write {key} or {carrier}: the sense comes from the layout.`;
    case 'unknown_placeholder':
      return `{${r.name}} is nothing that a layout can fill in.`;
    case 'other_kind_of_drive':
      return `the procedure ${r.procedure} is for another kind of drive: it lacks ${list(r.lacks.map((x) => x.replace(/_/g, ' ')))}.`;
    case 'law_broken':
      return `${lawWords(r.law, r.thing)} (law “${r.law.replace(/_/g, ' ')}”).`;
    case 'torque_unreadable':
      return `“${r.typed}” is no stage of a torque; write “42 N·m”, “42 N·m / 31 lbf·ft”, “+90°” or “back 360°”.`;
    case 'torque_no_unit':
      return `the torque “${r.typed}” has no unit that is known; write it as “42 N·m”.`;
    case 'torque_pair':
      return `“${r.typed}” contradicts itself: ${torquePairWords(r.pair)}`;
    case 'block_unknown':
      return `there is no block ${r.block} in this catalogue.`;
    case 'block_loop':
      return `the block ${r.block} uses itself.`;
    case 'param_missing':
      return `the block ${r.block} needs “${r.param}”, which is not given.`;
    case 'step_twice':
      return 'two steps have this id.';
    case 'gate_step_unknown':
      return `a gate names the step ${r.step}, which is not there.`;
    case 'gate_step_lacking':
      return `a gate names the step ${r.step}, which a drive of this procedure does not have; say under needs where the gate holds.`;
    case 'gate_cycle':
      return `these steps wait for each other in a circle: ${r.steps.join(' → ')}.`;
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
