import { nth } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { ExaminedThing } from '@core/answer/examined';
import { CaseDesk } from '../../data/case-desk';
import { thingPicture } from '../../part-drawings/thing-picture';
import { INSPECTION_MARKS } from '../../messages/examination';
import { ThingFigure } from './thing-figure';

type Spot = { key: string; x: number; y: number; sign: string; label: string; at: boolean; next: string };

/** The thing in hand, drawn from its dimensions with what was found on it; each place leads to its inspections. */
@Component({
  selector: 'hs-thing-drawing',
  imports: [ThingFigure],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (picture(); as p) {
      <div
        class="frame"
        [style.aspect-ratio]="p.box.w / p.box.h"
        [style.width]="'min(100%, calc(var(--tall, 230px) * ' + p.box.w / p.box.h + '))'"
      >
        <hs-thing-figure [picture]="p" [label]="thing().wording + ', drawn'" />
        @for (z of spots(); track z.key) {
          <button
            type="button"
            tabindex="-1"
            [class.at]="z.at"
            [style.left.%]="z.x"
            [style.top.%]="z.y"
            [attr.aria-label]="z.label"
            [title]="z.label"
            (click)="opened.emit(z.next)"
          >
            {{ z.sign }}
          </button>
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      justify-items: center;
    }
    .frame {
      position: relative;
    }
    hs-thing-figure {
      height: 100%;
    }
    button {
      position: absolute;
      width: 22px;
      height: 22px;
      translate: -50% -50%;
      padding: 0;
      border: 1px solid var(--ink-2);
      border-radius: 50%;
      background: var(--paper);
      color: var(--ink);
      font-size: 10px;
      line-height: 1;
      cursor: pointer;
    }
    :host-context(.large) button {
      width: 28px;
      height: 28px;
      font-size: 12px;
    }
    .at {
      border: 2px solid var(--verdigris);
      outline: 2px solid var(--verdigris-soft);
    }
  `,
})
export class ThingDrawing {
  readonly thing = input.required<ExaminedThing>();
  /** Observable of the inspection in hand. */
  readonly inspection = input<string>();
  /** A place was pressed: the inspection that is to be made there. */
  readonly opened = output<string>();
  private readonly desk = inject(CaseDesk);
  protected readonly picture = computed(() => {
    const view = this.desk.current();
    return view && thingPicture(this.thing(), view.state, view.answers?.drive);
  });
  protected readonly spots = computed((): Spot[] => {
    const p = this.picture();
    if (!p) return [];
    return p.zones.flatMap((z): Spot[] => {
      const here = this.thing().inspections.filter((l) => l.inspection.zone === z.key);
      if (here.length === 0) return [];
      const open = here.filter((l) => l.status === 'open' || l.status === 'held');
      const bad = here.some((l) => l.abnormal);
      const at = here.findIndex((l) => l.inspection.key === this.inspection());
      // Pressed again, the next look at the same place.
      const next =
        open.find((l) => l.inspection.key !== this.inspection()) ?? nth(here, (at + 1) % here.length);
      const state = bad ? 'abnormal' : open.length > 0 ? 'open' : 'done';
      return [
        {
          key: z.key,
          x: ((z.x - p.box.x) / p.box.w) * 100,
          y: ((z.y - p.box.y) / p.box.h) * 100,
          sign: bad ? '▲' : open.length > 0 ? String(open.length) : INSPECTION_MARKS[state][0],
          label: `${next.observable.wording}${open.length > 1 ? ` and ${open.length - 1} more here` : ''}`,
          at: at >= 0,
          next: next.inspection.key,
        },
      ];
    });
  });
}
