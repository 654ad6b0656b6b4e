const RULES = new Intl.PluralRules('en-GB');

/** The form of a word that goes with a number: plural(1, 'is', 'are') is "is". */
export const plural = (n: number, one: string, other: string): string =>
  RULES.select(n) === 'one' ? one : other;

/** A number with its word: "1 tooth", "2 teeth". */
export const counted = (n: number, one: string, other: string): string => `${n} ${plural(n, one, other)}`;
