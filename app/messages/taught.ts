import type { TaughtError, TaughtFileError } from '@core/intake/taught';
import { counted } from '../language/plural';

/** Why a word cannot be taught, and what can be done. */
export function taughtErrorWords(e: TaughtError): string {
  switch (e.code) {
    case 'too_short':
      return `“${e.phrase}” is too short to be told from other words: give at least three letters.`;
    case 'known':
      return `“${e.phrase}” is taught already.`;
    case 'no_such_observable':
      return `Nothing here is called “${e.key}”.`;
    case 'no_such_option':
      return `“${e.option}” is none of the options of “${e.key}”.`;
  }
}

/** Why a file of words cannot be read, with the place. */
export const taughtFileWords = (e: TaughtFileError): string =>
  e.code === 'not_json'
    ? `it is no JSON (line ${e.line}, column ${e.column}: ${e.detail})`
    : `it holds no words of a house${e.where === '' ? '' : ` (at ${e.where})`}`;

/** What a word would change; how many messages were read, where none is being taught. */
export function trialWords(changed: number, messages: number, taught: boolean): string {
  if (messages === 0) return 'No message is kept here yet.';
  return taught
    ? `It would change ${changed} of ${counted(messages, 'message', 'messages')}.`
    : `${counted(messages, 'message', 'messages')} read.`;
}
