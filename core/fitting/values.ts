import { oncePer } from '@core/quantity/keep';
import { must, nth } from '@core/quantity/must';
import type { Placeholder } from '@core/catalogue/placeholders';
import type { StepSpot } from '@core/catalogue/expand-procedure';
import { carrierKind, limitsOf, readingUnit } from '@core/drive/carrier';
import { isMarked, markedWheels, toleranceOf } from '@core/drive/judge-marks';
import { type Layout, tensionerIndex, type Wheel } from '@core/drive/layout';
import { camWheels } from './how-many';
import { markPhases, type CamPhase } from '@core/drive/phase';
import { senseWord } from '@core/drive/sense';
import { solveDrive } from '@core/drive/solve-drive';
import type { Stage } from '@core/drive/stages';
import { safeCrankRanges } from '@core/drive/valve-safety';
import { leastTurns, type Policy } from '@core/policy/policy';
import type { DesignValues } from './design-values';
import { listed, phrase, PHRASES } from './phrases';
import { viewedSense } from './viewed-sense';

/** What the drive puts into a step's sentences, by the name between braces, and the numbers of those that are one. */
export type Values = {
  texts: Partial<Record<Placeholder, string>>;
  numbers: Partial<Record<string, number>>;
};

/** How long a leak-down of an old tensioner is watched on a sheet, s. */
const SINK_S = 300;

const round = (v: number) => String(Math.round(v * 10) / 10);

/** What is computed of a stage once, however many steps stand at it. */
type Computed = {
  /** Of every driven wheel with a mark, and of those that a fitter looks at. */
  all: readonly CamPhase[];
  phases: readonly CamPhase[];
  safe: string | undefined;
};
const computed = oncePer((layout: Layout): Computed => {
  const solved = solveDrive(layout);
  const all = solved.ok ? markPhases(layout, solved.value).sort((a, b) => b.wheel - a.wheel) : [];
  return {
    all,
    phases: all.filter((p) => isMarked(nth(layout.wheels, p.wheel))),
    safe: layout.valves && safeWords(safeCrankRanges(layout.valves).ranges),
  };
});

/**
 * Values at a place of a drive.
 * @param design what its parts and its engine bring
 * @param turns by hand, as the step has them
 */
export function valuesAt(
  stages: readonly Stage[],
  spot: StepSpot,
  policy: Policy,
  design: DesignValues,
  turns?: number,
): Values {
  const { layout } = nth(stages, spot.stage);
  const least = leastTurns(policy, turns);
  const texts: Values['texts'] = {
    ...design.texts,
    ...partsOf(layout, stages),
    ...marksOf(spot.whole ? stages : [nth(stages, spot.stage)], policy, least),
    between: betweenOf(layout),
    ...tensionerOf(layout),
  };
  const numbers: Values['numbers'] = {
    ...design.numbers,
    count: layout.count,
    cold: policy.coldMinutes,
    cold_from: -policy.coldWithinK,
    cold_to: policy.coldWithinK,
    cure: policy.cureMinutes,
    sink: policy.leakMaxMmPerS * SINK_S,
  };
  const wheel = spot.wheel === undefined ? undefined : layout.wheels[spot.wheel];
  if (wheel) texts.part = inSentence(wheel.name);
  if (wheel?.carrier?.kind === 'eccentric') {
    texts.key = viewedSense(wheel.carrier.keyTurn, layout);
    texts.carrier = senseWord(wheel.carrier.turn);
    texts.nominal = `${round(wheel.carrier.window.nominal)}°`;
    texts.window = windowWords(wheel.carrier.window, '°');
    numbers['near_from'] = wheel.carrier.window.nominal - policy.eccentricWithinDeg;
    numbers['near_to'] = wheel.carrier.window.nominal + policy.eccentricWithinDeg;
  }
  const first = computed(layout).phases[0];
  if (first) numbers['between'] = Math.abs(first.seat.between);
  texts.turns = String(least);
  numbers['turns'] = least;
  return { texts, numbers };
}

function partsOf(layout: Layout, stages: readonly Stage[]): Values['texts'] {
  const names = (which: (w: Wheel, i: number) => boolean) =>
    listed(layout.wheels.filter(which).map((w) => inSentence(w.name)));
  const teeth = layout.wheels.filter((w) => w.role === 'cam').map((w) => w.teeth);
  const pump = stages.flatMap((s) => s.layout.wheels).find((w) => w.role === 'pump');
  const tight = tensionerIndex(layout);
  const runs = layout.runs;
  return {
    drive: layout.kind,
    stage: inSentence(layout.name ?? phrase(PHRASES.timing, { kind: layout.kind })),
    driver: inSentence(nth(layout.wheels, 0).name),
    runs: viewedSense(runs, layout, true),
    slack: layout.wheels.some(isMarked) ? PHRASES.slack.timed : PHRASES.slack.untimed,
    route: listed([...layout.wheels.slice(1)].reverse().map((w) => inSentence(w.name))),
    tight: listed(
      layout.wheels
        .slice(tight + 1)
        .filter((w) => w.teeth !== undefined)
        .reverse()
        .map((w) => inSentence(w.name)),
    ),
    rollers: names((w) => w.role === 'idler' && w.teeth === undefined && !w.carrier && w.arc === undefined),
    phased: listed(camsOf(stages, true)),
    plain: listed(camsOf(stages, false)),
    idlers: names((w) => w.role === 'idler' && w.carrier !== undefined),
    flanged: names((w) => w.rimMm > 0),
    unflanged: names((w) => w.teeth !== undefined && w.rimMm === 0),
    arm: names((w) => w.arc !== undefined && w.carrier !== undefined),
    rail: names((w) => w.arc !== undefined && w.carrier === undefined),
    twins:
      teeth.length > 1 && new Set(teeth).size === 1
        ? phrase(PHRASES.twins, { n: teeth.length, teeth: must(teeth[0]) })
        : '',
    pump: pump ? inSentence(pump.name) : '',
    count: String(layout.count),
    units: layout.kind === 'belt' ? 'teeth' : 'links',
    tooth: `${round(360 / (nth(layout.wheels, 0).teeth ?? 1))}°`,
    ...(nth(stages, 0).layout.valves ? { safe: computed(nth(stages, 0).layout).safe ?? '' } : {}),
  };
}

