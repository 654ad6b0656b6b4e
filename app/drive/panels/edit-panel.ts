import { must, nth } from '@core/quantity/must';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { NzTableModule } from 'ng-zorro-antd/table';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { type Distance, fitCentres } from '@core/drive/fit-centres';
import { type Layout, nominalLength, tensionerIndex, type Wheel } from '@core/drive/layout';
import { USUAL } from '@core/drive/usual';
import { driveState, AS_MADE } from '@core/drive/what-if';
import { readNumber } from '@core/quantity/parse-quantity';
import { Pick } from '../../ui/pick';
import { Segmented } from '../../ui/segmented';
import { ShortField } from '../../ui/short-field';
import { SENSE_CHOICES, settingsSentence } from '../../messages/drive';
import { centresSentence, disagreeWords } from '../../messages/drive-results';
import { DriveStore } from '../drive-store';
import { carriedBy, newDrive, newWheel, WHEEL_ROLES, withWheelField } from '../edit-layout';

type Row = { a: number; b: number; mm: string };

const text = () => new FormControl('', { nonNullable: true });
const eccentricOf = (w: Wheel | undefined) => (w?.carrier?.kind === 'eccentric' ? w.carrier : undefined);
const MARKS = [
  { key: 'from', label: 'Window, °' },
  { key: 'nominal', label: 'nominal' },
  { key: 'to', label: 'to' },
  { key: 'end', label: 'end' },
] as const;

