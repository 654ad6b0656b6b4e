import * as z from 'zod';
import { computed, inject, Injectable, signal } from '@angular/core';
import { catalogueOf } from '@core/catalogue/find-records';
import { EMPTY_ENGINE, type OwnEngine, OwnEngineSchema } from '@core/catalogue/own-engine';
import { OWN_STEPS, ownFaults, type OwnStep } from '@core/catalogue/own-faults';
import { headOfNext, ownRows } from '@core/catalogue/own-rows';
import type { Pack } from '@core/catalogue/pack';
import { withChanges } from '@core/catalogue/pack-changes';
import { packId } from '@core/catalogue/version';
import { USUAL } from '@core/drive/usual';
import { checkLoop, type LoopReason } from '@core/drive/check-loop';
import { measureDrive } from '@core/examination/drive-photo';
import { type DrivePhoto, DrivePhotoSchema, type PickedWheel } from '@core/examination/photo-sheet';
import type { PicturePoint } from '@core/examination/photo';
import { canonical } from '@core/facts/canonical';
import { type FileRef, FileRefSchema } from '@core/facts/fact';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { nth } from '@core/quantity/must';
import { Clock } from '../../data/clock';
import { packFile } from '../../data/corrections';
import { DeskPolicy } from '../../data/desk-policy';
import { Drafts } from '../../data/drafts';
import { OF_CATALOGUE, PackImports, parsedDraft } from '../../data/pack-imports';
import { Packs } from '../../data/packs';

const KEPT = 'own|engine';
const KeptSchema = z.strictObject({
  form: OwnEngineSchema,
  photo: DrivePhotoSchema,
  file: FileRefSchema.optional(),
});
type Kept = z.infer<typeof KeptSchema>;

const EMPTY_PHOTO: DrivePhoto = {
  kind: 'belt',
  runs: 'cw',
  ...USUAL.thickness.belt,
  scale: 'ruler',
  sides: [],
  sideU: SHIPPED_POLICY.scaleSideU,
  marks: [],
  wheels: [
    { id: 'crank', name: 'Crank sprocket', role: 'crank', side: 1, spots: [] },
    { id: 'cam', name: 'Cam sprocket', role: 'cam', side: 1, spots: [] },
  ],
  distances: [],
};
const NOTHING: Kept = { form: EMPTY_ENGINE, photo: EMPTY_PHOTO };

/** What the next press on the photograph picks: the scale, a spot of a wheel, or the bolt of its eccentric. */
export type Picking = { what: 'scale' } | { what: 'wheel' | 'pivot'; wheel: number };
const MARKS = { ruler: 2, rectangle: 4 } as const;

