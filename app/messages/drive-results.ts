import { counted, plural } from '../language/plural';
import { nth } from '@core/quantity/must';
import type { CentresError } from '@core/drive/fit-centres';
import type { CoolingError, HeatEffect, Ready } from '@core/drive/heat';
import type { FreeSeat, Go } from '@core/drive/judge-marks';
import type { OffsetPattern, OffsetVerdict } from '@core/drive/judge-offset';
import type { Layout } from '@core/drive/layout';
import type { InverseError } from '@core/drive/stack-height';
import type { TensionError } from '@core/drive/strand-tension';
import type { StrandKind } from '@core/drive/strands';
import type { WearState } from '@core/drive/wear';
import { formatNumber, formatQuantity } from '@core/quantity/format-quantity';
import { settingsSentence, wheelName } from './drive';
import { list } from '../language/list';

/** A signed figure: "+0.46", "−1.00", "0.00". */
export function signed(v: number, digits = 2): string {
  const shown = formatNumber(v, digits);
  return v > 0 && Number(v.toFixed(digits)) !== 0 ? `+${shown}` : shown;
}

/** "0.46 teeth ahead (4.1° of the wheel, 8.3° of the crank, 3.7 mm)". */
export function offsetWords(p: {
  teeth: number;
  wheelDeg: number;
  driverDeg: number;
  rimMm: number;
}): string {
  if (Math.abs(p.teeth) < 0.005) return 'in line';
  const side = p.teeth > 0 ? 'ahead' : 'behind';
  const n = (v: number, d: number) => formatNumber(Math.abs(v), d);
  return `${n(p.teeth, 2)} teeth ${side}: ${n(p.wheelDeg, 1)}° of the wheel, ${n(p.driverDeg, 1)}° of the crank, ${n(p.rimMm, 1)} mm at the rim`;
}

export function offsetVerdictWords(v: OffsetVerdict): string {
  switch (v.verdict) {
    case 'as_predicted':
      return '✓ as this drive must show';
    case 'teeth_out':
      return `✕ ${counted(v.teeth, 'tooth', 'teeth')} out, ${v.sense}`;
    case 'teeth_and_rest':
      return `✕ ${counted(v.teeth, 'tooth', 'teeth')} out, ${v.sense}, and a rest of ${signed(v.restTeeth)} teeth that needs a reason of its own`;
    case 'fraction':
      return `▲ off by a fraction (${signed(v.offTeeth)} teeth, ${v.sense}): stack height, seat or elongation`;
    case 'outside':
      return `✕ off by ${signed(v.offTeeth)} teeth, ${v.sense}: more than this drive may show, wherever within its uncertainty it stands`;
    case 'cannot_tell':
      return '? cannot tell: the reading straddles a limit; measure again';
  }
}

export function patternWords(layout: Layout, p: OffsetPattern): string {
  switch (p.pattern) {
    case 'as_predicted':
      return 'Every mark looked at stands as this drive must show it.';
    case 'at_driver':
      return `All stand the same ${counted(p.teeth, 'tooth', 'teeth')} ${p.sense}: the ${layout.kind} sits wrong at ${wheelName(layout, 0)}.`;
    case 'from_wheel':
      return `It is wrong from ${wheelName(layout, p.wheel)} on: lay the ${layout.kind} on again from there, that one first.`;
    case 'teeth_and_rest':
      return 'Whole teeth out, and a rest: a tooth was missed, and a distance or length changed as well.';
    case 'fractions':
      return 'Fractions of a tooth: distances or lengths changed, no tooth was missed.';
    case 'inconsistent':
      return 'These do not belong together: one of them was read in the other sense, or two things went wrong.';
    case 'cannot_tell':
      return 'Not all can be told from these readings.';
  }
}

export const STRAND_WORDS: Record<StrandKind, string> = {
  tight: 'tight',
  slack: 'slack',
  between: 'between',
};

export function inverseSentence(layout: Layout, e: InverseError): string {
  switch (e.code) {
    case 'no_banks':
      return 'This layout has no head that could come nearer.';
    case 'too_few':
      return `Enter the offsets of at least ${e.need} marks; ${e.have === 0 ? 'none is' : `${e.have} is`} here.`;
    case 'bank_not_seen':
      return `None of these marks sees ${layout.banks?.find((b) => b.id === e.bank)?.name ?? e.bank}.`;
    case 'no_fit':
      return 'No machined height explains these offsets.';
    case 'beyond': {
      const each = e.banks.map(
        (b) =>
          `${layout.banks?.find((x) => x.id === b.id)?.name ?? b.id} ${b.nearerMm.toFixed(1)} ± ${b.u.toFixed(1)} mm nearer`,
      );
      return `▲ These offsets would need ${list(each)}: ${e.mostMm === undefined ? 'no such drive can exist' : `more than the ${e.mostMm} mm that can be`}. Something else moved the marks; read them again.`;
    }
    default:
      return settingsSentence(layout, e);
  }
}

