import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  Injector,
  signal,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { STEP_PHASES } from '@core/catalogue/procedure';
import type { SheetStep } from '@core/fitting/sheet';
import { Sheets } from '../../commands/sheets';
import { isBox, isFreeKey } from '../../ui/free-keys';
import { percent } from '../../messages/answers';
import { brokenWords, PHASE_WORDS, rulesOn, SAID_WORDS, UNPROVED_WORDS } from '../../messages/fitting';
import { FitStore, type Went } from './fit-store';
import { FoundCard } from './found-card';
import { ReturnDialog } from './return-dialog';
import { StepCard } from './step-card';

const LETTERS: Readonly<Record<string, Went>> = { d: 'done', n: 'skipped', o: 'wrong' };

/** The sheet: steps by phase with how each went, the step in hand beside them, and what the order shows. */
@Component({
  selector: 'hs-sheet-panel',
  imports: [FoundCard, NzButtonComponent, ReturnDialog, StepCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'key($event)' },
  template: `
    @if (store.sheet(); as sheet) {
      <header class="row">
        <h2>{{ sheet.name }}</h2>
        <button nz-button nzSize="small" [attr.aria-pressed]="store.large()" (click)="turnLarge()">
          Large drawing <kbd>l</kbd>
        </button>
        <button nz-button nzSize="small" [disabled]="sheets.making()" (click)="sheets.pdf()">
          {{ sheets.making() ? 'Setting the PDF, ' + percent(sheets.share()) : 'PDF' }} <kbd>p</kbd>
        </button>
        @if (sheets.making()) {
          <button nz-button nzSize="small" (click)="sheets.cancel()">Stop</button>
        }
        <button nz-button nzSize="small" nzType="primary" (click)="sheets.page()">
          Sheet for a phone <kbd>w</kbd>
        </button>
        <button nz-button nzSize="small" (click)="coming.set(true)">Came back <kbd>r</kbd></button>
      </header>
      @if (sheet.unproved) {
        <div class="caution" role="note">{{ unproved }}</div>
      }
      <hs-found-card />
      @if (store.tried()) {
        <section class="card tried" aria-label="Another order" aria-live="polite">
          <h2>Another order is tried; nothing of it is filed</h2>
          @for (b of broken(); track b) {
            <div>✕ {{ b }}</div>
          } @empty {
            <div>✓ No gate is broken: it can be done so.</div>
          }
          <div class="row">
            <button nz-button nzSize="small" nzType="primary" (click)="store.tried.set(undefined)">
              Back to the sheet’s
            </button>
            <button nz-button nzSize="small" (click)="store.report()">It was done in this order</button>
          </div>
        </section>
      }
      <div class="two" [class.large]="store.large()">
        <div
          class="steps card"
          role="listbox"
          tabindex="0"
          aria-label="Steps"
          data-letters
          [attr.aria-activedescendant]="store.step() ? 'step-' + store.step()!.number : null"
          (keydown)="walk($event)"
        >
          @for (p of phases(); track p.phase) {
            <div class="phase" role="presentation">{{ p.words }}</div>
            @for (s of p.steps; track s.id) {
              <div
                role="option"
                tabindex="-1"
                [id]="'step-' + s.number"
                [attr.aria-selected]="s.id === store.step()?.id"
                [class.faulty]="store.faulty().has(s.id)"
                (click)="store.pick(s.id)"
                (keydown.enter)="store.pick(s.id)"
              >
                <span class="mono">{{ s.number }}</span>
                <span class="what">{{ s.text }}</span>
                <span class="went">{{ went(s) }}</span>
              </div>
            }
          }
        </div>
        @if (store.step(); as s) {
          <hs-step-card [step]="s" [sheet]="sheet" />
        }
      </div>
      <details>
        <summary>Policy that shaped this sheet</summary>
        <ul>
          @for (r of rules(); track r) {
            <li>{{ r }}</li>
          }
        </ul>
      </details>
      <hs-return-dialog [open]="coming()" (closed)="coming.set(false)" />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: var(--gap);
      grid-template-columns: minmax(0, 1fr);
    }
    header h2,
    p {
      margin: 0;
    }
    header h2 {
      flex: 1 1 200px;
      min-width: 0;
    }
    header span {
      white-space: nowrap;
    }
    .two {
      display: grid;
      grid-template-columns: minmax(190px, 2fr) minmax(0, 5fr);
      gap: var(--gap);
      align-items: start;
    }
    .large {
      grid-template-columns: minmax(0, 1fr);
    }
    .large .steps {
      height: calc(var(--target) + 8px);
      max-height: none;
    }
    .large .phase {
      display: none;
    }
    .steps {
      max-height: max(420px, calc(100vh - 282px));
      overflow-y: auto;
      padding: 4px 0;
      scrollbar-gutter: stable;
    }
    .steps:focus-visible {
      outline: 2px solid var(--verdigris);
    }
    .phase {
      position: sticky;
      top: -4px;
      background: var(--paper-3);
      padding: 2px 10px;
      font-weight: 600;
    }
    [role='option'] {
      display: grid;
      grid-template-columns: 24px minmax(0, 1fr) auto;
      gap: 6px;
      padding: 3px 10px;
      min-height: var(--target);
      align-items: center;
      cursor: pointer;
      border-left: 4px solid transparent;
    }
    .what {
      display: -webkit-box;
      -webkit-box-orient: vertical;
      -webkit-line-clamp: 1;
      overflow: hidden;
      line-height: 1.25;
    }
    kbd {
      margin-left: 4px;
    }
    [aria-selected='true'] {
      background: var(--verdigris-soft);
      border-left-color: var(--verdigris);
    }
    [aria-selected='true'] .what {
      font-weight: 600;
    }
    .faulty .went {
      color: var(--brass-ink);
      font-weight: 600;
    }
    .tried {
      display: grid;
      gap: 4px;
      border-left: 4px solid var(--brass);
    }
    ul {
      margin: 4px 0 0;
      padding-left: 18px;
    }
    @media (max-width: 1080px) {
      .two {
        grid-template-columns: minmax(0, 1fr);
      }
      .steps {
        max-height: 240px;
      }
    }
  `,
})
export class SheetPanel {
  protected readonly store = inject(FitStore);
  protected readonly sheets = inject(Sheets);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  protected readonly coming = signal(false);
  /** By phase; an order that is tried has none. */
  protected readonly phases = computed(() => {
    const tried = this.store.tried();
    const all = this.store.sheet()?.steps ?? [];
    if (tried) {
      const steps = tried.flatMap((id) => all.find((s) => s.id === id) ?? []);
      return [{ phase: 'tried' as const, words: 'Order tried', steps }];
    }
    return STEP_PHASES.map((phase) => ({
      phase,
      words: PHASE_WORDS[phase],
      steps: all.filter((s) => s.phase === phase),
    })).filter((p) => p.steps.length > 0);
  });
  protected readonly broken = computed(() => {
    const sheet = this.store.sheet();
    return sheet ? this.store.wouldBreak().map((b) => brokenWords(b, sheet)) : [];
  });
  protected readonly rules = computed(() => {
    const [sheet, a] = [this.store.sheet(), this.store.answers()];
    return sheet && a ? rulesOn(sheet, a.policy) : [];
  });
  protected readonly percent = percent;
  protected readonly unproved = UNPROVED_WORDS;

