import { ChangeDetectionStrategy, Component, computed, type ElementRef, viewChild } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { OverlayDialog } from './dialog-base';

@Component({
  selector: 'hs-keys-dialog',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <dialog #dialog aria-labelledby="keys-title" (close)="close()">
      <h2 id="keys-title">Keys</h2>
      <table class="plain">
        <tbody>
          @for (c of keys(); track c.name) {
            <tr>
              <td>
                <kbd>{{ c.key }}</kbd>
              </td>
              <td>{{ c.name }}</td>
            </tr>
          }
          <tr>
            <td><kbd>Enter</kbd></td>
            <td>In a field: file it and go to the next</td>
          </tr>
          <tr>
            <td><kbd>Esc</kbd></td>
            <td>Close; in a field: leave it as it was</td>
          </tr>
        </tbody>
      </table>
      <p class="quiet">
        On the fact line type a name and a value: <span class="mono">ptr -96</span>,
        <span class="mono">edge front frayed</span>, <span class="mono">odo 48200 km</span>. A last word such
        as <span class="mono">reported</span> or <span class="mono">seen</span> says how it is known.
      </p>
      <button nz-button (click)="close()">Close</button>
    </dialog>
  `,
  styles: `
    kbd {
      font: 12px var(--mono);
      border: 1px solid var(--rule-strong);
      border-radius: 3px;
      padding: 1px 6px;
    }
  `,
})
export class KeysDialog extends OverlayDialog {
  protected readonly dialog = viewChild.required<ElementRef<HTMLDialogElement>>('dialog');
  protected readonly overlay = 'keys' as const;
  protected readonly keys = computed(() => {
    this.commands.overlay();
    return this.commands.list().filter((c) => c.key);
  });
}
