/** What a look, a measurement or a computation shows, as evidence can weigh it. */
export type FindingValue =
  | { kind: 'grade'; grade: string }
  | { kind: 'number'; value: number; u: number }
  /** Known only to lie between; an open end is left out. */
  | { kind: 'between'; from?: number; to?: number };

/** What a part shows, judged from facts: the thing that causes are weighed on. `about`: the thing, when it is one of several. */
export type Finding = { finding: string; value: FindingValue; facts: string[]; about?: string };

export const grade = (g: string): FindingValue => ({ kind: 'grade', grade: g });
/** The grade of a finding, or undefined when it is a number. */
export const gradeOf = (f: Pick<Finding, 'value'>): string | undefined =>
  f.value.kind === 'grade' ? f.value.grade : undefined;
