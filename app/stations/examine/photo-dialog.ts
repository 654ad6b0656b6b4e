import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { measureOnPhoto, type Spot } from '@core/bench/photo';
import type { FileRef } from '@core/facts/fact';
import type { Observable } from '@core/facts/observable';
import { factsOf } from '@core/facts/read';
import { RULES } from '@core/house/rules';
import { readNumber } from '@core/quantity/parse-quantity';
import { Attachments } from '../../acts/attachments';
import { Say } from '../../acts/say';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import type { Session } from '../../entry/session';
import { Modal } from '../../ui/modal';
import { Segmented } from '../../ui/segmented';
import {
  MARKS,
  nextSpot,
  type Overlay,
  overlayLines,
  readOverlay,
  scaleOf,
  wantedFor,
} from './photo-overlay';
import { PhotoPicture } from './photo-picture';

const OVERLAY = 'photo.overlay';
const ZOOMS = [1, 2, 4] as const;
const SCALES = [
  { value: 'ruler' as const, label: 'A ruler in it' },
  { value: 'rectangle' as const, label: 'A rectangle in it' },
];
const TROUBLE = {
  too_few_spots: '',
  no_scale: 'Both marks are one spot, or their distance is nothing.',
  flat_rectangle: 'The corners do not go around a rectangle. Take them back and go around it in order.',
  behind: 'A spot lies beyond the horizon of the rectangle’s plane.',
};

