import type { Placeholder } from '@core/catalogue/placeholders';
import type { Spot } from '@core/catalogue/expand-procedure';
import { limitsOf, readingUnit } from '@core/drive/carrier';
import { isMarked, markedWheels } from '@core/drive/judge-marks';
import { type Layout, tensionerIndex, type Wheel } from '@core/drive/layout';
import { markPhases, type Phase } from '@core/drive/phase';
import { senseWord } from '@core/drive/sense';
import { solveDrive } from '@core/drive/solve-drive';
import type { Stage } from '@core/drive/stages';
import { safeCrankRanges } from '@core/drive/valve-safety';
import { leastTurns, type Rules } from '@core/house/rules';

/** What the drive puts into a step's sentences, by the name between braces, and the numbers of those that are one. */
export type Values = {
  texts: Partial<Record<Placeholder, string>>;
  numbers: Partial<Record<string, number>>;
};

const READING = { eccentric: 'eccentric', pointer: 'pointer', lever: 'lever', plunger: 'plunger' };
const round = (v: number) => String(Math.round(v * 10) / 10);

/** What is computed of a stage once, however many steps stand at it. */
type Computed = {
  /** Of every driven wheel with a mark, and of those that a fitter looks at. */
  all: readonly Phase[];
  phases: readonly Phase[];
  safe: string | undefined;
};
const kept = new WeakMap<Layout, Computed>();
function computed(layout: Layout): Computed {
  const known = kept.get(layout);
  if (known) return known;
  const solved = solveDrive(layout);
  const all = solved.ok ? markPhases(layout, solved.value).sort((a, b) => b.wheel - a.wheel) : [];
  const made = {
    all,
    phases: all.filter((p) => isMarked(layout.wheels[p.wheel]!)),
    safe: layout.valves && safeWords(safeCrankRanges(layout.valves).ranges),
  };
  kept.set(layout, made);
  return made;
}

/** Values at a place of a drive. @param turns by hand, as the step has them */
export function valuesAt(stages: readonly Stage[], spot: Spot, rules: Rules, turns?: number): Values {
  const { layout } = stages[spot.stage]!;
  const texts: Values['texts'] = {
    ...partsOf(layout, stages),
    ...marksOf(spot.whole ? stages.map((s) => s.layout) : [layout], rules),
    between: betweenOf(layout),
    ...tensionerOf(layout),
  };
  const numbers: Values['numbers'] = { count: layout.count, cold: rules.coldMinutes };
  const wheel = spot.wheel === undefined ? undefined : layout.wheels[spot.wheel];
  if (wheel) texts.part = inSentence(wheel.name);
  if (wheel?.carrier?.kind === 'eccentric') {
    texts.key = senseWord(wheel.carrier.keyTurn);
    texts.carrier = senseWord(wheel.carrier.turn);
    texts.nominal = `${round(wheel.carrier.window.nominal)}°`;
    texts.window = `${round(wheel.carrier.window.from)}° to ${round(wheel.carrier.window.to)}°`;
  }
  const first = computed(layout).all[0];
  if (first) numbers['between'] = first.seat.between;
  const least = leastTurns(rules, turns);
  texts.turns = String(least);
  numbers['turns'] = least;
  return { texts, numbers };
}

function partsOf(layout: Layout, stages: readonly Stage[]): Values['texts'] {
  const names = (which: (w: Wheel, i: number) => boolean) =>
    list(layout.wheels.filter(which).map((w) => inSentence(w.name)));
  const teeth = layout.wheels.filter((w) => w.role === 'cam').map((w) => w.teeth);
  const pump = stages.flatMap((s) => s.layout.wheels).find((w) => w.role === 'pump');
  const tight = tensionerIndex(layout);
  const runs = layout.runs;
  return {
    drive: layout.kind,
    stage: inSentence(layout.name ?? `Timing ${layout.kind}`),
    driver: inSentence(layout.wheels[0]!.name),
    shaft: inSentence(layout.wheels[0]!.name),
    runs: senseWord(runs),
    route: list([...layout.wheels.slice(1)].reverse().map((w) => inSentence(w.name))),
    tight: list(
      layout.wheels
        .slice(tight + 1)
        .filter((w) => w.teeth !== undefined)
        .reverse()
        .map((w) => inSentence(w.name)),
    ),
    rollers: names((w, i) => i > 0 && w.teeth === undefined && w.role !== 'pump' && w.arc === undefined),
    idlers: names((w) => w.role === 'idler' && w.carrier !== undefined),
    flanged: names((w) => w.rimMm > 0),
    unflanged: names((w) => w.teeth !== undefined && w.rimMm === 0),
    arm: names((w) => w.arc !== undefined && w.carrier !== undefined),
    rail: names((w) => w.arc !== undefined && w.carrier === undefined),
    twins:
      teeth.length > 1 && new Set(teeth).size === 1
        ? `${teeth.length} cam sprockets of ${teeth[0]} teeth`
        : '',
    pump: pump ? inSentence(pump.name) : '',
    count: String(layout.count),
    units: layout.kind === 'belt' ? 'teeth' : 'links',
    tooth: `${round(360 / (layout.wheels[0]!.teeth ?? 1))}°`,
    ...(stages[0]!.layout.valves ? { safe: computed(stages[0]!.layout).safe ?? '' } : {}),
  };
}

