import { found, nth, num } from '@core/quantity/must';
import { err, ok, type Result } from '@core/quantity/result';

/** What was taken for granted of a file, in words of the file. */
export type CaptureHeader = {
  separator: string;
  decimal: '.' | ',';
  timeUnit: string;
  /** The column of time names no unit, and none was said: it is decided by what speed an engine can turn. */
  unitOpen?: true;
  units: string[];
  time: string | undefined;
};
export type Dialect = {
  separator: number;
  comma: boolean;
  /** Columns that every row has at least. */
  width: number;
  /** Column of the time; none where the heading gives a step. */
  time: number | undefined;
  timeFactor: number;
  stepS: number | undefined;
  channels: { at: number; name: string; factor: number }[];
  bodyAt: number;
  /** Line, from 1, of the first row. */
  bodyLine: number;
  head: CaptureHeader;
};
type DialectError =
  | { code: 'empty' }
  /** Bytes that no text has: a device's own format. */
  | { code: 'binary' }
  | { code: 'one_column' }
  | { code: 'not_rows'; line: number; text: string };

const TIMES: Readonly<Record<string, number>> = {
  s: 1,
  sec: 1,
  seconds: 1,
  ms: 1e-3,
  us: 1e-6,
  µs: 1e-6,
  μs: 1e-6,
  ns: 1e-9,
};
/** Units that can be said of a file, where it does not name them or names others. */
export const TIME_UNITS = ['s', 'ms', 'µs'] as const;
export type TimeUnit = (typeof TIME_UNITS)[number];
export const VOLT_UNITS = ['v', 'mv'] as const;
export type VoltUnit = (typeof VOLT_UNITS)[number];
const VOLTS: Readonly<Record<string, number>> = { v: 1, mv: 1e-3, volt: 1, volts: 1 };
const ROW = /^[-+\d.,;\teE" ]+$/;
const LOOKED_AT = 60;
const LOOKED_FOR_TEXT = 4096;
/** A marker column holds no more different values than this. */
const FEW = 2;

/** How a file is written, from how it begins: mark of decimals, separator, headings, units, time column or sample interval. */
export function dialectOf(
  bytes: Uint8Array,
  said: { timeUnit?: TimeUnit; voltUnit?: VoltUnit } = {},
): Result<Dialect, DialectError> {
  const bom = bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf ? 3 : 0;
  if (bytes.subarray(0, LOOKED_FOR_TEXT).some((b) => b === 0)) return err({ code: 'binary' });
  const text = new TextDecoder('latin1').decode(bytes.subarray(bom));
  const lines = text.split(/\r\n|\r|\n/);
  const first = lines.findIndex(
    (l, i) => ROW.test(l) && /\d/.test(l) && (lines[i + 1] === undefined || ROW.test(nth(lines, i + 1))),
  );
  if (text.trim() === '') return err({ code: 'empty' });
  if (first < 0) return err({ code: 'not_rows', line: 1, text: nth(lines, 0).slice(0, 60) });
  const rows = lines.slice(first, first + LOOKED_AT).filter((l) => l.trim() !== '');
  const separator = separatorOf(rows);
  const split = (l: string) => l.split(separator).map((c) => c.trim().replace(/^"|"$/g, ''));
  const comma = separator !== ',' && rows.some((r) => /\d,\d|^-?,\d/.test(r));
  const number = (c: string) => Number(comma ? c.replace(',', '.') : c);
  const table = rows.slice(0, -1).map(split);
  const usual = table.length > 0 ? table : [split(nth(rows, 0))];
  const width = Math.max(...usual.map((r) => r.length));
  const heads = lines
    .slice(0, first)
    .map(split)
    .filter((r) => r.length > 1);
  const about = lines.slice(0, first).join('\n');
  const values = (k: number) => usual.map((r) => number(r[k] ?? '')).filter(Number.isFinite);
  const names = heads.find((r) => r.some((c) => nameOf(c) !== '' && unitOf(nameOf(c)) === undefined)) ?? [];
  const unit = (k: number) => heads.map((r) => unitOf(r[k] ?? '')).find((u) => u !== undefined);
  const stepS = stepIn(about);
  const time = timeColumn(width, values, names, unit, stepS);
  const columns = Array.from({ length: width }, (_, k) => k).filter(
    (k) => k !== time && values(k).length > 0 && !isMarker(names[k], values(k)),
  );
  if (columns.length === 0) return err({ code: 'one_column' });
  const unitSaid = said.timeUnit ?? (time === undefined ? undefined : unit(time));
  const timeUnit = unitSaid ?? 's';
  const voltUnit = (k: number) => said.voltUnit ?? unit(k) ?? 'v';
  const channels = columns.map((at) => ({
    at,
    name: nameOf(names[at]) || `channel ${at + 1}`,
    factor: VOLTS[voltUnit(at)] ?? 1,
  }));
  const before = lines.slice(0, first);
  return ok({
    separator: separator.charCodeAt(0),
    comma,
    width: Math.max(...channels.map((c) => c.at), time ?? 0) + 1,
    time,
    timeFactor: TIMES[timeUnit] ?? 1,
    stepS,
    channels,
    bodyAt: bom + bytesBefore(text, first),
    bodyLine: before.length + 1,
    head: {
      separator,
      decimal: comma ? ',' : '.',
      timeUnit,
      ...(time !== undefined && unitSaid === undefined ? { unitOpen: true as const } : {}),
      units: columns.map(voltUnit),
      time: time === undefined ? undefined : nameOf(names[time]) || `column ${time + 1}`,
    },
  });
}

/** Bytes of the lines before the body: one a sign, since the text was read as Latin-1. */
function bytesBefore(text: string, lines: number): number {
  let at = 0;
  for (let k = 0; k < lines; k++) {
    const end = found(/\r\n|\r|\n/.exec(text.slice(at)));
    at += end.index + end[0].length;
  }
  return at;
}

function separatorOf(rows: readonly string[]): string {
  for (const s of ['\t', ';']) if (rows.every((r) => r.includes(s))) return s;
  return ',';
}

/** Unit that a heading cell is, or holds in brackets. */
function unitOf(cell: string): string | undefined {
  // Read as Latin-1, a micro sign of UTF-8 has a sign before it.
  const said = (/[[(]\s*([^\])]+)\s*[\])]/.exec(cell)?.[1] ?? cell).trim().toLowerCase().replace('â', '');
  const clean = said.replace(/^[^a-zµμ]+/, '');
  return clean in TIMES || clean in VOLTS ? clean : undefined;
}
const nameOf = (cell: string | undefined): string => (cell ?? '').replace(/[[(][^\])]*[\])]/, '').trim();

