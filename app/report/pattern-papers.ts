import type { Content } from 'pdfmake/interfaces';
import type { InstallationFault } from '@core/claim/faults';
import type { Bulletin } from '@core/patterns/bulletin';
import type { ChartSpan } from '@core/patterns/charts';
import type { FaultLine } from '@core/patterns/look';
import type { StoppedEntry } from '@core/patterns/stopped';
import type { WhoHas } from '@core/patterns/who-has';
import type { StepOfKit } from '@core/fitting/step-of-kit';
import { formatNumber } from '@core/quantity/format-quantity';
import { stepPicture } from '../fitting/step-picture';
import { stepSvg } from '../fitting/step-svg';
import { counted } from '../language/plural';
import { list } from '../language/list';
import { percent } from '../messages/answers';
import { issuedWords, marketWords, bulletinPlace, spansWords } from '../messages/bulletins';
import { faultWording } from '../messages/fitting';
import { intervalWords, shopWords, stopWords } from '../messages/patterns';
import { fingerprintWords } from '../messages/seal';
import type { CaseOnPaper } from './case-on-paper';
import type { Paper } from './paper';
import { heading, letterHead } from './parts';
import { spanSvg } from './span-svg';

/** Who writes, when, and whether all of it is of an invented population. */
export type PatternLetterhead = Pick<CaseOnPaper, 'house' | 'today'> & { invented: boolean };
const STEP = { width: 230, height: 230 };
const FIRST =
  'The vehicle maker’s service information, local rules and qualified people come first. This is technical information and no legal advice.';

const paperOf = (h: PatternLetterhead, title: string, content: Content[]): Paper => ({
  frame: { title, house: h.house.split('\n')[0] ?? '', foot: title },
  content,
  photos: [],
});
const plain = (text: string): Content => ({ text, style: 'plain' });
const rehearsed = (h: PatternLetterhead): Content[] =>
  h.invented
    ? [{ text: 'Invented from end to end: no such lot, workshop or kit exists.', style: 'draft' }]
    : [];
const closing = (words: string): Content[] => [
  { text: `▲ ${FIRST}`, style: 'caution', margin: [0, 10, 0, 0] },
  { text: words, style: 'quiet', margin: [0, 6, 0, 0] },
];
const ASK = 'If you see it differently, or know more than we do, write to us: it will be looked at again.';

/** Whom a letter of a stopped lot goes to: each market that had some of it, each workshop that returns name. */
export function stopLetters(h: PatternLetterhead, stop: StoppedEntry, has: WhoHas): Paper {
  const title = `Lot ${stop.lot} of ${stop.kit} is stopped`;
  const about: [string, string][] = [
    ['Kit', stop.kit],
    ['Lot', stop.lot],
  ];
  const letters = [
    ...has.markets.map((m) => ({
      to: m.market === '' ? 'To whom it was sold' : `To our customers of market “${m.market}”`,
      had: `By our books you had of it: ${marketWords(m)}.`,
    })),
    ...has.shops.map((s) => ({
      to: shopWords(s.shop),
      had: `You fitted at least ${counted(s.cases.length, 'unit', 'units')} of it: ${s.cases.length === 1 ? 'case' : 'cases'} ${list(s.cases.map((c) => c.tag))}.`,
    })),
  ];
  const content = letters.map(
    ({ to, had }, i): Content => ({
      ...(i > 0 ? { pageBreak: 'before' as const } : {}),
      stack: [
        letterHead(h, to, about),
        { text: title, style: 'title', margin: [0, 0, 0, 8] },
        ...rehearsed(h),
        plain(stopWords(stop, 'named')),
        plain(had),
        heading('What we ask of you'),
        plain(
          'Set every unit of this lot that is not fitted aside, mark it, and fit none of it. Tell us how many you hold.',
        ),
        plain(
          'Name the vehicles that have one fitted, with the day and the distance they have run since. We answer for each what is to be done.',
        ),
        ...closing(ASK),
      ],
    }),
  );
  return paperOf(h, title, content);
}

