import { counted, plural } from '../language/plural';
import { nth } from '@core/quantity/must';
import { hasAll } from '@core/drive/drive-has';
import { formatNumber } from '@core/quantity/format-quantity';
import type { BoxFault } from '@core/simulate/capture-box';
import type { ClockError } from '@core/trace/clock';
import type { CompareError, Shift } from '@core/trace/compare';
import type { LoopUnit } from '@core/trace/drive-teeth';
import type { ToldError, ToldOffset } from '@core/trace/told-offset';
import { TELLS, type Together, type TraceVerdict, type Wheels, type WholeTeeth } from '@core/trace/verdict';
import type { TraceFailure, TraceRead } from '../workers/trace.protocol';
import { list } from '../language/list';

const deg = (v: number, places = 2): string => `${formatNumber(Math.abs(v), places)}°`;
const side = (v: number): string => (v > 0 ? 'late' : 'early');
/** Faults of the simulated box. */
export const FAULT_WORDS: Readonly<Record<BoxFault, string>> = {
  good: 'good',
  one_late: 'one late',
  one_cam_late: 'one late at the first cam',
  one_early: 'one early',
  two_late: 'two late',
  worn: 'a fraction late',
  upside_down: 'cam upside down',
  phaser: 'phaser moving',
};
/** A cam that no drive names, by its place. */
export const camName = (at: number): string => (at === 0 ? 'Cam' : `Cam ${at + 1}`);
const SEPARATORS: Readonly<Record<string, string>> = { ';': 'semicolon', ',': 'comma', '\t': 'tab' };

/** What was taken for granted of a file, to be looked at. */
export function readWords(t: TraceRead): string[] {
  const h = t.head;
  const cams = t.roles.cams.map((k) => nth(t.channels, k));
  const speed = speedWords(t.speed);
  return [
    `${formatNumber(t.samples, 0)} samples, ${formatNumber(t.stepS * 1e6, 1)} µs apart; ${SEPARATORS[h.separator] ?? h.separator} between columns, decimal ${h.decimal === ',' ? 'comma' : 'point'}${timeWords(h)}.`,
    `Crank: ${t.channels[t.roles.crank]}, a ${t.crankKind === 'square' ? 'square wave' : 'swing that grows with speed'} on a wheel ${t.wheel}, ${t.turns} turns${repairedWords(t)}. Cam: ${list(cams)}${speed === undefined ? '' : `, ${speed}`}.`,
    ...periodWords(t.period),
    ...(t.gaps.length > 0
      ? [
          `▲ ${counted(t.gaps.length, 'gap', 'gaps')} in time, the first behind sample ${nth(t.gaps, 0).after}.`,
        ]
      : []),
    ...(t.refused.length > 0
      ? [
          `▲ Left out, since they are no rows of numbers: ${plural(t.refused.length, 'line', 'lines')} ${list(t.refused.slice(0, 5).map(String))}.`,
        ]
      : []),
    ...t.cams.flatMap((c) =>
      c.error === undefined ? [] : [`▲ ${c.name}: ${CAM_TROUBLE[c.error] ?? c.error}`],
    ),
  ];
}

/** Where the time comes from, and in which unit. */
function timeWords({ time, timeUnit, unitOpen }: TraceRead['head']): string {
  if (time === undefined) return ', time from the heading or as given';
  return unitOpen
    ? `, time without a unit, taken for ${timeUnit}: only so does the engine turn as engines do`
    : `, time in ${timeUnit}`;
}

/** What a wheel that looks the same after part of a turn leaves open. */
function periodWords(period: number): string[] {
  if (period >= 360) return [];
  return period < TELLS
    ? ['▲ The crank wheel has no gap: an offset shows only up to whole teeth of it.']
    : [
        `▲ The crank wheel looks the same after ${formatNumber(period, 0)}°: an offset shows only up to that, far more than a belt or chain can lose.`,
      ];
}

/** Teeth that were put right in reading. */
function repairedWords({ lost, double }: Pick<TraceRead, 'lost' | 'double'>): string {
  const said = [
    ...(lost > 0 ? [`${counted(lost, 'tooth', 'teeth')} lost`] : []),
    ...(double > 0 ? [`${counted(double, 'edge', 'edges')} too many`] : []),
  ];
  return said.length === 0 ? '' : `, ${list(said)}`;
}

