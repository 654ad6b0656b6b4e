import * as z from 'zod';
import { checkPack } from '@core/catalogue/check-pack';
import { beyond } from '@core/catalogue/places';
import { PackSchema } from '@core/catalogue/pack';
import type { PackIssue } from '@core/catalogue/pack-issue';
import { circleIn } from '@core/facts/circle';
import { contentDigest, factsDigest } from '@core/facts/digest';
import { type Fact, FactSchema } from '@core/facts/fact';
import type { Place } from '@core/facts/place';
import { checkThings, type ThingError } from '@core/facts/thing';
import { type Result, err, ok } from '@core/quantity/result';

const Hash = z.string().regex(/^[0-9a-f]{64}$/);

/** Editions that are read; the last is written. The first knew no things, places, series or files. */
export const EDITIONS = [1, 2] as const;

/**
 * The open file of one case. It carries the part of the catalogue that its answers need, so that it opens
 * with the same answers where that catalogue is not at hand.
 */
export const CaseFileSchema = z.strictObject({
  format: z.literal('hollow-sprocket-case'),
  formatVersion: z.union([z.literal(1), z.literal(2)]),
  exportedAt: z.iso.datetime(),
  case: z.string().min(1),
  catalogue: PackSchema,
  facts: z.array(FactSchema).min(1),
  /** Files that facts point to and that the desk which wrote this did not have, by SHA-256. */
  missing: z.array(Hash).max(5000).optional(),
  /** Of the facts, and of the catalogue that the answers depend on; files from before carry the first alone. */
  digest: z.strictObject({ algorithm: z.literal('SHA-256'), facts: Hash, catalogue: Hash.optional() }),
});
export type CaseFile = z.infer<typeof CaseFileSchema>;

export type CaseFileError =
  | { code: 'not_json'; line: number; column: number; detail: string }
  | { code: 'other_format'; format: string }
  | { code: 'newer_version'; version: number }
  | { code: 'bad_shape'; path: string; detail: string; more: number }
  | { code: 'foreign_fact'; id: string; case: string }
  | { code: 'fact_twice'; id: string }
  | { code: 'circle'; id: string }
  | { code: 'place_beyond'; id: string; place: Place; most: number }
  | ThingError
  | { code: 'bad_catalogue'; issue: PackIssue; more: number }
  | { code: 'too_large'; bytes: number; most: number };

/** `facts_only`: the facts are unchanged, and the file says nothing of its catalogue. */
export type DigestVerdict = 'verified' | 'facts_only' | 'altered';
export type ReadCase = {
  file: CaseFile;
  digest: DigestVerdict;
  /** What was altered, with the digests stated and found. */
  altered: { part: 'facts' | 'catalogue'; stated: string; found: string }[];
};

/** Largest case file that is read, bytes of text. */
export const LARGEST_CASE = 64 * 1024 * 1024;

/** Puts a case into its file. */
export function writeCaseFile(
  caseId: string,
  facts: readonly Fact[],
  catalogue: CaseFile['catalogue'],
  exportedAt: string,
  missing: readonly string[] = [],
): CaseFile {
  return {
    format: 'hollow-sprocket-case',
    formatVersion: 2,
    exportedAt,
    case: caseId,
    catalogue,
    facts: [...facts],
    ...(missing.length ? { missing: [...missing] } : {}),
    digest: {
      algorithm: 'SHA-256',
      facts: factsDigest(facts),
      catalogue: contentDigest(catalogue),
    },
  };
}

/** Reads a case file. Nothing is repaired: the first fault is named with its place. */
export function readCaseFile(text: string): Result<ReadCase, CaseFileError> {
  if (text.length > LARGEST_CASE) return err({ code: 'too_large', bytes: text.length, most: LARGEST_CASE });
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
  if (typeof head.formatVersion === 'number' && head.formatVersion > EDITIONS.at(-1)!)
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
  const circle = circleIn(file.facts);
  if (circle !== undefined) return err({ code: 'circle', id: circle });
  const thing = checkThings(file.facts);
  if (thing) return err(thing);
  const [issue, ...more] = checkPack(file.catalogue);
  if (issue) return err({ code: 'bad_catalogue', issue, more: more.length });
  for (const { id, place } of file.facts) {
    const most = place && beyond(place, file.catalogue.layouts);
    if (place && most !== undefined) return err({ code: 'place_beyond', id, place, most });
  }
  return ok({ file, ...compareDigests(file) });
}

function compareDigests(file: CaseFile): Pick<ReadCase, 'digest' | 'altered'> {
  const parts = [
    { part: 'facts' as const, stated: file.digest.facts, found: factsDigest(file.facts) },
    ...(file.digest.catalogue === undefined
      ? []
      : [
          {
            part: 'catalogue' as const,
            stated: file.digest.catalogue,
            found: contentDigest(file.catalogue),
          },
        ]),
  ];
  const altered = parts.filter((p) => p.stated !== p.found);
  if (altered.length > 0) return { digest: 'altered', altered };
  return { digest: parts.length === 2 ? 'verified' : 'facts_only', altered };
}

/** Line and column of a JSON syntax error, as far as the engine's message tells; a cut file fails at its end. */
function placeOf(text: string, message: string): { line: number; column: number } {
  const told = /line (\d+) column (\d+)/.exec(message);
  if (told) return { line: Number(told[1]), column: Number(told[2]) };
  const at = /position (\d+)/.exec(message);
  const before = text.slice(0, at ? Number(at[1]) : text.length);
  return { line: before.split('\n').length, column: before.length - before.lastIndexOf('\n') };
}
