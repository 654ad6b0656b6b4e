import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { Attachments } from '../acts/attachments';

/** Chooses files and attaches them to the case in hand, or to a part of it. */
@Component({
  selector: 'hs-attach-button',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button nz-button nzSize="small" (click)="file.click()">{{ wording() }}</button>
    <input
      #file
      hidden
      type="file"
      multiple
      tabindex="-1"
      [attr.aria-label]="label()"
      (change)="attach(file)"
    />
  `,
})
export class AttachButton {
  readonly wording = input.required<string>();
  /** Name of the chooser for those who do not see it. */
  readonly label = input.required<string>();
  /** Thing that the files are of; none: the case. */
  readonly about = input<string>();
  private readonly attachments = inject(Attachments);

  protected attach(chooser: HTMLInputElement): void {
    const files = [...(chooser.files ?? [])];
    chooser.value = '';
    void this.attachments.attach(files, this.about());
  }
}
