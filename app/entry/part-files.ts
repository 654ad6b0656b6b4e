import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { FileRef } from '@core/facts/fact';
import { factsOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import { Attachments } from '../acts/attachments';
import { CaseDesk } from '../data/case-desk';
import { FileStrip } from '../ui/file-strip';

/** Photographs and captures of one part, and the way to add one. */
@Component({
  selector: 'hs-part-files',
  imports: [NzButtonComponent, FileStrip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (files().length) {
      <hs-file-strip [files]="files()" [read]="blobOf" (taken)="take($event)" />
    }
    <button nz-button nzSize="small" (click)="file.click()">Attach a photograph or file</button>
    <input
      #file
      hidden
      type="file"
      multiple
      tabindex="-1"
      [attr.aria-label]="'Files of ' + name()"
      (change)="attach(file)"
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

  protected attach(input: HTMLInputElement): void {
    const files = [...(input.files ?? [])];
    input.value = '';
    void this.attachments.attach(files, this.about());
  }
}
