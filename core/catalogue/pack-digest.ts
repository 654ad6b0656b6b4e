import { contentDigest } from '@core/facts/digest';
import type { Pack } from './pack';

const known = new WeakMap<Pack, string>();

/** SHA-256 of a pack's content as canonical JSON. A pack never changes: it is computed once, or was when it was written. */
export function packDigest(pack: Pack): string {
  const before = known.get(pack);
  if (before !== undefined) return before;
  const made = contentDigest(pack);
  known.set(pack, made);
  return made;
}

/** Takes a digest over that was computed when the pack was written: of a large one that takes seconds. */
export const rememberPackDigest = (pack: Pack, digest: string): void => void known.set(pack, digest);
