import type { JobLine } from '@core/match/job-list';
import { asFound } from '@core/fitting/drive-now';
import type { Bulletin } from '@core/patterns/bulletin';
import type { Sheet, SheetStep } from '@core/fitting/sheet';
import { sheetDigest } from '@core/fitting/sheet-return';
import type { Stage } from '@core/drive/stages';
import type { Policy } from '@core/policy/policy';
import { tighteningOrder } from '@core/fitting/pattern';
import { patternPicture } from '../fitting/pattern-picture';
import type { StepPicture } from '../fitting/step-shape';
import { stepPicture } from '../fitting/step-picture';
import {
  gatesWords,
  HOW_PROVED,
  PHASE_WORDS,
  rulesOn,
  UNPROVED_WORDS,
  wantedWords,
} from '../messages/fitting';
import { SOURCE_WORDS } from '../messages/jobs';
import { torqueStagesWords } from '../messages/torque';

/** Who it is for, and of what. */
export type SheetHead = {
  tag: string;
  engine: string;
  design: string;
  kit: string;
  to: string;
  by: string;
  day: string;
};
export type PaperStep = {
  id: string;
  number: number;
  /** Given where a phase begins. */
  phase?: string;
  text: string;
  proof: string;
  asks: {
    id: string;
    wording: string;
    unit: string;
    wanted: string;
    whole: boolean;
    from?: number;
    to?: number;
  }[];
  tool: string;
  instead: { name: string; risk: string }[];
  torque: string;
  fault: string;
  caution: string;
  after: string;
  /** What must be true before, and why. */
  before: string[];
  picture?: StepPicture;
  /** The drive stands otherwise once it is done: it is drawn large enough to be read. */
  changes: boolean;
};
/** Everything that stands on a fitting sheet, in words; paper and telephone set it each their way. */
export type SheetPaper = SheetHead & {
  case: string;
  digest: string;
  name: string;
  steps: PaperStep[];
  torques: { number: number; fastener: string; words: string }[];
  tools: string[];
  parts: string[];
  rules: string[];
  /** Said above the steps, where there is something to be said of them all. */
  caution?: string;
};

/** What the house tells everybody about a step stands at it, before what the sheet itself cautions of. */
export const withBulletins = (paper: SheetPaper, told: readonly Bulletin[]): SheetPaper => ({
  ...paper,
  steps: paper.steps.map((s) => {
    const b = told.find((x) => x.step === s.id);
    return b
      ? { ...s, caution: [`Bulletin ${b.version}: ${b.text}`, s.caution].filter(Boolean).join(' ') }
      : s;
  }),
});

/** The sheet as it leaves the house. */
export function sheetPaper(
  caseId: string,
  head: SheetHead,
  sheet: Sheet,
  stages: readonly Stage[],
  policy: Policy,
  jobs: readonly JobLine[],
): SheetPaper {
  let phase: string | undefined;
  let before = JSON.stringify(asFound(stages.length));
  const steps = sheet.steps.map((s): PaperStep => {
    const begins = phase !== s.phase;
    phase = s.phase;
    const now = JSON.stringify(s.now);
    const changes = now !== before;
    before = now;
    const gates = gatesWords(s, sheet);
    const picture = s.pattern ? patternPicture(tighteningOrder(s.pattern)) : stepPicture(s, stages);
    return {
      id: s.id,
      number: s.number,
      ...(begins ? { phase: PHASE_WORDS[s.phase] } : {}),
      text: s.text,
      proof: s.proof ? `${HOW_PROVED[s.proof.by]}: ${s.proof.text}` : '',
      asks: (s.proof?.asks ?? []).map((a) => ({
        id: a.id,
        wording: a.wording,
        unit: a.unit,
        wanted: wantedWords(a),
        whole: a.quantity === 'count',
        ...(a.from === undefined ? {} : { from: a.from }),
        ...(a.to === undefined ? {} : { to: a.to }),
      })),
      tool: s.tool?.name ?? '',
      instead: s.tool?.instead ?? [],
      torque: torqueLine(s),
      fault: s.fault ?? '',
      caution: s.caution ?? '',
      after: gates.waits,
      before: [
        ...(s.before === undefined ? [] : [s.before]),
        ...gates.reasons.map((r) => `${r.steps}: ${r.why}`),
      ],
      ...(picture ? { picture } : {}),
      changes,
    };
  });
  return {
    ...head,
    case: caseId,
    digest: sheetDigest(sheet),
    name: sheet.name,
    steps,
    torques: sheet.steps.flatMap((s) =>
      s.torque
        ? [{ number: s.number, fastener: fastener(s), words: torqueStagesWords(s.torque.stages) }]
        : [],
    ),
    tools: [...new Set(sheet.steps.flatMap((s) => (s.tool ? s.tool.name.split(', ') : [])))],
    parts: [
      ...jobs.map((j) => `${j.item.quantity} × ${j.item.item}: ${SOURCE_WORDS[j.source]}`),
      ...new Set(sheet.steps.flatMap((s) => (s.torque?.singleUse ? [`New, used once: ${fastener(s)}`] : []))),
    ],
    rules: rulesOn(sheet, policy),
    ...(sheet.unproved ? { caution: UNPROVED_WORDS } : {}),
  };
}

const fastener = (s: SheetStep): string =>
  s.torque
    ? `${s.torque.count ? `${s.torque.count} × ` : ''}${s.torque.fastener}${s.torque.leftHand ? ', left-hand thread' : ''}`
    : '';

const torqueLine = (s: SheetStep): string =>
  s.torque ? [fastener(s), torqueStagesWords(s.torque.stages)].filter(Boolean).join(': ') : '';