/** An engine that is being entered: what was typed and picked, what is computed of it, and what is still missing. */
@Injectable()
export class OwnStore {
  private readonly packs = inject(Packs);
  private readonly drafts = inject(Drafts);
  private readonly imports = inject(PackImports);
  private readonly clock = inject(Clock);
  private readonly policy = inject(DeskPolicy);
  private readonly kept = signal<Kept>(this.restored());
  private readonly past = signal<readonly Kept[]>([]);
  readonly form = computed(() => this.kept().form);
  readonly photo = computed(() => this.kept().photo);
  readonly file = computed(() => this.kept().file);
  readonly base = computed<Pack | undefined>(() => this.packs.newest()?.pack);
  readonly baseName = computed(() => {
    const base = this.base();
    return base && packId(base);
  });
  /** Standard uncertainty of a press, in pixels of the picture as it is shown. */
  readonly pickPx = computed(() => this.policy.rules().pickScreenPx / this.scale());
  /** Pixels of the screen for one of the picture. */
  readonly scale = signal(1);
  readonly picking = signal<Picking>({ what: 'scale' });
  /** The wheel whose spots are picked now. */
  readonly inHand = computed(() => {
    const p = this.picking();
    return p.what === 'scale' ? undefined : p.wheel;
  });
  /** A drive was begun: something was picked, or a picture is here. */
  readonly drawn = computed(() => this.file() !== undefined || this.photo().marks.length > 0);
  /** Before the belt's own length is believed. */
  private readonly open = computed(() =>
    this.drawn() ? measureDrive(this.photo(), this.pickPx(), 'own') : undefined,
  );
  /** Does the belt lie on the wheels, by what was picked alone? */
  readonly loop = computed(() => {
    const m = this.open();
    if (!m?.ok) return undefined;
    const { layout, lengthU = 0, wheels } = m.value;
    const rims = wheels.flatMap((w, wheel) =>
      w.rimMm === undefined || layout.wheels[wheel]?.teeth === undefined
        ? []
        : [{ wheel, mm: w.rimMm, u: w.rimU ?? 0 }],
    );
    return checkLoop(layout, lengthU, rims);
  });
  /** The drive as measured; once it closes, with the belt's length as one more measure. */
  readonly measured = computed(() => {
    const m = this.open();
    if (!m?.ok || !this.loop()?.closes) return m;
    const closed = measureDrive(this.photo(), this.pickPx(), 'own', true);
    return closed.ok ? closed : m;
  });
  /** A drive that may be filed: it closes. */
  readonly layout = computed(() => {
    const m = this.measured();
    return m?.ok && this.loop()?.closes ? m.value.layout : undefined;
  });
  readonly faults = computed(() => ownFaults(this.form(), this.base(), this.layout()));
  /** Of each step whether anything is missing; the drive may be left out. */
  readonly standing = computed(() =>
    OWN_STEPS.map((step) => ({
      step,
      faults: this.faults().filter((f) => f.step === step).length,
      done:
        step === 'drive'
          ? this.layout() !== undefined && !this.faults().some((f) => f.step === step)
          : !this.faults().some((f) => f.step === step),
    })),
  );
  /** A drive that was begun and does not close stands in the way as much as a field that is missing. */
  readonly ready = computed(
    () => this.faults().length === 0 && (!this.drawn() || this.layout() !== undefined),
  );
  readonly pack = computed<Pack | undefined>(() => {
    if (!this.ready()) return undefined;
    const [form, base] = [this.form(), this.base()];
    return withChanges(headOfNext(form, base, this.clock.today()), ownRows(form, base, this.layout()));
  });
  /** The catalogue as it would answer. */
  readonly catalogue = computed(() => {
    const pack = this.pack();
    return pack && catalogueOf(pack);
  });
  readonly mayUndo = computed(() => this.past().length > 0);

  type(part: Partial<OwnEngine>): void {
    this.keep({ ...this.kept(), form: { ...this.form(), ...part } });
  }

  draw(part: Partial<DrivePhoto>): void {
    this.past.update((p) => [...p, this.kept()].slice(-50));
    this.keep({ ...this.kept(), photo: { ...this.photo(), ...part } });
  }

  wheel(i: number, part: Partial<PickedWheel>): void {
    this.draw({ wheels: this.photo().wheels.map((w, k) => (k === i ? { ...w, ...part } : w)) });
  }

  undo(): void {
    const last = this.past().at(-1);
    if (!last) return;
    this.past.update((p) => p.slice(0, -1));
    this.keep({ ...last, form: this.form() });
  }

  /** A picture came: what was picked on another is nothing on this one. */
  show(file: FileRef): void {
    const same = this.file()?.hash === file.hash;
    const { wheels } = this.photo();
    this.keep({
      ...this.kept(),
      file,
      photo: same
        ? this.photo()
        : { ...this.photo(), marks: [], wheels: wheels.map((w) => ({ ...w, spots: [] })) },
    });
    if (!same) this.picking.set({ what: 'scale' });
  }

  take(kept: Partial<Kept>): void {
    this.past.set([]);
    this.keep({ ...this.kept(), ...kept });
    this.picking.set({ what: 'scale' });
  }

  /** The next one: nothing of this engine stays. */
  clear(): void {
    this.take({ ...NOTHING, file: undefined });
  }

  /** Nothing was typed yet. */
  readonly untouched = computed(() => canonical(this.form()) === canonical(EMPTY_ENGINE));

  /** The drive from its beginning; what was typed of the engine stays, and what was picked can be had back. */
  drawAnew(): void {
    this.past.update((p) => [...p, this.kept()].slice(-50));
    this.keep({ form: this.form(), photo: EMPTY_PHOTO });
    this.picking.set({ what: 'scale' });
  }

