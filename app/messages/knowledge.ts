import { counted } from '../language/plural';
import { nth } from '@core/quantity/must';
import type { CauseData } from '@core/cause/cause-data';
import type { Change, ChangeProblem, ChangesFileError } from '@core/cause/changes';
import type { Ground } from '@core/cause/grounds';
import type { OwnShare } from '@core/cause/own-shares';
import type { KnowledgeIssue } from '@core/cause/lint';
import type { KnowledgeNumber } from '@core/cause/numbers';
import type { Rejudged } from '@core/answer/rejudge';
import { formatNumber } from '@core/quantity/format-quantity';
import { findingWords, percent } from './answers';
import type { SentenceContext } from './sentence-context';

/** A share as fine as it is worth: "0.4 %", "12 %". */
export const shareWords = (p: number): string =>
  `${formatNumber(100 * p, p < 0.001 ? 3 : p < 0.01 ? 2 : p < 0.1 ? 1 : 0)}\u00a0%`;

/** A number with its unit. */
export function numberWords({ kind, about }: KnowledgeNumber, value: number): string {
  if (kind === 'life') return about[0] === 'scale' ? `${formatNumber(value, 0)} km` : formatNumber(value, 2);
  return kind === 'tilt' ? `× ${formatNumber(value, 2)}` : shareWords(value);
}

/** What a number says, beside its entry. */
export function numberLabel(
  { kind, about, entry }: KnowledgeNumber,
  data: CauseData,
  v: SentenceContext,
): string {
  switch (kind) {
    case 'prior':
      return 'How common, against the others';
    case 'life':
      return about[0] === 'shape'
        ? 'Shape: below 1 early, above with wear'
        : 'Scale: noticed by then in two of three';
    case 'works':
      return data.mechanisms.find((m) => m.key === about[0])?.wording ?? nth(about, 0);
    case 'leak':
      return 'At work anyway, whatever the cause';
    case 'shows':
      return findingWords({ finding: nth(about, 0), value: nth(about, 1) }, v);
    case 'off':
      return findingWords({ finding: entry, value: nth(about, 0) }, v);
    case 'tilt':
      return `Where it ${TILTS[entry] ?? entry}: ${about[0]}, against all`;
  }
}
const TILTS: Readonly<Record<string, string>> = {
  belt: 'runs a belt',
  chain: 'runs a chain',
  return: 'comes as a return',
  claim: 'comes as a claim',
};

/** A number by its entry and what it says. */
export function numberPlaceWords(
  n: KnowledgeNumber | undefined,
  place: string,
  data: CauseData,
  v: SentenceContext,
): string {
  if (!n) return place;
  const entry =
    data.causes.find((c) => c.key === n.entry)?.wording ??
    data.mechanisms.find((m) => m.key === n.entry)?.wording;
  return `${entry === undefined ? '' : `${entry}: `}${numberLabel(n, data, v)}`;
}

export const GROUND_WORDS: Readonly<Record<Ground['ground'], string>> = {
  reasoning: 'reasoning',
  computed: 'computed',
  house: 'house',
};

export function problemSentence(p: ChangeProblem): string {
  switch (p.code) {
    case 'no_such_number':
      return `there is no number “${p.place}” in the knowledge.`;
    case 'out_of_range':
      return `${p.value} does not lie between ${p.from} and ${p.to}.`;
    case 'inconsistent':
      return issueWords(p.issue);
  }
}

function issueWords(i: KnowledgeIssue): string {
  switch (i.code) {
    case 'adds_up':
      return `with it the shares of ${i.at} add up to ${shareWords(i.to)}, more than there can be. Lower another one first.`;
    case 'alike':
      return `with it nothing tells ${i.at} from ${i.other} any more.`;
    case 'unknown':
      return `${i.at} names ${i.what} “${i.name}”, which is not there.`;
    case 'twice':
      return `${i.at} names “${i.name}” twice.`;
    case 'idle':
      return `${i.at} would never matter.`;
  }
}

export function fileSentence(e: ChangesFileError): string {
  switch (e.code) {
    case 'no_columns':
      return `Line 1: the columns ${e.missing.join(', ')} are missing. Nothing was changed.`;
    case 'bad_cell':
      return `Line ${e.line}, ${e.column}: “${e.cell}” cannot be read. Nothing was changed.`;
    case 'refused':
      return `Line ${e.line}: ${problemSentence(e.problem)} Nothing was changed.`;
  }
}

/** What the house sees otherwise, as its history tells it. */
export const changeWords = (c: Change, n: KnowledgeNumber | undefined): string =>
  `${c.value === null ? 'back to what ships' : n ? numberWords(n, c.value) : String(c.value)}, ${c.by}, ${c.at.slice(0, 10)}: ${c.ground}`;

/** With what a verdict was made. */
export function editionWords(edition: number, changed: number): string {
  const own = changed === 0 ? '' : `, ${counted(changed, 'number', 'numbers')} of its own`;
  return `Knowledge, edition ${edition}${own}`;
}

export function rejudgedWords({ before, after }: Rejudged): string {
  const [was, is] = [percent(before.share), percent(after.share)];
  return before.cause === after.cause
    ? `${before.wording}: ${was} → ${is}`
    : `${before.wording} ${was} → ${after.wording} ${is}`;
}

/** The ground of a prior by the house's own cases. */
export const ownCasesWords = ({ seen, expected }: OwnShare, of: number, weight: number): string =>
  `Own cases: ${seen} of ${of} settled, ${formatNumber(expected, 1)} expected; shrunk by ${weight}.`;
