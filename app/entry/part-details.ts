import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { has, textOf } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import { CaseDesk } from '../data/case-desk';
import { DeskSession } from './desk-session';
import { Field } from './field';

/** Which one a part is: number and lot on it, and the stage of the drive that it belongs to where there are several. */
@Component({
  selector: 'hs-part-details',
  imports: [NzButtonComponent, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.open]': 'open()' },
  template: `
    @if (open()) {
      <hs-field [session]="session" [key]="number" [about]="about()" [named]="true" />
      <hs-field [session]="session" [key]="lot" [about]="about()" [named]="true" />
      @if (stages().length > 1) {
        <div role="radiogroup" [attr.aria-label]="'Stage of ' + name()" class="row">
          <b>Stage</b>
          @for (s of stages(); track s.id) {
            <button
              nz-button
              nzSize="small"
              role="radio"
              [nzType]="s.id === stage() ? 'primary' : 'default'"
              [attr.aria-checked]="s.id === stage()"
              (click)="belongs(s.id)"
            >
              {{ s.id === stage() ? '◆ ' : '' }}{{ s.name }}
            </button>
          }
        </div>
      }
    } @else {
      <button nz-button nzSize="small" (click)="shown.set(true)">
        {{ stages().length > 1 ? 'Number, lot, stage' : 'Number and lot' }}
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      justify-items: start;
    }
    :host(.open) {
      flex: 1 0 100%;
    }
    hs-field {
      width: 100%;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      align-items: baseline;
    }
  `,
})
export class PartDetails {
  protected readonly session = inject(DeskSession);
  readonly about = input.required<string>();
  readonly name = input.required<string>();
  private readonly desk = inject(CaseDesk);
  protected readonly number = THING.number;
  protected readonly lot = THING.lot;
  protected readonly shown = signal(false);
  /** Open once asked for, and wherever something of it is known. */
  protected readonly open = computed(() => {
    const state = this.desk.current()?.state;
    const known = [THING.number, THING.lot, THING.stage].some((k) => state && has(state, k, this.about()));
    return this.shown() || known;
  });
  protected readonly stages = computed(() =>
    (this.desk.current()?.answers?.drive?.stages ?? []).map((s, i) => ({
      id: s.layout.id,
      name: s.layout.name ?? `stage ${i + 1}`,
    })),
  );
  protected readonly stage = computed(() => {
    const state = this.desk.current()?.state;
    return state && textOf(state, THING.stage, this.about());
  });

  protected belongs(stage: string): void {
    void this.desk.file({ about: this.about(), key: THING.stage, value: stage, how: 'seen' });
  }
}
