import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import type { Life, Looked } from '@core/patterns/look';
import { formatNumber } from '@core/quantity/format-quantity';
import { PopulationDesk } from '../data/population';
import { causeWords } from '../messages/ledger';
import { intervalWords, lifeWords } from '../messages/patterns';
import { Pick } from '../ui/pick';
import { Segmented } from '../ui/segmented';
import { StateCard } from '../ui/state';
import { ChartBox } from './chart-box';
import { paperOption } from './chart-options';

/** The life of a kit, or of a lot that stands out: on probability paper, with what was fitted and how sure it is. */
@Component({
  selector: 'hs-life-panel',
  imports: [ChartBox, Pick, Segmented, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Life">
      @if (options().length) {
        <hs-pick label="Of" [options]="options()" [value]="chosen()" (picked)="chosen.set($event)" />
      } @else {
        <hs-state kind="empty" title="It is not known how many were sold.">
          <p>Bring that table in under “Sold”: what did not come back is part of a life.</p>
        </hs-state>
      }
      @if (life(); as l) {
        @for (w of words(); track w) {
          <p>{{ w }}</p>
        }
        @if (l.fit) {
          <hs-segmented label="Points by" [options]="ways" [value]="by()" (picked)="by.set($event)" />
          <hs-chart-box
            label="Failures on probability paper with the fitted life"
            note="A straight line is one life; a point for each month."
            [option]="option()"
            name="life"
            [table]="table()"
          />
          <dl class="pairs">
            @for (f of figures(); track f.name) {
              <dt>{{ f.name }}</dt>
              <dd>
                <b>{{ f.value }}</b
                >&ngsp;<small>{{ f.likelihood }} by likelihood; {{ f.wald }} by Wald</small>
              </dd>
            }
            @for (m of l.modes; track m.mode) {
              <dt>{{ cause(m.mode) || 'cause not decided' }}</dt>
              <dd>{{ m.failures }} back{{ m.fit ? ', shape ' + two(m.fit.shape) : ': too few to fit' }}</dd>
            }
          </dl>
        }
        <small class="quiet">
          {{ n(l.failures) }} came back, {{ n(l.running) }} taken as still running since they were sold and
          came off the shelf.
        </small>
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 8px;
      justify-items: stretch;
    }
    hs-pick {
      justify-self: start;
    }
    p {
      margin: 0;
    }
  `,
})
export class LifePanel {
  readonly looked = input.required<Looked>();
  private readonly desk = inject(PopulationDesk);
  protected readonly options = computed(() => {
    const l = this.looked();
    const lots = l.signals.flatMap((s) =>
      s.kind === 'lot'
        ? [{ key: `${s.row.kit}\t${s.row.lot}`, wording: `${s.row.kit}, lot ${s.row.lot}` }]
        : [],
    );
    return [...lots, ...l.kits.map((k) => ({ key: k.kit, wording: k.kit }))];
  });
  protected readonly chosen = linkedSignal(() => this.options()[0]?.key ?? '');
  protected readonly life = signal<Life | undefined>(undefined);
  protected readonly words = computed(() => {
    const l = this.life();
    return l ? lifeWords(l) : [];
  });
  protected readonly option = computed(() => paperOption(this.life() ?? NOTHING, this.points()));
  protected readonly figures = computed(() => {
    const f = this.life()?.figures;
    if (!f) return [];
    return (
      [
        ['Shape', f.shape, ''],
        ['Characteristic life', f.scale, ' months'],
        ['A tenth by', f.b10, ' months'],
      ] as const
    ).map(([name, x, unit]) => ({
      name,
      value: `${formatNumber(x.value, 2)}${unit}`,
      likelihood: intervalWords(x.likelihood),
      wald: intervalWords(x.wald),
    }));
  });
  protected readonly ways = [
    { value: 'ranks', label: 'median ranks' },
    { value: 'survived', label: 'Kaplan–Meier' },
  ] as const;
  /** How the points are placed. */
  protected readonly by = signal<'ranks' | 'survived'>('ranks');
  private readonly points = computed(() => this.life()?.[this.by()] ?? []);
  protected readonly cause = causeWords;
  protected readonly table = computed(() => [
    ['months', 'share', 'from', 'to'],
    ...this.points().map((p) => [p.time, ...[p.share, p.from, p.to].map((s) => Number(s.toFixed(6)))]),
  ]);
  protected readonly n = (v: number): string => formatNumber(v, 0);
  protected readonly two = (v: number): string => formatNumber(v, 2);

  constructor() {
    effect(() => {
      const [kit, lot] = this.chosen().split('\t');
      untracked(() => {
        if (kit) void this.desk.life(kit, lot).then((l) => this.life.set(l));
        else this.life.set(undefined);
      });
    });
  }
}
const NOTHING: Life = {
  failures: 0,
  running: 0,
  fit: undefined,
  refused: undefined,
  figures: undefined,
  ranks: [],
  survived: [],
  modes: [],
  two: undefined,
};
