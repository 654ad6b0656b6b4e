import { must, nth } from '@core/quantity/must';
import { readingUnit } from '@core/drive/carrier';
import { listOf, measuredOf, standing, textOf, thingsWith } from '@core/facts/read';
import { judged, surelyAbove } from '@core/quantity/judge';
import { codeMeaning } from './codes';
import type { ExaminationContext } from './context';
import type { Finding } from './finding';
import { plainText } from '@core/facts/value';

type Rule = (ctx: ExaminationContext) => Finding[];

/** Findings that are computed from several facts or from the drive, by the name under which they are weighed. */
export const DERIVED: Readonly<Record<string, Rule>> = {
  'setting.shown': settingShown,
  'key.sense': keySense,
  'rim.marks': rimMarks,
  'kit.match': kitMatch,
  'marks.verdict': marksVerdict,
  'extension.rest': extensionRest,
  'chain.long': chainLong,
  'interval.run': intervalRun,
  'distance.run': distanceRun,
  'time.run': timeRun,
  'sheet.fault': sheetFault,
  'guide.material': guideMaterial,
  'leak.down': leaksDown,
  'trace.shift': traceShift,
  'count.match': countMatch,
  'codes.shown': codesShown,
  'heads.nearer': headsNearer,
};

const of = (about: string) => (about === '' ? {} : { about });

function settingShown({ drive, state }: ExaminationContext): Finding[] {
  const read = drive.tensioners
    .filter((t) => t.key === 'tensioner.pointer' && t.shown !== 'cannot_tell')
    .map((t) => ({
      finding: 'setting.shown',
      value: t.shown,
      facts: t.reading.facts.map((f) => f.id),
      ...of(t.about),
    }));
  const filed = standing(state, 'drive.setting_shown');
  const turns = drive.carrier !== undefined && readingUnit(drive.carrier) === '°';
  return filed && read.length === 0 && turns
    ? [{ finding: 'setting.shown', value: plainText(filed.value), facts: [filed.id] }]
    : read;
}

function keySense({ drive, state }: ExaminationContext): Finding[] {
  const { carrier } = drive;
  if (carrier?.kind !== 'eccentric') return [];
  return thingsWith(state, 'tensioner.key_turn').flatMap((about) => {
    const thing = about === '' ? undefined : about;
    const key = textOf(state, 'tensioner.key_turn', thing);
    if (key !== 'cw' && key !== 'ccw') return [];
    const value = key === carrier.keyTurn ? 'proper' : 'wrong';
    const facts = [must(standing(state, 'tensioner.key_turn', thing)).id];
    return [{ finding: 'key.sense', value, facts, ...of(about) }];
  });
}

function rimMarks({ drive, state, applies }: ExaminationContext): Finding[] {
  const rims = standing(state, 'wheel.rim_marks');
  const { layout, settings } = drive;
  if (!rims || !layout || !settings || !applies('wheel.rim_marks')) return [];
  const n = layout.wheels.length;
  const near = [
    nth(layout.wheels, (settings.tensioner + n - 1) % n).id,
    nth(layout.wheels, (settings.tensioner + 1) % n).id,
  ];
  const marked = listOf(state, 'wheel.rim_marks');
  const value =
    marked.length === 0 ? 'none' : marked.some((m) => near.includes(m)) ? 'tensioner_side' : 'elsewhere';
  return [{ finding: 'rim.marks', value, facts: [rims.id] }];
}

function kitMatch({ kitFits, state }: ExaminationContext): Finding[] {
  const kit = standing(state, 'kit.number');
  return kit && kitFits !== undefined
    ? [{ finding: 'kit.match', value: kitFits ? 'fits' : 'wrong', facts: [kit.id] }]
    : [];
}

/** Worst first: what one mark shows, the drive shows. */
const WORST = ['teeth_and_rest', 'teeth_out', 'fraction'] as const;

function marksVerdict({ marks }: ExaminationContext): Finding[] {
  if (!marks) return [];
  const facts = marks.marks.flatMap((m) => m.facts.map((f) => f.id));
  const wrong = WORST.find((v) => marks.marks.some((m) => m.verdict.verdict === v));
  const said = wrong ?? (marks.go === 'go' ? 'as_predicted' : undefined);
  return said === undefined ? [] : [{ finding: 'marks.verdict', value: said, facts }];
}

function extensionRest({ drive }: ExaminationContext): Finding[] {
  return drive.extensions.flatMap((e) =>
    e.rest ? [{ finding: 'extension.rest', value: e.rest.verdict, facts: e.facts, ...of(e.about) }] : [],
  );
}

function chainLong({ drive }: ExaminationContext): Finding[] {
  return drive.elongations.flatMap((e) =>
    e.long ? [{ finding: 'chain.long', value: e.long, facts: e.facts, ...of(e.about) }] : [],
  );
}

