import { must, nth } from '@core/quantity/must';
import { dimensionOf, type Dimension, findUnit, toBase } from '@core/quantity/units';
import { err, ok, type Result } from '@core/quantity/result';

/** What a line of an instrument says: a reading in the base unit of its dimension, or something about itself. */
export type InstrumentLine =
  | { kind: 'reading'; value: number; dimension: Dimension; t?: number }
  | { kind: 'remark'; text: string; resolution?: { value: number; dimension: Dimension } };
export type InstrumentLineError =
  | { code: 'garbage'; line: string }
  | { code: 'unknown_unit'; line: string; unit: string };

const READING = /^(?:t=(-?\d+(?:[.,]\d+)?)\s+)?([-+]?\d+(?:[.,]\d+)?)\s*([a-zµ°%]\S*)$/i;
const RESOLUTION = /resolution\s+(\d+(?:[.,]\d+)?)\s*(\S+)/i;
/** No instrument sends longer lines. */
const LONGEST = 200;

const number = (text: string): number => Number(text.replace(',', '.'));

/**
 * One line of an instrument: "7.412 mm", "t=1.20 7,412 mm", or "# name; resolution 0.001 mm". Units as people write them
 * (core/quantity/units). Docs: formats.
 * @param wanted dimension by which a unit that several have is read
 */
export function readInstrumentLine(
  line: string,
  wanted?: Dimension,
): Result<InstrumentLine, InstrumentLineError> {
  const text = line.trim().slice(0, LONGEST);
  if (text.startsWith('#')) {
    const m = RESOLUTION.exec(text);
    const at = m && inBase(number(nth(m, 1)), nth(m, 2), wanted);
    return ok({ kind: 'remark', text: text.slice(1).trim(), ...(at ? { resolution: at } : {}) });
  }
  const m = READING.exec(text);
  if (!m) return err({ code: 'garbage', line: text });
  const [, t, value, unit] = m;
  const at = inBase(number(must(value)), must(unit), wanted);
  if (!at) return err({ code: 'unknown_unit', line: text, unit: must(unit) });
  return ok({ kind: 'reading', ...at, ...(t === undefined ? {} : { t: number(t) }) });
}

function inBase(
  value: number,
  unit: string,
  wanted: Dimension | undefined,
): { value: number; dimension: Dimension } | undefined {
  const own = wanted && findUnit(wanted, unit);
  const dimension = own ? wanted : dimensionOf(unit);
  const symbol = own ?? (dimension && findUnit(dimension, unit));
  return dimension && symbol ? { value: toBase(dimension, value, symbol), dimension } : undefined;
}