  /** A spot was pressed: the next mark of the scale, a spot of the wheel in hand, or its pivot. */
  spot(s: PicturePoint): void {
    const [p, photo] = [this.picking(), this.photo()];
    if (p.what === 'scale') {
      const all = MARKS[photo.scale];
      const marks = photo.marks.length < all ? [...photo.marks, s] : [s];
      this.draw({ marks });
      if (marks.length === all) this.picking.set({ what: 'wheel', wheel: 0 });
    } else if (p.what === 'wheel') {
      this.wheel(p.wheel, { spots: [...(photo.wheels[p.wheel]?.spots ?? []), s] });
    } else {
      const eccentric = photo.wheels[p.wheel]?.eccentric;
      if (eccentric) this.wheel(p.wheel, { eccentric: { ...eccentric, pivot: s } });
      this.picking.set({ what: 'wheel', wheel: p.wheel });
    }
  }

  /** Takes the last spot of what is picked now back. */
  spotBack(): void {
    const [p, photo] = [this.picking(), this.photo()];
    if (p.what === 'scale') this.draw({ marks: photo.marks.slice(0, -1) });
    else if (p.what === 'wheel')
      this.wheel(p.wheel, { spots: (photo.wheels[p.wheel]?.spots ?? []).slice(0, -1) });
    else this.picking.set({ what: 'wheel', wheel: p.wheel });
  }

  /** Makes it so that what would explain the loop holds. */
  apply(r: LoopReason): void {
    const photo = this.photo();
    switch (r.what) {
      case 'count':
        return this.draw({ count: r.count });
      case 'teeth':
        return this.wheel(r.wheel, { teeth: r.teeth });
      case 'side':
        return this.wheel(r.wheel, { side: photo.wheels[r.wheel]?.side === 1 ? -1 : 1 });
      case 'scale':
        return this.draw({ sides: photo.sides.map((s) => Math.round((100 * s) / r.factor) / 100) });
      case 'order': {
        const [a, b] = r.wheels;
        return this.move(a, b - a);
      }
    }
  }

  /** Moves a wheel along the order in which the belt meets them; the driving one stays first. */
  move(i: number, by: number): void {
    const wheels = [...this.photo().wheels];
    const to = i + by;
    if (i < 1 || to < 1 || to >= wheels.length) return;
    [wheels[i], wheels[to]] = [nth(wheels, to), nth(wheels, i)];
    this.draw({ wheels });
    this.picking.set({ what: 'wheel', wheel: to });
  }

  add(wheel: Omit<PickedWheel, 'id' | 'spots'>): void {
    const wheels = this.photo().wheels;
    let n = wheels.length + 1;
    while (wheels.some((w) => w.id === `wheel-${n}`)) n++;
    this.draw({ wheels: [...wheels, { ...wheel, id: `wheel-${n}`, spots: [] }] });
    this.picking.set({ what: 'wheel', wheel: wheels.length });
  }

  remove(i: number): void {
    const { wheels, distances } = this.photo();
    const gone = wheels[i]?.id;
    if (i === 0 || gone === undefined) return;
    this.draw({
      wheels: wheels.filter((_, k) => k !== i),
      distances: distances.filter((d) => d.a !== gone && d.b !== gone),
    });
    this.picking.set({ what: 'wheel', wheel: Math.min(i, wheels.length - 2) });
  }

  /** Has it read and checked as if it came in as a file. */
  check(): void {
    const pack = this.pack();
    if (pack) this.imports.read([packFile(pack)], true);
  }

  private keep(kept: Kept): void {
    this.kept.set(kept);
    this.drafts.keep(OF_CATALOGUE, KEPT, JSON.stringify(kept));
  }

  private restored(): Kept {
    const read = KeptSchema.safeParse(parsedDraft(inject(Drafts).read(OF_CATALOGUE, KEPT)));
    return read.success ? read.data : NOTHING;
  }
}

/** Steps in the order in which they are gone through, the check last. */
export const STEP_WORDS: Readonly<Record<OwnStep | 'check', string>> = {
  engine: 'Engine',
  designs: 'Designs',
  drive: 'Drive',
  kit: 'Kit',
  check: 'Check',
};
