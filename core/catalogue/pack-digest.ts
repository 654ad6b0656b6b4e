import { oncePerName } from '@core/quantity/keep';
import { contentDigest } from '@core/facts/digest';
import type { Pack } from './pack';

const digestKept = oncePerName<Pack, string>();

/** SHA-256 of a pack's content as canonical JSON. A pack never changes: it is computed once, or was when it was written. */
export const packDigest = (pack: Pack): string => digestKept(pack, '', () => contentDigest(pack));

/** Takes a digest over that was computed when the pack was written: of a large one that takes seconds. */
export const rememberPackDigest = (pack: Pack, digest: string): void =>
  void digestKept(pack, '', () => digest);
