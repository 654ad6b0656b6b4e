import { must } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { goesOnAt, recover, type Shafts, shaftsAt } from '@core/fitting/recover';
import { isFree } from '@core/drive/layout';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { inSentence } from '@core/fitting/values';
import { DialField } from '../../ui/dial-field';
import { recoveryPicture } from '../../fitting/recovery-picture';
import { StepDrawing } from '../../fitting/step-drawing';
import { beforeWords, goesOnWords, moveWords, recoverErrorWords } from '../../messages/recover';
import { FitStore } from './fit-store';

/** Timing is lost, or a shaft has jumped: the safe way back from where the shafts stand, each move free of valve contact. */
@Component({
  selector: 'hs-lost-panel',
  imports: [DialField, StepDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Where the shafts stand">
      <h2>Where the shafts stand now</h2>
      @if (valves(); as g) {
        <p class="quiet">
          Degrees past the mark in running direction; short of it counts minus. Look before you turn anything.
        </p>
        <hs-dial-field
          label="Crank"
          unit="° of the crank"
          [min]="-180"
          [max]="180"
          [step]="1"
          [digits]="0"
          [value]="crank()"
          (turned)="crank.set($event)"
        />
        @for (w of wheels(); track w.id) {
          <hs-dial-field
            [label]="w.name"
            unit="° of the cam"
            [min]="-180"
            [max]="180"
            [step]="1"
            [digits]="0"
            [value]="cams()[w.id]"
            (turned)="turn(w.id, $event)"
          />
        }
      } @else {
        <p>
          The catalogue does not give what valves and pistons of this engine do, so no way can be computed. It
          counts as an engine whose valves meet its pistons: turn no shaft alone; take the safe position from
          the vehicle maker’s information.
        </p>
      }
    </section>
    @if (answer(); as r) {
      <section class="card" aria-label="The way back">
        <h2>The way back</h2>
        @if (r.refused) {
          <p class="caution" role="status">{{ r.refused }}</p>
        } @else {
          <ol>
            <li>{{ first() }}</li>
            @for (m of r.moves; track $index) {
              <li>{{ m }}</li>
            }
            @for (s of rest(); track s) {
              <li>{{ s }}</li>
            }
          </ol>
          @if (r.picture; as p) {
            <hs-step-drawing [picture]="p" />
          }
          <p class="caution">
            At any resistance stop: what is computed stands on what the catalogue gives of this engine.
            Camshafts that jump when the {{ loop() }} comes off are normal: find where they rest.
          </p>
        }
      </section>
    } @else if (valves()) {
      <section class="card">
        <p class="quiet">Give the crank and every cam: then the way back stands here. Nothing is guessed.</p>
      </section>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(330px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 6px;
    }
    ol {
      margin: 0;
      padding-left: 22px;
      display: grid;
      gap: 5px;
    }
    hs-step-drawing {
      height: 150px;
    }
    p {
      margin: 0;
    }
  `,
})
export class LostPanel {
  private readonly store = inject(FitStore);
  protected readonly crank = signal<number | undefined>(undefined);
  protected readonly cams = signal<Readonly<Record<string, number>>>({});
  private readonly stages = computed(() => this.store.stages());
  private readonly layout = computed(() => this.stages()[0]?.layout);
  protected readonly valves = computed(() => this.stages().find((s) => s.layout.valves)?.layout.valves);
  protected readonly loop = computed(() => this.layout()?.kind ?? '');
  protected readonly wheels = computed(() => {
    const ids = new Set(this.valves()?.valves.map((v) => v.wheel));
    return this.stages().flatMap((s) => s.layout.wheels.filter((w) => ids.has(w.id)));
  });
  private readonly shafts = computed<Shafts | undefined>(() => {
    const [crankDeg, cams] = [this.crank(), this.cams()];
    if (crankDeg === undefined || this.wheels().some((w) => cams[w.id] === undefined)) return undefined;
    return shaftsAt(crankDeg, cams);
  });
  protected readonly answer = computed(() => {
    const [g, now] = [this.valves(), this.shafts()];
    if (!g || !now) return undefined;
    const r = recover(g, now, (this.store.answers()?.policy ?? SHIPPED_POLICY).leastRoomMm);
    if (!r.ok) return { refused: recoverErrorWords(r.error), moves: [], picture: undefined };
    const name = (id: string | undefined) =>
      inSentence(this.wheels().find((w) => w.id === id)?.name ?? 'crank');
    return {
      refused: '',
      moves: r.value.moves.map((m) => moveWords(m, name(m.wheel), this.isFree(m.wheel))),
      picture: recoveryPicture(r.value, must(this.layout()).runs, (id) => name(id)),
    };
  });
  /** Then the drive is built up again as its sheet says, from the lock on. */
  protected readonly rest = computed(() => {
    const sheet = this.store.sheet();
    return sheet ? goesOnWords(goesOnAt(sheet)) : [];
  });

  protected readonly first = computed(() => {
    const sheet = this.store.sheet();
    return beforeWords(sheet ? goesOnAt(sheet) : {}, this.loop());
  });
  private isFree(id: string | undefined): boolean {
    return this.wheels().some((w) => w.id === id && isFree(w));
  }

  protected turn(id: string, v: number | undefined): void {
    this.cams.update((c) => {
      const next = { ...c };
      if (v === undefined) Reflect.deleteProperty(next, id);
      else next[id] = v;
      return next;
    });
  }
}
