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
import type { PartAppearance } from './appearance';
import { tensionerPicture } from './tensioner-picture';

const BY_KIND: Readonly<Record<string, (appearance: PartAppearance) => ThingPicture>> = {
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
export const thingPicture = (appearance: PartAppearance): ThingPicture | undefined =>
  BY_KIND[appearance.kind]?.(appearance) ?? AROUND[appearance.kind];
