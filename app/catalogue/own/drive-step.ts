import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { LoopReason } from '@core/drive/check-loop';
import { USUAL } from '@core/drive/usual';
import { readNumber } from '@core/quantity/parse-quantity';
import { OwnPictures } from '../../commands/own-pictures';
import { SENSE_CHOICES } from '../../messages/drive';
import {
  photoDoubtWords,
  loopWords,
  nextOnDrive,
  photoFaultWords,
  reasonSentence,
  seesWords,
} from '../../messages/own-engine';
import { FileButton } from '../../ui/file-button';
import { Segmented } from '../../ui/segmented';
import { ShortField } from '../../ui/short-field';
import { DrivePhotoPicture } from './drive-photo-picture';
import { OwnStore } from './own-store';
import { WheelList } from './wheel-list';

const ZOOMS = [1, 2, 4] as const;

/** The drive drawn up from a photograph: scale, wheels in the belt's order, and whether the belt lies on them. */
@Component({
  selector: 'hs-drive-step',
  imports: [DrivePhotoPicture, FileButton, NzButtonComponent, RouterLink, Segmented, ShortField, WheelList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drive-step.html',
  styleUrl: './drive-step.less',
})
export class DriveStep {
  protected readonly store = inject(OwnStore);
  private readonly pictures = inject(OwnPictures);
  protected readonly zooms = ZOOMS;
  protected readonly zoom = signal<number>(1);
  protected readonly picture = signal<{ url: string; width: number; height: number } | undefined>(undefined);
  protected readonly busy = signal(false);
  protected readonly trouble = signal('');
  protected readonly kinds = [
    { value: 'belt', label: 'belt' },
    { value: 'chain', label: 'chain' },
  ] as const;
  protected readonly senses = SENSE_CHOICES;
  protected readonly scales = [
    { value: 'ruler', label: 'a ruler' },
    { value: 'rectangle', label: 'a rectangle' },
  ] as const;
  protected readonly next = computed(() => nextOnDrive(this.store.photo(), this.store.picking()));
  protected readonly measured = computed(() => {
    const m = this.store.measured();
    return m?.ok ? m.value : undefined;
  });
  /** What stands in the way of a measured drive, or whether the loop closes. */
  protected readonly said = computed(() => {
    const m = this.store.measured();
    if (!m) return '';
    if (!m.ok) return photoFaultWords(this.store.photo(), m.error);
    const loop = this.store.loop();
    return loop ? loopWords(m.value.layout, loop) : '';
  });
  protected readonly unsure = computed(() => {
    const [m, loop] = [this.measured(), this.store.loop()];
    return m && loop ? seesWords(m.layout, loop.u) : '';
  });
  protected readonly doubts = computed(() =>
    (this.measured()?.doubts ?? []).map((d) => photoDoubtWords(this.store.photo(), d)),
  );
  protected readonly reasons = computed(() => {
    const [m, loop] = [this.measured(), this.store.loop()];
    return m && loop
      ? loop.reasons.slice(0, 4).map((reason) => ({ reason, words: reasonSentence(m.layout, reason) }))
      : [];
  });

  constructor() {
    effect((cleanup) => {
      const file = this.store.file();
      let ended = false;
      this.trouble.set('');
      if (!file) this.picture.set(undefined);
      else
        void this.pictures.shown(file).then((p) => {
          if (ended) return;
          if ('trouble' in p) this.trouble.set(p.trouble);
          else this.picture.set({ url: URL.createObjectURL(p.shown), width: p.width, height: p.height });
        });
      cleanup(() => {
        ended = true;
        const before = this.picture();
        if (before) URL.revokeObjectURL(before.url);
      });
    });
  }

  protected async picked([file]: readonly File[]): Promise<void> {
    if (!file) return;
    this.busy.set(true);
    const kept = await this.pictures.keep(file);
    this.busy.set(false);
    if ('trouble' in kept) this.trouble.set(kept.trouble);
    else this.store.show(kept.ref);
  }

  /** The photograph of an invented drive, to try it on; what one reads off the engine is filled in, nothing is picked. */
  protected async example(): Promise<void> {
    this.busy.set(true);
    const made = await this.pictures.example();
    this.busy.set(false);
    if ('trouble' in made) return this.trouble.set(made.trouble);
    const { photo, form, ref } = made;
    const wheels = photo.wheels.map((w) => ({
      ...w,
      spots: [],
      ...(w.eccentric ? { eccentric: { ...w.eccentric, pivot: undefined } } : {}),
    }));
    // What was typed already is nobody's to overwrite.
    const typed = this.store.untouched() ? { form } : {};
    this.store.take({ ...typed, photo: { ...photo, marks: [], wheels }, file: ref });
  }

  /** A press is as sure as the picture is large on the screen. */
  protected shown(scale: number): void {
    if (scale > 0) this.store.scale.set(scale);
  }

  protected kind(kind: 'belt' | 'chain'): void {
    this.store.draw({ kind, ...USUAL.thickness[kind] });
  }

  protected number(field: 'count' | 'pitchMm' | 'backMm' | 'toothMm', text: string): void {
    const v = readNumber(text);
    const least = field === 'backMm' || field === 'toothMm' ? 0 : 1e-9;
    const fits = v !== undefined && v >= least && (field !== 'count' || Number.isInteger(v));
    if (fits) this.store.draw({ [field]: v });
    else if (field === 'count' || field === 'pitchMm') this.store.draw({ [field]: undefined });
  }

  protected side(i: number, text: string): void {
    const v = readNumber(text);
    if (v === undefined || !(v > 0)) return;
    const sides = [...this.store.photo().sides];
    sides[i] = v;
    this.store.draw({ sides: sides.length === 2 && sides[0] === undefined ? [v, v] : sides });
  }

  protected scale(scale: 'ruler' | 'rectangle'): void {
    this.store.draw({ scale, marks: [] });
    this.store.picking.set({ what: 'scale' });
  }

  protected apply(r: LoopReason): void {
    this.store.apply(r);
  }
}
