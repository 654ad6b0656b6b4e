import { AROUND } from './around-pictures';
import { boltPicture, cassettePicture, guidePicture } from './long-pictures';
import type { ThingPicture } from './picture';
import {
  damperPicture,
  phaserPicture,
  pumpPicture,
  ringPicture,
  rollerPicture,
  sprocketPicture,
} from './round-pictures';
import type { Seen } from './seen';
import { tensionerPicture } from './tensioner-picture';

const BY_KIND: Readonly<Record<string, (seen: Seen) => ThingPicture>> = {
  tensioner: tensionerPicture,
  guide: guidePicture,
  cassette: cassettePicture,
  bolt: boltPicture,
  roller: rollerPicture,
  sprocket: sprocketPicture,
  phaser: phaserPicture,
  damper: damperPicture,
  ring: ringPicture,
  pump: pumpPicture,
};

/** The drawing of a thing; none of a belt or chain, which is shown unrolled, tooth by tooth. */
export const thingPicture = (seen: Seen): ThingPicture | undefined =>
  BY_KIND[seen.kind]?.(seen) ?? AROUND[seen.kind];
