import { BUNDLE, checkBundle, filesOf, statedHash } from '@core/claim/bundle';
import { readCaseFile } from '@core/claim/case-file';
import { LARGEST_FILE_OF_FACTS } from '@core/claim/read-shape';
import { cleanPicture } from '@core/intake/clean-picture';
import { type Result, err, ok } from '@core/quantity/result';
import { hashOf } from '../records/hash';
import type { FileRecord } from '../records/records';
import type { CaseCame, CaseCameError } from './intake.protocol';
import { unzip } from './unpack';

type Inside = { bytes: Uint8Array<ArrayBuffer>; found: string };

/** Reads a case file or a bundle, within the limits of all files: all of it, or the first fault. */
export async function readCase(name: string, blob: Blob): Promise<Result<CaseCame, CaseCameError>> {
  if (name.toLowerCase().endsWith('.zip')) return readBundle(name, blob);
  if (blob.size > LARGEST_FILE_OF_FACTS)
    return err({ code: 'too_large', bytes: blob.size, most: LARGEST_FILE_OF_FACTS });
  const read = readCaseFile(await blob.text());
  if (!read.ok) return read;
  return ok({ read: read.value, files: [], refs: filesOf(read.value.file.facts).length, uncleaned: [] });
}

/** What a bundle holds beside the case, its report and its files is left. */
async function readBundle(name: string, blob: Blob): Promise<Result<CaseCame, CaseCameError>> {
  const zip = unzip(name, new Uint8Array(await blob.arrayBuffer()));
  if (!zip.ok) return zip;
  const text = zip.value.find((e) => e.name === BUNDLE.case);
  if (!text) return err({ code: 'no_case' });
  const inside = new Map<string, Inside>();
  for (const e of zip.value) {
    const stated = statedHash(e.name);
    if (stated === undefined) continue;
    const bytes = new Uint8Array(e.bytes);
    inside.set(stated, { bytes, found: await hashOf(bytes) });
  }
  const report = zip.value.find((e) => e.name === BUNDLE.report);
  const read = readCaseFile(new TextDecoder().decode(text.bytes));
  if (!read.ok) return read;
  const { file } = read.value;
  const found = new Map([...inside].map(([stated, f]) => [stated, f.found]));
  const fault = checkBundle(file, found, report && (await hashOf(new Uint8Array(report.bytes))));
  if (fault) return err(fault);
  const files: FileRecord[] = [];
  const uncleaned: string[] = [];
  const refs = filesOf(file.facts);
  for (const ref of refs) {
    const bytes = inside.get(ref.hash)?.bytes;
    if (!bytes) continue;
    files.push({
      sha256: ref.hash,
      name: ref.name,
      type: ref.type,
      blob: new Blob([bytes], { type: ref.type }),
    });
    // Facts name a file by its content: what came in cannot be cleaned without breaking what names it.
    const clean = cleanPicture(bytes, ref.type);
    if (clean && (clean.kind === 'refused' || (clean.kind === 'picture' && clean.removed)))
      uncleaned.push(ref.name);
  }
  return ok({ read: read.value, files, refs: refs.length, uncleaned });
}
