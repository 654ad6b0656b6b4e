import type { Content } from 'pdfmake/interfaces';
import type { FaultAnswer } from '@core/answer/nodes/claim';
import { textOf } from '@core/facts/read';
import { stepPicture } from '../fitting/step-picture';
import { stepSvg } from '../fitting/step-svg';
import { percent } from '../messages/answers';
import { planOnCase, termsWords } from '../messages/terms';
import { type CaseOnPaper, issueWords, said, writtenFor } from './case-on-paper';
import { decidedPart } from './cause-part';
import { costPart } from './cost-part';
import { DECISIONS, tiePart } from './decision-part';
import { drivePart } from './drive-part';
import { piecesPart } from './fitting-part';
import { foundPart } from './found-part';
import type { Paper } from './paper';
import { closingPart, heading, letterHead } from './parts';
import { toldPart } from './told-part';

/** A step is drawn so wide, points, and at most so high. */
const STEP = { width: 170, height: 170 };

/** To the workshop: what was decided and why, what was found with its readings and pictures, what to do next time at which step. */
export function workshopLetter(screen: CaseOnPaper): Paper {
  const c = writtenFor(screen);
  const { tag, state, answers: a, voice } = c;
  const decision = textOf(state, 'claim.decision');
  const reason = textOf(state, 'claim.reason');
  const found = foundPart(c);
  const content: Content[] = [
    letterHead(c, textOf(state, 'call.who') ?? 'To the workshop', [
      ['Case', tag],
      ['Claim', said(c, 'claim.number')],
      ['Engine', said(c, 'engine.code')],
      ['Kit', said(c, 'kit.number')],
      ['Vehicle', said(c, 'vehicle.name')],
    ]),
    { text: 'What we found, and what we decided', style: 'title' },
    issueWords(c),
    {
      table: {
        widths: ['*'],
        body: [
          [
            {
              stack: [
                {
                  text:
                    decision === undefined
                      ? 'No decision has been made yet.'
                      : (DECISIONS[decision] ?? decision),
                  style: 'verdict',
                },
                ...(reason ? [{ text: reason }] : []),
                ...(a.terms
                  ? [
                      {
                        text: [
                          termsWords(a.terms, voice.notation),
                          ...(planOnCase(a, voice.notation)?.leaves ?? []),
                        ].join(' '),
                        margin: [0, 3, 0, 0] as [number, number, number, number],
                      },
                    ]
                  : []),
              ],
              margin: [6, 4, 6, 4],
            },
          ],
        ],
      },
      margin: [0, 0, 0, 6],
    },
    ...own(textOf(state, 'claim.to_workshop')),
    ...when('What went wrong', [...decidedPart(state, a), ...tiePart(c)]),
    ...when('What we found', found.content),
    ...when(
      'What to do next time',
      a.faults.filter((f) => f.recorded).map((f) => nextTime(c, f)),
    ),
    ...drivePart(a, true),
    ...piecesPart(a, heading),
    ...costPart(a, heading),
    ...toldPart(state, heading, true),
    ...safetyPart(c),
    ...closingPart(c),
  ];
  return {
    frame: { title: `Finding ${tag}`, house: c.house.split('\n')[0] ?? '', foot: `Case ${tag}` },
    content,
    photos: found.photos,
  };
}

/** A part with its heading; nothing where there is nothing in it. */
const when = (title: string, part: Content[]): Content[] =>
  part.length > 0 ? [heading(title), ...part] : [];
const own = (text: string | undefined): Content[] =>
  text ? text.split('\n').map((line) => ({ text: line, margin: [0, 2, 0, 2] })) : [];

/** A fault with the step that it belongs to, drawn, and the advice that prevents it. */
function nextTime({ answers: a }: CaseOnPaper, f: FaultAnswer): Content {
  const picture = f.step && a.drive ? stepPicture(f.step, a.drive.stages) : undefined;
  const wide = picture && Math.min(STEP.width, (STEP.height * picture.box.width) / picture.box.height);
  return {
    unbreakable: true,
    margin: [0, 0, 0, 8],
    columns: [
      {
        width: '*',
        stack: [
          { text: `${f.fault.wording} (${f.fault.code})`, bold: true },
          ...(f.step
            ? [
                {
                  text: `Step ${f.step.number}: ${f.step.text}`,
                  margin: [0, 2, 0, 2] as [number, number, number, number],
                },
              ]
            : []),
          ...(f.share === undefined ? [] : [{ text: `Share of the claim laid to it: ${percent(f.share)}.` }]),
          { text: f.fault.advice },
          ...(f.step?.caution ? [{ text: `▲ ${f.step.caution}`, style: 'caution' }] : []),
        ],
      },
      ...(picture && wide !== undefined ? [{ width: wide, svg: stepSvg(picture, wide) }] : []),
    ],
    columnGap: 14,
  };
}

function safetyPart({ answers: a }: CaseOnPaper): Content[] {
  const shafts =
    a.engine && a.engine.interference !== 'no'
      ? 'The engine counts as an interference engine: never turn one shaft alone with the drive off. '
      : '';
  return [
    {
      text: `▲ ${shafts}The vehicle maker’s service information, local rules and qualified people come first.`,
      style: 'caution',
      margin: [0, 10, 0, 0],
    },
  ];
}
