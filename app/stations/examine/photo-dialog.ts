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
import { goesAround, measureOnPhoto, type PicturePoint } from '@core/examination/photo';
import type { FileRef } from '@core/facts/fact';
import type { Observable } from '@core/facts/observable';
import type { Place } from '@core/facts/place';
import { factsOf, placedOf } from '@core/facts/read';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { ok } from '@core/quantity/result';
import { readNumber } from '@core/quantity/parse-quantity';
import { Attachments } from '../../commands/attachments';
import { Pictures } from '../../commands/pictures';
import { Notices } from '../../commands/notices';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import type { Session } from '../../entry/session';
import { Modal } from '../../ui/modal';
import { nextSpot, PHOTO_TROUBLE } from '../../messages/photo';
import { Segmented } from '../../ui/segmented';
import {
  hasEnough,
  MARKS,
  type OnPhoto,
  type PhotoOverlay,
  readOverlay,
  scaleOf,
  takesMore,
} from '@core/examination/photo-overlay';
import { PhotoFlat } from './photo-flat';
import { PhotoPicture } from './photo-picture';

const OVERLAY = 'photo.overlay';
const ZOOMS = [1, 2, 4] as const;
const SCALES = [
  { value: 'ruler' as const, label: 'A ruler in it' },
  { value: 'rectangle' as const, label: 'A rectangle in it' },
];
/** Measuring on a photograph: a scale is picked in it, then the spots; the original stays as it is. */
@Component({
  selector: 'hs-photo-dialog',
  imports: [Modal, PhotoPicture, Segmented, NzButtonComponent, NzInputDirective],
  providers: [PhotoFlat],
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
          @if (what() !== 'count') {
            <hs-segmented
              label="Scale"
              [options]="scales"
              [value]="overlay().scale"
              (picked)="change({ scale: $event, marks: [], spots: [] })"
            />
          }
          @for (side of sides(); track side; let i = $index) {
            <label
              >{{ side }}
              <input nz-input #box inputmode="decimal" [value]="typed()[i]" (input)="type(i, box.value)" />
              ± {{ overlay().sideU }} mm</label
            >
          }
          <button nz-button nzSize="small" [disabled]="!picked()" (click)="back()">Take a spot back</button>
          @if (canFlatten()) {
            <button nz-button nzSize="small" [attr.aria-pressed]="view.flat() !== undefined" (click)="lay()">
              {{ view.busy() ? 'Lays it flat …' : 'Seen from above' }}
            </button>
          }
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
          [url]="view.flat()?.url ?? url()"
          [size]="view.flat() ?? s"
          [what]="what()"
          [name]="file().name"
          [next]="next()"
          [overlay]="view.shown(overlay())"
          [zoom]="zoom()"
          (spot)="set(view.original($event))"
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
  /** What is read off the picture. */
  readonly what = input.required<OnPhoto>();
  readonly about = input<string>();
  /** Thing that the photograph is of. */
  readonly thing = input.required<string>();
  readonly file = input.required<FileRef>();
  readonly closed = output();
  private readonly desk = inject(CaseDesk);
  private readonly attachments = inject(Attachments);
  private readonly pictures = inject(Pictures);
  protected readonly view = inject(PhotoFlat);
  private readonly notices = inject(Notices);
  protected readonly scales = SCALES;
  protected readonly zooms = ZOOMS;
  protected readonly zoom = signal<number>(1);
  protected readonly url = signal('');
  protected readonly size = signal<{ width: number; height: number } | undefined>(undefined);
  protected readonly trouble = signal('');
  /** Width of the picture on the screen, pixels. */
  protected readonly shown = signal(0);
  protected readonly overlay = signal<PhotoOverlay>({
    is: 'overlay',
    hash: '',
    key: '',
    scale: 'ruler',
    sides: [100],
    sideU: SHIPPED_POLICY.scaleSideU,
    marks: [],
    spots: [],
  });
  protected readonly typed = signal<readonly string[]>(['100', '54']);
  protected readonly sides = computed(
    () =>
      ({ ruler: ['Between the marks'], rectangle: ['Width', 'Height'], counted: [] as string[] })[
        this.overlay().scale
      ],
  );
  protected readonly next = computed(() => nextSpot(this.overlay(), this.what()));
  protected readonly picked = computed(() => this.overlay().marks.length + this.overlay().spots.length > 0);
  private readonly rules = computed(() => this.desk.current()?.answers?.policy ?? SHIPPED_POLICY);
  /** Standard uncertainty of a press: so many pixels of the screen, as pixels of the picture as it is shown. */
  private readonly pickPx = computed(() => {
    const onScreen = this.rules().pickScreenPx;
    const flat = this.view.flat();
    // A flat picture is as fine as the original, unless that one was too large.
    const width = flat ? flat.width / flat.sourcePx : (this.size()?.width ?? 0);
    return this.shown() > 0 ? (onScreen * width) / this.shown() : onScreen;
  });
  protected readonly canFlatten = computed(() => {
    const o = this.overlay();
    return o.scale === 'rectangle' && scaleOf(o) !== undefined && goesAround(o.marks);
  });
  protected readonly result = computed(() => {
    const [o, what] = [this.overlay(), this.what()];
    if (!hasEnough(o, what)) return undefined;
    if (what === 'count') return ok({ value: o.spots.length, u: undefined });
    const scale = scaleOf(o);
    return scale && measureOnPhoto(scale, { what, spots: o.spots }, this.pickPx());
  });
  protected readonly words = computed(() => {
    const r = this.result();
    if (!r) return '';
    return r.ok
      ? this.session().show(this.observable(), r.value.value, r.value.u)
      : PHOTO_TROUBLE[r.error.code];
  });

  constructor() {
    effect((cleanup) => {
      const [file, key] = [this.file(), this.observable().key];
      let url = '';
      let ended = false;
      void this.attachments.blobOf(file).then(async (blob) => {
        if (ended) return;
        if (!blob) return this.trouble.set(`${file.name} is not in this browser; a bundle brings it along.`);
        const looked = await this.pictures.look(blob);
        if (ended) return;
        if (!looked.ok)
          return this.trouble.set(
            `${file.name} is no picture that can be read. Take it again, or send it as PNG.`,
          );
        const { width, height, shown } = looked.value;
        this.size.set({ width, height });
        url = URL.createObjectURL(shown);
        this.url.set(url);
        const state = this.session().state();
        const filed = state ? factsOf(state, OVERLAY, this.thing()) : [];
        const before = filed
          .map((f) => readOverlay(f.value))
          .filter((o) => o?.hash === file.hash && o.key === key)
          .at(-1);
        const none = this.what() === 'count' ? { scale: 'counted' as const, sides: [] } : {};
        const fresh = { hash: file.hash, key, sideU: this.rules().scaleSideU, marks: [], spots: [], ...none };
        this.overlay.update((o) => before ?? { ...o, ...fresh });
        if (before && before.sides.length > 0) this.typed.set(before.sides.map(String));
      });
      cleanup(() => {
        ended = true;
        if (url) URL.revokeObjectURL(url);
        this.view.end();
      });
    });
  }

  protected change(part: Partial<PhotoOverlay>): void {
    if (part.marks) this.view.end();
    this.overlay.update((o) => ({ ...o, ...part }));
    this.readSides();
  }

  /** Shows the picture from above its plane, or as it was taken again. */
  protected async lay(): Promise<void> {
    if (this.view.flat()) return this.view.end();
    const [o, blob] = [this.overlay(), await this.attachments.blobOf(this.file())];
    if (blob && !(await this.view.lay(blob, o, () => this.overlay().marks === o.marks)))
      this.notices.refuse(`${this.file().name} could not be laid flat. Set its corners again.`);
  }

  protected type(i: number, text: string): void {
    this.typed.update((t) => [0, 1].map((k) => (k === i ? text : (t[k] ?? ''))));
    this.readSides();
  }

  private readSides(): void {
    const sides = this.typed()
      .slice(0, this.sides().length)
      .map((t) => readNumber(t) ?? 0);
    this.overlay.update((o) => ({ ...o, sides: sides.every((s) => s > 0) ? sides : [] }));
  }

  protected set(spot: PicturePoint): void {
    const o = this.overlay();
    if (o.marks.length < MARKS[o.scale]) this.change({ marks: [...o.marks, spot] });
    else if (takesMore(o, this.what())) this.change({ spots: [...o.spots, spot] });
  }

  protected back(): void {
    const o = this.overlay();
    if (o.spots.length > 0) this.change({ spots: o.spots.slice(0, -1) });
    else this.change({ marks: o.marks.slice(0, -1) });
  }

  /** The next piece, where pieces are measured one after the other. */
  private place(): { place: Place } | undefined {
    const [o, state] = [this.observable(), this.session().state()];
    if (o.place !== 'piece' || !state) return undefined;
    const last = Math.max(0, ...placedOf(state, o.key, this.about()).map((p) => p.place.from ?? 0));
    return { place: { on: 'piece', from: last + 1 } };
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
        ...(r.value.u === undefined ? {} : { u: r.value.u }),
        ...(this.place() ?? {}),
        how: 'measured',
        files,
      },
      { key: OVERLAY, about: this.thing(), value: this.overlay(), how: 'measured', files },
    ]);
    if (filed.ok) this.closed.emit();
    else this.notices.refuse(troubleSentence(filed.error));
  }
}
