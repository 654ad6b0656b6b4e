import { inject, Injectable } from '@angular/core';
import { type OwnEngine, OwnEngineSchema } from '@core/catalogue/own-engine';
import { type DrivePhoto, DrivePhotoSchema } from '@core/examination/photo-sheet';
import type { FileRef } from '@core/facts/fact';
import { cleanPicture } from '@core/intake/clean-picture';
import { fileNameText } from '@core/quantity/header-text';
import { FactRepository } from '../data/fact-repository';
import { troubleSentence } from '../data/store-trouble';
import { hashOf } from '../records/hash';
import { LARGEST_FILE } from './attachments';
import { Pictures } from './pictures';

type Trouble = { trouble: string };

/** Photographs of drives that belong to no case: kept like those that do, and cleaned of where they were taken. */
@Injectable({ providedIn: 'root' })
export class OwnPictures {
  private readonly repository = inject(FactRepository);
  private readonly pictures = inject(Pictures);

  async keep(file: File): Promise<{ ref: FileRef } | Trouble> {
    const name = fileNameText(file.name);
    if (file.size > LARGEST_FILE)
      return {
        trouble: `${name} has ${Math.ceil(file.size / 1e6)} MB; a picture may have ${Math.floor(LARGEST_FILE / 1e6)} MB.`,
      };
    const clean = cleanPicture(new Uint8Array(await file.arrayBuffer()), file.type);
    if (clean.kind !== 'picture')
      return { trouble: `${name} is no picture that can be read here. Save it as JPEG, PNG or WebP.` };
    const blob = new Blob([clean.bytes], { type: file.type });
    if (!(await this.pictures.look(blob)).ok)
      return { trouble: `${name} does not hold together. Take or save it again.` };
    const ref = { hash: await hashOf(clean.bytes), name, type: file.type, bytes: clean.bytes.length };
    const kept = await this.repository.keepFile({ sha256: ref.hash, name, type: file.type, blob });
    return kept.ok ? { ref } : { trouble: troubleSentence(kept.error) };
  }

  /** The picture with its size, something of it that is not too large to be shown. */
  async shown(ref: FileRef): Promise<{ width: number; height: number; shown: Blob } | Trouble> {
    const kept = await this.repository.fileOf(ref.hash);
    const looked = kept && (await this.pictures.look(kept.blob));
    if (looked?.ok) return looked.value;
    return {
      trouble: `${ref.name} is not in this browser any more. Choose it again; what was picked stays.`,
    };
  }

  /** An invented engine that stands in no catalogue: its photograph, and what one reads off it. */
  async example(): Promise<{ form: OwnEngine; photo: DrivePhoto; ref: FileRef } | Trouble> {
    const [png, json] = await Promise.all([fetch('own-drive.png'), fetch('own-drive.json')]);
    if (!png.ok || !json.ok) return { trouble: 'The invented engine could not be fetched. Try again.' };
    const read = (await json.json()) as { form: unknown; photo: unknown };
    const blob = await png.blob();
    const kept = await this.keep(new File([blob], 'drive.png', { type: 'image/png' }));
    if ('trouble' in kept) return kept;
    return {
      form: OwnEngineSchema.parse(read.form),
      photo: DrivePhotoSchema.parse(read.photo),
      ref: kept.ref,
    };
  }
}