const CAM_TROUBLE: Readonly<Record<string, string>> = {
  too_few_cycles: 'less than one whole cycle, two turns of the crank; record longer, or crank it again.',
  no_cam_edges: 'no edge comes back cycle by cycle; look whether the cam sensor was connected.',
  constant: 'the signal does not change; look at the probe, and whether the engine turned.',
  no_edges: 'hardly an edge; look at the probe and its range.',
};

/** Why a capture could not be read, and what to try. */
/** @param byCatalogue the wheel that the drive names, where nobody said another */
export function failureWords(name: string, e: TraceFailure, byCatalogue?: string): string {
  switch (e.code) {
    case 'empty':
      return `${name} is empty.`;
    case 'binary':
      return `${name} is no text: it is a device’s own format. Export the recording as a table (CSV) of time and volts there.`;
    case 'no_time':
      return `${name} has no column of time and no sample interval in its heading. Type the interval and open it again.`;
    case 'one_column':
    case 'one_channel':
      return `${name} has one signal; it takes crank and cam. Record both at once.`;
    case 'runs_back':
      return `${name}, line ${e.line}: the time runs back. Export it once more, or cut what comes before.`;
    case 'not_rows':
      return `${name}, line ${e.line}: “${e.text}” is no row of numbers. A capture is a table of time and volts.`;
    case 'long_gap':
      return `${name}, line ${e.line}: the time jumps by ${formatNumber(e.steps, 0)} samples. It is two recordings, or the time has another unit there; export one of them.`;
    case 'too_long':
      return `${name} has more than ${formatNumber(e.most, 0)} samples a channel. Export a part of it.`;
    case 'long_line':
      return `${name}, line ${e.line}: it has more than ${formatNumber(e.most / 1024 / 1024, 0)} MB. A capture is a table with a line for each sample.`;
    case 'file_too_large':
    case 'unpacks_too_large':
      return `${name} holds more than ${formatNumber(e.most / 1e6, 0)} MB. Export a part of it.`;
    case 'too_many_entries':
      return `${name} holds more than ${e.most} files. Put one table in it.`;
    case 'no_table_in_zip':
      return `${name} holds no table: ${list(e.names) || 'nothing'}. Put a CSV in it.`;
    case 'broken_zip':
      return `${name} is no whole zip (${e.detail}). Send it again.`;
    case 'channel':
      return `${name}, ${e.name}: ${CAM_TROUBLE[e.error.code] ?? e.error.code}`;
    case 'no_wheel':
      return `“${e.text}” is no wheel: type slots less the missing ones, as 60-2, or a turn as ones and noughts.`;
    case 'swapped':
      return `${name}: ${e.name} shows no wheel of a crank, ${e.crank} does. The two are swapped; say which is which.`;
    case 'crank':
      return e.error.code === 'too_few_teeth'
        ? `${name}, ${e.name}: ${e.error.teeth} teeth are too few. Record some seconds of cranking.`
        : wheelTrouble(`${name}, ${e.name}`, e.error, byCatalogue);
  }
}

/** What an offset that was told lacks. */
export function toldTrouble(e: ToldError): string {
  switch (e.code) {
    case 'no_figure':
      return 'A figure with degrees or teeth is missing: “2.75 teeth of the 60 wheel late”, “16 degrees crank late”.';
    case 'no_side':
      return 'Late or early?';
    case 'which_teeth':
      return 'Teeth of which wheel? “… of the 60 wheel”; without it degrees of the crank.';
  }
}

/** The arithmetic of an offset that was told. */
export const toldWords = ({ deg: v, u }: ToldOffset): string =>
  `${deg(v)} of the crank ${side(v)}, good to ${formatNumber(2 * u, 1)}° as it was told.`;

/** Teeth were told of another wheel than the drive's own. */
export const otherWheelWords = (told: string | undefined, drive: string | undefined): string[] =>
  told === undefined || drive === undefined || told === drive
    ? []
    : [
        `▲ By the catalogue this drive’s sensor wheel is ${drive}, not ${told}: ask which wheel was counted, or for degrees of the crank.`,
      ];

