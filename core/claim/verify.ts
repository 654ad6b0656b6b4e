import { canonical } from '@core/facts/canonical';
import type { Fact } from '@core/facts/fact';
import { plainText } from '@core/facts/value';
import type { State } from '@core/facts/state';
import type { ReadCase } from './case-file';
import { checkSeals, type SealCheck } from './seal';
import type { SealOnPaper } from './seal-text';

/** What a file proves, and how it stands to the records of this desk. */
export type FileProof = Pick<ReadCase, 'digest' | 'altered' | 'covers'> & {
  seals: SealCheck[];
  /** Beside the records here; undefined where the case is not known here. */
  here?: {
    /** Facts that have the same id and another content: in the file, and here. */
    differ: { file: Fact; here: Fact }[];
    /** Facts here that the file has not, and the other way round. */
    newerHere: number;
    newerThere: number;
  };
};

/** What a file proves. @param state the facts of the file @param known the facts of the case here; none where it is not known */
export function proofOf(read: ReadCase, state: State, known: readonly Fact[]): FileProof {
  const mine = new Map(known.map((f) => [f.id, f]));
  const theirs = new Set(read.file.facts.map((f) => f.id));
  const differ = read.file.facts.flatMap((file) => {
    const here = mine.get(file.id);
    return here && canonical(here) !== canonical(file) ? [{ file, here }] : [];
  });
  return {
    digest: read.digest,
    altered: read.altered,
    covers: read.covers,
    seals: checkSeals(state),
    ...(known.length === 0
      ? {}
      : {
          here: {
            differ,
            newerHere: known.filter((f) => !theirs.has(f.id)).length,
            newerThere: read.file.facts.filter((f) => !mine.has(f.id)).length,
          },
        }),
  };
}

/** What the code on a paper comes to here. `other`: the case has such an issue, and its seal is another: the paper is not of it. */
export type CodeProof =
  | { is: 'unknown_case' }
  | { is: 'no_issue' }
  | { is: 'other'; check: SealCheck }
  | { is: 'found'; check: SealCheck };

/** Finds the issue that a paper's code names. @param state the case here; undefined where it is not known */
export function proofOfCode(code: SealOnPaper, state: State | undefined): CodeProof {
  if (!state || state.log.length === 0) return { is: 'unknown_case' };
  const seals = checkSeals(state);
  const own = seals.find((s) => plainText(s.seal.value) === code.digest);
  if (own) return { is: 'found', check: own };
  const numbered = seals.find((s) => s.issue === code.issue);
  return numbered ? { is: 'other', check: numbered } : { is: 'no_issue' };
}
