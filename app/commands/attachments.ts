import { inject, Injectable } from '@angular/core';
import type { FileRef } from '@core/facts/fact';
import { THING } from '@core/facts/thing';
import { cleanPicture } from '@core/intake/clean-picture';
import { fileNameText } from '@core/quantity/header-text';
import { notHereWords } from '../messages/case-file';
import { CaseDesk } from '../data/case-desk';
import { FactRepository } from '../data/fact-repository';
import { hashOf } from '../records/hash';
import { troubleSentence } from '../data/store-trouble';
import { download } from '../report/download';
import { Notices } from './notices';
import { roomFor } from '../records/storage-room';

/** Largest file that is attached, bytes: a photograph or a capture of minutes. */
export const LARGEST_FILE = 64 * 1024 * 1024;

/** Why a picture was not attached, and what to do. */
const pictureRefused = (name: string, why: 'format' | 'broken'): string =>
  why === 'broken'
    ? `${name} was not attached: the picture is cut short or does not hold together. Take or save it again.`
    : `${name} was not attached: a picture of this kind can carry where it was taken, and that cannot be taken out here. Save it as JPEG, PNG or WebP and attach that.`;

/** Photographs, captures and documents of a case: kept once per content, pointed to by facts. Where a picture was taken is never kept. */
@Injectable({ providedIn: 'root' })
export class Attachments {
  private readonly desk = inject(CaseDesk);
  private readonly repository = inject(FactRepository);
  private readonly notices = inject(Notices);

  /** Attaches files to the case in hand, or to a part of it. Each is filed for itself; what fails is told by name. What was kept comes back. */
  async attach(files: readonly File[], about?: string): Promise<FileRef[]> {
    const attached: FileRef[] = [];
    if (this.desk.practising()) {
      this.notices.refuse('Nothing is attached to a return for practice: it brings what there is to see.');
      return attached;
    }
    for (const file of files) {
      const name = fileNameText(file.name);
      if (file.size > LARGEST_FILE) {
        this.notices.refuse(
          `${name} has ${Math.ceil(file.size / 1e6)} MB; a file may have ${Math.floor(LARGEST_FILE / 1e6)} MB. It was not attached.`,
        );
        continue;
      }
      const room = await roomFor(file.size, navigator.storage);
      if (room.kind === 'none') {
        this.notices.refuse(
          `${name} was not attached: the browser's store has ${room.freeMb} MB left. Export cases as bundles and remove them, or free space on this machine.`,
        );
        continue;
      }
      const clean = cleanPicture(new Uint8Array(await file.arrayBuffer()), file.type);
      if (clean.kind === 'refused') {
        this.notices.refuse(pictureRefused(name, clean.why));
        continue;
      }
      const { bytes } = clean;
      const ref: FileRef = { hash: await hashOf(bytes), name, type: file.type, bytes: bytes.length };
      const blob = new Blob([bytes], { type: file.type });
      const kept = await this.repository.keepFile({ sha256: ref.hash, name, type: file.type, blob });
      if (!kept.ok) {
        this.notices.refuse(`${name} was not attached. ${troubleSentence(kept.error)}`);
        continue;
      }
      attached.push(ref);
      await this.desk.file({
        key: THING.file,
        about,
        value: name,
        how: 'seen',
        files: [ref],
        series: 'files',
      });
      if (clean.kind === 'picture' && clean.removed)
        void this.notices.say(
          'info',
          `${name} is kept as it looks: all else in it, such as where it was taken, was left out.`,
        );
      if (room.kind === 'scarce')
        void this.notices.say(
          'warning',
          `The browser's store has ${room.freeMb} MB left. Export cases as bundles before it is full.`,
        );
    }
    return attached;
  }

  /** The content of a file, if it is in this browser. */
  async blobOf(file: FileRef): Promise<Blob | undefined> {
    return (await this.repository.fileOf(file.hash))?.blob;
  }

  /** Takes a file out under its own name. */
  async save(file: FileRef): Promise<void> {
    const blob = await this.blobOf(file);
    if (blob) download(file.name, blob);
    else this.notices.refuse(notHereWords(file.name));
  }
}