/** Measuring on a photograph: a scale is picked in it, then the spots; the original stays as it is. */
@Component({
  selector: 'hs-photo-dialog',
  imports: [Modal, PhotoPicture, Segmented, NzButtonComponent, NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal
      [open]="true"
      [title]="observable().wording + ' on ' + file().name"
      [width]="900"
      (closed)="closed.emit()"
    >
      @if (trouble(); as t) {
        <p class="caution">{{ t }}</p>
      } @else if (size(); as s) {
        <div class="row">
          <hs-segmented
            label="Scale"
            [options]="scales"
            [value]="overlay().scale"
            (picked)="change({ scale: $event, marks: [], spots: [] })"
          />
          @for (side of sides(); track side; let i = $index) {
            <label
              >{{ side }}
              <input nz-input #box inputmode="decimal" [value]="typed()[i]" (input)="type(i, box.value)" />
              ± {{ overlay().sideU }} mm</label
            >
          }
          <button nz-button nzSize="small" [disabled]="!picked()" (click)="back()">Take a spot back</button>
          @for (z of zooms; track z) {
            <button nz-button nzSize="small" [attr.aria-pressed]="zoom() === z" (click)="zoom.set(z)">
              {{ z }}×
            </button>
          }
        </div>
        <p class="quiet" aria-live="polite">
          {{ next() ? next() + ': press it, or walk with the arrows and Enter.' : 'All spots are set.' }}
        </p>
        <hs-photo-picture
          [url]="url()"
          [size]="s"
          [name]="file().name"
          [next]="next()"
          [overlay]="overlay()"
          [zoom]="zoom()"
          (spot)="set($event)"
          (back)="back()"
          (shown)="shown.set($event)"
        />
        <div class="row">
          <b aria-live="polite">{{ words() }}</b>
          <button nz-button nzType="primary" [disabled]="!result()?.ok" (click)="keep()">File it</button>
        </div>
      } @else {
        <p class="quiet">Reads the picture …</p>
      }
    </hs-modal>
  `,
  styles: `
    label input {
      width: 80px;
    }
    p {
      margin: 4px 0;
    }
  `,
})
export class PhotoDialog {
  readonly session = input.required<Session>();
  readonly observable = input.required<Observable>();
  readonly about = input<string>();
  /** Thing that the photograph is of. */
  readonly thing = input.required<string>();
  readonly file = input.required<FileRef>();
  readonly closed = output();
  private readonly desk = inject(CaseDesk);
  private readonly attachments = inject(Attachments);
  private readonly say = inject(Say);
  protected readonly scales = SCALES;
  protected readonly zooms = ZOOMS;
  protected readonly zoom = signal<number>(1);
  protected readonly url = signal('');
  protected readonly size = signal<{ width: number; height: number } | undefined>(undefined);
  protected readonly trouble = signal('');
  /** Width of the picture on the screen, pixels. */
  protected readonly shown = signal(0);
  protected readonly overlay = signal<Overlay>({
    hash: '',
    key: '',
    scale: 'ruler',
    sides: [100],
    sideU: RULES.scaleSideU,
    marks: [],
    spots: [],
  });
  protected readonly typed = signal<readonly string[]>(['100', '54']);
  protected readonly sides = computed(() =>
    this.overlay().scale === 'ruler' ? ['Between the marks'] : ['Width', 'Height'],
  );
  protected readonly what = computed(() => {
    const t = this.observable().type;
    return t.kind === 'number' && t.dimension === 'angle' ? ('angle' as const) : ('length' as const);
  });
  protected readonly next = computed(() => nextSpot(this.overlay(), this.what()));
  protected readonly picked = computed(() => this.overlay().marks.length + this.overlay().spots.length > 0);
  private readonly rules = computed(() => this.desk.current()?.answers?.rules ?? RULES);
  /** Standard uncertainty of a press: so many pixels of the screen, as pixels of the picture as it is shown. */
  private readonly pickPx = computed(() => {
    const onScreen = this.rules().pickScreenPx;
    return this.shown() > 0 ? (onScreen * (this.size()?.width ?? 0)) / this.shown() : onScreen;
  });
  protected readonly result = computed(() => {
    const o = this.overlay();
    const scale = scaleOf(o);
    if (!scale || o.spots.length < wantedFor(this.what())) return undefined;
    return measureOnPhoto(scale, { what: this.what(), spots: o.spots }, this.pickPx());
  });
  protected readonly words = computed(() => {
    const r = this.result();
    if (!r) return '';
    return r.ok ? this.session().show(this.observable(), r.value.value, r.value.u) : TROUBLE[r.error.code];
  });

  constructor() {
    effect((cleanup) => {
      const [file, key] = [this.file(), this.observable().key];
      let url = '';
      let ended = false;
      void this.attachments.blobOf(file).then(async (blob) => {
        if (ended) return;
        if (!blob) return this.trouble.set(`${file.name} is not in this browser; a bundle brings it along.`);
        const bitmap = await createImageBitmap(blob).catch(() => undefined);
        if (!bitmap)
          return this.trouble.set(
            `${file.name} is no picture that can be read. Take it again, or send it as PNG.`,
          );
        this.size.set({ width: bitmap.width, height: bitmap.height });
        bitmap.close();
        url = URL.createObjectURL(blob);
        this.url.set(url);
        const state = this.session().state();
        const filed = state ? factsOf(state, OVERLAY, this.thing()) : [];
        const before = filed
          .map((f) => readOverlay(f.value))
          .filter((o) => o?.hash === file.hash && o.key === key)
          .at(-1);
        const fresh = { hash: file.hash, key, sideU: this.rules().scaleSideU, marks: [], spots: [] };
        this.overlay.update((o) => before ?? { ...o, ...fresh });
        if (before) this.typed.set(before.sides.map(String));
      });
      cleanup(() => {
        ended = true;
        if (url) URL.revokeObjectURL(url);
      });
    });
  }

  protected change(part: Partial<Overlay>): void {
    this.overlay.update((o) => ({ ...o, ...part }));
    this.readSides();
  }

  protected type(i: number, text: string): void {
    this.typed.update((t) => [0, 1].map((k) => (k === i ? text : (t[k] ?? ''))));
    this.readSides();
  }

  private readSides(): void {
    const sides = this.typed()
      .slice(0, this.overlay().scale === 'ruler' ? 1 : 2)
      .map((t) => readNumber(t) ?? 0);
    this.overlay.update((o) => ({ ...o, sides: sides.every((s) => s > 0) ? sides : [] }));
  }

  protected set(spot: Spot): void {
    const o = this.overlay();
    if (o.marks.length < MARKS[o.scale]) this.change({ marks: [...o.marks, spot] });
    else if (o.spots.length < wantedFor(this.what())) this.change({ spots: [...o.spots, spot] });
  }

  protected back(): void {
    const o = this.overlay();
    if (o.spots.length > 0) this.change({ spots: o.spots.slice(0, -1) });
    else this.change({ marks: o.marks.slice(0, -1) });
  }

  protected async keep(): Promise<void> {
    const r = this.result();
    if (!r?.ok) return;
    const files = [this.file()];
    const filed = await this.desk.fileAll([
      {
        key: this.observable().key,
        about: this.about(),
        value: r.value.value,
        u: r.value.u,
        how: 'measured',
        files,
      },
      { key: OVERLAY, about: this.thing(), value: overlayLines(this.overlay()), how: 'measured', files },
    ]);
    if (filed.ok) this.closed.emit();
    else this.say.refuse(troubleSentence(filed.error));
  }
}
