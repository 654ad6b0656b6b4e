import { doubleAt, must, nth } from '@core/quantity/must';
import { err, ok, type Result } from '@core/quantity/result';
import { type Dialect, dialectOf, type CaptureHeader, type TimeUnit, type VoltUnit } from './capture-dialect';
import { CR, LF, numberIn, plainRow } from './row-bytes';

/** One channel of a capture, volts, a sample every step. */
type Channel = { name: string; samples: Float32Array };
export type Capture = {
  channels: Channel[];
  /** Seconds of the first sample, and from each to the next. */
  startS: number;
  stepS: number;
  /** Where samples are missing: behind which one, and for how long. They are filled with the last value, so that time runs on. */
  gaps: { after: number; seconds: number }[];
  /** Lines that hold no row, by number: the last one cut short, text among numbers. */
  refused: number[];
  /** What was taken for granted, to be shown. */
  head: CaptureHeader;
};
export type CaptureError =
  | { code: 'empty' }
  | { code: 'binary' }
  /** Neither a column that grows evenly nor a heading with a sample interval: it has to be given. */
  | { code: 'no_time' }
  | { code: 'one_column' }
  | { code: 'runs_back'; line: number }
  | { code: 'not_rows'; line: number; text: string }
  /** Time jumps by more samples than a capture may have. */
  | { code: 'long_gap'; line: number; steps: number }
  | { code: 'too_long'; most: number }
  /** A line longer than any table has: a file of another kind. */
  | { code: 'long_line'; line: number; most: number };

/** What is said of a file instead of read from it: seconds from sample to sample, unit of its time and of its volts. */
export type SaidOfFile = { stepS?: number; timeUnit?: TimeUnit; voltUnit?: VoltUnit };

/** Samples a channel at most. */
const MOST_SAMPLES = 10_000_000;
/** Bytes of a line at most: joining pieces of one without an end would take ever longer. */
const LONGEST_LINE = 1024 * 1024;
/** Bytes that the dialect is read from. */
const HEAD_BYTES = 32_768;
/** A step longer than so many usual ones is a gap. */
const GAP = 1.6;
/** Share of the lines that may be no rows. */
const REFUSED = 0.02;
const MOST_TOLD = 50;
/** Values of one column as they come. */
class Column {
  private data = new Float32Array(4096);
  n = 0;
  add(v: number): void {
    if (this.n === this.data.length) {
      const more = new Float32Array(2 * this.n);
      more.set(this.data);
      this.data = more;
    }
    this.data[this.n++] = v;
  }
  all(): Float32Array {
    return this.data.subarray(0, this.n);
  }
}

/** Reads a capture from its bytes, piece by piece, whatever its dialect. */
export class CaptureReader {
  private before: Uint8Array = new Uint8Array(0);
  private dialect: Dialect | undefined;
  private columns: Column[] = [];
  private line = 0;
  private rows = 0;
  private readonly refused: number[] = [];
  private badRows = 0;
  private firstBad: { line: number; text: string } | undefined;
  private failed: CaptureError | undefined;
  private readonly early: number[] = [];
  private step = 0;
  private start = 0;
  private last = 0;
  private readonly gaps: Capture['gaps'] = [];
  private cells = new Float64Array(64);

  constructor(private readonly said: SaidOfFile = {}) {}

  /** Takes the next piece. @returns false once the file cannot be read any more */
  push(bytes: Uint8Array): boolean {
    if (this.failed) return false;
    this.join(bytes);
    if (this.before.length > LONGEST_LINE)
      this.failed ??= { code: 'long_line', line: this.line + 1, most: LONGEST_LINE };
    return this.failed === undefined;
  }

  private join(bytes: Uint8Array): void {
    let rest: Uint8Array = bytes;
    if (this.before.length > 0) {
      // Only the line that the pieces part is joined; the rest is read where it lies.
      const end = this.dialect ? bytes.findIndex((c) => c === LF || c === CR) + 1 : 0;
      const joined = new Uint8Array(this.before.length + (end === 0 ? bytes.length : end));
      joined.set(this.before);
      joined.set(end === 0 ? bytes : bytes.subarray(0, end), this.before.length);
      rest = end === 0 ? joined : bytes.subarray(end);
      if (end > 0) this.lines(joined, 0, false);
    }
    if (!this.dialect && rest.length < HEAD_BYTES) this.before = rest.slice();
    else this.take(rest, false);
  }

  finish(): Result<Capture, CaptureError> {
    if (!this.failed) this.take(this.before, true);
    if (this.failed) return err(this.failed);
    const d = must(this.dialect);
    if (this.rows === 0)
      return err(this.firstBad ? { code: 'not_rows', ...this.firstBad } : { code: 'empty' });
    if (this.badRows > Math.max(2, REFUSED * this.rows))
      return err({ code: 'not_rows', ...must(this.firstBad) });
    if (d.time !== undefined && this.step === 0) this.settle();
    const stepS = d.time === undefined ? (this.said.stepS ?? d.stepS) : this.step * d.timeFactor;
    if (stepS === undefined || !(stepS > 0)) return err({ code: 'no_time' });
    const channels = d.channels.map(
      (c, i): Channel => ({ name: c.name, samples: nth(this.columns, i).all() }),
    );
    return ok({
      channels,
      startS: this.start * d.timeFactor,
      stepS,
      gaps: this.gaps.map((g) => ({ ...g, seconds: g.seconds * d.timeFactor })),
      refused: this.refused,
      head: d.head,
    });
  }