  protected went(s: SheetStep): string {
    const said = this.store.said(s.id);
    return said === undefined ? '' : SAID_WORDS[said];
  }

  protected walk(e: KeyboardEvent): void {
    const shift = e.altKey ? { ArrowDown: 1 as const, ArrowUp: -1 as const }[e.key] : undefined;
    if (shift !== undefined) {
      this.store.shift(shift);
      e.preventDefault();
      this.reveal();
      return;
    }
    if (e.ctrlKey || e.altKey || e.metaKey) return;
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8, Home: -999, End: 999 }[e.key];
    const went = LETTERS[e.key];
    const step = this.store.step();
    if (by !== undefined) this.store.walk(by);
    else if (went && step) void this.store.tell(step, went).then(() => went === 'done' && this.store.walk(1));
    else return;
    e.preventDefault();
    this.reveal();
  }

  /** Keys of the sheet, wherever the focus is but in a field. */
  protected key(e: KeyboardEvent): void {
    // The switch of the page's parts keeps the focus when it was pressed: these keys are the page's all the same.
    const page = this.host.nativeElement.closest<HTMLElement>('hs-fit-page') ?? undefined;
    if (!isFreeKey(e, page) || this.coming() || isBox(e.target)) return;
    if (e.key === 'p') void this.sheets.pdf();
    else if (e.key === 'w') void this.sheets.page();
    else if (e.key === 'r') this.coming.set(true);
    else if (e.key === 'l') this.turnLarge();
    else return;
    e.preventDefault();
  }

  /** The drawing gets the room of the steps, or gives it back; the step in hand stays in sight. */
  protected turnLarge(): void {
    this.store.large.update((l) => !l);
    this.reveal();
  }

  private reveal(): void {
    afterNextRender(
      () => {
        const at = this.host.nativeElement.querySelector(`#step-${this.store.step()?.number ?? 0}`);
        at?.scrollIntoView({ block: 'nearest' });
      },
      { injector: this.injector },
    );
  }
}
