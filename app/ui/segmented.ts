import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { NzSegmentedModule } from 'ng-zorro-antd/segmented';

let serial = 0;

/** One of few, all of them in sight. */
@Component({
  selector: 'hs-segmented',
  imports: [FormsModule, NzSegmentedModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'group', '[attr.aria-label]': 'label()' },
  template: `
    <nz-segmented
      [nzName]="name"
      [nzOptions]="list()"
      [ngModel]="value()"
      (ngModelChange)="picked.emit($event)"
    />
  `,
  styles: ':host { display: inline-block; min-width: 0; max-width: 100%; }',
})
export class Segmented<T extends string> {
  readonly label = input.required<string>();
  readonly options = input.required<readonly { value: T; label: string }[]>();
  readonly value = input.required<T>();
  readonly picked = output<T>();
  /** A list of its own, as the library wants it, made anew only when the options are others. */
  protected readonly list = computed(() => [...this.options()]);
  protected readonly name = `segmented-${++serial}`;

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    // The library marks plain boxes as selected, which only options and tabs may be; its radio buttons say it already.
    const plain = new MutationObserver(() => strip(host));
    afterNextRender(() => {
      strip(host);
      plain.observe(host, { subtree: true, childList: true, attributeFilter: ['aria-selected'] });
    });
    inject(DestroyRef).onDestroy(() => plain.disconnect());
  }
}

function strip(host: HTMLElement): void {
  for (const e of host.querySelectorAll('.ant-segmented-item-label[aria-selected]'))
    e.removeAttribute('aria-selected');
}
