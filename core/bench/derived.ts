import { readingUnit } from '@core/drive/carrier';
import { listOf, standing, textOf, thingsWith } from '@core/facts/read';
import { judged } from '@core/quantity/judge';
import type { BenchContext } from './findings';
import { type Finding, type FindingValue, grade } from './finding';

type Rule = (ctx: BenchContext) => Finding[];

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
  'distance.run': ({ ran }) => bracketed('distance.run', ran.distance),
  'time.run': ({ ran }) => bracketed('time.run', ran.time),
};

const of = (about: string) => (about === '' ? {} : { about });

function settingShown({ drive, state }: BenchContext): Finding[] {
  const read = drive.tensioners
    .filter((t) => t.key === 'tensioner.pointer' && t.shown !== 'cannot_tell')
    .map((t) => ({
      finding: 'setting.shown',
      value: grade(t.shown),
      facts: t.reading.facts.map((f) => f.id),
      ...of(t.about),
    }));
  const filed = standing(state, 'drive.setting_shown');
  const turns = drive.carrier !== undefined && readingUnit(drive.carrier) === '°';
  return filed && read.length === 0 && turns
    ? [{ finding: 'setting.shown', value: grade(String(filed.value)), facts: [filed.id] }]
    : read;
}

function keySense({ drive, state }: BenchContext): Finding[] {
  const { carrier } = drive;
  if (carrier?.kind !== 'eccentric') return [];
  return thingsWith(state, 'tensioner.key_turn').flatMap((about) => {
    const thing = about === '' ? undefined : about;
    const key = textOf(state, 'tensioner.key_turn', thing);
    if (key !== 'cw' && key !== 'ccw') return [];
    const value = grade(key === carrier.keyTurn ? 'proper' : 'wrong');
    const facts = [standing(state, 'tensioner.key_turn', thing)!.id];
    return [{ finding: 'key.sense', value, facts, ...of(about) }];
  });
}

function rimMarks({ drive, state, applies }: BenchContext): Finding[] {
  const rims = standing(state, 'wheel.rim_marks');
  const { layout, settings } = drive;
  if (!rims || !layout || !settings || !applies('wheel.rim_marks')) return [];
  const n = layout.wheels.length;
  const near = [
    layout.wheels[(settings.tensioner + n - 1) % n]!.id,
    layout.wheels[(settings.tensioner + 1) % n]!.id,
  ];
  const marked = listOf(state, 'wheel.rim_marks');
  const value =
    marked.length === 0 ? 'none' : marked.some((m) => near.includes(m)) ? 'tensioner_side' : 'elsewhere';
  return [{ finding: 'rim.marks', value: grade(value), facts: [rims.id] }];
}

function kitMatch({ kitFits, state }: BenchContext): Finding[] {
  const kit = standing(state, 'kit.number');
  return kit && kitFits !== undefined
    ? [{ finding: 'kit.match', value: grade(kitFits ? 'fits' : 'wrong'), facts: [kit.id] }]
    : [];
}

/** Worst first: what one mark shows, the drive shows. */
const WORST = ['teeth_and_rest', 'teeth_out', 'fraction'] as const;

function marksVerdict({ marks }: BenchContext): Finding[] {
  if (!marks) return [];
  const facts = marks.marks.flatMap((m) => m.facts.map((f) => f.id));
  const wrong = WORST.find((v) => marks.marks.some((m) => m.verdict.verdict === v));
  const said = wrong ?? (marks.go === 'go' ? 'as_predicted' : undefined);
  return said === undefined ? [] : [{ finding: 'marks.verdict', value: grade(said), facts }];
}

function extensionRest({ drive }: BenchContext): Finding[] {
  return drive.extensions.flatMap((e) =>
    e.rest
      ? [{ finding: 'extension.rest', value: grade(e.rest.verdict), facts: e.facts, ...of(e.about) }]
      : [],
  );
}

function chainLong({ drive }: BenchContext): Finding[] {
  return drive.elongations.flatMap((e) =>
    e.long ? [{ finding: 'chain.long', value: grade(e.long), facts: e.facts, ...of(e.about) }] : [],
  );
}

/** Past when time or distance surely is; within only when both are known to be. */
function intervalRun({ interval, ran }: BenchContext): Finding[] {
  if (!interval) return [];
  const by = (v: FindingValue | undefined, limit: number): boolean | undefined | 'unsure' => {
    if (v?.kind === 'number') return judged(v.value, v.u, (x) => x > limit) ?? 'unsure';
    if (v?.kind === 'between')
      return v.to !== undefined && v.to <= limit ? false : (v.from ?? 0) > limit ? true : 'unsure';
    return undefined;
  };
  const [km, months] = [by(ran.distance?.value, interval.km), by(ran.time?.value, interval.months)];
  const facts = [...(ran.distance?.facts ?? []), ...(ran.time?.facts ?? [])];
  if (km === true || months === true) return [{ finding: 'interval.run', value: grade('past'), facts }];
  const told = [km, months].filter((x) => x === false).length;
  return told === 0 || km === 'unsure' || months === 'unsure'
    ? []
    : [{ finding: 'interval.run', value: grade('within'), facts }];
}

function bracketed(finding: string, known: { value: FindingValue; facts: string[] } | undefined): Finding[] {
  return known ? [{ finding, ...known }] : [];
}
