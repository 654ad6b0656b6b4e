import { strFromU8, Unzip, UnzipInflate, UnzipPassThrough } from 'fflate';
import { joinBytes } from '@core/quantity/bytes';
import { type Result, err, ok } from '@core/quantity/result';

/** How much is read, and no more: a file that unpacks to more is refused when it passes the limit, not after. */
export const LIMITS = {
  fileBytes: 256 * 1024 * 1024,
  entries: 200,
  unpackedBytes: 512 * 1024 * 1024,
  /** So much may always be unpacked; beyond it no more than so many times what came: tables and cases shrink far less. */
  freeBytes: 32 * 1024 * 1024,
  times: 100,
  rowsOfTable: 500_000,
};
export type UnpackError =
  | { code: 'file_too_large'; name: string; bytes: number; most: number }
  | { code: 'too_many_entries'; name: string; most: number }
  | { code: 'unpacks_too_large'; name: string; most: number }
  | { code: 'broken_zip'; name: string; detail: string };
export type NamedText = { name: string; text: string };
export type NamedBytes = { name: string; bytes: Uint8Array };

/** Bytes that are unpacked at a time: what a bomb can bring between two looks at the sum. */
const SLICE = 16 * 1024;

class Stop extends Error {
  constructor(readonly why: UnpackError) {
    super(why.code);
  }
}

/** Unpacks zips; everything else is taken as text. Folders of a zip are forgotten. */
export function unpack(files: readonly NamedBytes[], limits = LIMITS): Result<NamedText[], UnpackError> {
  const out: NamedText[] = [];
  let sum = 0;
  for (const { name, bytes } of files) {
    const zip = name.toLowerCase().endsWith('.zip');
    const read = zip ? unzip(name, bytes, limits, sum) : within(name, bytes, limits);
    if (!read.ok) return read;
    for (const e of read.value) {
      if (zip) sum += e.bytes.length;
      if (!e.name.endsWith('/'))
        out.push({ name: e.name.split('/').at(-1) ?? e.name, text: strFromU8(e.bytes) });
    }
  }
  return ok(out);
}

/** The entries of one zip, folders and all. @param before bytes that were unpacked already and count with it */
export function unzip(
  name: string,
  bytes: Uint8Array,
  limits = LIMITS,
  before = 0,
): Result<NamedBytes[], UnpackError> {
  const small = within(name, bytes, limits);
  if (!small.ok) return small;
  try {
    return ok(unzipWithin(name, bytes, limits, before));
  } catch (e) {
    return err(
      e instanceof Stop
        ? e.why
        : { code: 'broken_zip', name, detail: e instanceof Error ? e.message : String(e) },
    );
  }
}

const within = (name: string, bytes: Uint8Array, limits: typeof LIMITS): Result<NamedBytes[], UnpackError> =>
  bytes.length > limits.fileBytes
    ? err({ code: 'file_too_large', name, bytes: bytes.length, most: limits.fileBytes })
    : ok([{ name, bytes }]);

function unzipWithin(
  name: string,
  bytes: Uint8Array,
  limits: typeof LIMITS,
  before: number,
): { name: string; bytes: Uint8Array }[] {
  const entries: { name: string; chunks: Uint8Array[]; done: boolean }[] = [];
  let sum = before;
  const most = Math.min(
    limits.unpackedBytes,
    before + Math.max(limits.freeBytes, limits.times * bytes.length),
  );
  const unzip = new Unzip((file) => {
    if (entries.length >= limits.entries)
      throw new Stop({ code: 'too_many_entries', name, most: limits.entries });
    const entry = { name: file.name, chunks: [] as Uint8Array[], done: false };
    entries.push(entry);
    file.ondata = (e, chunk, final) => {
      if (e) throw e;
      sum += chunk.length;
      if (sum > most) throw new Stop({ code: 'unpacks_too_large', name, most });
      entry.chunks.push(chunk);
      entry.done = final;
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  unzip.register(UnzipPassThrough);
  for (let at = 0; at < bytes.length; at += SLICE)
    unzip.push(bytes.subarray(at, at + SLICE), at + SLICE >= bytes.length);
  if (entries.length === 0 || entries.some((e) => !e.done)) throw new Error('it is cut off or no zip at all');
  return entries.map((e) => ({ name: e.name, bytes: joinBytes(e.chunks) }));
}
