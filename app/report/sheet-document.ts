import type { Content, ContentStack, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { formatDay } from '@core/quantity/dates';
import type { StepPicture } from '../fitting/step-shape';
import { LETTERS, stampSvg, stepSvg } from '../fitting/step-svg';
import type { PaperStep, SheetPaper } from './sheet-paper';

/** Width of a small drawing, and its greatest height, points. */
const PICTURE_PT = 72;
const ROW_PT = 41;
const MM = 72 / 25.4;
/** Where the drive changes it is drawn to be read at arm’s length: so wide, or so high where it is taller than wide. */
const LARGE = { width: 80 * MM, height: 81 * MM };

/** A fitting sheet for the wall of the workshop, with a box to tick at each step; the drive is drawn large where it changes. */
export function sheetDocument(p: SheetPaper): TDocumentDefinitions {
  const body: TableCell[][] = p.steps.map((s) => [
    { text: String(s.number), bold: true, fontSize: 11, alignment: 'right' },
    ...(s.picture && s.changes ? large(s, s.picture) : [stepText(s), picture(s)]),
    { svg: BOX, width: 13, margin: [0, 2, 0, 0] },
  ]);
  return {
    pageSize: 'A4',
    pageMargins: [34, 40, 34, 34],
    info: { title: `Fitting sheet ${p.tag}`, author: p.by, subject: p.name },
    language: 'en-GB',
    displayTitle: true,
    defaultStyle: { font: 'Plex', fontSize: 7.6, lineHeight: 1.08 },
    header: {
      margin: [34, 16, 34, 0],
      columns: [
        { text: `${p.name} · ${[p.engine, p.design, p.kit].filter(Boolean).join(' · ')}`, bold: true },
        { text: `Case ${p.tag} · ${formatDay(p.day, 'named')}`, alignment: 'right', width: 'auto' },
      ],
    },
    footer: (page: number, pages: number): Content => ({
      margin: [34, 6, 34, 0],
      fontSize: 7,
      columns: [
        `The vehicle maker’s service information, local rules and qualified people come first. Sheet ${p.digest.slice(0, 8)}, from ${p.by}.`,
        { text: `${page} of ${pages}`, alignment: 'right', width: 'auto' },
      ],
    }),
    content: [
      ...(p.caution
        ? [{ text: `▲ ${p.caution}`, color: '#7a4f00', bold: true, margin: [0, 0, 0, 6] } as Content]
        : []),
      ...lists(p),
      {
        margin: [0, 10, 0, 0],
        table: { widths: [16, '*', PICTURE_PT + 4, 15], dontBreakRows: true, body },
        layout: 'lightHorizontalLines',
      },
      ...legend(p),
    ],
  };
}

const BOX =
  '<svg xmlns="http://www.w3.org/2000/svg" width="13" height="13" viewBox="0 0 13 13"><rect x="1" y="1" width="11" height="11" fill="none" stroke="#1e2a2b" stroke-width="1"/></svg>';

function stepText(s: PaperStep): ContentStack {
  const small = [s.proof, s.after ? `After ${s.after}.` : ''].filter(Boolean).join('  ');
  const with_ = [s.tool, ...s.instead.map((i) => `or ${i.name} (risk: ${i.risk})`)]
    .filter(Boolean)
    .join('; ');
  return {
    stack: [
      {
        text: [
          ...(s.phase ? [{ text: `${s.phase}: `, bold: true, color: '#1f6f5f' }] : []),
          { text: s.text, bold: true, fontSize: 8.2 },
        ],
      },
      ...(s.torque ? [{ text: `Torque: ${s.torque}` }] : []),
      ...(with_ ? [{ text: `Tool: ${with_}` }] : []),
      ...(small ? [{ text: small, color: '#4a5655' }] : []),
      ...(s.asks.length
        ? [{ text: s.asks.map((a) => `${a.wording} ________ ${a.wanted || a.unit}`).join('    ') }]
        : []),
      ...(s.caution ? [{ text: `Caution: ${s.caution}`, color: '#7a4f00' }] : []),
    ],
  };
}

function picture(s: PaperStep): TableCell {
  if (!s.picture) return '';
  const { width, height } = s.picture.box;
  const wide = Math.min(PICTURE_PT, (ROW_PT * width) / height);
  return { svg: stampSvg(s.picture, wide), width: wide, alignment: 'center' };
}

/** A step with the drive beside it, over both columns. */
function large(s: PaperStep, p: StepPicture): TableCell[] {
  const { width, height } = p.box;
  const scale = Math.min(LARGE.width / width, LARGE.height / height);
  const wide = width * scale;
  return [
    {
      colSpan: 2,
      columns: [
        { ...stepText(s), width: '*' },
        { width: wide, svg: stepSvg(p, wide), margin: [0, 2, 0, 4] },
      ],
      columnGap: 10,
    },
    '',
  ];
}

/** Every stage once, large enough for its names, with what the letters in the small drawings mean. */
function legend(p: SheetPaper): Content[] {
  const stages = new Map<string, StepPicture>();
  for (const s of p.steps)
    if (s.picture && s.picture.loop.length > 0) stages.set(s.picture.baseId, s.picture);
  const wide = stages.size > 1 ? 170 : 230;
  return [
    {
      text: `In the drawings: ${Object.entries(LETTERS)
        .map(([word, letter]) => `${letter} ${word}`)
        .join(', ')}; dashed: slack; ringed: what the step is done to.`,
      margin: [0, 8, 0, 4],
    },
    {
      columns: [...stages.values()].slice(0, 3).map((q) => ({ svg: stepSvg(q, wide), width: wide })),
      columnGap: 10,
    },
  ];
}

function lists(p: SheetPaper): Content[] {
  const heading = (text: string): Content => ({ text, bold: true, fontSize: 10, margin: [0, 12, 0, 3] });
  return [
    heading('Torques'),
    {
      table: {
        widths: [20, '*', '*'],
        body: p.torques.map((t) => [String(t.number), t.fastener, { text: t.words, bold: true }]),
      },
      layout: 'lightHorizontalLines',
    },
    {
      columns: [
        [heading('Tools'), { ul: p.tools }],
        [heading('Parts'), { ul: p.parts }],
        [heading('Policy that shaped this sheet'), { ul: p.rules }],
      ],
      columnGap: 12,
    },
  ];
}
