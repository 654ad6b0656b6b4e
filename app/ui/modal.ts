import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { NzModalModule } from 'ng-zorro-antd/modal';
import { controlsStyles } from './controls-styles';
import { English } from './english';

/** A dialog over the desk: named by its title, closed by Escape, its cross or a press beside it. */
@Component({
  selector: 'hs-modal',
  imports: [NzModalModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nz-modal
      [nzVisible]="ready() && open()"
      [nzTitle]="title()"
      [nzFooter]="null"
      [nzWidth]="width()"
      [nzStyle]="{ top: '9vh' }"
      [nzNoAnimation]="true"
      [nzAutofocus]="null"
      (nzOnCancel)="closed.emit()"
      (nzAfterOpen)="name()"
    >
      <ng-container *nzModalContent>
        <div #content><ng-content /></div>
      </ng-container>
    </nz-modal>
  `,
})
export class Modal {
  readonly open = input.required<boolean>();
  readonly title = input.required<string>();
  readonly width = input(560);
  readonly closed = output();
  readonly opened = output();
  private readonly content = viewChild<ElementRef<HTMLElement>>('content');
  /** Shown once its stylesheet is there. */
  protected readonly ready = signal(false);

  constructor() {
    inject(English);
    void controlsStyles().then(() => this.ready.set(true));
  }

  /** The library leaves its dialogs without a name. */
  protected name(): void {
    const dialog = this.content()?.nativeElement.closest('nz-modal-container');
    dialog?.setAttribute('aria-label', this.title());
    dialog?.setAttribute('aria-modal', 'true');
    this.opened.emit();
  }
}
