import { readInstrumentLine } from '@core/examination/instrument-line';
import type { Dimension } from '@core/quantity/units';
import type { InstrumentEvent } from './instrument';

/** Reads one line as an event; a time that it does not bring is the one given. */
export function eventOf(line: string, wanted: Dimension, seconds: number): InstrumentEvent | undefined {
  const r = readInstrumentLine(line, wanted);
  if (!r.ok) return { kind: 'garbage', line: r.error.line };
  if (r.value.kind === 'remark') return r.value.resolution && { kind: 'resolution', ...r.value.resolution };
  const { value, dimension, t } = r.value;
  return { kind: 'reading', value, dimension, t: t ?? seconds };
}
