import type { Content } from 'pdfmake/interfaces';
import { factsDigest } from '@core/facts/digest';
import { plainText } from '@core/facts/value';
import { usageWords } from '../messages/answers';
import { planOnCase, termsWords } from '../messages/terms';
import { type CaseOnPaper, issueOf, issueWords, said, writtenFor } from './case-on-paper';
import { causePart } from './cause-part';
import { costPart } from './cost-part';
import { decisionPart } from './decision-part';
import { drivePart, measuredPart } from './drive-part';
import { factTable } from './fact-table';
import { fittingPart, piecesPart } from './fitting-part';
import type { Paper } from './paper';
import { closingPart, heading, pairs } from './parts';
import { allPhotos, photoPart } from './photo-part';
import { toldPart } from './told-part';

const planText = (p: ReturnType<typeof planOnCase>): string =>
  p ? [p.says, ...p.leaves].join(' ') : 'not known';

/** Everything, for the house itself: figures and reasoning, all photographs, every fact with who filed it. Pure: figures come from the answers, words from here. */
export function reportDocument(screen: CaseOnPaper): Paper {
  const c = writtenFor(screen);
  const { tag, state, answers: a, world, voice } = c;
  const issue = issueOf(c);
  const photos = allPhotos(state);
  const content: Content[] = [
    { text: `Technical report, case ${tag}`, style: 'title' },
    issueWords(c),
    pairs([
      ['Claim', said(c, 'claim.number')],
      ['For', said(c, 'call.who')],
      ['Engine', [said(c, 'engine.code'), a.variant?.name].filter(Boolean).join(', ')],
      ['Vehicle', said(c, 'vehicle.name')],
      ['Kit', said(c, 'kit.number')],
      ['Fitted', `${said(c, 'kit.fitted')} at ${said(c, 'kit.fitted_odometer')}`],
      ['Failed', `${said(c, 'case.date')} at ${said(c, 'vehicle.odometer')}`],
      ['Ran', usageWords(a.usage, voice.notation)],
      ['Complaint', said(c, 'complaint')],
      ['Terms', a.terms ? termsWords(a.terms, voice.notation) : 'not known'],
      ['Plan', planText(planOnCase(a, voice.notation))],
    ]),
    ...decisionPart(c),
    ...costPart(a, heading),
    ...drivePart(a),
    ...measuredPart(a),
    heading('Causes weighed'),
    ...causePart(state, a, voice),
    ...piecesPart(a, heading),
    ...(photos.length > 0 ? [heading('Photographs'), ...photoPart(c, photos)] : []),
    ...fittingPart(a, heading),
    ...toldPart(state, heading),
    heading('All facts'),
    factTable(c),
    heading('What this report rests on'),
    {
      text: `It was computed from the facts listed, from the catalogue “${short(world.catalogue)}”, knowledge ${short(world.knowledge)} and policy ${short(world.rules)} (each named by the fingerprint of its content). ${
        a.engine && a.engine.interference !== 'no'
          ? 'The engine counts as an interference engine: never turn one shaft alone with the drive off. '
          : ''
      }The vehicle maker’s service information, local rules and qualified people come first.`,
    },
    ...closingPart(c),
    {
      text: `SHA-256 of the ${issue ? 'sealed' : 'present'} facts: ${issue ? plainText(issue.seal.value) : factsDigest(state.log)}`,
      style: 'digest',
    },
  ];
  return {
    frame: { title: `Technical report ${tag}`, house: c.house.split('\n')[0] ?? '', foot: `Case ${tag}` },
    content,
    photos,
  };
}

/** A digest as far as a person compares it. */
const short = (name: string): string => name.replace(/[0-9a-f]{64}/, (hash) => `${hash.slice(0, 16)}…`);