/** The time: a column called so, else the first that grows evenly. Where the heading says an interval, only one that grows by just that: another is a signal that happens to rise. */
function timeColumn(
  width: number,
  values: (k: number) => number[],
  names: readonly string[],
  unit: (k: number) => string | undefined,
  stepS: number | undefined,
): number | undefined {
  const all = Array.from({ length: width }, (_, k) => k);
  const named = all.find(
    (k) => /^(time|t|zeit|temps|sec)\b/i.test(names[k] ?? '') || (unit(k) ?? '') in TIMES,
  );
  if (named !== undefined) return named;
  return all.find((k) => {
    const v = values(k);
    const steps = v.slice(1).map((x, i) => x - num(v, i));
    const mean = steps.reduce((a, b) => a + b, 0) / steps.length;
    if (stepS !== undefined && !Object.values(TIMES).some((f) => Math.abs((mean * f) / stepS - 1) < 0.02))
      return false;
    return steps.length >= 5 && mean > 0 && steps.every((s) => s >= 0 && s < 4 * mean);
  });
}

/** A column of marks, called so, or one that counts: whole numbers, one more each row until they begin again. */
function isMarker(name: string | undefined, values: readonly number[]): boolean {
  if (/mark|event|trigger|flag/i.test(name ?? '') && new Set(values).size <= FEW) return true;
  const steps = values.slice(1).map((x, i) => x - num(values, i));
  const counts = steps.filter((s) => s === 1).length;
  return (
    values.length > FEW + 1 &&
    values.every(Number.isInteger) &&
    counts >= 0.75 * steps.length &&
    steps.every((s) => s === 1 || s < 0)
  );
}

const HERTZ: Readonly<Record<string, number>> = { k: 1e3, K: 1e3, M: 1e6, m: 1e6 };
/** Seconds from sample to sample, where a heading says an interval or a rate. */
function stepIn(text: string): number | undefined {
  const step =
    /(?:interval|intervall|step|\bdt)\D{0,12}?([\d.,]*\d(?:e[-+]?\d+)?)[\s;,]*(s|ms|us|µs|ns)\b/i.exec(text);
  if (step) return Number(nth(step, 1).replace(',', '.')) * (TIMES[nth(step, 2).toLowerCase()] ?? 1);
  const rate = /(?:rate|frequency|frequenz)\D{0,12}?([\d.,]*\d)[\s;,]*([kM]?)hz/i.exec(text);
  return rate ? 1 / (Number(nth(rate, 1).replace(',', '.')) * (HERTZ[rate[2] ?? ''] ?? 1)) : undefined;
}
