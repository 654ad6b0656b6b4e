import type { ShelfError } from '@core/shelf/exchange';
import type { FolderFault } from '@core/shelf/folder-shelf';
import type { Presence } from '@core/shelf/protocol';
import type { ShelfStanding } from '@core/shelf/standing';
import { list } from '../language/list';
import { counted } from '../language/plural';

const waitingWords = (n: number): string => (n === 0 ? '' : `, ${counted(n, 'fact', 'facts')} to go`);

/** How this desk stands to its shelf, for one line. */
export function standingLine(s: ShelfStanding, waiting: number): string {
  switch (s.is) {
    case 'none':
      return '';
    case 'together':
      return `◈ Shelf: together${waitingWords(waiting)}`;
    case 'away':
      return `◇ Shelf: out of reach${waitingWords(waiting)}`;
    case 'asleep':
      return `▲ Shelf: the folder has to be allowed${waitingWords(waiting)}`;
    case 'shut_out':
      return '▲ Shelf: this desk is shut out';
    case 'refused':
      return '▲ Shelf: something is wrong';
  }
}

/** The same in a sentence, with what to do about it. */
export function standingSentence(s: ShelfStanding): string {
  switch (s.is) {
    case 'none':
      return 'This browser is joined to no shelf: nothing leaves this machine but by files that you take out.';
    case 'together':
      return 'Everything filed here is on the shelf, and what others filed is here.';
    case 'away':
      return 'The shelf is out of reach. Everything works on; what is filed goes there when it is back.';
    case 'asleep':
      return 'The browser wants to be asked for the folder again after it was closed.';
    case 'shut_out':
      return 'The shelf lets this desk in no more. What stands here stays and works on. A steward of the shelf can let it in again.';
    case 'refused':
      return `The shelf did not take what this desk sent (${s.detail}). Nothing here is lost; look whether a newer program waits, and tell whoever keeps the shelf.`;
  }
}

/** Why joining, inviting or naming was not done. */
export function shelfErrorWords(e: ShelfError): string {
  switch (e.code) {
    case 'away':
      return 'The shelf does not answer. Look whether its server runs, then try again.';
    case 'shut_out':
      return 'The shelf lets this desk in no more.';
    case 'behind':
      return 'Another window of this desk was quicker. Try again.';
    case 'unreadable':
    case 'other_content':
      return 'What is on the shelf cannot be read by this program.';
    case 'refused':
      if (e.detail.startsWith('code_used'))
        return 'This invitation is none, or was used: each lets one desk in, once. Ask for another.';
      if (e.detail.startsWith('no_crypto'))
        return 'Browsers keep keys only for pages that came by a safe way: open the desk by https, or on the machine of the server itself.';
      if (e.detail.startsWith('not_steward')) return 'Only a steward of the shelf may do that.';
      return `It was refused: ${e.detail}.`;
  }
}

/** Why a catalogue or rules of the house were not put there, or not taken. */
export const offerErrorWords = (
  e: ShelfError | { code: 'no_such_thing' } | { code: 'cannot_be_read' },
): string =>
  e.code === 'no_such_thing'
    ? 'This catalogue is no longer here.'
    : e.code === 'cannot_be_read'
      ? 'What is on the shelf under this name cannot be read by this program. Nothing was changed.'
      : shelfErrorWords(e);

/** Who else is in the case in hand. */
export const besideWords = (here: readonly Presence[]): string =>
  here.length === 0
    ? ''
    : `${list([...new Set(here.map((h) => h.name))])} ${here.length === 1 ? 'is' : 'are'} in this case too.`;

/** What came in to the case in hand. */
export const cameInWords = (facts: number, by: readonly string[]): string =>
  `${counted(facts, 'fact', 'facts')} came in from ${list(by)}.`;

/** Lines in the folder that are no entries: where they are, and what of it. */
export function faultWords(faults: readonly FolderFault[]): string {
  const [first] = faults;
  if (!first) return '';
  const newer = faults.some((f) => f.why.code === 'wrong');
  return `${counted(faults.length, 'line', 'lines')} in the folder cannot be read yet (${first.path}, line ${first.line}): ${
    newer ? 'a newer program wrote there, or ' : ''
  }what carries the folder has not brought it whole. The rest works; they are read when they are whole.`;
}

/** How many cases are here as summaries alone. */
export const farWords = (n: number): string =>
  n === 0
    ? ''
    : `Of ${counted(n, 'case', 'cases')} only the summary is here: found by any fact, fetched when opened. Patterns, the ledger’s sums of facts and backups look at what is here whole.`;

export const letGoWords = (n: number): string =>
  n === 0
    ? 'Nothing was let go: the last 200 cases stay, and what is not on the shelf whole.'
    : `${counted(n, 'case is', 'cases are')} now here as summaries; each comes back when it is opened.`;
