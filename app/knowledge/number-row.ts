import { must } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, input, model, signal } from '@angular/core';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzInputNumberModule } from 'ng-zorro-antd/input-number';
import { CAUSES } from '@core/cause/cause-data';
import { type Change, holding } from '@core/cause/changes';
import { groundOf } from '@core/cause/grounds';
import { isShare, numbersOf, numberRange } from '@core/cause/numbers';
import { OwnNumbers } from '../data/own-numbers';
import { changeWords, GROUND_WORDS, numberLabel, numberWords } from '../messages/knowledge';
import { WORDED, refusalWords, KnowledgeSentences } from './knowledge-sentences';

/** One number of the knowledge: what it says, how great it is, what it stands on; opened, it can be seen otherwise. */
@Component({
  selector: 'hs-number-row',
  imports: [NzButtonComponent, NzInputDirective, NzInputNumberModule, ReactiveFormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown.escape)': 'close()' },
  template: `
    <button class="line" [attr.aria-expanded]="open()" (click)="flip()">
      <span>{{ changed() ? '◆ ' : '' }}{{ label() }}</span>
      <span class="bar" aria-hidden="true">
        @if (bar(); as b) {
          <span [style.width.%]="b"></span>
        }
      </span>
      <span class="mono">{{ words() }}</span>
      <small class="quiet">{{ ground() }}</small>
    </button>
    @if (open()) {
      <div class="edit">
        <small>{{ note() }}</small>
        @for (h of history(); track $index) {
          <small>◆ {{ h }}</small>
        }
        <form (submit)="$event.preventDefault(); save()">
          <div>
            <label for="number-value">Here it is{{ unit() }}</label>
            <nz-input-number
              nzId="number-value"
              [formControl]="value"
              [nzMin]="least"
              [nzMax]="most()"
              [nzStep]="step()"
            />
          </div>
          <div class="why">
            <label for="number-ground">On what ground</label>
            <input
              nz-input
              id="number-ground"
              [formControl]="why"
              maxlength="500"
              placeholder="Seen in seven of our own cases"
            />
          </div>
          <button nz-button nzType="primary" nzSize="small">See it so</button>
          @if (changed()) {
            <button nz-button nzSize="small" type="button" (click)="back()">Back to {{ ships() }}</button>
          }
        </form>
        @if (refused()) {
          <p class="caution" role="alert">{{ refused() }}</p>
        }
      </div>
    }
  `,
  styles: `
    .line {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 60px 80px 64px;
      gap: 0 8px;
      align-items: center;
      width: 100%;
      min-height: var(--target);
      padding: 2px 4px;
      border: 0;
      border-bottom: 1px solid var(--rule);
      background: none;
      text-align: left;
      cursor: pointer;
    }
    .line .mono {
      text-align: right;
    }
    .bar {
      height: 6px;
    }
    .bar:not(:empty) {
      background: var(--paper-3);
    }
    .bar span {
      display: block;
      height: 100%;
      background: var(--verdigris);
    }
    .edit {
      display: grid;
      gap: 4px;
      padding: 6px 8px 8px;
      background: var(--paper-2);
      border-bottom: 1px solid var(--rule);
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: end;
    }
    form > div {
      display: grid;
      gap: 2px;
    }
    .why {
      flex: 1;
      min-width: 180px;
    }
  `,
})
export class NumberRow {
  private readonly ownNumbers = inject(OwnNumbers);
  private readonly voice = inject(KnowledgeSentences).voice;
  readonly place = input.required<string>();
  /** Place of the one number that is open. */
  readonly opened = model<string>();
  protected readonly refused = signal('');
  protected readonly value = new FormControl<number | null>(null);
  protected readonly why = new FormControl('', { nonNullable: true });

  protected readonly open = computed(() => this.opened() === this.place());
  private readonly shipped = computed(() => must(numbersOf(CAUSES).get(this.place())));
  private readonly now = computed(() =>
    must(numbersOf(this.ownNumbers.knowledge().causes).get(this.place())),
  );
  private readonly mine = computed<readonly Change[]>(() =>
    this.ownNumbers.changes().filter((c) => c.place === this.place()),
  );
  protected readonly changed = computed(() => holding(this.mine()).has(this.place()));
  protected readonly label = computed(() => numberLabel(this.now(), WORDED, this.voice()));
  protected readonly words = computed(() => numberWords(this.now(), this.now().value));
  protected readonly ships = computed(() => numberWords(this.shipped(), this.shipped().value));
  protected readonly ground = computed(() =>
    this.changed()
      ? GROUND_WORDS.house
      : GROUND_WORDS[groundOf(CAUSES, this.shipped())?.ground ?? 'reasoning'],
  );
  protected readonly note = computed(
    () => `Ships with ${this.ships()}. ${groundOf(CAUSES, this.shipped())?.note ?? ''}`,
  );
  protected readonly history = computed(() => this.mine().map((c) => changeWords(c, this.shipped())));
  /** Shares are drawn, what is no share is not. */
  protected readonly bar = computed(() =>
    isShare(this.now()) ? Math.max(1, 100 * this.now().value) : undefined,
  );

  /** Shares are typed in percent. */
  private readonly factor = computed(() => (isShare(this.shipped()) ? 100 : 1));
  protected readonly unit = computed(() =>
    this.factor() === 100 ? ', %' : this.shipped().about[0] === 'scale' ? ', km' : '',
  );
  protected readonly step = computed(() =>
    this.shipped().about[0] === 'scale' ? 1000 : this.factor() === 100 ? 1 : 0.1,
  );
  protected readonly least = 0.0001;
  protected readonly most = computed(() => numberRange(this.shipped())[1] * this.factor());

  protected flip(): void {
    this.refused.set('');
    this.why.setValue('');
    this.value.setValue(Number((this.now().value * this.factor()).toPrecision(6)));
    this.opened.set(this.open() ? undefined : this.place());
  }

  protected close(): void {
    if (this.open()) this.opened.set(undefined);
  }

  protected save(): void {
    const value = this.value.value;
    if (value === null) return this.refused.set('Write the number first.');
    if (this.why.value.trim() === '')
      return this.refused.set('Write the ground first; it stays with the number.');
    void this.see(value / this.factor(), this.why.value.trim());
  }

  protected back(): void {
    void this.see(null, this.why.value.trim() || 'Taken back.');
  }

  private async see(value: number | null, ground: string): Promise<void> {
    const seen = await this.ownNumbers.see([{ place: this.place(), value, ground }]);
    if (seen.ok) return this.opened.set(undefined);
    this.refused.set(refusalWords(seen.error));
  }
}
