import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  Injector,
  input,
  output,
  signal,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { nextPlace } from '@core/examination/examination';
import type { FileRef } from '@core/facts/fact';
import { factsOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import type { LimitedInspection, ExaminedThing } from '@core/answer/examined';
import { Field } from '../../entry/field';
import { BenchLook } from '../../entry/look';
import { focusNextLacking } from '../../entry/next-field';
import { PlacedField } from '../../entry/placed-field';
import type { Session } from '../../entry/session';
import { tilePicture } from '../../part-drawings/tile-picture';
import { list } from '../../language/list';
import { ExamineStore } from './examine-store';
import { InstrumentPanel } from './instrument-panel';
import { PhotoDialog } from './photo-dialog';
import { onPhoto } from '@core/examination/photo-overlay';
import { PressPanel } from './press-panel';
import { SeriesPanel } from './series-panel';

/** The inspection in hand: what it is most like, or what is measured; held while another has to be made first. */
@Component({
  selector: 'hs-inspection-panel',
  imports: [
    Field,
    BenchLook,
    PlacedField,
    InstrumentPanel,
    PhotoDialog,
    PressPanel,
    SeriesPanel,
    NzButtonComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-apart]': 'inspection().inspection.key' },
  template: `
    @let l = inspection();
    @if (l.status === 'held') {
      <div class="caution">
        First {{ first() }}: this inspection destroys what can be read there.
        <div class="row">
          @for (o of l.first; track o.key) {
            <button nz-button nzSize="small" (click)="store.go(o.key, thing().about)">{{ o.wording }}</button>
          }
          <button nz-button nzSize="small" (click)="store.passAllOver(l.first)">
            It can no longer be read
          </button>
        </div>
      </div>
      <b>{{ l.observable.wording }}</b>
    } @else {
      @for (k of [l.inspection.key]; track k + (thing().about ?? '')) {
        @if (apart()) {
          <hs-look [session]="session()" [observable]="l.observable" [about]="thing().about" [known]="true" />
        }
        @if (unseen() && apart()) {
          <b>{{ l.observable.wording }}</b>
        } @else if (l.observable.type.kind === 'series') {
          <hs-series-panel [session]="session()" [observable]="l.observable" [about]="thing().about" />
        } @else if (l.observable.place) {
          <hs-placed-field [session]="session()" [key]="k" [about]="thing().about" [named]="true" />
        } @else {
          <hs-field
            [session]="session()"
            [key]="k"
            [about]="thing().about"
            [named]="true"
            [drawn]="picture"
          />
        }
      }
      @if (counted(); as words) {
        <p class="says">{{ words }}</p>
      }
      @if (
        l.observable.type.kind === 'number' &&
        l.observable.how === 'measured' &&
        !l.observable.place &&
        !look()
      ) {
        @for (k of [l.inspection.key]; track k + (thing().about ?? '')) {
          <hs-instrument-panel [session]="session()" [observable]="l.observable" [about]="thing().about" />
        }
      }
      @if (what(); as w) {
        <div class="row">
          @for (f of pictures(); track f.hash) {
            <button nz-button nzSize="small" (click)="photo.set(f)">
              {{ w === 'count' ? 'Count' : 'Measure' }} on {{ f.name }}
            </button>
          }
        </div>
        @if (photo(); as f) {
          <hs-photo-dialog
            [session]="session()"
            [observable]="l.observable"
            [what]="w"
            [about]="thing().about"
            [thing]="thing().about ?? thing().kind"
            [file]="f"
            (closed)="photo.set(undefined)"
          />
        }
      }
      @if (l.inspection.clock === 'slow_press' && !look()) {
        <hs-press-panel [session]="session()" [about]="thing().about" />
      }
      @if (l.observable.caution; as caution) {
        <p class="warn">▲ {{ caution }}</p>
      }
    }
    <div class="row">
      <button
        nz-button
        nzSize="small"
        [attr.aria-pressed]="l.status === 'skipped'"
        (click)="store.passOver(l)"
      >
        {{ l.status === 'skipped' ? 'Examine it after all' : 'Not examined' }}
      </button>
      @if (store.rest().length; as n) {
        <button nz-button nzSize="small" aria-keyshortcuts="*" (click)="sound()">
          {{ n === 1 ? 'Nothing found' : 'Nothing found at all ' + n }} here&nbsp;<kbd aria-hidden="true"
            >*</kbd
          >
        </button>
      }
      <span class="quiet"
        >{{ minutes() }} <kbd>Enter</kbd> leaves it open, <kbd>Shift</kbd>+<kbd>Enter</kbd> passes it
        over</span
      >
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      align-content: start;
    }
    p {
      margin: 0;
    }
    .warn {
      color: var(--brass-ink);
    }
    .says {
      font-weight: 600;
    }
  `,
})
export class InspectionPanel {
  readonly thing = input.required<ExaminedThing>();
  readonly inspection = input.required<LimitedInspection>();
  readonly session = input.required<Session>();
  /** Another inspection is gone to. */
  readonly opened = output<string>();
  protected readonly store = inject(ExamineStore);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly picture = tilePicture;
  protected readonly photo = signal<FileRef | undefined>(undefined);
  protected readonly look = computed(() =>
    this.session().toLook?.(this.inspection().observable, this.thing().about),
  );
  /** It was not looked at yet, on a return for practice. */
  protected readonly unseen = computed(() => this.look() !== undefined && this.look()?.seen === undefined);
  /** What is read at places or by a recorder has no field of its own to be looked at in. */
  protected readonly apart = computed(() => {
    const { type, place } = this.inspection().observable;
    return this.look() !== undefined && (type.kind === 'series' || place !== undefined);
  });
  protected readonly what = computed(() => onPhoto(this.inspection().observable));
  protected readonly pictures = computed(() => {
    const state = this.session().state();
    const files = state
      ? factsOf(state, THING.file, this.thing().about ?? this.thing().kind).flatMap((f) => f.files ?? [])
      : [];
    return files.filter((f) => f.type.startsWith('image/'));
  });
  protected readonly first = computed(() =>
    list(this.inspection().first.map((o) => o.wording.toLowerCase())),
  );
  protected readonly minutes = computed(() => {
    const m = this.inspection().observable.minutes ?? 0;
    return m > 0 ? `about ${m} min ·` : '';
  });
  /** A count against the new part's. */
  protected readonly counted = computed(() => {
    const { observable: o, limit } = this.inspection();
    if (o.type.kind !== 'count' || !limit) return '';
    const verdict = limit.within === undefined ? '' : limit.within ? '✓ as new. ' : '▲ Not as new. ';
    return `${verdict}${limit.part} has ${limit.nominal}.`;
  });

  /** What is left at this place is sound; then on to the next place that is not looked at: what is measured here stays open. */
  async sound(): Promise<void> {
    if (!(await this.store.restSound())) return;
    const next = nextPlace(this.store.hand()?.inspections ?? [], this.inspection().inspection.key);
    if (next) this.opened.emit(next.inspection.key);
    // The rows know what is filed once they are painted.
    else afterNextRender(() => focusNextLacking(this.host), { injector: this.injector });
  }

  constructor() {
    const { host } = this;
    // Before the tiles take Enter for going on: with Shift it passes the inspection over, and then goes on.
    const pass = (e: KeyboardEvent) => {
      if (e.key !== 'Enter' || !e.shiftKey) return;
      e.preventDefault();
      e.stopPropagation();
      void this.store.passOver(this.inspection()).then(() => focusNextLacking(host));
    };
    host.addEventListener('keydown', pass, true);
    inject(DestroyRef).onDestroy(() => host.removeEventListener('keydown', pass, true));
  }
}
