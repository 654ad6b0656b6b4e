import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { ExaminedThing } from '@core/answer/examined';
import { KINDS } from '@core/facts/kinds';
import { Pick } from '../../ui/pick';
import { tagWords } from '../../messages/examination';
import { ExamineStore, thingId } from './examine-store';

/** Marks on a tag at most: beyond it one mark stands for several inspections. */
const MARKS = 12;

/** What came in the box and what did not, as tags; the one in hand is raised. Arrows walk, and so do Page up and down on the bench. */
@Component({
  selector: 'hs-box-strip',
  imports: [Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown)': 'walk($event)' },
  template: `
    <div class="tags" role="tablist" aria-label="In the box">
      @for (t of store.things(); track id(t)) {
        <button
          type="button"
          role="tab"
          [id]="'tag-' + id(t)"
          [attr.aria-selected]="t === store.hand()"
          [attr.aria-controls]="t === store.hand() ? 'in-hand' : null"
          [tabindex]="t === store.hand() ? 0 : -1"
          [class.absent]="t.came === 'not_sent'"
          (click)="store.take(id(t))"
        >
          <span class="name"
            >{{ t.wording }}
            @if (t.abnormal) {
              <b class="look" [attr.aria-label]="t.abnormal + ' to be explained'">▲{{ t.abnormal }}</b>
            }
          </span>
          <span class="bar" aria-hidden="true">
            @for (full of bar(t); track $index) {
              <i [class.full]="full"></i>
            }
          </span>
          <small>{{ words(t) }}</small>
        </button>
      }
    </div>
    @if (others().length) {
      <hs-pick
        label="Also came"
        [bare]="true"
        placeholder="also came …"
        [options]="others()"
        [value]="undefined"
        (picked)="store.came($event, true)"
      />
    }
  `,
  styles: `
    :host {
      display: flex;
      gap: 5px;
      align-items: stretch;
      flex-wrap: wrap;
      margin-bottom: 8px;
      /* Of a full box three rows: the thing in hand keeps its room, and the one taken rolls into sight. */
      max-height: 176px;
      overflow: auto;
      flex: none;
    }
    /* Tags and what follows them flow as one. */
    .tags {
      display: contents;
    }
    button {
      display: grid;
      gap: 3px;
      min-width: 78px;
      min-height: var(--target);
      padding: 3px 7px;
      border: 1px solid var(--rule-strong);
      border-radius: 10px 3px 3px 3px;
      background: var(--paper-2);
      text-align: left;
      cursor: pointer;
    }
    [aria-selected='true'] {
      background: var(--verdigris-soft);
      border-color: var(--verdigris);
      box-shadow: inset 0 3px 0 var(--verdigris);
    }
    .absent {
      border-style: dashed;
      background: transparent;
    }
    .name {
      display: flex;
      gap: 6px;
      justify-content: space-between;
      font-weight: 600;
      line-height: 1.2;
    }
    .look {
      color: var(--brass-ink);
    }
    .bar {
      display: flex;
      gap: 2px;
    }
    i {
      width: 6px;
      height: 6px;
      border: 1px solid var(--ink-2);
    }
    i.full {
      background: var(--verdigris);
      border-color: var(--verdigris);
    }
    small {
      line-height: 1.1;
    }
    @media (forced-colors: active) {
      i.full {
        background: CanvasText;
      }
    }
  `,
})
export class BoxStrip {
  protected readonly store = inject(ExamineStore);
  protected readonly id = thingId;
  protected readonly words = tagWords;
  protected readonly others = computed(() =>
    this.store.others().map((kind) => ({ key: kind, wording: KINDS.get(kind)?.wording ?? kind })),
  );

  /** How much of it was looked at, as marks. */
  protected bar(t: ExaminedThing): boolean[] {
    const marks = Math.min(MARKS, t.inspections.length);
    const full = Math.floor((t.done / t.inspections.length) * marks);
    return Array.from({ length: marks }, (_, i) => i < Math.max(full, t.done > 0 ? 1 : 0));
  }

  protected walk(e: KeyboardEvent): void {
    const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key] as 1 | -1 | undefined;
    const tag = e.target instanceof HTMLElement && e.target.closest('[role=tab]');
    if (by === undefined || !tag) return;
    e.preventDefault();
    this.store.step(by);
    const hand = this.store.hand();
    if (hand) tag.parentElement?.querySelector<HTMLElement>(`#tag-${CSS.escape(thingId(hand))}`)?.focus();
  }
}
