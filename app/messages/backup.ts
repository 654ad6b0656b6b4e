import type { BackupList } from '@core/claim/backup';
import { dayOf, formatDay } from '@core/quantity/dates';
import { list } from '../language/list';
import { counted } from '../language/plural';
import type { BackupCame, RestoreError } from '../workers/backup.protocol';
import { caseFileSentence } from './case-file';
import { issueSentence } from './packs';

/** What a backup holds, in a sentence. */
export const holdsWords = (l: BackupList): string =>
  `Of ${formatDay(dayOf(l.at), 'named')}: ${list([
    counted(l.cases, 'case', 'cases'),
    counted(l.facts, 'fact', 'facts'),
    counted(l.packs.length, 'catalogue', 'catalogues'),
    counted(l.files.length, 'photograph, capture or document', 'photographs, captures and documents'),
  ])}.`;

/** What came of it. */
export function cameWords(name: string, came: BackupCame): string {
  const bad =
    came.badFiles.length > 0
      ? ` ${list(came.badFiles.slice(0, 5))}${came.badFiles.length > 5 ? ' and more' : ''} came with other content than stated, or not at all, and were left.`
      : '';
  const left =
    came.left.length > 0
      ? ` ${counted(came.left.length, 'fact', 'facts')} cannot stand with the others and were set aside; they can be exported as damaged records.`
      : '';
  return `${name}: ${counted(came.cases.length, 'case is', 'cases are')} on the rack, with ${counted(came.files, 'file', 'files')}.${bad}${left}`;
}

/** Why a backup was not taken in. */
export function backupSentence(name: string, e: RestoreError): string {
  switch (e.code) {
    case 'no_list':
    case 'no_desk':
      return `${name} is no backup of this program: ${e.code === 'no_list' ? 'backup.json' : 'desk.json'} is not in it. Nothing was changed.`;
    case 'bad_pack':
      return `${name} holds a catalogue with a fault (${e.name}).${e.issue ? ` ${issueSentence(e.issue)}` : ''} Nothing was changed.`;
    case 'foreign':
      return `${name} holds fact ${e.id}, which belongs to another case here. No case was changed.`;
    case 'no_merge':
      return `Case ${e.case} of ${name} cannot be merged with what is here. No case was changed.`;
    case 'cut':
      return `${name} was stopped. No case was changed.`;
    default:
      return caseFileSentence(name, e);
  }
}
