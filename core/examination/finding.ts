/**
 * What was found: a grade by its key; a number with its standard uncertainty (none: 0); or a number only known to lie
 * between two others.
 */
export type FindingValue = string | { x: number; u: number } | { from: number; to: number };

/** What a part shows, judged from facts: the thing that causes are weighed on. `about`: the thing, when it is not the first. */
export type Finding = { finding: string; value: FindingValue; facts: string[]; about?: string };
