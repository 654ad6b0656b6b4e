import type { Fact, FileRef } from '@core/facts/fact';
import type { CaseFile } from './case-file';

/** Names inside a bundle, which is a zip: the case, the report if there is one, and files by the hash of their content. */
export const BUNDLE = { case: 'case.json', report: 'report.pdf', files: 'files/' } as const;

export type BundleError =
  | { code: 'no_case' }
  | { code: 'file_missing'; fact: string; name: string; hash: string }
  | { code: 'wrong_hash'; name: string; stated: string; found: string }
  /** The report beside the case is another than the one that was put there, or is gone. */
  | { code: 'other_report'; found: boolean };

/** Files that facts point to, once each, with the first fact that does. */
export function filesOf(facts: readonly Fact[]): (FileRef & { fact: string })[] {
  const out = new Map<string, FileRef & { fact: string }>();
  for (const f of facts)
    for (const file of f.files ?? []) if (!out.has(file.hash)) out.set(file.hash, { ...file, fact: f.id });
  return [...out.values()];
}

/** Where a file lies in a bundle: by hash, with the ending of its name so that other programs open it. */
export function bundlePath(file: Pick<FileRef, 'hash' | 'name'>): string {
  const ending = /\.[a-z0-9]{1,8}$/i.exec(file.name)?.[0].toLowerCase() ?? '';
  return `${BUNDLE.files}${file.hash}${ending}`;
}

/** The hash that the name of a file in a bundle states; undefined for other entries. */
export const statedHash = (path: string): string | undefined =>
  /^files\/([0-9a-f]{64})(\.|$)/.exec(path)?.[1];

/**
 * The first fault of a bundle: a file whose content is not what its name states, or one that a fact points to and that is
 * neither there nor told as missing by whoever wrote it.
 * @param found hash of the content by the hash stated
 * @param report hash of the report that lies in it
 */
export function checkBundle(
  file: Pick<CaseFile, 'facts' | 'missing' | 'report'>,
  found: ReadonlyMap<string, string>,
  report?: string,
): BundleError | undefined {
  if (file.report !== undefined && file.report !== report)
    return { code: 'other_report', found: report !== undefined };
  for (const [stated, hash] of found)
    if (stated !== hash) {
      const name = filesOf(file.facts).find((x) => x.hash === stated)?.name ?? stated.slice(0, 12);
      return { code: 'wrong_hash', name, stated, found: hash };
    }
  const told = new Set(file.missing);
  const lost = filesOf(file.facts).find((x) => !found.has(x.hash) && !told.has(x.hash));
  return lost && { code: 'file_missing', fact: lost.fact, name: lost.name, hash: lost.hash };
}
