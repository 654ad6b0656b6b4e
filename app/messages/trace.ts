import { plural } from '../language/plural';
import { nth } from '@core/quantity/must';
import { hasAll } from '@core/drive/drive-has';
import { formatNumber } from '@core/quantity/format-quantity';
import type { BoxFault } from '@core/simulate/capture-box';
import type { CompareError, Shift } from '@core/trace/compare';
import type { LoopUnit } from '@core/trace/drive-teeth';
import type { ToldError, ToldOffset } from '@core/trace/told-offset';
import type { Together, TraceVerdict, Wheels, WholeTeeth } from '@core/trace/verdict';
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

/** The arithmetic, line by line, as one would say it on the telephone. @param open the designs that are left differ in their teeth: no line counts them */
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

/** What a shift was read from, as a note at its fact. */
export const againstWords = ({ edges }: Shift, reference: string): string =>
  `${edges.filter((e) => !e.out).length} edges against ${reference}`;
