import { Directive, effect, type ElementRef, inject, type Signal } from '@angular/core';
import { Commands, type Overlay } from '../acts/commands';

/** Opens and closes a native dialog with one of the desk's overlays. */
@Directive()
export abstract class OverlayDialog {
  protected readonly commands = inject(Commands);
  protected abstract readonly dialog: Signal<ElementRef<HTMLDialogElement>>;
  protected abstract readonly overlay: Overlay;

  constructor() {
    effect(() => {
      const element = this.dialog().nativeElement;
      const wanted = this.commands.overlay() === this.overlay;
      if (wanted && !element.open) {
        element.showModal();
        this.opened();
      }
      if (!wanted && element.open) element.close();
    });
  }

  protected opened(): void {
    // Most dialogs have nothing to prepare.
  }

  protected close(): void {
    if (this.commands.overlay() === this.overlay) this.commands.overlay.set(undefined);
  }
}
