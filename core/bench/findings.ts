import { measuredOf } from '@core/facts/measured';
import type { Registry } from '@core/facts/observable';
import { listOf, type State, textOf } from '@core/facts/state';
import { judged } from '@core/quantity/judge';
import { type Carrier, limitsOf, readingUnit } from '@core/drive/carrier';
import type { Layout } from '@core/drive/layout';
import type { ElongationAnswer, ExtensionAnswer } from './extension';
import type { MarksAnswer } from './marks';
import { intendedSetting, type Settings } from '@core/drive/tensioner';

/** What a part shows, judged from facts: the thing that causes are weighed on. */
export type Finding = { finding: string; value: string; facts: string[] };

/** Which setting the pointer shows; beyond: more than its window, short of the end. */
export type Shown = 'right' | 'wrong_way' | 'slack' | 'beyond' | 'end' | 'cannot_tell';

/**
 * Judges a pointer reading against the window, the end mark and the reading of the other setting. The reading is
 * judged at v and v ± 2u; when these disagree the answer is "cannot tell".
 */
export function judgePointer(
  readingDeg: number,
  u: number,
  carrier: Carrier,
  wrongDeg: number | undefined,
): Shown {
  const { window, end } = limitsOf(carrier);
  const judge = (v: number): Shown => {
    const { from, to } = window;
    if (v >= from && v <= to) return 'right';
    if (v >= end) return 'end';
    const toWindow = Math.min(Math.abs(v - from), Math.abs(v - to));
    // Only an eccentric can be turned the wrong way; a lever has no other sense.
    if (carrier.kind === 'eccentric' && wrongDeg !== undefined && Math.abs(v - wrongDeg) < toWindow)
      return 'wrong_way';
    return v > to ? 'beyond' : 'slack';
  };
  return judged(readingDeg, u, judge) ?? 'cannot_tell';
}

const DIRECT = [
  'cover.rub',
  'belt.edge_front',
  'belt.edge_rear',
  'belt.teeth',
  'belt.back',
  'belt.break',
  'belt.contamination',
  'tensioner.bearing',
  'tensioner.spring',
  'tensioner.stop',
  'tensioner.bolt',
  'pump.bearing',
  'guide.bearing',
  'fit.engine_temp',
  'fit.tightened',
];

export type BenchContext = {
  registry: Registry;
  /** Can this observable be filed of the drive? What cannot is no finding. */
  applies: (key: string) => boolean;
  layout?: Layout | undefined;
  settings?: Settings | undefined;
  kitFits?: boolean | undefined;
  marks?: MarksAnswer | undefined;
  elongation?: ElongationAnswer | undefined;
  extension?: ExtensionAnswer | undefined;
  interval?: { km: number; months: number } | undefined;
  ran: { km?: number | undefined; u?: number | undefined; months?: number | undefined; facts: string[] };
};

/** Every finding that the standing facts support. What is not known is not listed. */
export function findingsOf(state: State, ctx: BenchContext): Finding[] {
  const out: Finding[] = [];
  for (const key of DIRECT) {
    const value = textOf(state, key);
    if (value !== undefined && ctx.applies(key))
      out.push({ finding: key, value, facts: [state.standing.get(key)!.id] });
  }
  out.push(...tensionerFindings(state, ctx));
  out.push(...drivenFindings(ctx));
  const kit = state.standing.get('kit.number');
  if (kit && ctx.kitFits !== undefined) {
    out.push({ finding: 'kit.match', value: ctx.kitFits ? 'fits' : 'wrong', facts: [kit.id] });
  }
  out.push(...intervalFinding(ctx));
  return out;
}

/** Past when time or distance surely is; within only when both are known to be. */
function intervalFinding({ interval, ran: { km, u, months, facts } }: BenchContext): Finding[] {
  if (!interval || (km === undefined && months === undefined)) return [];
  const byKm = km === undefined ? undefined : judged(km, u ?? 0, (v) => v > interval.km);
  const byTime = months === undefined ? undefined : months > interval.months;
  const straddles = km !== undefined && byKm === undefined;
  if (byKm || byTime) return [{ finding: 'interval.run', value: 'past', facts }];
  return straddles ? [] : [{ finding: 'interval.run', value: 'within', facts }];
}

/** Worst first: what one mark shows, the drive shows. */
const WORST = ['teeth_and_rest', 'teeth_out', 'fraction'] as const;

function drivenFindings({ marks, elongation, extension }: BenchContext): Finding[] {
  const out: Finding[] = [];
  const facts = marks?.marks.map((m) => m.fact.id) ?? [];
  const wrong = WORST.find((v) => marks?.marks.some((m) => m.verdict.verdict === v));
  if (wrong) out.push({ finding: 'marks.verdict', value: wrong, facts });
  else if (marks?.go === 'go') out.push({ finding: 'marks.verdict', value: 'as_predicted', facts });
  if (extension?.rest)
    out.push({ finding: 'extension.rest', value: extension.rest.verdict, facts: extension.facts });
  if (elongation?.long) out.push({ finding: 'chain.long', value: elongation.long, facts: elongation.facts });
  return out;
}

function tensionerFindings(state: State, ctx: BenchContext): Finding[] {
  const { layout, settings } = ctx;
  const carrier = settings && layout?.wheels[settings.tensioner]?.carrier;
  if (!layout || !settings || !carrier) return [];
  const out: Finding[] = [];
  const pointer = measuredOf(state, ctx.registry, 'tensioner.pointer');
  if (pointer && readingUnit(carrier) === '°') {
    const wrong = intendedSetting(settings, carrier).other?.reading;
    const value = judgePointer(pointer.value, pointer.u, carrier, wrong);
    if (value !== 'cannot_tell') out.push({ finding: 'setting.shown', value, facts: [pointer.fact.id] });
  }
  const filed = state.standing.get('drive.setting_shown');
  if (filed && out.length === 0 && readingUnit(carrier) === '°')
    out.push({ finding: 'setting.shown', value: String(filed.value), facts: [filed.id] });
  const key = textOf(state, 'tensioner.key_turn');
  if (carrier.kind === 'eccentric' && (key === 'cw' || key === 'ccw')) {
    const value = key === carrier.keyTurn ? 'proper' : 'wrong';
    out.push({ finding: 'key.sense', value, facts: [state.standing.get('tensioner.key_turn')!.id] });
  }
  const rims = state.standing.get('wheel.rim_marks');
  if (rims && ctx.applies('wheel.rim_marks')) {
    const n = layout.wheels.length;
    const near = [
      layout.wheels[(settings.tensioner + n - 1) % n]!.id,
      layout.wheels[(settings.tensioner + 1) % n]!.id,
    ];
    const marked = listOf(state, 'wheel.rim_marks');
    const value =
      marked.length === 0 ? 'none' : marked.some((m) => near.includes(m)) ? 'tensioner_side' : 'elsewhere';
    out.push({ finding: 'rim.marks', value, facts: [rims.id] });
  }
  return out;
}