/** To a workshop: what was found on its returns more often than on those of others, its own chart, and what prevents it. */
export function shopLetter(
  h: PatternLetterhead,
  row: FaultLine,
  quarters: readonly ChartSpan[],
  advice: Pick<InstallationFault, 'advice' | 'shows'> | undefined,
): Paper {
  const shop = shopWords(row.shop ?? '');
  const title = `What we found on your returns: ${faultWording(row.code)}`;
  return paperOf(h, title, [
    letterHead(h, shop, [
      ['Fault', row.code],
      ['Returns', formatNumber(row.of, 0)],
    ]),
    { text: title, style: 'title', margin: [0, 0, 0, 8] },
    ...rehearsed(h),
    plain(
      `Of ${counted(row.of, 'return', 'returns')} that you fitted, ${row.faults} ${row.faults === 1 ? 'shows' : 'show'} it: ${percent(row.share)}, and with what chance brings ${percent(row.interval.from)} to ${percent(row.interval.to)}. On those of all other workshops it is ${percent(row.otherShare)}. Leaning on all, that is ${formatNumber(row.shrunk.ratio, 1)} times as often (${intervalWords(row.shrunk.interval)}).`,
    ),
    plain('This counts what came back to us alone. How many you fitted without any fault we do not know.'),
    heading('By quarters'),
    { svg: spanSvg(quarters) },
    {
      text: `Columns: returns with it, by when they were fitted. Dash: to be expected by others’ share. Bracket: what chance brings to 499 of 500. ${spansWords(quarters)}`,
      style: 'quiet',
      margin: [0, 2, 0, 0],
    },
    ...(advice
      ? [heading('How it shows, and what prevents it'), plain(advice.shows), plain(advice.advice)]
      : []),
    heading('Cases'),
    { text: list(row.cases.map((c) => c.tag)) },
    ...closing(ASK),
  ]);
}

/** What everybody who fits a kit is told about one of its steps: the change, the sheet's own words, its drawing. */
export function bulletinPaper(h: PatternLetterhead, b: Bulletin, at: StepOfKit | undefined): Paper {
  const title = `Bulletin ${b.version} on ${b.kit}`;
  const picture = at && stepPicture(at.step, at.stages);
  const wide = picture && Math.min(STEP.width, (STEP.height * picture.box.width) / picture.box.height);
  return paperOf(h, title, [
    letterHead(h, 'To everybody who fits it', [
      ['Kit', b.kit],
      ['Engine', at?.engine ?? '—'],
      ['Version', String(b.version)],
    ]),
    { text: title, style: 'title' },
    { text: bulletinPlace(b, at?.sheet), style: 'sub' },
    ...rehearsed(h),
    ...(b.code === '' ? [] : [plain(`What is got wrong: ${faultWording(b.code)}.`)]),
    heading('From now on'),
    ...b.text.split('\n').filter(Boolean).map(plain),
    ...(at
      ? [
          heading('The step on the sheet'),
          {
            unbreakable: true,
            columns: [
              {
                width: '*',
                stack: [
                  { text: `${at.step.number}  ${at.step.text}` },
                  ...(at.step.proof ? [{ text: at.step.proof.text, margin: [0, 4, 0, 0] } as Content] : []),
                  ...(at.step.caution ? [{ text: `▲ ${at.step.caution}`, style: 'caution' }] : []),
                ],
              },
              ...(picture && wide !== undefined ? [{ width: wide, svg: stepSvg(picture, wide) }] : []),
            ],
            columnGap: 14,
          } as Content,
        ]
      : []),
    ...closing(
      `${issuedWords(b, 'named')} It takes the place of every earlier version. Seal ${fingerprintWords(b.digest)}, SHA-256 over all that it says.`,
    ),
  ]);
}
