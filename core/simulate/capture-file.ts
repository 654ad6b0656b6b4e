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
export function writeCapture({ crank, cam, stepS }: SimulatedCapture, d: CaptureDialect): string {
  const order = (d.order ?? ['time', 'crank', 'cam']).filter((c) => c !== 'time' || d.time !== 'none');
  const volts = d.volts === 'V' ? 1 : 1000;
  const end = d.crlf ? '\r\n' : '\n';
  const number = (v: number, places: number) => {
    const text = d.exponent ? v.toExponential(6) : v.toFixed(places);
    return d.decimal === ',' ? text.replace('.', ',') : text;
  };
  const NAMES = { time: 'Time', crank: 'Crank', cam: 'Cam', marker: 'Marker' };
  const UNITS = { time: d.time, crank: d.volts, cam: d.volts, marker: '' };
  const lines: string[] = [];
  if (d.time === 'none') lines.push(`Sample interval: ${number(stepS * 1000, 5)} ms`);
  if (d.heading === 'one')
    lines.push(order.map((c) => (UNITS[c] ? `${NAMES[c]} (${UNITS[c]})` : NAMES[c])).join(d.separator));
  if (d.heading === 'two')
    lines.push(order.map((c) => NAMES[c]).join(d.separator), order.map((c) => UNITS[c]).join(d.separator));
  for (let i = 0; i < crank.length; i++) {
    const t = ((d.startS ?? 0) + i * stepS) * PER_SECOND[d.time];
    const cell = {
      time: () => number(t, d.time === 's' ? 6 : d.time === 'ms' ? 4 : 1),
      crank: () => number(crank[i]! * volts, d.volts === 'V' ? 4 : 1),
      cam: () => number(cam[i]! * volts, d.volts === 'V' ? 4 : 1),
      marker: () => (i === 10 ? '1' : '0'),
    };
    lines.push(order.map((c) => cell[c]()).join(d.separator));
  }
  return (d.bom ? '\ufeff' : '') + lines.join(end) + end;
}
