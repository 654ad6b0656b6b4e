/** How likely a reading is under each grade; what is listed of none is 0. They need not add up to one. */
export type Grades = { grades: Readonly<Record<string, number>> };
/**
 * What was found: a grade by its key; a reading that may be of several grades, by how likely each makes it; a number with
 * its standard uncertainty (none: 0); or a number only known to lie between two others.
 */
export type FindingValue = string | Grades | NumberFound;
export type NumberFound = { x: number; u: number } | { from: number; to: number };

/** Grades likelier than this, of the likeliest, are held possible. */
const POSSIBLE = 0.05;
/** A reading by grades: the one grade alone where no other is possible; undefined where it tells none of them apart. */
export function gradeValue(grades: Readonly<Record<string, number>>): string | Grades | undefined {
  const known = Object.entries(grades).filter(([, p]) => p > 0);
  const most = Math.max(0, ...known.map(([, p]) => p));
  const possible = known.filter(([, p]) => p >= POSSIBLE * most);
  const [first] = possible;
  if (first === undefined) return undefined;
  return possible.length === 1 ? first[0] : { grades: Object.fromEntries(possible) };
}

/** What a part shows, judged from facts: the thing that causes are weighed on. `about`: the thing, when it is not the first. */
export type Finding = { finding: string; value: FindingValue; facts: string[]; about?: string };
