import { must } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, ElementRef, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { STANDING_SIGNS, ASKED_WORDS, FIRST, spoken } from '../../messages/advice';
import { AnswerDelivery, type Way } from '../../commands/answer-delivery';
import { CaseSentences } from '../../commands/case-sentences';
import { drivePicture, pictureSvg } from '../../ui/drive-picture';
import { CaseDesk } from '../../data/case-desk';
import { isFreeKey } from '../../ui/free-keys';
import { Segmented } from '../../ui/segmented';
import { AdviceStore } from './advice-store';

const WAYS: readonly { key: string; way: Way; words: string }[] = [
  { key: 't', way: 'read out', words: 'Told them' },
  { key: 'y', way: 'copied', words: 'Copy' },
  { key: 'p', way: 'PDF', words: 'PDF' },
  { key: 'e', way: 'e-mail', words: 'E-mail' },
];

/** The answer to read out: one plain sentence, the reason in one more, the caution; handing it over files that it was told. */
@Component({
  selector: 'hs-answer-card',
  imports: [NzButtonComponent, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'key($event)' },
  template: `
    @if (store.current(); as a) {
      <section class="card answer" [class]="a.standing" aria-label="To read out" tabindex="-1">
        @if (choices().length > 1) {
          <hs-segmented
            label="Question that is answered"
            [options]="choices()"
            [value]="a.asked"
            (picked)="pick($event)"
          />
        } @else {
          <h2>{{ asked() }}?</h2>
        }
        <p class="lead" aria-live="polite">
          <span class="sign" aria-hidden="true">{{ sign() }}</span> {{ said().lead }}
        </p>
        @if (said().because) {
          <p>{{ said().because }}</p>
        }
        <p class="caution">{{ said().caution }} {{ first }}</p>
        <div class="row">
          @for (w of ways; track w.key) {
            <button
              nz-button
              nzSize="small"
              [nzType]="w.key === 't' ? 'primary' : 'default'"
              (click)="tell(w.way)"
            >
              {{ w.words }} <kbd>{{ w.key }}</kbd>
            </button>
          }
        </div>
      </section>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    section {
      display: grid;
      gap: 4px;
      border-left: 4px solid var(--rule-strong);
    }
    .yes {
      border-left-color: var(--verdigris);
    }
    .no,
    .cannot {
      border-left-color: var(--brass);
    }
    .lead {
      font-size: 1.25em;
      font-weight: 600;
      line-height: 1.3;
      margin: 0;
    }
    p {
      margin: 0;
    }
    .row {
      gap: 4px;
    }
    .row button {
      padding: 0 6px;
    }
    kbd {
      margin-left: 2px;
    }
  `,
})
export class AnswerCard {
  protected readonly store = inject(AdviceStore);
  private readonly delivery = inject(AnswerDelivery);
  private readonly voice = inject(CaseSentences).voice;
  private readonly desk = inject(CaseDesk);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly ways = WAYS;
  protected readonly first = FIRST;
  protected readonly choices = computed(() =>
    this.store.all().map((a) => ({ value: a.asked, label: ASKED_WORDS[a.asked] })),
  );
  protected readonly asked = computed(() => ASKED_WORDS[must(this.store.current()).asked]);
  protected readonly sign = computed(() => STANDING_SIGNS[must(this.store.current()).standing]);
  protected readonly said = computed(() => spoken(must(this.store.current()), this.voice()));

  protected pick(asked: string): void {
    const found = this.store.all().find((a) => a.asked === asked);
    if (found) this.store.at.set(found.asked);
  }

  protected tell(way: Way): void {
    const advice = this.store.current();
    if (advice) void this.delivery.tell(advice, way, this.drawing());
  }

  /** Keys of the answer, wherever the focus is but in a field. */
  protected key(e: KeyboardEvent): void {
    const way = WAYS.find((w) => w.key === e.key);
    if (!way || !isFreeKey(e, this.host.nativeElement)) return;
    e.preventDefault();
    this.tell(way.way);
  }

  /** The drawing that belongs to the answer, as it is printed. */
  private drawing(): string | undefined {
    const d = this.desk.current()?.answers?.drive;
    if (this.store.current()?.draw !== 'setting' || !d?.right) return undefined;
    return pictureSvg(drivePicture(d.layout, d.right, 'As intended'), 300);
  }
}