  private take(all: Uint8Array, end: boolean): void {
    let from = 0;
    if (!this.dialect) {
      const read = dialectOf(all.subarray(0, Math.min(all.length, HEAD_BYTES)), this.said);
      if (!read.ok) {
        this.failed = read.error;
        return;
      }
      this.dialect = read.value;
      this.columns = read.value.channels.map(() => new Column());
      from = read.value.bodyAt;
      this.line = read.value.bodyLine - 1;
    }
    this.lines(all, from, end);
  }

  /** Every whole line from a byte on; what is no whole line is kept, unless the file ends there. */
  private lines(all: Uint8Array, begin: number, end: boolean): void {
    let from = begin;
    // The last end of a line, so that no walk looks beyond the bytes.
    let last = all.length - 1;
    while (last >= from && all[last] !== LF && all[last] !== CR) last--;
    for (;;) {
      let to = from <= last ? plainRow(all, from, must(this.dialect), this.cells) : -1;
      const plain = to > from;
      if (!plain) {
        to = from;
        while (to < all.length && all[to] !== LF && all[to] !== CR) to++;
      }
      if (to >= all.length && !end) break;
      if (to > from || to < all.length) {
        // CR LF is one end of a line, also when the pieces part them.
        if (plain) this.accept();
        else if (to > from) this.row(all, from, to);
        else if (all[to] === LF) this.line--;
        this.line++;
      }
      if (this.failed || to >= all.length) {
        from = to;
        break;
      }
      from = to + 1;
      if (from < all.length && all[to] === CR && all[from] === LF) from++;
    }
    this.before = all.slice(from);
  }

  /** One line of numbers, however they are written. */
  private row(b: Uint8Array, from: number, to: number): void {
    const d = must(this.dialect);
    let count = 0;
    let i = from;
    while (i <= to && count < this.cells.length) {
      let end = i;
      while (end < to && b[end] !== d.separator) end++;
      this.cells[count++] = numberIn(b, i, end, d.comma);
      i = end + 1;
    }
    let good = count >= d.width;
    for (const c of d.channels) good &&= Number.isFinite(this.cells[c.at]);
    if (d.time !== undefined) good &&= Number.isFinite(this.cells[d.time]);
    if (good) return this.accept();
    this.badRows++;
    if (this.refused.length < MOST_TOLD) this.refused.push(this.line + 1);
    this.firstBad ??= {
      line: this.line + 1,
      text: new TextDecoder().decode(b.subarray(from, Math.min(to, from + 60))),
    };
  }

  /** Takes the numbers of the cells as the next sample. */
  private accept(): void {
    const d = must(this.dialect);
    if ((this.columns[0]?.n ?? 0) >= MOST_SAMPLES) this.failed = { code: 'too_long', most: MOST_SAMPLES };
    else if (d.time !== undefined && !this.clockOn(doubleAt(this.cells, d.time)))
      this.failed = { code: 'runs_back', line: this.line + 1 };
    else {
      // A column for each channel, in their order.
      let k = 0;
      for (const c of d.channels) this.columns[k++]?.add(doubleAt(this.cells, c.at) * c.factor);
      this.rows++;
    }
  }

  /** Follows the time column: the step is the median of the first ones; a longer one is a gap. False when time runs back. */
  private clockOn(t: number): boolean {
    if (this.rows === 0) this.start = t;
    else if (t < this.last) return false;
    else if (this.step === 0) {
      this.early.push(t - this.last);
      if (this.early.length >= 400) this.settle();
    } else if (t - this.last > GAP * this.step)
      this.fill(Math.round((t - this.last) / this.step) - 1, t - this.last);
    this.last = t;
    return true;
  }

  private settle(): void {
    const middle = [...this.early].sort((a, b) => a - b)[this.early.length >> 1] ?? 0;
    // Times are printed with few places: the mean over many steps is finer than any of them.
    const usual = this.early.filter((s) => s < GAP * middle);
    this.step = usual.length === 0 ? 0 : usual.reduce((a, b) => a + b, 0) / usual.length;
  }

  private fill(missing: number, seconds: number): void {
    if (nth(this.columns, 0).n + missing > MOST_SAMPLES) {
      this.failed = { code: 'long_gap', line: this.line + 1, steps: missing };
      return;
    }
    this.gaps.push({ after: nth(this.columns, 0).n, seconds });
    for (const c of this.columns) {
      const last = c.all()[c.n - 1] ?? 0;
      for (let k = 0; k < missing; k++) c.add(last);
    }
  }
}
