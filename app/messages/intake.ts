import { list } from '../language/list';
import { counted } from '../language/plural';
import type { Proposal } from '@core/intake/proposal';
import type { TextError } from '@core/intake/read-text';
import { formatNumber } from '@core/quantity/format-quantity';

/** Why a text was not read, and what can be done. */
export function textErrorWords(e: TextError): string {
  return e.code === 'empty'
    ? 'Paste or type what was said first.'
    : `This text has ${formatNumber(e.length, 0)} characters; ${formatNumber(e.most, 0)} are read at once. Keep the part that is about this case; nothing was filed and the text is still here.`;
}

/** Why a reading is asked instead of taken. */
export function doubtWords(p: Proposal): string {
  switch (p.doubt) {
    case 'two_values':
      return 'the text says two things: press the one that is meant';
    case 'witness':
      return p.hearsay === undefined
        ? 'somebody else says otherwise: press what is to be kept, or both'
        : `${p.hearsay} says so: press it to keep that beside the other`;
    case 'near_code':
      return 'one character differs from this code: press it if it is meant';
    case 'bare_number':
      return 'a number without its unit: press what it is';
    case 'half_code':
      return 'half a number: press the one that is on the label';
    case 'asked':
      return 'asked, planned or of before: press it if it is so';
    case 'not_sure':
      return 'read with doubt: press it if it is so';
    case 'implied':
      return 'follows from what was named';
    case undefined:
      return p.hearsay === undefined ? '' : `as told: ${p.hearsay}`;
  }
}

/** How many facts a press files. */
export const countWords = (n: number): string => `File ${counted(n, 'fact', 'facts')}`;

/** How many vehicles or claims a message tells of, and what they are called in it. */
export const severalWords = (names: readonly string[]): string =>
  `This message tells of ${names.length}: ${list(names)}.`;

export const othersWords = (n: number): string =>
  n === 1 ? 'Open the other as a case' : `Open the other ${n} as cases`;

/** What became of the others. */
export const knownWords = (opened: number, known: readonly string[]): string =>
  [
    opened > 0 ? `${counted(opened, 'case', 'cases')} opened` : '',
    known.length > 0 ? `here already: ${list(known)}` : '',
  ]
    .filter(Boolean)
    .join('; ');

export const unfiledWords = (n: number): string =>
  `Not filed: ${counted(n, 'piece', 'pieces')} that nothing takes.`;
