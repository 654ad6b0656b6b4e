import { nth } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { valueOf } from '@core/facts/read';
import { wheelThing } from '@core/facts/thing';
import { freeSeats, isMarked, judgeMarks } from '@core/drive/judge-marks';
import { realignTurns } from '@core/drive/phase';
import { CaseDesk } from '../../data/case-desk';
import { DialField } from '../../ui/dial-field';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import {
  freeSeatWords,
  goWords,
  offsetWords,
  patternWords,
  signed,
  offsetVerdictWords,
} from '../../messages/drive-results';
import { DriveStore } from '../drive-store';

/** What the marks of a correctly fitted belt show, what was seen, and go or no go. */
@Component({
  selector: 'hs-marks-panel',
  imports: [NzButtonComponent, DialField, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (together(); as t) {
      <p class="go">
        <b>{{ t.go }}.</b> {{ t.words }} {{ t.free }}
      </p>
      @if (t.key === 'no_go' || t.key === 'wait') {
        <p class="caution">
          Do not start it. Never turn one shaft alone with the drive off; take all off and begin again at the
          locking step.
        </p>
      }
      @if (store.inCase() && !t.filed) {
        <button nz-button nzType="primary" (click)="file()">File this</button>
      } @else if (t.filed) {
        <p class="quiet">◆ filed as a fact of this case.</p>
      }
    }
    <p class="quiet">
      Crank mark in line. A {{ kind() }} seats only in whole {{ unit() }}; what does not come out whole shows
      at the marks.
    </p>
    @for (r of rows(); track r.id) {
      <div class="one">
        <b>{{ r.name }}</b>
        <div>
          A correct fitting shows it <b>{{ r.predicted }}</b
          >. {{ r.between }} {{ unit() }} lie between the marks on the {{ r.route }} side.
        </div>
        @if (store.inCase()) {
          <hs-field [session]="session" key="mark" [about]="r.about" (misread)="broken(r.id, $event)" />
        } @else {
          <hs-dial-field
            label="Stands off by"
            unit="teeth"
            [min]="-3"
            [max]="3"
            [step]="0.05"
            [value]="r.seen"
            (turned)="tryOffset(r.id, $event)"
            (misread)="broken(r.id, $event)"
          />
        }
        @if (r.verdict && !misread().has(r.id)) {
          <div class="verdict">{{ r.verdict }}</div>
        }
        <div class="row">
          <button nz-button (click)="jump(r.id, -1)">One tooth back</button>
          <button nz-button (click)="jump(r.id, 1)">One tooth ahead</button>
          <span>{{ r.jumped }}</span>
        </div>
      </div>
    } @empty {
      <p class="quiet">No wheel of this stage has a mark.</p>
    }
    <p class="quiet">{{ realign() }}</p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      align-content: start;
      grid-template-columns: minmax(0, 1fr);
    }
    .one {
      border-bottom: 1px solid var(--rule);
      padding-bottom: 6px;
      display: grid;
      gap: 3px;
    }
    .verdict {
      font-weight: 600;
    }
  `,
})
export class MarksPanel {
  protected readonly session = inject(DeskSession);
  protected readonly store = inject(DriveStore);
  private readonly desk = inject(CaseDesk);
  protected readonly kind = computed(() => this.store.layout()?.kind ?? 'drive');
  protected readonly unit = computed(() => (this.store.layout()?.kind === 'chain' ? 'links' : 'teeth'));
  /** Predictions hold for the drive as made: that is what a fitter has before him. */
  private readonly phases = computed(() => {
    const made = this.store.made();
    if (!made?.ok) return [];
    return [...made.value.phases].sort((a, b) => b.wheel - a.wheel);
  });
  private readonly judged = computed(() => {
    const layout = this.store.layout();
    if (!layout) return undefined;
    const seen = [...this.store.seen()].map(
      ([id, s]) => [layout.wheels.findIndex((w) => w.id === id), s] as const,
    );
    const here = judgeMarks(layout, this.phases(), new Map(seen));
    // In a case the drive's other stages have a say too: it is go when every mark of all of them stands right.
    const all = this.store.inCase() ? this.desk.current()?.answers?.drive?.marks : undefined;
    return {
      ...here,
      go: all?.go ?? here.go,
      of: all?.of ?? here.of,
      seen: all?.marks.length ?? here.marks.length,
    };
  });
  protected readonly rows = computed(() => {
    const layout = this.store.layout();
    if (!layout) return [];
    return this.phases()
      .filter((p) => isMarked(nth(layout.wheels, p.wheel)))
      .map((p) => {
        const w = nth(layout.wheels, p.wheel);
        const v = this.judged()?.marks.find((j) => j.wheel === p.wheel)?.verdict;
        const jumped = own(this.store.what().jumped, w.id) ?? 0;
        return {
          id: w.id,
          about: wheelThing(w.id),
          name: w.name,
          predicted: `${offsetWords(p)}${p.alternative === undefined ? '' : `, or as well ${signed(p.alternative)} teeth`}`,
          between: Math.abs(p.seat.between),
          route: p.route,
          seen: this.store.seen().get(w.id)?.teeth,
          verdict: v ? offsetVerdictWords(v) : '',
          jumped: jumped === 0 ? '' : `drawn ${signed(jumped, 0)}`,
        };
      });
  });
  protected readonly together = computed(() => {
    const layout = this.store.layout();
    const judged = this.judged();
    if (!layout || !judged || judged.marks.length === 0) return undefined;
    const key = judged.go;
    const state = this.store.inCase() ? this.desk.current()?.state : undefined;
    const filed = state !== undefined && valueOf(state, 'drive.go') === key;
    return {
      key,
      filed,
      go: goWords(key, judged.seen, judged.of),
      free: key === 'go' ? freeSeatWords(freeSeats(layout)) : '',
      words: patternWords(layout, judged.pattern),
    };
  });
  protected readonly realign = computed(() => {
    const layout = this.store.layout();
    const z = layout?.wheels[0]?.teeth;
    if (!layout || z === undefined) return '';
    const turns = realignTurns(layout.count, z);
    return `Painted marks on this ${layout.kind} come back in line after ${turns} turns of the crank; until then only the sprockets’ own marks count. One tooth at the crank is ${(360 / z).toFixed(1)}° of the crank.`;
  });

  /** Wheels in whose box stands what cannot be read: their verdict is not shown beside it. */
  protected readonly misread = signal<ReadonlySet<string>>(new Set());
  protected broken(id: string, is: boolean): void {
    this.misread.update((s) => new Set([...s].filter((x) => x !== id).concat(is ? [id] : [])));
  }

  protected tryOffset(id: string, teeth: number): void {
    this.store.tried.update((t) => ({ ...t, [id]: teeth }));
  }

  protected jump(id: string, by: number): void {
    const jumped = this.store.what().jumped;
    this.store.set({ jumped: { ...jumped, [id]: (own(jumped, id) ?? 0) + by } });
  }

  protected file(): void {
    const t = this.together();
    const basis = [...this.store.seen().values()].flatMap((seen) => (seen.fact ? [seen.fact] : []));
    if (t)
      void this.desk.file({
        key: 'drive.go',
        value: t.key,
        how: 'computed',
        basis,
        note: `${t.go}. ${t.words}`,
      });
  }
}
