const AND = new Intl.ListFormat('en-GB', { type: 'conjunction' });
const OR = new Intl.ListFormat('en-GB', { type: 'disjunction' });

/** "a, b and c", or "a, b or c". */
export const list = (words: readonly string[], last: 'and' | 'or' = 'and'): string =>
  (last === 'and' ? AND : OR).format(words);
