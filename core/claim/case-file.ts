import * as z from 'zod';
import { checkPack } from '@core/catalogue/check-pack';
import { beyond } from '@core/catalogue/places';
import { PackSchema } from '@core/catalogue/pack';
import type { PackIssue } from '@core/catalogue/pack-issue';
import { contentDigest, factsDigest } from '@core/facts/digest';
import { type Fact, FactSchema } from '@core/facts/fact';
import type { Place } from '@core/facts/place';
import { checkFacts, type FactsError, readShape, type ShapeError } from './read-shape';
import { type Result, err, ok } from '@core/quantity/result';

z.config({ jitless: true });
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
  | ShapeError
  | FactsError
  | { code: 'foreign_fact'; id: string; case: string }
  | { code: 'place_beyond'; id: string; place: Place; most: number }
  | { code: 'bad_catalogue'; issue: PackIssue; more: number };

/** `facts_only`: the facts are unchanged, and the file says nothing of its catalogue. */
export type DigestVerdict = 'verified' | 'facts_only' | 'altered';
export type ReadCase = {
  file: CaseFile;
  digest: DigestVerdict;
  /** What was altered, with the digests stated and found. */
  altered: { part: 'facts' | 'catalogue'; stated: string; found: string }[];
};

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
  const shaped = readShape(text, 'hollow-sprocket-case', EDITIONS.at(-1)!, CaseFileSchema);
  if (!shaped.ok) return shaped;
  const file = shaped.value;
  const foreign = file.facts.find((f) => f.case !== file.case);
  if (foreign) return err({ code: 'foreign_fact', id: foreign.id, case: foreign.case });
  const fault = checkFacts(file.facts);
  if (fault) return err(fault);
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
