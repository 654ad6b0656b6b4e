import type { Observable } from 'rxjs';
import type { Dimension } from '@core/quantity/units';

/** What an instrument tells, in the base unit of its dimension; `t` seconds since it was connected. */
export type InstrumentEvent =
  | { kind: 'reading'; value: number; dimension: Dimension; t: number }
  /** Its display's step, as it says of itself. */
  | { kind: 'resolution'; value: number; dimension: Dimension }
  /** A line that is none. */
  | { kind: 'garbage'; line: string }
  /** The connection ended, wanted or not. */
  | { kind: 'gone'; why: 'unplugged' | 'refused' | 'not_there' };

/** Anything that sends readings: simulated, or at a serial port. */
export type Instrument = {
  key: string;
  wording: string;
  /** What it measures; none while it may be anything. */
  dimension: Dimension | undefined;
  /** Connects when it is subscribed to, ends when that ends; completes after "gone". */
  open: (wanted: Dimension) => Observable<InstrumentEvent>;
};
