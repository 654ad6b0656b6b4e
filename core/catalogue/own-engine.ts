import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { isDay } from '@core/quantity/dates';
import { readNumber } from '@core/quantity/parse-quantity';
import { FeatureSchema, PART_KINDS } from './pack';

const Typed = z.string().max(400);

/** An engine as it is typed in, one form: texts as they stand in their fields, so that nothing half-typed is lost. */
export const OwnEngineSchema = z.strictObject({
  /** The catalogue it goes into: a new one by name, where none is here. */
  catalogue: Typed,
  source: Typed,
  code: Typed,
  maker: Typed,
  family: Typed,
  /** Separated by commas. */
  vehicles: Typed,
  interference: z.enum(['yes', 'no', 'unknown']),
  designs: z
    .array(
      z.strictObject({
        name: Typed,
        from: Typed,
        to: Typed,
        /** What one sees at it, where a question parts the designs. */
        seen: Typed,
        /** It has the drive that was drawn up. */
        drive: z.boolean(),
      }),
    )
    .max(20),
  /** The one thing by which designs are told apart, its sentence for the phone, and what it costs to look. */
  tell: z.strictObject({ wording: Typed, say: Typed, look: FeatureSchema.shape.look }),
  kit: z.strictObject({
    number: Typed,
    name: Typed,
    months: Typed,
    km: Typed,
    parts: z
      .array(z.strictObject({ number: Typed, kind: z.enum(PART_KINDS), name: Typed, quantity: Typed }))
      .max(60),
  }),
});
export type OwnEngine = z.infer<typeof OwnEngineSchema>;

export const EMPTY_ENGINE: OwnEngine = {
  catalogue: '',
  source: '',
  code: '',
  maker: '',
  family: '',
  vehicles: '',
  interference: 'unknown',
  designs: [{ name: '', from: '', to: '', seen: '', drive: true }],
  tell: { wording: '', say: '', look: 'eye' },
  kit: {
    number: '',
    name: '',
    months: '24',
    km: '',
    parts: [],
  },
};

/** Days on which a design was built, as typed; a year or a month stands for its first or last day. */
export function builtDay(typed: string, end: 'from' | 'to'): string | undefined {
  const t = typed.trim();
  const m = /^(\d{4})(?:-(\d{2}))?$/.exec(t);
  if (!m) return isDay(t) ? t : undefined;
  const [year, month] = [Number(m[1]), m[2] === undefined ? undefined : Number(m[2])];
  if (month !== undefined && !(month >= 1 && month <= 12)) return undefined;
  if (end === 'from') return `${t}${month === undefined ? '-01-01' : '-01'}`;
  const last = new Date(Date.UTC(year, month ?? 12, 0)).getUTCDate();
  return `${year}-${String(month ?? 12).padStart(2, '0')}-${last}`;
}

/** A whole number above zero, as typed. */
export function wholeTyped(text: string): number | undefined {
  const v = readNumber(text);
  return v !== undefined && Number.isInteger(v) && v > 0 ? v : undefined;
}
