import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { SheetReturns } from '../../commands/sheet-returns';
import { FileButton } from '../../ui/file-button';
import { Modal } from '../../ui/modal';

/** A filled sheet comes back: its file, a picture of its code, or the code typed. */
@Component({
  selector: 'hs-return-dialog',
  imports: [FileButton, Modal, NzButtonComponent, NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal title="A filled sheet came back" [open]="open()" (closed)="close()">
      <form class="grid" (submit)="$event.preventDefault(); take(box.value)">
        <p>
          The file that the sheet saved, or a picture of its square code:
          <hs-file-button
            wording="Choose the file…"
            label="Filled sheet"
            accept=".json,application/json,image/*"
            (chosen)="file($event)"
          />
        </p>
        <label for="sheet-code">Or its code, as it was read out</label>
        <textarea
          nz-input
          #box
          id="sheet-code"
          cdkFocusInitial
          rows="4"
          class="mono"
          autocomplete="off"
          spellcheck="false"
          placeholder="HS2 …"
        ></textarea>
        @if (refused(); as words) {
          <p class="caution" role="alert">{{ words }}</p>
        }
        <button nz-button nzType="primary">Take it in</button>
      </form>
    </hs-modal>
  `,
  styles: `
    .grid {
      display: grid;
      gap: 8px;
      justify-items: start;
    }
    textarea {
      width: 100%;
    }
    p {
      margin: 0;
    }
  `,
})
export class ReturnDialog {
  readonly open = input.required<boolean>();
  readonly closed = output();
  private readonly returns = inject(SheetReturns);
  protected readonly refused = signal<string | undefined>(undefined);

  protected async take(text: string): Promise<void> {
    this.end(
      text.trim() === ''
        ? 'Choose the file, or type the code: it begins with HS2.'
        : await this.returns.text(text),
    );
  }

  protected async file(files: readonly File[]): Promise<void> {
    const [first] = files;
    if (first) this.end(await this.returns.file(first));
  }

  protected close(): void {
    this.refused.set(undefined);
    this.closed.emit();
  }

  private end(refused: string | undefined): void {
    this.refused.set(refused);
    if (refused === undefined) this.close();
  }
}
