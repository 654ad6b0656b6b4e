/** "a, b and c". */
export function list(words: readonly string[], last = 'and'): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)}`;
}
