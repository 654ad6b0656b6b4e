import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { ShelfState } from '../data/shelf-state';
import { besideWords, cameInWords } from '../messages/shelf';

/** Who else is in the case in hand, and what came in to it from them. Nothing where nobody is and nothing came. */
@Component({
  selector: 'hs-beside-strip',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (besides() || came()) {
      <div class="strip" role="status" aria-label="Others in this case">
        @if (besides(); as words) {
          <span>◈ {{ words }}</span>
        }
        @if (came(); as words) {
          <b>{{ words }}</b>
          <button nz-button nzSize="small" (click)="state.seen()">Seen</button>
        }
      </div>
    }
  `,
  styleUrl: '../styles/strip.less',
})
export class BesideStrip {
  protected readonly state = inject(ShelfState);
  protected readonly besides = computed(() => besideWords(this.state.besides()));
  protected readonly came = computed(() => {
    const c = this.state.cameIn();
    return c && cameInWords(c.ids.size, c.by);
  });
}