/** Why the teeth of a crank were not read as a wheel. */
function wheelTrouble(
  where: string,
  e: Exclude<ClockError, { code: 'too_few_teeth' }>,
  byCatalogue: string | undefined,
): string {
  if (e.code === 'rival_wheels')
    return `${where}: the teeth may be those of a wheel ${e.notation} or ${e.rival}, and the capture does not decide. Say which it is.`;
  if (byCatalogue !== undefined && e.better !== undefined)
    return `${where}: by the catalogue this drive’s crank wheel is ${byCatalogue}, but the capture shows ${e.better}. It is of another engine, or the sensor wheel was changed; say the wheel to read it all the same.`;
  return e.better === undefined
    ? `${where}: the teeth are not those of a wheel ${e.notation} (${formatNumber(100 * e.fits, 0)} % of them fit). Say which wheel it is, or record it longer and at an even speed.`
    : `${where}: the teeth are not those of a wheel ${e.notation}, they are those of a wheel ${e.better}. Another engine, another sensor wheel, or the wheel that was said is not this one.`;
}

export function compareTrouble(e: CompareError): string {
  switch (e.code) {
    case 'other_wheel':
      return `The crank wheels differ (${e.wheel} and ${e.reference}): their first teeth are not the same place, so the cams cannot be compared. Say the wheel, or take a capture of the same engine.`;
    case 'other_sensor':
      return 'One crank signal is a square wave and the other a swing: they are read from other places of a tooth, so the cams cannot be compared. Record both with the same sensor, and not cut off.';
    case 'other_pattern':
      return `The two captures show different cam wheels (${e.edges} and ${e.reference} edges): another engine, another design, or a cam sensor that drops out.`;
  }
}

/** What a fraction of a tooth can come of, on a drive that has what it takes. */
const REASONS: readonly (readonly [needs: string, words: string])[] = [
  ['chain', 'elongation'],
  ['bank', 'stack height'],
  ['mark', 'a wheel moved on its seat'],
  ['', 'a sensor ring moved'],
];

/** What the loops at the crank and at the cam are counted in. */
export type Units = { crank: LoopUnit; cam: LoopUnit };
const PLURAL: Readonly<Record<LoopUnit, string>> = { tooth: 'teeth', link: 'links' };
const many = (n: number, unit: LoopUnit): string =>
  Math.abs(n) === 1 ? `one ${unit}` : `${Math.abs(n)} ${PLURAL[unit]}`;
const capital = (text: string): string => nth(text, 0).toUpperCase() + text.slice(1);

/** Where whole teeth were lost. @param late words for later and earlier */
function wholeWords(at: readonly WholeTeeth[], u: Units, late: (n: number) => string): string {
  const crank = at.find((w) => w.wheel === 'crank');
  const cam = at.find((w) => w.wheel === 'cam');
  if (crank && cam?.teeth === crank.teeth)
    return `${many(crank.teeth, u.crank)} ${late(crank.teeth)} at the crank, or as much at this cam alone`;
  return [
    ...(crank ? [`${many(crank.teeth, u.crank)} ${late(crank.teeth)} at the crank`] : []),
    ...(cam ? [`${many(cam.teeth, u.cam)} ${late(cam.teeth)} at this cam’s wheel`] : []),
  ].join(', or ');
}

/** The verdict in a sentence. @param has what the drive has; none: it may have anything */
export function traceVerdictWords(v: TraceVerdict, u: Units, has?: ReadonlySet<string>): string {
  switch (v.verdict) {
    case 'in_tolerance':
      return 'In tolerance: cam and crank stand as they should.';
    case 'whole':
      return `${capital(wholeWords(v.at, u, side))}: jumped, or fitted so.`;
    case 'fraction':
      return `A fraction of a ${u.cam}, ${deg(v.spoken.crankDeg)} ${side(v.spoken.crankDeg)}: no ${u.cam} out. It may be ${list(
        REASONS.filter(([needs]) => hasAll(needs === '' ? [] : [needs], has)).map(([, words]) => words),
        'or',
      )}.`;
    case 'cannot_tell':
      return cannotTellWords(v);
  }
}

function cannotTellWords(v: Extract<TraceVerdict, { verdict: 'cannot_tell' }>): string {
  switch (v.why) {
    case 'no_gap':
      return `Cannot tell: the crank wheel has no gap. It could be ${list(
        v.couldBe.slice(0, 5).map((d) => `${deg(d, 1)} ${Math.abs(d) < 0.05 ? '' : side(d)}`.trim()),
        'or',
      )}, with the crank sensor’s wires the same way around in both.`;
    case 'moving':
      return 'Cannot tell: the cam moves against the crank while it is recorded, as a phaser does. Record it locked, at cranking speed.';
    case 'wide':
      return 'Cannot tell: the interval holds more than one answer. Record longer, or at an even speed.';
  }
}

