import { stationName } from '@core/facts/stations';
import { must, nth } from '@core/quantity/must';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { Answers } from '@core/answer/answers';
import type { WorldName } from '@core/answer/world';
import type { Setting } from '@core/drive/tensioner';
import { sealedNow } from '@core/claim/seal';
import { factsDigest } from '@core/facts/digest';
import { onPaper } from '@core/facts/read-value';
import type { Namer } from '@core/facts/show-value';
import { allFiled, standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { formatDay } from '@core/quantity/dates';
import { meaningOf } from '@core/facts/meaning';
import { drivePicture, pictureSvg } from '../ui/drive-picture';
import { usageWords, termsWords } from '../messages/answers';
import type { SentenceContext } from '../messages/sentence-context';
import {
  clearanceWords,
  extensionWords,
  guideWearWords,
  readingName,
  readingWords,
  settingName,
  SHOWN_WORDS,
} from '../messages/drive';
import { elongationWords } from '../messages/reuse';
import { freeSeatWords, goWords, offsetWords, signed, offsetVerdictWords } from '../messages/drive-results';
import { factWords, valueWords, nameWords } from '../messages/facts';
import { causeVerdict } from '@core/answer/verdict';
import { verdictWords } from '../messages/verdict';
import { causePart, decidedPart } from './cause-part';
import { costPart } from './cost-part';
import { fittingPart, piecesPart } from './fitting-part';
import { toldPart } from './told-part';
import { plainText } from '@core/facts/value';

/** Everything that the printed report says, in order. Pure: figures come from the answers, words from here. */
export function reportDocument(
  tag: string,
  state: State,
  a: Answers,
  world: WorldName,
  screen: SentenceContext,
  name: Namer,
  today: string,
): TDocumentDefinitions {
  const voice = { ...screen, notation: onPaper(screen.notation) };
  const sealed = sealedNow(a.seals);
  const digest = sealed ? plainText(sealed.seal.value) : factsDigest(state.log);
  const say = (key: string) => {
    const f = standing(state, key);
    return f ? valueWords(f, voice, name) : '—';
  };
  const content: Content[] = [
    { text: `Technical report, case ${tag}`, style: 'title' },
    {
      text: sealed
        ? `Issue ${sealed.issue}, ${formatDay(today, 'named')}`
        : `DRAFT, not issued, ${formatDay(today, 'named')}`,
      style: sealed ? 'sub' : 'draft',
    },
    pairs([
      ['Claim', say('claim.number')],
      ['For', say('call.who')],
      ['Engine', [say('engine.code'), a.variant?.name].filter(Boolean).join(', ')],
      ['Vehicle', say('vehicle.name')],
      ['Kit', say('kit.number')],
      ['Fitted', `${say('kit.fitted')} at ${say('kit.fitted_odometer')}`],
      ['Failed', `${say('case.date')} at ${say('vehicle.odometer')}`],
      ['Ran', usageWords(a.usage, voice.notation)],
      ['Complaint', say('complaint')],
      ['Terms', a.terms ? termsWords(a.terms, voice.notation) : 'not known'],
    ]),
    ...decisionPart(state, a, voice, name),
    ...costPart(a, heading),
    ...drivePart(a),
    ...measuredPart(a),
    heading('Causes weighed'),
    ...causePart(state, a, voice),
    ...piecesPart(a, heading),
    ...fittingPart(a, heading),
    ...toldPart(state, heading),
    heading('All facts'),
    factTable(state, voice, name),
    heading('What this report rests on'),
    {
      text: `It was computed from the facts listed, from the catalogue “${short(world.catalogue)}”, knowledge ${short(world.knowledge)} and policy ${short(world.rules)} (each named by the digest of its content). ${
        a.engine && a.engine.interference !== 'no'
          ? 'The engine counts as an interference engine: never turn one shaft alone with the drive off. '
          : ''
      }The vehicle maker’s service information, local rules and qualified people come first. This is a technical finding and no legal advice. If you see it differently, write to us with the case number and what you measured or saw; parts and facts are kept and will be looked at again by another person.`,
    },
    { text: `SHA-256 of the ${sealed ? 'sealed' : 'present'} facts: ${digest}`, style: 'digest' },
  ];
  return {
    content,
    pageSize: 'A4',
    pageMargins: [46, 46, 46, 52],
    info: { title: `Technical report ${tag}` },
    defaultStyle: { font: 'Plex', fontSize: 9.5, lineHeight: 1.2 },
    styles: {
      title: { fontSize: 17, bold: true },
      sub: { fontSize: 10.5, margin: [0, 0, 0, 8] },
      draft: { fontSize: 10.5, bold: true, color: '#764e00', margin: [0, 0, 0, 8] },
      h: { fontSize: 12, bold: true, margin: [0, 12, 0, 4] },
      quiet: { color: '#4f5a59' },
      digest: { fontSize: 8, margin: [0, 6, 0, 0] },
    },
    footer: (page, pages) => ({
      text: `Case ${tag} · page ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8,
      margin: [0, 16, 0, 0],
    }),
  };
}

const heading = (text: string): Content => ({ text, style: 'h' });

function pairs(rows: [string, string][]): Content {
  return {
    layout: 'lightHorizontalLines',
    table: { widths: [80, '*'], body: rows.map(([k, v]) => [{ text: k, bold: true }, v]) },
  };
}

const DECISIONS: Record<string, string> = {
  accept: 'The claim is accepted.',
  part: 'The claim is accepted in part.',
  goodwill: 'The claim is settled as goodwill.',
  decline: 'The claim is declined.',
  wait: 'The decision waits for more.',
};

function decisionPart(state: State, a: Answers, context: SentenceContext, name: Namer): Content[] {
  const decision = textOf(state, 'claim.decision');
  const out: Content[] = [heading('Finding and decision'), ...decidedPart(state, a)];
  for (const f of a.faults.filter((x) => x.recorded)) {
    const basis = f.recorded?.basis ?? [];
    const facts = state.log.filter((x) => basis.includes(x.id)).map((x) => factWords(x, context, name));
    out.push({
      margin: [0, 4, 0, 0],
      text: [
        { text: `Installation fault ${f.fault.code}: ${f.fault.wording}. `, bold: true },
        f.step ? `Step ${f.step.number}: ${f.step.text} ` : '',
        `Evidence: ${facts.join('; ')}. `,
        { text: `Advice: ${f.fault.advice}`, italics: false },
      ],
    });
  }
  if (decision)
    out.push({
      margin: [0, 4, 0, 0],
      text: [
        { text: `${DECISIONS[decision] ?? decision} `, bold: true },
        textOf(state, 'claim.reason') ?? '',
      ],
    });
  // What supplier and fitter are not told apart by belongs beside a decline.
  const found = decision === 'decline' ? causeVerdict(a) : undefined;
  const tie = found && verdictWords(found, a.policy, context).tie;
  if (tie) out.push({ text: tie });
  const second = textOf(state, 'claim.second');
  if (second) out.push({ text: `Second signature: ${second}` });
  const alternative = textOf(state, 'claim.alternative');
  if (alternative) out.push({ text: `Alternative considered: ${alternative}` });
  if (!decision) out.push({ text: 'No decision has been made yet.', style: 'quiet' });
  return out;
}

function drivePart(a: Answers): Content[] {
  const d = a.drive;
  if (!d?.settings.ok || !d.right) return [];
  const { layout } = d;
  const figure = (title: string, s: Setting) => [
    { text: title, bold: true },
    { svg: pictureSvg(drivePicture(layout, s, title), 235) },
    {
      text: `${d.carrier ? `${readingName(d.carrier)} ${readingWords(d.carrier, s.reading)}. ` : ''}Smallest clearance ${s.clearance ? `${s.clearance.mm.toFixed(1)} mm ${clearanceWords(layout, s.clearance)}` : '—'}. Path ${s.path.lengthMm.toFixed(2)} mm.`,
    },
  ];
  const columns = [
    figure(settingName(d.carrier, 'right'), d.right),
    ...(d.other ? [figure(settingName(d.carrier, 'other'), d.other)] : []),
  ];
  return [
    {
      unbreakable: true,
      stack: [
        heading('The drive, computed, to one scale'),
        {
          text: `${layout.count} ${layout.kind === 'chain' ? 'links' : 'teeth'} × ${layout.pitchMm} mm = ${d.settings.value.targetMm.toFixed(1)} mm. The returned part shows ${d.shown ? SHOWN_WORDS[d.shown] : 'nothing: it was not read'}.`,
        },
        {
          columns: columns.map((stack) => ({ stack, width: '*' })),
          columnGap: 14,
          margin: [0, 4, 0, 0],
        },
      ],
    },
  ];
}

/** What marks and extension say against the computed drive, as sentences. */
function measuredPart(a: Answers): Content[] {
  const d = a.drive;
  const lines: string[] = [];
  for (const m of d?.marks?.marks ?? []) {
    const layout = nth(must(d).stages, m.stage).layout;
    lines.push(
      `${nth(layout.wheels, m.wheel).name}: a correct fitting shows it ${offsetWords(m.predicted)}; seen ${signed(m.teeth)} teeth. ${offsetVerdictWords(m.verdict)}.`,
    );
  }
  if (d?.marks)
    lines.push(
      `${goWords(d.marks.go, d.marks.marks.length, d.marks.of)}. ${d.marks.go === 'go' ? freeSeatWords(d.marks.free) : ''}`.trim(),
    );
  const of = (i: number) =>
    must(d).stages.length > 1 ? `${nth(must(d).stages, i).layout.name ?? ''}: ` : '';
  for (const e of d?.elongations ?? []) lines.push(`${of(e.stage)}chain ${elongationWords(e)}.`);
  for (const e of d?.extensions ?? [])
    lines.push(
      `${of(e.stage)}${[extensionWords(nth(must(d).stages, e.stage).layout, e), guideWearWords(e)].join(' ').trim()}`,
    );
  return lines.length ? [heading('Measured against the drive'), ...lines.map((text) => ({ text }))] : [];
}

function factTable(state: State, context: SentenceContext, name: Namer): Content {
  const rows = allFiled(state).filter(
    (f) => context.registry.has(meaningOf(f).key) && f.key !== 'report.issue',
  );
  const body = rows.map((f) => {
    const o = context.registry.get(meaningOf(f).key);
    const value = valueWords(f, context, name);
    return [
      o ? stationName(o.station) : '',
      nameWords(f, context),
      value,
      f.how,
      f.by,
      f.at.slice(0, 16).replace('T', ' '),
    ];
  });
  return {
    fontSize: 8,
    layout: 'lightHorizontalLines',
    table: {
      headerRows: 1,
      widths: [40, 120, '*', 50, 62, 66],
      body: [
        ['Station', 'What', 'Value', 'How known', 'By', 'When (UTC)'].map((text) => ({ text, bold: true })),
        ...body,
      ],
    },
  };
}

/** A digest as far as a person compares it. */
const short = (name: string): string => name.replace(/[0-9a-f]{64}/, (hash) => `${hash.slice(0, 16)}…`);
