import * as z from 'zod';
import { PackSchema } from '@core/catalogue/pack';
import { factsDigest } from '@core/facts/digest';
import { type Fact, FactSchema } from '@core/facts/fact';
import { type Result, err, ok } from '@core/quantity/result';

/**
 * The open file of one case. Version 1. It carries the part of the catalogue that its answers need, so that it opens
 * with the same answers where that catalogue is not at hand.
 */
export const CaseFileSchema = z.strictObject({
  format: z.literal('hollow-sprocket-case'),
  formatVersion: z.literal(1),
  exportedAt: z.iso.datetime(),
  case: z.string().min(1),
  catalogue: PackSchema,
  facts: z.array(FactSchema).min(1),
  digest: z.strictObject({ algorithm: z.literal('SHA-256'), facts: z.string().regex(/^[0-9a-f]{64}$/) }),
});
export type CaseFile = z.infer<typeof CaseFileSchema>;

export type CaseFileError =
  | { code: 'not_json'; line: number; column: number; detail: string }
  | { code: 'other_format'; format: string }
  | { code: 'newer_version'; version: number }
  | { code: 'bad_shape'; path: string; detail: string; more: number }
  | { code: 'foreign_fact'; id: string; case: string }
  | { code: 'fact_twice'; id: string };

export type ReadCase = { file: CaseFile; digest: 'verified' | 'altered'; actual: string };

/** Puts a case into its file. */
export function writeCaseFile(
  caseId: string,
  facts: readonly Fact[],
  catalogue: CaseFile['catalogue'],
  exportedAt: string,
): CaseFile {
  return {
    format: 'hollow-sprocket-case',
    formatVersion: 1,
    exportedAt,
    case: caseId,
    catalogue,
    facts: [...facts],
    digest: { algorithm: 'SHA-256', facts: factsDigest(facts) },
  };
}

/** Reads a case file. Nothing is repaired: the first fault is named with its place. */
export function readCaseFile(text: string): Result<ReadCase, CaseFileError> {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (e) {
    return err({
      code: 'not_json',
      ...placeOf(text, e instanceof Error ? e.message : ''),
      detail: e instanceof Error ? e.message : '',
    });
  }
  const head = raw as { format?: unknown; formatVersion?: unknown } | null;
  if (head?.format !== 'hollow-sprocket-case')
    return err({ code: 'other_format', format: typeof head?.format === 'string' ? head.format : 'none' });
  if (typeof head.formatVersion === 'number' && head.formatVersion > 1)
    return err({ code: 'newer_version', version: head.formatVersion });
  const read = CaseFileSchema.safeParse(raw);
  if (!read.success) {
    const [first, ...rest] = read.error.issues;
    return err({
      code: 'bad_shape',
      path: (first?.path ?? []).map(String).join(' › '),
      detail: first?.message ?? '',
      more: rest.length,
    });
  }
  const file = read.data;
  const foreign = file.facts.find((f) => f.case !== file.case);
  if (foreign) return err({ code: 'foreign_fact', id: foreign.id, case: foreign.case });
  const ids = new Set<string>();
  for (const f of file.facts) {
    if (ids.has(f.id)) return err({ code: 'fact_twice', id: f.id });
    ids.add(f.id);
  }
  const actual = factsDigest(file.facts);
  return ok({ file, digest: actual === file.digest.facts ? 'verified' : 'altered', actual });
}

/** Line and column of a JSON syntax error, as far as the engine's message tells; a cut file fails at its end. */
function placeOf(text: string, message: string): { line: number; column: number } {
  const told = /line (\d+) column (\d+)/.exec(message);
  if (told) return { line: Number(told[1]), column: Number(told[2]) };
  const at = /position (\d+)/.exec(message);
  const before = text.slice(0, at ? Number(at[1]) : text.length);
  return { line: before.split('\n').length, column: before.length - before.lastIndexOf('\n') };
}
