import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { FileRef } from '@core/facts/fact';
import { factsOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import { Attachments } from '../acts/attachments';
import { CaseDesk } from '../data/case-desk';
import { FileButton } from '../ui/file-button';
import { FileStrip } from '../ui/file-strip';

/** Photographs and captures of one part, and the way to add one. */
@Component({
  selector: 'hs-part-files',
  imports: [FileButton, FileStrip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.open]': 'files().length > 0' },
  template: `
    @if (files().length) {
      <hs-file-strip [files]="files()" [read]="blobOf" (taken)="take($event)" />
    }
    <hs-file-button wording="Attach a file" [label]="'Files of ' + name()" (chosen)="attach($event)" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      justify-items: start;
    }
    :host(.open) {
      flex: 1 0 100%;
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

  protected attach(files: readonly File[]): void {
    void this.attachments.attach(files, this.about());
  }
}