/** Marks that a fitter looks at, of these stages; a shaft with a wheel in two of them is named once. */
function marksOf(layouts: readonly Layout[], rules: Rules): Values['texts'] {
  const marked = layouts.flatMap((layout) =>
    [...markedWheels(layout)].reverse().map((i) => inSentence(layout.wheels[i]!.name)),
  );
  const cams = layouts.flatMap((l) =>
    l.wheels.filter((w) => w.role === 'cam').map((w) => inSentence(w.name)),
  );
  const offsets = layouts.flatMap((layout) =>
    computed(layout).phases.map((p) => `${inSentence(layout.wheels[p.wheel]!.name)} ${standsOff(p.teeth)}`),
  );
  const half = layouts[0]!.markToleranceTeeth ?? 0.25;
  return {
    marked: list([...new Set(marked)]),
    cams: list([...new Set(cams)]),
    offsets: list(offsets),
    tolerance:
      rules.chosen['marks'] === 'exact'
        ? `look twice at any that stands off its line, and pass it only within ${half} teeth of this`
        : `within ${half} teeth of this is right`,
  };
}

const betweenOf = (layout: Layout): string =>
  list(
    computed(layout).all.map((p) => `${p.seat.between} to the ${inSentence(layout.wheels[p.wheel]!.name)}`),
  );

/** "0.3 teeth behind" in running direction. */
export const standsOff = (teeth: number): string =>
  Math.abs(teeth) < 0.05
    ? 'in line'
    : `${Math.abs(teeth).toFixed(1)} teeth ${teeth > 0 ? 'ahead' : 'behind'}`;

function tensionerOf(layout: Layout): Values['texts'] {
  const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
  if (!carrier) return {};
  const unit = readingUnit(carrier) === 'mm' ? ' mm' : '°';
  const { window } = limitsOf(carrier);
  const plunger = carrier.kind === 'arm' ? carrier.plunger : undefined;
  return {
    nominal: round(window.nominal) + unit,
    window: `${round(window.from)}${unit} to ${round(window.to)}${unit}`,
    carrier: senseWord(carrier.turn),
    reading:
      carrier.kind === 'eccentric'
        ? carrier.manual
          ? READING.eccentric
          : READING.pointer
        : plunger
          ? READING.plunger
          : READING.lever,
    ...(carrier.kind === 'eccentric' ? { key: senseWord(carrier.keyTurn) } : {}),
    ...(plunger ? { collapsed: `${round(plunger.minMm)} mm` } : {}),
  };
}

/** "to between 120° and 240° after its mark, or between 60° before and 60° after it". */
function safeWords(ranges: readonly { fromDeg: number; toDeg: number }[]): string {
  const words = ranges.map((r) => {
    const over = r.toDeg > 360;
    const [from, to] = [Math.ceil(r.fromDeg), Math.floor(r.toDeg)];
    return over
      ? `between ${360 - from}° before and ${to - 360}° after`
      : `between ${from}° and ${to}° after`;
  });
  const [first, ...rest] = words;
  return [
    `to ${first ?? 'where the vehicle maker says, on either side of'} its mark`,
    ...rest.map((w) => `${w} it`),
  ].join(', or ');
}

/** A name inside a sentence; what is written in capitals, such as a code, stays. */
export const inSentence = (name: string): string =>
  /^[A-Z][a-z]/.test(name) ? name[0]!.toLowerCase() + name.slice(1) : name;
const list = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;
