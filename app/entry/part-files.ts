import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { FileRef } from '@core/facts/fact';
import { factsOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import { Attachments } from '../commands/attachments';
import { CaseDesk } from '../data/case-desk';
import { DeskSettingsStore } from '../data/desk-settings';
import { CameraDialog } from './camera-dialog';
import { FileButton } from '../ui/file-button';
import { FileStrip } from '../ui/file-strip';

/** Photographs and captures of the one part in hand, and the ways to add one: chosen, pasted, taken. */
@Component({
  selector: 'hs-part-files',
  imports: [CameraDialog, FileButton, FileStrip, NgTemplateOutlet, NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.open]': 'files().length > 0', '(document:paste)': 'paste($event)' },
  template: `
    @if (files().length) {
      <hs-file-strip [files]="files()" [read]="blobOf" (taken)="take($event)" />
    }
    <ng-template #takes>
      <button
        nz-button
        nzSize="small"
        [nzType]="byTouch() ? 'primary' : 'default'"
        (click)="camera.set(true)"
      >
        Take a picture
      </button>
    </ng-template>
    <div class="row">
      @if (byTouch()) {
        <ng-container [ngTemplateOutlet]="takes" />
      }
      <hs-file-button wording="Attach a file" [label]="'Files of ' + name()" (chosen)="attach($event)" />
      @if (!byTouch()) {
        <ng-container [ngTemplateOutlet]="takes" />
      }
    </div>
    @if (camera()) {
      <hs-camera-dialog (picture)="attach([$event])" (closed)="camera.set(false)" />
    }
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
  protected readonly camera = signal(false);
  private readonly settings = inject(DeskSettingsStore);
  private readonly coarse = matchMedia('(pointer: coarse)').matches;
  /** At a tablet, or in gloves, a picture is taken; elsewhere it lies in a folder. */
  protected readonly byTouch = computed(() => this.coarse || this.settings.settings().density === 'large');
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

  /** Pictures in the clipboard go to this part; text goes where one is typing. */
  protected paste(e: ClipboardEvent): void {
    const pictures = [...(e.clipboardData?.files ?? [])].filter((f) => f.type.startsWith('image/'));
    if (pictures.length === 0) return;
    e.preventDefault();
    this.attach(pictures);
  }

  protected attach(files: readonly File[]): void {
    void this.attachments.attach(files, this.about());
  }
}
