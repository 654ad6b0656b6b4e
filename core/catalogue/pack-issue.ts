import type { AttributeFault } from './attributes';
import type { ExpandError } from './expand-procedure';
import type { LawCode } from './law-codes';
import type { TorqueError } from './torque-plan';

/** Tables of a pack that travel as CSV; layouts and procedures are nested and travel as JSON. */
export const TABLES = [
  'engines',
  'features',
  'variants',
  'parts',
  'kits',
  'applications',
  'jobs',
  'intervals',
  'cross',
] as const;
export type TableName = (typeof TABLES)[number];
export type AnyTable = TableName | 'layouts' | 'procedures' | 'pack';

/** A fault without the place that is told beside it. */
type Bare<E> = E extends { at: string } ? Omit<E, 'at'> : never;

export type IssueReason =
  | AttributeFault
  | TorqueError
  | Bare<ExpandError>
  | { code: 'missing_column'; column: string }
  | { code: 'unknown_column'; column: string }
  | { code: 'empty' }
  | { code: 'too_many_rows'; most: number }
  | { code: 'too_large'; mostMb: number }
  | { code: 'too_many_files'; most: number }
  | { code: 'too_few_cells'; have: number; want: number }
  | { code: 'not_allowed'; typed: string; allowed: readonly string[] }
  | { code: 'not_a_day'; typed: string }
  | { code: 'bad_pair'; typed: string; shape: string }
  | { code: 'bad_shape'; detail: string }
  | { code: 'duplicate'; key: string; firstRow: number }
  | { code: 'dangling'; key: string; table: AnyTable }
  | { code: 'supersession_loop'; chain: string[] }
  | { code: 'window_impossible'; from: string; to: string }
  | { code: 'windows_overlap'; other: string }
  | { code: 'value_not_of_feature'; feature: string; value: string; allowed: string[] }
  | { code: 'layout_impossible'; detail: string }
  | { code: 'two_readings'; value: string; measures: string | undefined }
  | { code: 'sense_typed'; typed: string }
  | { code: 'unknown_placeholder'; name: string }
  /** A plan leaves out by something that nobody can observe, or by an answer that it cannot have. */
  | { code: 'no_observable'; key: string }
  | { code: 'no_such_answer'; key: string; value: string; allowed: readonly string[] }
  | { code: 'other_kind_of_drive'; procedure: string; lacks: string[] }
  | { code: 'law_broken'; law: LawCode; thing: string };

/** One bad place. `row` is the line in a CSV file (the header is line 1), or the entry's number in JSON. */
export type PackIssue = { table: AnyTable; row: number; column: string; reason: IssueReason };
