import { list } from '../language/list';
import { counted, plural } from '../language/plural';
import { nth } from '@core/quantity/must';
import { formatNumber } from '@core/quantity/format-quantity';
import type { ClockError } from '@core/trace/clock';
import { TELLS } from '@core/trace/verdict';
import type { TraceFailure, TraceRead } from '../workers/trace.protocol';

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

/** What is wrong with a signal, and what to look at. */
const CAM_TROUBLE: Readonly<Record<string, string>> = {
  too_few_cycles: 'less than one whole cycle, two turns of the crank; record longer, or crank it again.',
  no_cam_edges: 'no edge comes back cycle by cycle; look whether the cam sensor was connected.',
  constant: 'the signal does not change; look at the probe, and whether the engine turned.',
  no_edges: 'hardly an edge; look at the probe and its range.',
};

/** Why a capture could not be read, and what to try. @param byCatalogue the wheel that the drive names, where nobody said another */
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

/** Engine speed over a recording. */
export function speedWords(speed: TraceRead['speed']): string | undefined {
  if (speed.length === 0) return undefined;
  const all = speed.map((s) => s.rpm);
  const [least, most] = [Math.min(...all), Math.max(...all)].map((v) => formatNumber(v, 0));
  return least === most ? `${least} 1/min` : `${least} to ${most} 1/min`;
}
