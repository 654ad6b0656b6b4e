import type * as z from 'zod';
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
