import { must, nth } from '@core/quantity/must';
import { readingUnit } from '@core/drive/carrier';
import { listOf, measuredOf, standing, textOf, thingsWith } from '@core/facts/read';
import { codeMeaning } from './codes';
import type { ExaminationContext } from './context';
import { type Finding, gradeValue } from './finding';
import { bankPattern, headsExplain, headsNearer, marksVerdict } from './mark-findings';
import { plainText } from '@core/facts/value';
import { distanceRun, intervalRun, oilInterval, timeRun } from './usage-findings';

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
  'heads.explain': headsExplain,
  'bank.pattern': bankPattern,
  'extension.window': extensionWindow,
  'oil.interval': oilInterval,
  'damage.repeats': damageRepeats,
  'part.number': partNumber,
};

const of = (about: string) => (about === '' ? {} : { about });

function settingShown({ drive, state }: ExaminationContext): Finding[] {
  const read = drive.tensioners.flatMap((t): Finding[] => {
    const value = t.key === 'tensioner.pointer' ? gradeValue(t.chances) : undefined;
    const facts = t.reading.facts.map((f) => f.id);
    return value === undefined ? [] : [{ finding: 'setting.shown', value, facts, ...of(t.about) }];
  });
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

function extensionRest({ drive }: ExaminationContext): Finding[] {
  return drive.extensions.flatMap((e) =>
    e.rest ? [{ finding: 'extension.rest', value: e.rest.verdict, facts: e.facts, ...of(e.about) }] : [],
  );
}

/**
 * How far a plunger stands out against its window: the very verdict that the bench gives. Where the length of its chain is
 * known, what that leaves unexplained says the same and more.
 */
function extensionWindow({ drive }: ExaminationContext): Finding[] {
  const told = new Set(drive.extensions.flatMap((e) => (e.rest ? [e.about] : [])));
  return drive.tensioners.flatMap((t): Finding[] => {
    if (t.key !== 'tensioner.extension' || told.has(t.about)) return [];
    const { right, slack, beyond, end } = t.chances;
    const value = gradeValue({ within: right ?? 0, short: slack ?? 0, beyond: (beyond ?? 0) + (end ?? 0) });
    const facts = t.reading.facts.map((f) => f.id);
    return value === undefined ? [] : [{ finding: 'extension.window', value, facts, ...of(t.about) }];
  });
}

function chainLong({ drive }: ExaminationContext): Finding[] {
  return drive.elongations.flatMap((e): Finding[] => {
    const value = e.chances && gradeValue(e.chances);
    return value === undefined ? [] : [{ finding: 'chain.long', value, facts: e.facts, ...of(e.about) }];
  });
}

/** Damage that comes at the spacing of a wheel's teeth, or at none. */
function damageRepeats({ repeats }: ExaminationContext): Finding[] {
  return repeats.map(({ about, wheel, facts }) => ({
    finding: 'damage.repeats',
    value: wheel ? 'wheel' : 'at_random',
    facts,
    ...of(about),
  }));
}

/** Numbers read off parts against the contents of the kit that is named. */
function partNumber({ partNumbers }: ExaminationContext): Finding[] {
  return partNumbers.map(({ about, fits, facts }) => ({
    finding: 'part.number',
    value: fits ? 'fits' : 'other',
    facts,
    ...of(about),
  }));
}

/** Complete or missing, once a guide, whether by mass or by outline or by both; where neither can tell, by how likely each is. */
function guideMaterial({ balances }: ExaminationContext): Finding[] {
  return [...new Set(balances.map((b) => b.about))].flatMap((about): Finding[] => {
    const mine = balances.filter((b) => b.about === about);
    const told = mine.find((b) => b.verdict === 'missing') ?? mine.find((b) => b.verdict === 'complete');
    const value = told && told.verdict !== 'cannot_tell' ? told.verdict : gradeValue(nth(mine, 0).chances);
    const alike = told ? mine.filter((b) => b.verdict === told.verdict) : mine.slice(0, 1);
    const facts = alike.flatMap((b) => b.facts);
    return value === undefined ? [] : [{ finding: 'guide.material', value, facts, ...of(about) }];
  });
}

function leaksDown({ leaks }: ExaminationContext): Finding[] {
  return leaks.flatMap((l): Finding[] => {
    const value = l.chances && gradeValue(l.chances);
    return value === undefined ? [] : [{ finding: 'leak.down', value, facts: l.facts, ...of(l.about) }];
  });
}

function traceShift({ trace }: ExaminationContext): Finding[] {
  const { in_tolerance: within = 0, whole = 0, fraction = 0 } = trace?.chances ?? {};
  const value = gradeValue({ within, whole, fraction });
  return trace && value !== undefined ? [{ finding: 'trace.shift', value, facts: trace.facts }] : [];
}

/** Teeth or links that were counted against what the drive needs. */
function countMatch({ drive, state, registry }: ExaminationContext): Finding[] {
  const { layout } = drive;
  if (!layout) return [];
  const key = layout.kind === 'belt' ? 'belt.teeth_count' : 'chain.count';
  const counted = measuredOf(state, registry, key);
  if (!counted) return [];
  const facts = counted.facts.map((f) => f.id);
  return [{ finding: 'count.match', value: counted.value === layout.count ? 'same' : 'differs', facts }];
}

/** What codes of the cam and crank families tell, each kind once; "none" where it was read and there were none. */
function codesShown({ state }: ExaminationContext): Finding[] {
  const fact = standing(state, 'fault.codes');
  if (!fact) return [];
  const read = listOf(state, 'fault.codes');
  const kinds = new Set(read.flatMap((c) => codeMeaning(c)?.kind ?? []));
  // a code of which the meaning is not known is no sound finding
  if (kinds.size === 0 && read.length > 0) return [];
  return [...(kinds.size === 0 ? ['none'] : kinds)].map((value) => ({
    finding: 'codes.shown',
    value,
    facts: [fact.id],
  }));
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
