import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { NzButtonComponent, type NzButtonSize, type NzButtonType } from 'ng-zorro-antd/button';

/** A button that lets files be chosen, and gives them out; the same ones may be chosen again. */
@Component({
  selector: 'hs-file-button',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button nz-button [nzType]="type()" [nzSize]="size()" (click)="file.click()">{{ wording() }}</button>
    <input
      #file
      hidden
      type="file"
      multiple
      tabindex="-1"
      [attr.aria-label]="label()"
      [attr.accept]="accept()"
      [attr.capture]="capture()"
      (change)="choose(file)"
    />
  `,
})
export class FileButton {
  readonly wording = input.required<string>();
  /** Name of the chooser for those who do not see it. */
  readonly label = input.required<string>();
  /** Kinds of files that are offered; none: all. */
  readonly accept = input<string>();
  /** Camera that a tablet opens instead of its files. */
  readonly capture = input<'environment'>();
  readonly type = input<NzButtonType>('default');
  readonly size = input<NzButtonSize>('small');
  readonly chosen = output<File[]>();

  protected choose(chooser: HTMLInputElement): void {
    const files = [...(chooser.files ?? [])];
    chooser.value = '';
    if (files.length > 0) this.chosen.emit(files);
  }
}
