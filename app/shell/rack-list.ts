import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  afterNextRender,
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { take } from 'rxjs';
import type { CaseSummary } from '@core/answer/case-summary';
import { Cases } from '../data/cases';
import { RackTag } from './rack-tag';

/** The tags of a rack with many cases: only those in sight are drawn. */
@Component({
  selector: 'hs-rack-list',
  imports: [RackTag, ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <cdk-virtual-scroll-viewport
      [itemSize]="narrow() ? 212 : 57"
      [orientation]="narrow() ? 'horizontal' : 'vertical'"
    >
      <hs-rack-tag
        *cdkVirtualFor="let h of tags(); trackBy: byId"
        [of]="h"
        [rail]="rail()"
        [narrow]="narrow()"
      />
    </cdk-virtual-scroll-viewport>
  `,
  styles: `
    :host {
      display: block;
    }
    cdk-virtual-scroll-viewport {
      height: 100%;
    }
  `,
})
export class RackList {
  readonly tags = input.required<readonly CaseSummary[]>();
  readonly rail = input(false);
  readonly narrow = input(false);
  private readonly cases = inject(Cases);
  private readonly drawn = signal(false);
  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);

  constructor() {
    // The case in hand stays in sight, however it was opened; before the list has its length there is nowhere to go.
    afterRenderEffect(() => {
      const id = this.cases.currentId();
      if (id === undefined || !this.drawn()) return;
      const at = untracked(this.tags).findIndex((h) => h.id === id);
      const { start, end } = this.viewport().getRenderedRange();
      if (at >= 0 && (at < start || at >= end)) this.viewport().scrollToIndex(Math.max(0, at - 2));
    });
    afterNextRender(() =>
      this.viewport()
        .renderedRangeStream.pipe(take(1))
        .subscribe(() => this.drawn.set(true)),
    );
  }

  protected byId(_: number, h: CaseSummary): string {
    return h.id;
  }
}
