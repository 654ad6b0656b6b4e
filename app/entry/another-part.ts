import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { declaring } from '@core/facts/change';
import { KINDS } from '@core/facts/kinds';
import { CaseDesk } from '../data/case-desk';
import { troubleSentence } from '../data/store-trouble';

/** A further part of a kind: named by where it belongs, so that it is told from the first everywhere. */
@Component({
  selector: 'hs-another-part',
  imports: [NzButtonComponent, NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.open]': 'open()' },
  template: `
    @if (open()) {
      <label [for]="'another-' + kind()">Where the other {{ word() }} belongs</label>
      <input
        nz-input
        #box
        autocomplete="off"
        placeholder="left, secondary"
        [id]="'another-' + kind()"
        (keydown.enter)="add(box.value)"
        (keydown.escape)="open.set(false)"
      />
      <button nz-button (click)="add(box.value)">Add it</button>
      @if (error()) {
        <p class="bad" role="alert">▲ {{ error() }}</p>
      }
    } @else {
      <button nz-button nzSize="small" (click)="open.set(true)">Another {{ word() }}</button>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    :host(.open) {
      flex: 1 0 100%;
    }
    .bad {
      color: var(--bad-ink);
    }
  `,
})
export class AnotherPart {
  readonly kind = input.required<string>();
  private readonly desk = inject(CaseDesk);
  protected readonly open = signal(false);
  protected readonly error = signal('');

  protected word(): string {
    return (KINDS.get(this.kind())?.wording ?? this.kind()).toLowerCase();
  }

  protected async add(place: string): Promise<void> {
    const said = place.trim();
    if (said === '') return this.error.set('Say where it belongs, so that it can be told from the first.');
    if (this.desk.things().some((t) => t.kind === this.kind() && t.name.toLowerCase() === said.toLowerCase()))
      return this.error.set(`There is a ${this.word()} of that place already.`);
    const filed = await this.desk.fileAll(declaring(this.kind(), said, crypto.randomUUID()));
    if (!filed.ok) return this.error.set(troubleSentence(filed.error));
    this.open.set(false);
    this.error.set('');
  }
}
