import type { BundleError } from '@core/claim/bundle';
import type { CaseFileError } from '@core/claim/case-file';
import type { DeskFileError } from '@core/claim/desk-file';
import type { UnpackError } from '../workers/unpack';
import { issueSentence } from './packs';

/** Why a case file was not read, where, and what to do. */
export function caseFileSentence(
  name: string,
  e: CaseFileError | DeskFileError | BundleError | UnpackError,
): string {
  switch (e.code) {
    case 'not_json':
      return `${name} is broken at line ${e.line}, column ${e.column}: ${e.detail}. Nothing was changed. Ask for the file again.`;
    case 'other_format':
      return `${name} is no case file of this program (its format says “${e.format}”). Nothing was changed.`;
    case 'newer_version':
      return `${name} was written by a newer version (file version ${e.version}). Update this program first. Nothing was changed.`;
    case 'bad_shape':
      return `${name} does not fit at ${e.path || 'the top'}: ${e.detail}${e.more ? `, and ${e.more} more` : ''}. Nothing was changed.`;
    case 'foreign_fact':
      return `${name} holds fact ${e.id} of another case (${e.case}). Nothing was changed.`;
    case 'fact_twice':
      return `${name} holds fact ${e.id} twice. Nothing was changed.`;
    case 'circle':
      return `${name} holds fact ${e.id}, which corrects or strikes itself by way of others. Nothing was changed.`;
    case 'too_many':
      return `${name} holds ${e.facts} facts of one case; at most ${e.most} are read. Nothing was changed.`;
    case 'two_kinds':
      return `${name} declares ${e.thing} twice, as ${e.kinds[0]} and as ${e.kinds[1]}. Nothing was changed.`;
    case 'no_kind':
      return `${name} tells of ${e.thing}, but nowhere what that is. Nothing was changed.`;
    case 'practice':
      return `${name} is of a return for practice, which can never be a case. Nothing was changed.`;
    case 'bad_catalogue':
      return `${name} carries a catalogue with a fault. ${issueSentence(e.issue)}${e.more ? ` And ${e.more} more.` : ''} Nothing was changed.`;
    case 'no_case':
      return `${name} is no bundle of a case: there is no case.json in it. Nothing was changed.`;
    case 'file_missing':
      return `${name} lacks ${e.name}, which fact ${e.fact} points to (SHA-256 ${e.hash.slice(0, 12)}…). Nothing was changed. Ask for the bundle again.`;
    case 'other_report':
      return `${name} holds ${e.found ? 'another report than was put into it' : 'no report, though one was put into it'}. Nothing was changed. Ask for the bundle again.`;
    case 'wrong_hash':
      return `${name} holds ${e.name} with other content than its name states (${e.stated.slice(0, 12)}…, found ${e.found.slice(0, 12)}…). Nothing was changed. Ask for the bundle again.`;
    case 'file_too_large':
      return `${e.name} has ${Math.ceil(e.bytes / 1e6)} MB; a bundle has at most ${Math.round(e.most / 1e6)} MB. Nothing was changed.`;
    case 'too_many_entries':
      return `${e.name} holds more than ${e.most} files. Nothing was changed.`;
    case 'unpacks_too_large':
      return `${e.name} unpacks to more than ${Math.round(e.most / 1e6)} MB. Nothing was changed.`;
    case 'broken_zip':
      return `${e.name} is a broken zip: ${e.detail}. Nothing was changed. Ask for it again.`;
    case 'too_large':
      return `${name} has ${Math.ceil(e.bytes / 1e6)} MB; a case file has at most ${Math.round(e.most / 1e6)} MB. Nothing was changed.`;
  }
}

/** A file that a case points to, and whose content is elsewhere. */
export const notHereWords = (name: string): string =>
  `${name} is not in this browser. Open a bundle of this case that holds it.`;
