import type { Content } from 'pdfmake/interfaces';
import { noCauseOf } from '@core/cause/cause-data';
import { textOf } from '@core/facts/read';
import { noCauseWords } from '../messages/answers';
import { moneyWords } from '../messages/money';
import { OBLIGATION } from '../messages/pieces';
import { type CaseOnPaper, issueWords, said, writtenFor } from './case-on-paper';
import { DECISIONS } from './decision-part';
import { causeTold } from './found-part';
import type { Paper } from './paper';
import { closingPart, heading, letterHead } from './parts';

/** To who owns the vehicle: one page in plain words, without codes, figures of the reasoning or what is internal. */
export function customerLetter(screen: CaseOnPaper): Paper {
  const c = writtenFor(screen);
  const { tag, state, answers: a } = c;
  const decision = textOf(state, 'claim.decision');
  const vehicle = textOf(state, 'vehicle.name');
  const content: Content[] = [
    letterHead(c, 'To the owner of the vehicle', [
      ['Case', tag],
      ['Claim', said(c, 'claim.number')],
      ['Vehicle', said(c, 'vehicle.name')],
      ['Failed', said(c, 'case.date')],
    ]),
    { text: `About the timing drive of your ${vehicle ?? 'vehicle'}`, style: 'title' },
    issueWords(c),
    plain(
      'The timing drive keeps the shafts of the engine in step. We supplied parts of it, and had them back to find out why they failed.',
    ),
    heading('What we found'),
    ...foundPlainly(c),
    ...(textOf(state, 'claim.to_customer') ?? '').split('\n').filter(Boolean).map(plain),
    heading('What was decided'),
    plain(
      decision === undefined
        ? 'No decision has been made yet.'
        : [DECISIONS[decision] ?? decision, textOf(state, 'claim.reason')].filter(Boolean).join(' '),
    ),
    ...costPlainly(c),
    ...(a.balances.some((b) => b.verdict === 'missing')
      ? [{ text: `▲ ${OBLIGATION} Your workshop knows it from us.`, style: 'caution' }]
      : []),
    ...closingPart(c),
  ];
  return {
    frame: {
      title: `About your vehicle, case ${tag}`,
      house: c.house.split('\n')[0] ?? '',
      foot: `Case ${tag}`,
    },
    content,
    photos: [],
  };
}

const plain = (text: string): Content => ({ text, style: 'plain' });

/** The cause with how it comes about and what follows; that none can be told where that was decided or nothing weighs. */
function foundPlainly({ state, answers: a }: CaseOnPaper): Content[] {
  const decided = textOf(state, 'cause.decided');
  const none = noCauseOf(decided);
  if (none) return [plain(`${noCauseWords(none)}.`)];
  const told = causeTold(state, a)?.cause;
  if (!told) return [plain('The parts are still being examined.')];
  const sure = decided === undefined ? 'What was found so far points to this, and is not decided yet: ' : '';
  return [plain(`${sure}${told.wording}. ${told.mechanism} ${told.consequence}`)];
}

function costPlainly({ answers: { costs } }: CaseOnPaper): Content[] {
  if (costs.lines.length === 0 || costs.ours === undefined || costs.theirs === undefined) return [];
  return [
    plain(
      `${moneyWords(costs.gross)} were asked for. We bear ${moneyWords(costs.ours)} of it; ${moneyWords(costs.theirs)} are not borne by us.`,
    ),
  ];
}
