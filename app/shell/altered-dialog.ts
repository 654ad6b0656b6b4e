import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { CaseFiles } from '../commands/case-files';
import { Modal } from '../ui/modal';

/** Asks what to do with a file that was altered after it left. */
@Component({
  selector: 'hs-altered-dialog',
  imports: [NzButtonComponent, Modal],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal
      title="This file was altered"
      [open]="files.altered() !== undefined"
      (closed)="files.altered.set(undefined)"
    >
      @if (files.altered(); as a) {
        <p role="alert">
          What <b>{{ a.name }}</b> holds is not what was written when it left. Somebody or something changed
          it since.
        </p>
        <dl class="pairs">
          @for (d of a.read.altered; track d.part) {
            <dt>Fingerprint of the {{ d.part }}, as written</dt>
            <dd class="mono">{{ d.stated.slice(0, 24) }}…</dd>
            <dt>found</dt>
            <dd class="mono">{{ d.found.slice(0, 24) }}…</dd>
          }
        </dl>
        <p>Nothing was changed here. Ask the sender for the file again.</p>
        <div class="row">
          <button nz-button nzType="primary" cdkFocusInitial (click)="files.altered.set(undefined)">
            Leave it out
          </button>
          <button nz-button (click)="take()">Read it in, marked as altered</button>
        </div>
      }
    </hs-modal>
  `,
})
export class AlteredDialog {
  protected readonly files = inject(CaseFiles);

  protected take(): void {
    void this.files.takeAltered();
  }
}
