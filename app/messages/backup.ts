import type { BackupList } from '@core/claim/backup';
import { dayOf, formatDay } from '@core/quantity/dates';
import { list } from '../language/list';
import { counted } from '../language/plural';
import type { BackupCame, RestoreError } from '../workers/backup.protocol';
import { caseFileSentence } from './case-file';

/** What a backup holds, in a sentence. */
export const holdsWords = (l: BackupList): string =>
  `${l.damaged > 0 ? `${counted(l.damaged, 'damaged record is', 'damaged records are')} not in it. ` : ''}Of ${formatDay(dayOf(l.at), 'named')}: ${list(
    [
      counted(l.cases, 'case', 'cases'),
      counted(l.facts, 'fact', 'facts'),
      counted(l.packs.length, 'catalogue', 'catalogues'),
      counted(l.files.length, 'photograph, capture or document', 'photographs, captures and documents'),
    ],
  )}.`;

/** What came of it, and what was left. */
export function cameWords(name: string, came: BackupCame): string {
  const some = (names: readonly string[]): string =>
    names.length > 5 ? `${names.slice(0, 5).join(', ')} and ${names.length - 5} more` : list(names);
  return [
    `${name}: ${counted(came.cases.length, 'case is', 'cases are')} on the rack, with ${counted(came.files, 'file', 'files')}.`,
    came.badFiles.length > 0
      ? `Left, since their content is not what was stated or is not in it: ${some(came.badFiles)}.`
      : '',
    came.badPacks.length > 0
      ? `Left, since they are no catalogues or have a fault: ${some(came.badPacks)}.`
      : '',
    came.left.length > 0
      ? `${counted(came.left.length, 'fact', 'facts')} cannot stand with the others and were set aside; they can be saved as damaged records.`
      : '',
    ...came.refused.map((e) => `Not all of it is here. ${refusedWords(name, e)}`),
  ]
    .filter(Boolean)
    .join(' ');
}

/** Everything of it came. */
export const cameWhole = (came: BackupCame): boolean =>
  [came.badFiles, came.badPacks, came.left, came.refused].every((l) => l.length === 0);

/** Why a backup was not taken in. */
export function backupSentence(name: string, e: RestoreError): string {
  switch (e.code) {
    case 'no_list':
      return `${name} is no backup of this program: backup.json is not in it. Nothing was changed.`;
    case 'bad_desk':
      return `${e.why ? caseFileSentence(`${name}, ${e.name},`, e.why) : `${name} lacks ${e.name}, which holds facts. Nothing was changed.`}`;
    default:
      return refusedWords(name, e);
  }
}

function refusedWords(
  name: string,
  e: Exclude<RestoreError, { code: 'no_list' } | { code: 'bad_desk' }>,
): string {
  switch (e.code) {
    case 'foreign':
      return `${name} holds fact ${e.id}, which belongs to another case here; the cases beside it were left.`;
    case 'no_merge':
      return `Case ${e.case} of ${name} cannot be merged with what is here; the cases beside it were left.`;
    case 'cut':
      return `${name} was stopped; taken in again, it goes on from there.`;
    default:
      return caseFileSentence(name, e);
  }
}

/** How backups stand that go into a folder by themselves. */
export function backupFolderWords(
  f:
    | { is: 'none' }
    | { is: 'works' | 'asleep'; folder: string }
    | { is: 'failed'; folder: string; why: string },
): string {
  switch (f.is) {
    case 'none':
      return 'Backups can go into a folder by themselves, each day that this desk is open.';
    case 'works':
      return `Backups go into the folder ${f.folder} by themselves, each day that this desk is open.`;
    case 'asleep':
      return `The browser wants to be asked for the folder ${f.folder} again: until then no backup goes there.`;
    case 'failed':
      return `No backup could be written into the folder ${f.folder}: ${f.why}. Look whether it is there and has room.`;
  }
}
