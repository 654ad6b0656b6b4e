import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { Observable } from '@core/facts/observable';
import { PracticeBench } from '../data/practice-bench';
import { seenWords } from '../messages/practice';
import { list } from '../language/list';
import { TileDrawing, type TilePicture } from '../ui/tile-drawing';
import type { Session } from './session';

/**
 * On a return for practice: a look at what lies on the bench, or a question to the caller. What is drawn is shown as it looks, without its
 * name; what is read off or told is shown in words, and taken over by one press.
 */
@Component({
  selector: 'hs-look',
  imports: [NzButtonComponent, TileDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.open]': '!look()?.seen' },
  template: `
    @if (look(); as l) {
      @if (l.seen; as s) {
        @if (s.is === 'found') {
          @if (drawing(); as p) {
            <span class="before" role="img" aria-label="What lies before you, drawn">
              <hs-tile-drawing [picture]="p" />
            </span>
            <span class="quiet">{{ known() ? '' : 'What is it?' }}</span>
          } @else {
            <span class="told">{{ l.asked ? '“' + words() + '”' : words() }}</span>
            @if (!known()) {
              <button nz-button nzSize="small" class="entry" (click)="take()">Take it over</button>
            }
          }
        } @else {
          <span class="quiet">{{ why() }}</span>
        }
      } @else {
        <button nz-button nzSize="small" class="entry" (click)="make()">
          {{ l.asked ? 'Ask' : 'Look' }} · {{ l.minutes }} min
        </button>
        @if (ruins(); as r) {
          <span class="warn">▲ Then {{ r }} can no longer be read.</span>
        }
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 8px;
      align-items: center;
      min-width: 0;
    }
    .before {
      border: 1px solid var(--rule-strong);
      border-radius: 3px;
      padding: 2px 6px;
      background: var(--paper-2);
    }
    .before hs-tile-drawing {
      display: block;
      width: 72px;
    }
    .told {
      font-weight: 600;
    }
    .warn {
      color: var(--brass-ink);
    }
  `,
})
export class BenchLook {
  private readonly bench = inject(PracticeBench);
  readonly session = input.required<Session>();
  readonly observable = input.required<Observable>();
  readonly about = input<string>();
  /** Something of it is filed. */
  readonly known = input(false);
  readonly drawn = input<(observable: string, grade: string) => TilePicture | undefined>();

  protected readonly look = computed(() => this.bench.toLook(this.observable(), this.about()));
  private readonly found = computed(() => {
    const seen = this.look()?.seen;
    return seen?.is === 'found' ? seen.lies : [];
  });
  protected readonly drawing = computed(() => {
    const [line] = this.found();
    const drawn = this.drawn();
    return line && drawn && typeof line.value === 'string' ? drawn(line.key, line.value) : undefined;
  });
  protected readonly words = computed(() =>
    list(this.found().map((l) => this.session().show(this.observable(), l.value, l.u))),
  );
  protected readonly why = computed(() => {
    const seen = this.look()?.seen;
    if (!seen || seen.is === 'found') return '';
    return seenWords(seen, seen.is === 'destroyed' ? this.nameOf(seen.by) : '');
  });
  protected readonly ruins = computed(() =>
    list((this.look()?.destroys ?? []).map((key) => this.nameOf(key))),
  );

  private nameOf(key: string): string {
    return (this.session().observable(key)?.wording ?? key).toLowerCase();
  }

  protected make(): void {
    void this.bench.look(this.observable(), this.about());
  }

  protected take(): void {
    void this.bench.takeOver(this.observable(), this.about());
  }
}