/** Complete or missing, once a guide, whether by mass or by outline or by both; what neither can tell is no finding. */
function guideMaterial({ balances }: ExaminationContext): Finding[] {
  return [...new Set(balances.map((b) => b.about))].flatMap((about) => {
    const told = balances.filter((b) => b.about === about && b.verdict !== 'cannot_tell');
    const value = told.some((b) => b.verdict === 'missing') ? 'missing' : told[0]?.verdict;
    if (value === undefined) return [];
    const facts = told.filter((b) => b.verdict === value).flatMap((b) => b.facts);
    return [{ finding: 'guide.material', value, facts, ...of(about) }];
  });
}

function leaksDown({ leaks }: ExaminationContext): Finding[] {
  return leaks.flatMap((l) =>
    l.verdict === undefined || l.verdict === 'cannot_tell'
      ? []
      : [{ finding: 'leak.down', value: l.verdict, facts: l.facts, ...of(l.about) }],
  );
}

const SHIFTS = { in_tolerance: 'within', whole: 'whole', fraction: 'fraction' } as const;

/** A capture that cannot tell is no finding. */
function traceShift({ trace }: ExaminationContext): Finding[] {
  return trace?.said === undefined || trace.said.verdict === 'cannot_tell'
    ? []
    : [{ finding: 'trace.shift', value: SHIFTS[trace.said.verdict], facts: trace.facts }];
}

/** Teeth or links that were counted against what the drive needs. */
function countMatch({ drive, state, registry }: ExaminationContext): Finding[] {
  const { layout } = drive;
  if (!layout) return [];
  const key = layout.kind === 'belt' ? 'belt.tooth_count' : 'chain.count';
  const counted = measuredOf(state, registry, key);
  if (!counted) return [];
  const facts = counted.facts.map((f) => f.id);
  return [{ finding: 'count.match', value: counted.value === layout.count ? 'same' : 'differs', facts }];
}

/** What codes of the cam and crank families tell, each kind once; "none" where codes were read and none is of them. */
function codesShown({ state }: ExaminationContext): Finding[] {
  const fact = standing(state, 'fault.codes');
  if (!fact) return [];
  const kinds = new Set(listOf(state, 'fault.codes').flatMap((c) => codeMeaning(c)?.kind ?? []));
  return [...(kinds.size === 0 ? ['none'] : kinds)].map((value) => ({
    finding: 'codes.shown',
    value,
    facts: [fact.id],
  }));
}

/** A head or block that stands nearer than drawn by more than its reading may be off. */
function headsNearer({ state, registry }: ExaminationContext): Finding[] {
  const read = thingsWith(state, 'bank.nearer').flatMap((about) => {
    const m = measuredOf(state, registry, 'bank.nearer', about === '' ? undefined : about);
    return m ? [m] : [];
  });
  if (read.length === 0) return [];
  const nearer = read.filter((m) => surelyAbove(m, 0));
  const said = nearer.length > 0 ? nearer : read;
  const facts = said.flatMap((m) => m.facts.map((f) => f.id));
  return [{ finding: 'heads.nearer', value: nearer.length > 0 ? 'nearer' : 'as_drawn', facts }];
}

/** Each fault once, on all steps that show it. */
function sheetFault({ sheetFaults }: ExaminationContext): Finding[] {
  const byCode = new Map<string, Set<string>>();
  for (const f of sheetFaults) {
    const facts = byCode.get(f.code) ?? new Set();
    f.facts.forEach((x) => facts.add(x));
    byCode.set(f.code, facts);
  }
  return [...byCode].map(([value, facts]) => ({ finding: 'sheet.fault', value, facts: [...facts] }));
}

/** Past when time or distance surely is; within only when both are known to be. */
function intervalRun({ interval, usage }: ExaminationContext): Finding[] {
  if (!interval) return [];
  const { distance, time } = usage;
  const far = distance && (judged(distance.km, distance.u, (km) => km > interval.km) ?? 'unsure');
  const long = time && time.months > interval.months;
  const facts = [...(distance?.facts ?? []), ...(time?.facts ?? [])];
  if (far === true || long === true) return [{ finding: 'interval.run', value: 'past', facts }];
  return facts.length === 0 || far === 'unsure' ? [] : [{ finding: 'interval.run', value: 'within', facts }];
}

/** A difference of two readings within their own noise may be nothing at all: it is no finding. */
function distanceRun({ usage }: ExaminationContext): Finding[] {
  const { distance, atMost } = usage;
  if (distance && surelyAbove({ value: distance.km, u: distance.u }, 0))
    return [{ finding: 'distance.run', value: { x: distance.km, u: distance.u }, facts: distance.facts }];
  const most = distance ? undefined : atMost?.km;
  return most ? [{ finding: 'distance.run', value: { from: 0, to: most.most }, facts: most.facts }] : [];
}

/** Whole months say no more than that it was between them and one more. */
function timeRun({ usage }: ExaminationContext): Finding[] {
  const { time, atMost } = usage;
  if (time)
    return [{ finding: 'time.run', value: { from: time.months, to: time.months + 1 }, facts: time.facts }];
  const most = atMost?.months;
  return most ? [{ finding: 'time.run', value: { from: 0, to: most.most }, facts: most.facts }] : [];
}
