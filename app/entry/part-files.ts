import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { FileRef } from '@core/facts/fact';
import { factsOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import { Attachments } from '../acts/attachments';
import { CaseDesk } from '../data/case-desk';
import { FileStrip } from '../ui/file-strip';
import { AttachButton } from './attach-button';

/** Photographs and captures of one part, and the way to add one. */
@Component({
  selector: 'hs-part-files',
  imports: [AttachButton, FileStrip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (files().length) {
      <hs-file-strip [files]="files()" [read]="blobOf" (taken)="take($event)" />
    }
    <hs-attach-button
      wording="Attach a photograph or file"
      [label]="'Files of ' + name()"
      [about]="about()"
    />
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      justify-items: start;
      margin-top: 4px;
    }
  `,
})
export class PartFiles {
  /** Thing that the files are of. */
  readonly about = input.required<string>();
  readonly name = input.required<string>();
  private readonly desk = inject(CaseDesk);
  private readonly attachments = inject(Attachments);
  protected readonly files = computed<readonly FileRef[]>(() => {
    const state = this.desk.current()?.state;
    return state ? factsOf(state, THING.file, this.about()).flatMap((f) => f.files ?? []) : [];
  });
  protected readonly blobOf = (file: FileRef): Promise<Blob | undefined> => this.attachments.blobOf(file);

  protected take(file: FileRef): void {
    void this.attachments.save(file);
  }
}
