import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  inject,
  viewChild,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { CaseFiles } from '../acts/case-files';

@Component({
  selector: 'hs-altered-dialog',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <dialog #dialog aria-labelledby="altered-title" (close)="files.altered.set(undefined)">
      @if (files.altered(); as a) {
        <h2 id="altered-title">This file was altered</h2>
        <p role="alert">
          What <b>{{ a.name }}</b> holds does not match the digest that was written with it. Somebody or
          something changed it after it left.
        </p>
        <table class="plain">
          <tbody>
            @for (d of a.read.altered; track d.part) {
              <tr>
                <th scope="row">Digest of the {{ d.part }}, stated</th>
                <td class="mono">{{ d.stated.slice(0, 24) }}…</td>
              </tr>
              <tr>
                <th scope="row">found</th>
                <td class="mono">{{ d.found.slice(0, 24) }}…</td>
              </tr>
            }
          </tbody>
        </table>
        <p>Nothing was changed here. Ask the sender for the file again.</p>
        <div class="row">
          <button nz-button nzType="primary" (click)="files.altered.set(undefined)">Leave it out</button>
          <button nz-button (click)="take()">Read it in, marked as altered</button>
        </div>
      }
    </dialog>
  `,
})
export class AlteredDialog {
  protected readonly files = inject(CaseFiles);
  private readonly dialog = viewChild.required<ElementRef<HTMLDialogElement>>('dialog');

  constructor() {
    effect(() => {
      const element = this.dialog().nativeElement;
      if (this.files.altered() && !element.open) element.showModal();
      if (!this.files.altered() && element.open) element.close();
    });
  }

  protected take(): void {
    void this.files.takeAltered();
  }
}
