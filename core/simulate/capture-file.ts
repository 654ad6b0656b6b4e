import { floatAt, nth } from '@core/quantity/must';
import type { SimulatedCapture } from './capture';

/** How a capture is written. */
export type CaptureDialect = {
  separator: ',' | ';' | '\t';
  decimal: '.' | ',';
  /** Rows of heading: none, names with units in brackets, or names and a row of units. */
  heading: 'none' | 'one' | 'two';
  time: 's' | 'ms' | 'µs' | 'none';
  volts: 'V' | 'mV';
  bom?: boolean;
  crlf?: boolean;
  /** Seconds of the first sample; columns in this order; exponents. */
  startS?: number;
  order?: ('time' | 'crank' | 'cam' | 'marker')[];
  exponent?: boolean;
};
const PER_SECOND = { s: 1, ms: 1e3, µs: 1e6, none: 1 };

/** A simulated capture as the file that an export would be. */
export function writeCapture({ crank, cam, others, stepS }: SimulatedCapture, d: CaptureDialect): string {
  const further = others.map((_, k) => `cam${k + 2}` as const);
  const order = [...(d.order ?? (['time', 'crank', 'cam'] as const)), ...further].filter(
    (c) => c !== 'time' || d.time !== 'none',
  );
  const volts = d.volts === 'V' ? 1 : 1000;
  const end = d.crlf ? '\r\n' : '\n';
  const number = (v: number, places: number) => {
    const text = d.exponent ? v.toExponential(6) : v.toFixed(places);
    return d.decimal === ',' ? text.replace('.', ',') : text;
  };
  const NAMES: Record<string, string> = { time: 'Time', crank: 'Crank', cam: 'Cam', marker: 'Marker' };
  const nameOf = (c: string) => NAMES[c] ?? c.replace('cam', 'Cam ');
  const UNITS: Record<string, string> = { time: d.time, marker: '' };
  const unitOf = (c: string) => UNITS[c] ?? d.volts;
  const lines: string[] = [];
  if (d.time === 'none') lines.push(`Sample interval: ${number(stepS * 1000, 5)} ms`);
  if (d.heading === 'one')
    lines.push(order.map((c) => (unitOf(c) ? `${nameOf(c)} (${unitOf(c)})` : nameOf(c))).join(d.separator));
  if (d.heading === 'two')
    lines.push(order.map(nameOf).join(d.separator), order.map(unitOf).join(d.separator));
  for (let i = 0; i < crank.length; i++) {
    const t = ((d.startS ?? 0) + i * stepS) * PER_SECOND[d.time];
    const cell = (c: (typeof order)[number]): string => {
      if (c === 'time') return number(t, d.time === 's' ? 6 : d.time === 'ms' ? 4 : 1);
      if (c === 'marker') return i === 10 ? '1' : '0';
      const samples = c === 'crank' ? crank : c === 'cam' ? cam : nth(others, Number(c.slice(3)) - 2);
      return number(floatAt(samples, i) * volts, d.volts === 'V' ? 4 : 1);
    };
    lines.push(order.map(cell).join(d.separator));
  }
  return (d.bom ? '\ufeff' : '') + lines.join(end) + end;
}
