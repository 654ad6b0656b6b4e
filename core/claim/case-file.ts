import { must } from '@core/quantity/must';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { checkPack } from '@core/catalogue/check-pack';
import { PackSchema } from '@core/catalogue/pack';
import type { PackIssue } from '@core/catalogue/pack-issue';
import { checkFacts, type FactsError } from '@core/facts/consistent';
import { contentDigest, factsDigest } from '@core/facts/digest';
import { type Fact, FactSchema } from '@core/facts/fact';
import { readShape, type ShapeError } from './read-shape';
import { type Result, err, ok } from '@core/quantity/result';

const Hash = z.string().regex(/^[0-9a-f]{64}$/);

/**
 * Editions that are read; the last is written. The first knew no things, places, series or files; the second no digest of the file itself;
 * the third wrote "skipped" and "unknown" where nothing is said, and values with parts as text; the fourth knew no signatures.
 */
const EDITIONS = [1, 2, 3, 4, 5] as const;

/**
 * The open file of one case. It carries the part of the catalogue that its answers need, so that it opens
 * with the same answers where that catalogue is not at hand.
 */
export const CaseFileSchema = z.strictObject({
  format: z.literal('hollow-sprocket-case'),
  formatVersion: z.literal(EDITIONS),
  exportedAt: z.iso.datetime(),
  case: z.string().min(1),
  catalogue: PackSchema,
  facts: z.array(FactSchema).min(1),
  /** Files that facts point to and that the desk which wrote this did not have, by SHA-256. */
  missing: z.array(Hash).max(5000).optional(),
  /** The report that lies beside it in a bundle, by the SHA-256 of its content. */
  report: Hash.optional(),
  /**
   * Of the facts, of the catalogue that the answers depend on, and of all else of the file with both of them. Files of
   * earlier makes carry the first alone, or the first two.
   */
  digest: z.strictObject({
    algorithm: z.literal('SHA-256'),
    facts: Hash,
    catalogue: Hash.optional(),
    file: Hash.optional(),
  }),
});
export type CaseFile = z.infer<typeof CaseFileSchema>;

export type CaseFileError =
  | ShapeError
  | FactsError
  | { code: 'foreign_fact'; id: string; case: string }
  | { code: 'bad_catalogue'; issue: PackIssue; more: number };

/** What a digest can cover. */
const COVERED = ['facts', 'catalogue', 'file'] as const;
type Covered = (typeof COVERED)[number];
/** `in_part`: what its digests cover is unchanged; the file is of an earlier make and says nothing of the rest. */
type DigestVerdict = 'verified' | 'in_part' | 'altered';
export type ReadCase = {
  file: CaseFile;
  digest: DigestVerdict;
  /** What was altered, with the digests stated and found. */
  altered: { part: Covered; stated: string; found: string }[];
  /** What its digests cover. */
  covers: Covered[];
};

/** Puts a case into its file. */
export function writeCaseFile(
  caseId: string,
  facts: readonly Fact[],
  catalogue: CaseFile['catalogue'],
  exportedAt: string,
  beside: { missing?: readonly string[]; report?: string | undefined } = {},
): CaseFile {
  const file = {
    format: 'hollow-sprocket-case' as const,
    formatVersion: 5 as const,
    exportedAt,
    case: caseId,
    catalogue,
    facts: [...facts],
    ...(beside.missing?.length ? { missing: [...beside.missing] } : {}),
    ...(beside.report === undefined ? {} : { report: beside.report }),
  };
  const digest = {
    algorithm: 'SHA-256' as const,
    facts: factsDigest(facts),
    catalogue: contentDigest(catalogue),
  };
  return { ...file, digest: { ...digest, file: fileDigest(file, digest) } };
}

/** Of everything in a file but its facts and catalogue, which their own digests stand for. */
function fileDigest(
  file: Omit<CaseFile, 'facts' | 'catalogue' | 'digest'>,
  { facts, catalogue }: Pick<CaseFile['digest'], 'facts' | 'catalogue'>,
): string {
  const { format, formatVersion, exportedAt, case: id, missing, report } = file;
  return contentDigest({
    format,
    formatVersion,
    exportedAt,
    case: id,
    missing: missing ?? [],
    report: report ?? '',
    facts,
    catalogue: catalogue ?? '',
  });
}

/** Reads a case file. Nothing is repaired: the first fault is named with its place. */
export function readCaseFile(text: string): Result<ReadCase, CaseFileError> {
  const shaped = readShape(text, 'hollow-sprocket-case', must(EDITIONS.at(-1)), CaseFileSchema);
  if (!shaped.ok) return shaped;
  const file = shaped.value;
  const foreign = file.facts.find((f) => f.case !== file.case);
  if (foreign) return err({ code: 'foreign_fact', id: foreign.id, case: foreign.case });
  const fault = checkFacts(file.facts);
  if (fault) return err(fault);
  const [issue, ...more] = checkPack(file.catalogue);
  if (issue) return err({ code: 'bad_catalogue', issue, more: more.length });
  return ok({ file, ...compareDigests(file) });
}

function compareDigests(file: CaseFile): Pick<ReadCase, 'digest' | 'altered' | 'covers'> {
  const found: Record<Covered, () => string> = {
    facts: () => factsDigest(file.facts),
    catalogue: () => contentDigest(file.catalogue),
    file: () => fileDigest(file, file.digest),
  };
  const covers = COVERED.filter((part) => file.digest[part] !== undefined);
  const altered = covers.flatMap((part) => {
    const [stated, mine] = [file.digest[part] ?? '', found[part]()];
    return stated === mine ? [] : [{ part, stated, found: mine }];
  });
  // A file of this make that lacks a digest has lost it.
  const lost = file.formatVersion >= 3 && covers.length < COVERED.length;
  if (lost) altered.push({ part: 'file', stated: 'none', found: found.file() });
  if (altered.length > 0) return { digest: 'altered', altered, covers };
  return { digest: covers.length === COVERED.length ? 'verified' : 'in_part', altered, covers };
}