/** Enters a drive from a workshop's figures: coordinates, or distances between centres. */
@Component({
  selector: 'hs-edit-panel',
  imports: [
    ReactiveFormsModule,
    NzTableModule,
    NzButtonComponent,
    NzInputDirective,
    Pick,
    Segmented,
    ShortField,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './edit-panel.html',
  styleUrl: './edit-panel.less',
})
export class EditPanel {
  protected readonly store = inject(DriveStore);
  protected readonly draft = signal<Layout | undefined>(undefined);
  protected readonly layout = computed(() => this.draft() ?? this.store.layout());
  /** Wheel whose details are open. */
  protected readonly at = signal(0);
  protected readonly roles = WHEEL_ROLES.map((key) => ({ key, wording: key }));
  protected readonly kinds = [
    { value: 'belt', label: 'belt' },
    { value: 'chain', label: 'chain' },
  ] as const;
  protected readonly senses = SENSE_CHOICES;
  protected readonly sides = [
    { key: 'inside', wording: 'inside' },
    { key: 'back', wording: 'back' },
  ];
  protected readonly wheelNames = computed(() =>
    (this.layout()?.wheels ?? []).map((w) => ({ key: w.id, wording: w.name })),
  );
  protected readonly wheel = computed(() => this.layout()?.wheels[this.at()] ?? this.layout()?.wheels[0]);
  /** Pivot and marks of a tensioner to be: as the open wheel has them, else what is usual beside it. */
  protected readonly carrier = new FormGroup({
    x: text(),
    y: text(),
    from: text(),
    nominal: text(),
    to: text(),
    end: text(),
  });
  protected readonly marks = MARKS;
  protected readonly turn = linkedSignal(() => eccentricOf(this.wheel())?.turn ?? 'cw');
  protected readonly rows = signal<Row[]>([]);
  protected readonly spread = signal('0.5');
  protected readonly wrong = signal('');
  protected readonly fitted = signal<string[]>([]);
  protected readonly said = computed(() => {
    const layout = this.layout();
    if (!layout) return '';
    const s = driveState(layout, AS_MADE);
    if (!s.ok) return `▲ ${settingsSentence(layout, s.error)}`;
    const off = s.value.path.lengthMm - nominalLength(layout);
    return tensionerIndex(layout) >= 0
      ? '✓ This drive can exist; its tensioner takes up the rest.'
      : `✓ This drive can exist; its path is ${Math.abs(off).toFixed(2)} mm ${off >= 0 ? 'longer' : 'shorter'} than ${layout.count} × ${layout.pitchMm} mm.`;
  });

  constructor() {
    effect(() => {
      const w = this.wheel();
      const c = eccentricOf(w);
      this.carrier.setValue({
        x: (c?.pivot.x ?? (w?.x ?? 0) - USUAL.throwMm).toFixed(2),
        y: (c?.pivot.y ?? w?.y ?? 0).toFixed(2),
        from: String(c?.window.from ?? USUAL.marks.from),
        nominal: String(c?.window.nominal ?? USUAL.marks.nominal),
        to: String(c?.window.to ?? USUAL.marks.to),
        end: String(c?.endDeg ?? USUAL.marks.end),
      });
    });
  }

  protected indexOf(id: string): number {
    return Math.max(0, this.layout()?.wheels.findIndex((w) => w.id === id) ?? 0);
  }

  protected change(i: number, field: keyof Wheel, text: string): void {
    const layout = this.layout();
    if (!layout) return;
    const next = withWheelField(layout, i, field, text);
    if (typeof next === 'string') this.wrong.set(next);
    else this.put(next);
  }

  protected figure(field: 'count' | 'pitchMm', text: string): void {
    const v = readNumber(text);
    const layout = this.layout();
    if (!layout) return;
    if (v === undefined || !(v > 0) || (field === 'count' && !Number.isInteger(v)))
      this.wrong.set(
        field === 'count'
          ? `“${text}” is not a number of ${layout.kind === 'chain' ? 'links' : 'teeth'}: a whole number above zero.`
          : `“${text}” is not a pitch: millimetres above zero.`,
      );
    else this.put({ ...layout, [field]: v });
  }

  protected sense(runs: Layout['runs']): void {
    const layout = this.layout();
    if (layout) this.put({ ...layout, runs });
  }

  protected kind(kind: Layout['kind']): void {
    const layout = this.layout();
    if (layout) this.put({ ...layout, kind });
  }

  protected begin(): void {
    this.rows.set([]);
    this.at.set(0);
    this.put(newDrive());
  }

  /** Makes the open wheel the tensioner, on an eccentric with the figures typed. */
  protected carry(): void {
    const layout = this.layout();
    if (!layout) return;
    const typed = Object.entries(this.carrier.getRawValue());
    const bad = typed.find(([, v]) => readNumber(v) === undefined);
    if (bad) {
      this.wrong.set(`Tensioner, ${bad[0]}: “${bad[1]}” is not a number.`);
      return;
    }
    const [x = 0, y = 0, from = 0, nominal = 0, to = 0, end = 0] = typed.map(([, v]) => must(readNumber(v)));
    const turn = this.turn();
    const next = carriedBy(layout, this.at(), { pivot: { x, y }, turn, from, nominal, to, end });
    if (typeof next === 'string') this.wrong.set(next);
    else this.put(next);
  }

  protected add(): void {
    const layout = this.layout();
    if (layout) this.put(newWheel(layout));
  }

  protected remove(i: number): void {
    const layout = this.layout();
    if (layout && layout.wheels.length > 2)
      this.put({ ...layout, wheels: layout.wheels.filter((_, k) => k !== i) });
  }

  protected addDistance(): void {
    const n = this.rows().length;
    this.rows.update((r) => [
      ...r,
      { a: 0, b: Math.min(n + 1, (this.layout()?.wheels.length ?? 2) - 1), mm: '' },
    ]);
  }

  protected setDistance(i: number, part: Partial<Row>): void {
    this.rows.update((r) => r.map((x, k) => (k === i ? { ...x, ...part } : x)));
  }

  /** Places the wheels that distances name; others stay. */
  protected placeWheels(): void {
    const layout = this.layout();
    if (!layout) return;
    const u = readNumber(this.spread());
    const distances: Distance[] = [];
    for (const [i, r] of this.rows().entries()) {
      const mm = readNumber(r.mm);
      if (mm === undefined) {
        this.wrong.set(`Distance ${i + 1}: “${r.mm}” is not a number.`);
        return;
      }
      distances.push({ a: r.a, b: r.b, mm, u: u !== undefined && u > 0 ? u : 0.5 });
    }
    const used = [...new Set(distances.flatMap((d) => [d.a, d.b]))].sort((a, b) => a - b);
    const at = new Map(used.map((w, k) => [w, k]));
    const names = used.map((w) => nth(layout.wheels, w).name);
    if (used.length < 2) {
      this.wrong.set('Enter at least one distance between two wheels.');
      return;
    }
    const fit = fitCentres(
      used.map((w) => nth(layout.wheels, w)),
      distances.map((d) => ({ ...d, a: must(at.get(d.a)), b: must(at.get(d.b)) })),
    );
    if (!fit.ok) {
      this.wrong.set(centresSentence(names, fit.error));
      return;
    }
    const wheels = layout.wheels.map((w, i) => {
      const p = fit.value.points[at.get(i) ?? -1];
      if (!p) return w;
      const [dx, dy] = [p.x - w.x, p.y - w.y];
      const carrier = w.carrier && {
        ...w.carrier,
        pivot: { x: w.carrier.pivot.x + dx, y: w.carrier.pivot.y + dy },
      };
      return { ...w, x: p.x, y: p.y, ...(carrier ? { carrier } : {}) };
    });
    this.put({ ...layout, wheels });
    const named = (i: number) => {
      const d = nth(distances, i);
      return `${nth(layout.wheels, d.a).name} to ${nth(layout.wheels, d.b).name}`;
    };
    this.fitted.set([
      ...fit.value.residuals.map((r) => `${named(r.index)}: off by ${r.mm.toFixed(2)} mm`),
      ...disagreeWords(fit.value.disagree.map(named)),
    ]);
  }

  protected use(): void {
    const layout = this.layout();
    if (layout)
      this.store.take({ ...layout, id: layout.id.startsWith('own-') ? layout.id : `own-${layout.id}` });
    this.draft.set(undefined);
  }

  private put(layout: Layout): void {
    this.wrong.set('');
    this.fitted.set([]);
    this.draft.set(layout);
  }
}