/** The wait until it is cold, with its expanded uncertainty. */
export function readyWords({ waitS, uS, tauS }: Ready, withinK: number): string {
  if (waitS === 0) return `Cold enough now: within ${withinK} K of the air.`;
  const minutes = (s: number) => formatNumber(s / 60, 0);
  const spread = uS > 0 ? ` ± ${minutes(2 * uS)}` : '';
  return `Wait ${minutes(waitS)}${spread} min more, then it is within ${withinK} K of the air (time constant ${minutes(tauS)} min).`;
}

export function coolingSentence(e: CoolingError): string {
  switch (e.code) {
    case 'same_time':
      return 'The second reading must be later than the first.';
    case 'not_cooling':
      return 'The second reading is not cooler: wait longer between the two.';
    case 'below_ambient':
      return 'The engine is colder than the air: check the readings.';
  }
}

export function centresSentence(names: readonly string[], e: CentresError): string {
  switch (e.code) {
    case 'loose_wheels':
      return `${list(e.wheels.map((w) => names[w] ?? String(w)))} can still move: measure one more distance to each.`;
    case 'impossible_distance':
      return `Distance ${e.index + 1} must be above zero and between two different wheels.`;
    case 'no_convergence':
      return 'The distances do not come together. Check the rough positions.';
  }
}

/** Where the tensioner ends, and whether that or the limit of belt or chain comes first. */
export function endsWords(layout: Layout, w: Pick<WearState, 'endsAt' | 'ends'>): string {
  if (w.endsAt === undefined) return '';
  const at = `The tensioner follows up to ${(w.endsAt * 100).toFixed(2)} % of elongation`;
  if (w.ends === undefined || layout.elongationLimit === undefined) return `${at}.`;
  const limit = `${(layout.elongationLimit * 100).toFixed(2)} %`;
  return w.ends === 'tensioner_first'
    ? `▲ ${at}, before the ${layout.kind} reaches its limit of ${limit}: judge it by the tensioner.`
    : `${at}; the ${layout.kind}’s limit of ${limit} comes first.`;
}

/** Why a tension, deflection or frequency cannot be. */
export function tensionSentence(e: TensionError): string {
  return e.code === 'not_positive'
    ? `The ${e.what} must be above zero.`
    : `Pressed that hard the strand cannot hold: stay below twice its tension, ${formatNumber(e.belowN, 0)} N.`;
}

const SEATS: Record<FreeSeat['by'], string> = {
  taper: 'a taper',
  friction: 'friction',
  slots: 'slots',
};
/** Which marks do not speak for their shafts, and what does; '' where all do. */
export function freeSeatWords(free: readonly FreeSeat[]): string {
  if (free.length === 0) return '';
  const by = list([...new Set(free.map((f) => SEATS[f.by]))]);
  const [has, their, shafts] = free.length === 1 ? ['stands', 'its', 'shaft'] : ['stand', 'their', 'shafts'];
  return `${list(free.map((f) => f.name))} ${has} on ${their} ${shafts} by ${by}: the ${plural(free.length, 'mark speaks', 'marks speak')} for the ${plural(free.length, 'wheel', 'wheels')} alone. Go counts once ${their} ${shafts} ${plural(free.length, 'was', 'were')} locked while what holds ${plural(free.length, 'it', 'them')} was tightened.`;
}

/** Go or no go, with how many of the drive's marks were looked at. */
export function goWords(go: Go, seen: number, of: number): string {
  const count = `${seen} of ${of} marks`;
  return {
    go: `Go: all ${of} marks stand as they must`,
    so_far: `Go so far, ${count} looked at: look at the others before it is started`,
    no_go: `No go, ${count} looked at`,
    wait: `Cannot tell yet, ${count} looked at`,
  }[go];
}

/** Which of the measured distances does not fit, or that it cannot be told which. */
export function disagreeWords(names: readonly string[]): string[] {
  if (names.length === 0) return [];
  return names.length === 1
    ? [`▲ ${nth(names, 0)} disagrees with all the others: measure it again.`]
    : [
        '▲ These distances do not agree, and it cannot be told which one is wrong: one more distance would tell.',
      ];
}

/** What a setting made warm and held is worth in the cold, of one stage. */
export function heldWords(layout: Layout, atC: number, { slackWhenColdMm: mm, reading }: HeatEffect): string {
  const n = (v: number) => formatQuantity(reading.unit === '°' ? 'angle' : 'length', v, { decimals: 1 });
  const name = layout.name ?? `This ${layout.kind}`;
  return `${name}: set at ${formatNumber(atC, 0)} °C and held, it is ${formatNumber(Math.abs(mm), 2)} mm ${mm >= 0 ? 'slack' : 'too tight'} at ${formatNumber(layout.heat?.drawnAtC ?? 0, 0)} °C; a tensioner that follows goes from ${n(reading.warm)} to ${n(reading.drawn)}.`;
}
