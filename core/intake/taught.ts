import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { parseJson, type JsonFault } from '@core/quantity/parse-json';
import { err, ok, type Result } from '@core/quantity/result';
import { optionsOf, type Registry } from '@core/facts/observable';
import type { IntakeContext } from './context';
import { lexiconOf } from './lexicon';
import { readText } from './read-text';
import { type TaughtWord, TaughtWordsSchema } from './taught-words';
import { stemsOf } from './text';

const FORMAT = 'hollow-sprocket-words';
const FileSchema = z.strictObject({
  format: z.literal(FORMAT),
  formatVersion: z.literal(1),
  words: TaughtWordsSchema,
});

export type TaughtError =
  | { code: 'too_short'; phrase: string }
  | { code: 'no_such_observable'; key: string }
  | { code: 'no_such_option'; key: string; option: string }
  | { code: 'known'; phrase: string };

/** Whether a phrase can be taught: it has a word of its own, its observable is one that is read, and it is not known already. */
export function checkTaught(
  word: TaughtWord,
  taught: readonly TaughtWord[],
  registry: Registry,
): Result<TaughtWord, TaughtError> {
  const phrase = word.phrase.trim().toLowerCase().replace(/\s+/g, ' ');
  const stems = stemsOf(phrase);
  if (stems.length === 0 || phrase.replace(/[^\p{L}]/gu, '').length < 3)
    return err({ code: 'too_short', phrase: word.phrase });
  const o = lexiconOf(registry).observables.get(word.key);
  if (!o) return err({ code: 'no_such_observable', key: word.key });
  if (!optionsOf(o).some((x) => x.key === word.option))
    return err({ code: 'no_such_option', key: word.key, option: word.option });
  const same = (t: TaughtWord) => t.key === word.key && stemsOf(t.phrase).join(' ') === stems.join(' ');
  if (taught.some(same)) return err({ code: 'known', phrase });
  return ok({ ...word, phrase });
}

/** The words of a house as a file. */
export const taughtFile = (words: readonly TaughtWord[]): string =>
  JSON.stringify({ format: FORMAT, formatVersion: 1, words }, undefined, 2);

export type TaughtFileError = ({ code: 'not_json' } & JsonFault) | { code: 'not_words'; where: string };
/** Reads the words of a house; the first fault with its place. */
export function readTaughtFile(text: string): Result<TaughtWord[], TaughtFileError> {
  const json = parseJson(text);
  if (!json.ok) return err({ code: 'not_json', ...json.error });
  const read = FileSchema.safeParse(json.value);
  return read.success
    ? ok(read.data.words)
    : err({ code: 'not_words', where: read.error.issues[0]?.path.join('.') ?? '' });
}

/** What a message gives that counts in a comparison: what would be ticked, and what asked. */
const readingOf = (text: string, ctx: IntakeContext): string => {
  const read = readText(text, ctx);
  return 'code' in read
    ? read.code
    : JSON.stringify(
        read.proposals
          .map((p) => [p.key, p.about ?? '', p.part?.place ?? '', p.value, p.sure === 'ask', p.of ?? 0])
          .sort(),
      );
};

/** Whether a message reads otherwise with other words of the house. */
export const readsOtherwise = (
  text: string,
  ctx: IntakeContext,
  before: readonly TaughtWord[],
  after: readonly TaughtWord[],
): boolean => readingOf(text, { ...ctx, taught: before }) !== readingOf(text, { ...ctx, taught: after });