/** What a repair moved a cam by, from the capture before it to the one behind it. */
export function movedWords(v: TraceVerdict, u: Units): string {
  const later = (n: number) => (n > 0 ? 'later' : 'earlier');
  switch (v.verdict) {
    case 'in_tolerance':
      return `The repair moved nothing: ${deg(v.spoken.crankDeg)} of the crank.`;
    case 'whole':
      return `The repair moved it ${deg(v.spoken.crankDeg)} of the crank: ${wholeWords(v.at, u, later)}.`;
    case 'fraction':
      return `The repair moved it ${deg(v.spoken.crankDeg)} of the crank ${later(v.spoken.crankDeg)}: no whole ${u.cam}.`;
    case 'cannot_tell':
      return cannotTellWords(v);
  }
}

/** What the cams say together; nothing where it is open. */
export function togetherWords(t: Together, names: readonly string[], unit: LoopUnit): string | undefined {
  switch (t.together) {
    case 'good':
      return 'All cams stand as they should.';
    case 'crank':
      return `All cams are ${many(t.teeth, unit)} ${side(t.teeth)}: it was lost at the crank.`;
    case 'apart':
      return `Only ${list(t.cams.map((i) => nth(names, i)))} ${plural(t.cams.length, 'is', 'are')} out, the others stand as they should: it was lost there, not at the crank.`;
    case 'open':
      return undefined;
  }
}

/** The arithmetic, line by line, as one would say it on the telephone. */
/** @param open the designs that are left differ in their teeth: no line counts them */
export function arithmeticWords(v: TraceVerdict, w: Wheels, s: Shift, u: Units, open = false): string[] {
  const { crankDeg, camDeg, sensorTeeth, atCrank, atCam, low, high } = v.spoken;
  const used = s.edges.filter((e) => !e.out).length;
  return [
    `${used} cam edges stand ${deg(crankDeg)} of the crank ${side(crankDeg)}, 95 % from ${formatNumber(low, 2)}° to ${formatNumber(high, 2)}°${s.edges.length > used ? `; ${s.edges.length - used} left out, off the others` : ''}.`,
    `${deg(crankDeg)} of the crank ÷ 2 = ${deg(camDeg)} of the cam.`,
    ...(w.sensorSlots === undefined || sensorTeeth === undefined
      ? []
      : [
          `${deg(crankDeg)} ÷ (360° ÷ ${w.sensorSlots}) = ${formatNumber(Math.abs(sensorTeeth), 2)} teeth of the sensor’s wheel.`,
        ]),
    ...(open
      ? []
      : [
          `${deg(crankDeg)} ÷ (360° ÷ ${w.zCrank}) = ${formatNumber(Math.abs(atCrank), 2)} ${PLURAL[u.crank]} at the crank.`,
          `${deg(crankDeg)} ÷ (720° ÷ ${w.zCam}) = ${formatNumber(Math.abs(atCam), 2)} ${PLURAL[u.cam]} at the cam.`,
        ]),
    ...(s.reversed ? ['▲ The cam signal is upside down against the good one: polarity, and no offset.'] : []),
  ];
}

/** What an offset says while the designs that are left do not say the same of it. */
export const byDesignWords = ({ deg: v }: Pick<Shift, 'deg'>): string =>
  `${deg(v)} of the crank ${side(v)}: what that is depends on the design.`;

/** Where the cursor stands, and how far from the mark. @param z teeth of the drive at the crank */
export function cursorWords(at: number, mark: number | undefined, z: number, unit: LoopUnit): string {
  if (mark === undefined) return `${formatNumber(at, 1)}° of the crank`;
  const off = at - mark;
  return `${formatNumber(at, 1)}°, ${deg(off, 1)} ${off < 0 ? 'before' : 'behind'} the mark: ${formatNumber((Math.abs(off) * z) / 360, 2)} ${PLURAL[unit]} at the crank`;
}

/** Engine speed over a recording. */
export function speedWords(speed: TraceRead['speed']): string | undefined {
  if (speed.length === 0) return undefined;
  const all = speed.map((s) => s.rpm);
  const [least, most] = [Math.min(...all), Math.max(...all)].map((v) => formatNumber(v, 0));
  return least === most ? `${least} 1/min` : `${least} to ${most} 1/min`;
}

/** What a shift was read from, as a note at its fact. */
export const againstWords = ({ edges }: Shift, reference: string): string =>
  `${edges.filter((e) => !e.out).length} edges against ${reference}`;
