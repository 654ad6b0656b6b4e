import type * as z from 'zod';
import { circleIn } from '@core/facts/circle';
import type { Fact } from '@core/facts/fact';
import { checkThings, type ThingError } from '@core/facts/thing';
import { type JsonFault, parseJson } from '@core/quantity/parse-json';
import { type Result, err, ok } from '@core/quantity/result';

/** Why a text is not the file that it was taken for. */
export type ShapeError =
  | ({ code: 'not_json' } & JsonFault)
  | { code: 'other_format'; format: string }
  | { code: 'newer_version'; version: number }
  | { code: 'bad_shape'; path: string; detail: string; more: number }
  | { code: 'too_large'; bytes: number; most: number };

/** Largest file of facts that is read, bytes of text. */
export const LARGEST_FILE_OF_FACTS = 64 * 1024 * 1024;

/** Reads a JSON file of a format up to an edition. The first fault is named with its place. */
export function readShape<T>(
  text: string,
  format: string,
  newest: number,
  schema: z.ZodType<T>,
): Result<T, ShapeError> {
  if (text.length > LARGEST_FILE_OF_FACTS)
    return err({ code: 'too_large', bytes: text.length, most: LARGEST_FILE_OF_FACTS });
  const parsed = parseJson(text);
  if (!parsed.ok) return err({ code: 'not_json', ...parsed.error });
  const head = parsed.value as { format?: unknown; formatVersion?: unknown } | null;
  if (head?.format !== format)
    return err({ code: 'other_format', format: typeof head?.format === 'string' ? head.format : 'none' });
  if (typeof head.formatVersion === 'number' && head.formatVersion > newest)
    return err({ code: 'newer_version', version: head.formatVersion });
  const read = schema.safeParse(parsed.value);
  if (read.success) return ok(read.data);
  const [first, ...rest] = read.error.issues;
  return err({
    code: 'bad_shape',
    path: (first?.path ?? []).map(String).join(' › '),
    detail: first?.message ?? '',
    more: rest.length,
  });
}

/** Why facts of one case cannot stand together. */
export type FactsError = { code: 'fact_twice'; id: string } | { code: 'circle'; id: string } | ThingError;

/** The first fault among facts of one case: an id twice, a circle of corrections, a thing of two kinds or of none. */
export function checkFacts(facts: readonly Fact[]): FactsError | undefined {
  const ids = new Set<string>();
  for (const f of facts) {
    if (ids.has(f.id)) return { code: 'fact_twice', id: f.id };
    ids.add(f.id);
  }
  const circle = circleIn(facts);
  return circle === undefined ? checkThings(facts) : { code: 'circle', id: circle };
}
