import { BUNDLE, type BundleError, statedHash } from '@core/claim/bundle';
import { type Result, err, ok } from '@core/quantity/result';
import { hashOf } from '../data/hash';
import { unzip, type UnpackError } from '../workers/unpack';

/** What lies in a bundle: the case file's text, and each file by the hash that its name states, with the hash found. */
export type Unpacked = {
  text: string;
  files: ReadonlyMap<string, { found: string; bytes: Uint8Array<ArrayBuffer> }>;
  /** Hash of the report, where one lies in it. */
  report: string | undefined;
};

/** Unpacks a bundle, within the limits of all zips. What it holds beside the case, its report and its files is left. */
export async function readBundle(
  name: string,
  bytes: Uint8Array,
): Promise<Result<Unpacked, BundleError | UnpackError>> {
  const zip = unzip(name, bytes);
  if (!zip.ok) return zip;
  const inside = zip.value.find((e) => e.name === BUNDLE.case);
  if (!inside) return err({ code: 'no_case' });
  const files = new Map<string, { found: string; bytes: Uint8Array<ArrayBuffer> }>();
  for (const e of zip.value) {
    const stated = statedHash(e.name);
    if (stated === undefined) continue;
    const own = new Uint8Array(e.bytes);
    files.set(stated, { found: await hashOf(own), bytes: own });
  }
  const report = zip.value.find((e) => e.name === BUNDLE.report);
  return ok({
    text: new TextDecoder().decode(inside.bytes),
    files,
    report: report && (await hashOf(new Uint8Array(report.bytes))),
  });
}
