import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { FAULTS } from '@core/claim/faults';
import { type BulletinEffect, isUnchanged, standingBulletins } from '@core/patterns/bulletin';
import { Notices } from '../commands/notices';
import { PatternPapers } from '../commands/pattern-papers';
import { Bulletins } from '../data/bulletins';
import { DeskSettingsStore } from '../data/desk-settings';
import { PopulationDesk } from '../data/population';
import { troubleSentence } from '../data/store-trouble';
import { effectWords, issuedWords, bulletinPlace } from '../messages/bulletins';
import { fingerprintWords } from '../messages/seal';

let serial = 0;

/** The bulletin about one step of a kit: what the sheet says there, what is proposed, what stands and what it did. */
@Component({
  selector: 'hs-bulletin-form',
  imports: [NzButtonComponent, NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>Bulletin</h3>
    <p>
      <b>{{ place() }}</b>
      @if (at(); as a) {
        <small class="quiet says">{{ a.step.text }}</small>
      }
    </p>
    @if (standing(); as b) {
      <div class="stands">
        <p>{{ b.text }}</p>
        <small class="quiet">
          {{ issued() }} Seal <span class="mono">{{ seal() }}</span
          >{{ unchanged() ? ', unchanged since.' : ': ▲ it was altered since it was issued.' }}
        </small>
        @if (effect(); as e) {
          <p>{{ effectWords(e) }}</p>
        }
        <button nz-button nzSize="small" [disabled]="papers.making()" (click)="pdf()">PDF</button>
      </div>
    }
    <label [for]="id">{{
      standing() ? 'What the next version says, or why it is taken back' : 'What to do otherwise'
    }}</label>
    <textarea
      nz-input
      #box
      [id]="id"
      rows="3"
      maxlength="1200"
      [value]="text()"
      (input)="text.set(box.value)"
    ></textarea>
    <div class="row">
      <button
        nz-button
        nzSize="small"
        nzType="primary"
        [disabled]="text().trim() === ''"
        (click)="file('issue')"
      >
        Issue version {{ next() }}
      </button>
      @if (standing()) {
        <button nz-button nzSize="small" [disabled]="text().trim() === ''" (click)="file('withdraw')">
          Take it back
        </button>
      }
      <small class="quiet">{{
        invented()
          ? 'Invented: nothing of it is kept.'
          : 'Every case on this kit shows it, and the sheet at its step.'
      }}</small>
    </div>
  `,
  styles: `
    :host,
    .stands {
      display: grid;
      gap: 6px;
      grid-template-columns: minmax(0, 1fr);
    }
    .stands {
      padding-left: 8px;
      border-left: 3px solid var(--brass);
    }
    .stands button {
      justify-self: start;
    }
    p,
    h3 {
      margin: 0;
    }
    .says {
      display: block;
    }
    label {
      font-weight: 600;
    }
  `,
})
export class BulletinForm {
  readonly kit = input.required<string>();
  readonly step = input.required<string>();
  readonly code = input.required<string>();
  private readonly bulletins = inject(Bulletins);
  private readonly desk = inject(PopulationDesk);
  private readonly settings = inject(DeskSettingsStore);
  private readonly notices = inject(Notices);
  protected readonly papers = inject(PatternPapers);
  protected readonly id = `hs-bulletin-${serial++}`;
  protected readonly effectWords = effectWords;
  protected readonly invented = computed(() => this.desk.source() === 'invented');
  private readonly about = computed(() => ({ kit: this.kit(), step: this.step(), code: this.code() }));
  /** Entries about this step of this kit. */
  private readonly own = computed(() =>
    this.bulletins.all(this.invented()).filter((b) => b.kit === this.kit() && b.step === this.step()),
  );
  protected readonly standing = computed(() => standingBulletins(this.own())[0]);
  protected readonly next = computed(() => Math.max(0, ...this.own().map((b) => b.version)) + 1);
  protected readonly at = computed(() => this.papers.step(this.kit(), this.step()));
  protected readonly place = computed(() => bulletinPlace(this.about(), this.at()?.sheet));
  protected readonly text = signal('');
  protected readonly effect = signal<BulletinEffect | undefined>(undefined);
  protected readonly issued = computed(() => {
    const b = this.standing();
    return b ? issuedWords(b, this.settings.settings().dateOrder) : '';
  });
  protected readonly seal = computed(() => fingerprintWords(this.standing()?.digest ?? ''));
  protected readonly unchanged = computed(() => {
    const b = this.standing();
    return b !== undefined && isUnchanged(b);
  });

  constructor() {
    effect(() => {
      const { code } = this.about();
      // what prevents the fault is what a change of the sheet begins with
      untracked(() =>
        this.text.set(this.standing() ? '' : (FAULTS.find((f) => f.code === code)?.advice ?? '')),
      );
    });
    effect(() => {
      const [all, of] = [this.own(), this.about()];
      untracked(() => {
        this.effect.set(undefined);
        void this.desk.effect(all, of).then((e) => {
          if (this.about() === of) this.effect.set(e);
        });
      });
    });
  }

  protected async file(does: 'issue' | 'withdraw'): Promise<void> {
    const said = { ...this.about(), does, text: this.text() };
    const done = await this.bulletins.file(said, this.invented());
    if (done.ok) this.text.set('');
    else this.notices.refuse(troubleSentence(done.error));
  }

  protected pdf(): void {
    const [b, at] = [this.standing(), this.at()];
    if (!b) return;
    void this.papers.pdf(`bulletin-${b.kit}-${b.version}`, this.invented(), (p, head) =>
      p.bulletinPaper(head, b, at),
    );
  }
}