/** Cams of the whole drive that sit on a phaser, or do not, each shaft once. */
const camsOf = (stages: readonly Stage[], phased: boolean): string[] =>
  camWheels(stages).flatMap((w) => ((w.phaser === true) === phased ? [inSentence(w.name)] : []));

/** Marks that a fitter looks at, of these stages; a shaft with a wheel in two of them is named once. */
function marksOf(stages: readonly Stage[], policy: Policy, turns: number): Values['texts'] {
  const layouts = stages.map((s) => s.layout);
  const marked = layouts.flatMap((layout) =>
    [...markedWheels(layout)].reverse().map((i) => inSentence(nth(layout.wheels, i).name)),
  );
  const cams = camWheels(stages).map((w) => inSentence(w.name));
  const offsets = layouts.flatMap((layout) =>
    computed(layout).phases.map(
      (p) => `${inSentence(nth(layout.wheels, p.wheel).name)} ${standsOff(p.teeth)}`,
    ),
  );
  const half = toleranceOf(nth(layouts, 0));
  const later = stages.flatMap((s) =>
    s.layout.wheels.flatMap((w, i) => {
      const after = i > 0 && w.role !== 'pump' && w.markDeg !== undefined ? turnsUntilBack(s, i) : 1;
      return turns % after === 0 ? [] : [phrase(PHRASES.later, { wheel: inSentence(w.name), turns: after })];
    }),
  );
  return {
    later: later.length ? `${PHRASES.laterFirst} ${listed(later)}.` : '',
    marked: listed([...new Set(marked)]),
    cams: listed([...new Set(cams)]),
    offsets: listed(offsets),
    tolerance: phrase(PHRASES.tolerance[policy.chosen['marks'] === 'exact' ? 'exact' : 'computed'], { half }),
  };
}

/** Whole turns of the crank, counted in working cycles, after which a wheel stands as it stood. */
function turnsUntilBack(stage: Pick<Stage, 'layout' | 'ratio'>, wheel: number): number {
  const [driver, teeth] = [
    nth(stage.layout.wheels, 0).teeth ?? 1,
    nth(stage.layout.wheels, wheel).teeth ?? 1,
  ];
  const perTurn = (stage.ratio * driver) / teeth;
  for (let n = 2; n <= MOST_TURNS; n += 2)
    if (Math.abs(n * perTurn - Math.round(n * perTurn)) < 1e-9) return n;
  return MOST_TURNS;
}
/** Beyond this nobody turns an engine by hand to see a mark again. */
const MOST_TURNS = 200;

const betweenOf = (layout: Layout): string =>
  listed(
    computed(layout).phases.map((p) =>
      phrase(PHRASES.between, {
        n: Math.abs(p.seat.between),
        wheel: inSentence(nth(layout.wheels, p.wheel).name),
      }),
    ),
  );

/** Off its line by less than this a mark stands in it, to the eye, teeth. */
const IN_LINE = 0.05;

/** "0.3 teeth behind" in running direction. */
const standsOff = (teeth: number): string =>
  Math.abs(teeth) < IN_LINE
    ? PHRASES.inLine
    : phrase(teeth > 0 ? PHRASES.ahead : PHRASES.behind, { n: Math.abs(teeth).toFixed(1) });

const windowWords = (w: { from: number; to: number }, unit: string): string =>
  phrase(PHRASES.window, { from: round(w.from) + unit, to: round(w.to) + unit });

function tensionerOf(layout: Layout): Values['texts'] {
  const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
  if (!carrier) return {};
  const unit = readingUnit(carrier) === 'mm' ? ' mm' : '°';
  const { window } = limitsOf(carrier);
  const plunger = carrier.kind === 'arm' ? carrier.plunger : undefined;
  return {
    nominal: round(window.nominal) + unit,
    window: windowWords(window, unit),
    carrier: senseWord(carrier.turn),
    reading: PHRASES.reading[carrierKind(carrier)],
    ...(carrier.kind === 'eccentric' ? { key: viewedSense(carrier.keyTurn, layout) } : {}),
    ...(plunger ? { collapsed: `${round(plunger.minMm)} mm` } : {}),
  };
}

/** "to between 120° and 240° after its mark, or between 60° before and 60° after it". */
function safeWords(ranges: readonly { fromDeg: number; toDeg: number }[]): string {
  const { after, around, first, next, or, none } = PHRASES.safe;
  if (ranges.length === 0) return none;
  return ranges
    .map((r, i) => {
      const [from, to] = [Math.ceil(r.fromDeg), Math.floor(r.toDeg)];
      const range =
        r.toDeg > 360 ? phrase(around, { from: 360 - from, to: to - 360 }) : phrase(after, { from, to });
      return phrase(i === 0 ? first : next, { range });
    })
    .join(or);
}

/** A name inside a sentence; what is written in capitals, such as a code, stays. */
export const inSentence = (name: string): string =>
  /^[A-Z][a-z]/.test(name) ? nth(name, 0).toLowerCase() + name.slice(1) : name;
