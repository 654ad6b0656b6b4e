import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzCheckboxComponent } from 'ng-zorro-antd/checkbox';
import { NzInputNumberModule } from 'ng-zorro-antd/input-number';
import { boxCode, LABEL_SHEET } from '@core/claim/box-code';
import { KINDS } from '@core/facts/kinds';
import { textOf } from '@core/facts/read';
import { onPaper, writtenDay } from '@core/facts/read-value';
import { dayOf } from '@core/quantity/dates';
import { Commands } from '../commands/commands';
import { Papers } from '../commands/papers';
import { CaseDesk } from '../data/case-desk';
import { DeskSettingsStore } from '../data/desk-settings';
import { counted } from '../language/plural';
import { Modal } from '../ui/modal';
import { Segmented } from '../ui/segmented';

/** The label of the box as a whole. */
const BOX = '';

/** Labels for the box of a case and for each part in it, to be printed on a roll or a sheet. */
@Component({
  selector: 'hs-labels-dialog',
  imports: [FormsModule, Modal, NzButtonComponent, NzCheckboxComponent, NzInputNumberModule, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal
      title="Labels for the box"
      [open]="commands.overlay() === 'labels'"
      (closed)="commands.close('labels')"
    >
      <div class="list" role="group" aria-label="Which labels">
        @for (l of labels(); track l.id) {
          <label
            nz-checkbox
            [nzId]="'label-' + (l.id || 'box')"
            [for]="'label-' + (l.id || 'box')"
            [nzChecked]="!left().has(l.id)"
            (nzCheckedChange)="mark(l.id, $event)"
            >{{ l.what }}</label
          >
        }
      </div>
      <div class="row">
        <hs-segmented label="Printed on" [options]="media" [value]="on()" (picked)="on.set($event)" />
        @if (on() === 'sheet') {
          <label for="labels-from">first free place</label>
          <nz-input-number
            nzId="labels-from"
            [nzMin]="1"
            [nzMax]="places"
            [nzPrecision]="0"
            [(ngModel)]="from"
          />
        }
      </div>
      <p class="quiet">
        74 × 44 mm{{
          on() === 'sheet'
            ? ', two beside each other and six below, counted along the rows'
            : ', one to a page'
        }}. A scanner, the camera or a picture reads them again and opens the case with the part in hand.
      </p>
      <button nz-button nzType="primary" [disabled]="wanted().length === 0" (click)="print()">
        {{ count() }} as PDF
      </button>
    </hs-modal>
  `,
  styles: `
    .list,
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 14px;
      align-items: center;
      margin-bottom: 8px;
    }
    .list label {
      margin: 0;
    }
  `,
})
export class LabelsDialog {
  protected readonly commands = inject(Commands);
  private readonly desk = inject(CaseDesk);
  private readonly papers = inject(Papers);
  private readonly settings = inject(DeskSettingsStore);
  protected readonly places = LABEL_SHEET.places;
  protected readonly media = [
    { value: 'roll', label: 'Roll' },
    { value: 'sheet', label: 'Sheet' },
  ] as const;
  protected readonly on = signal<'roll' | 'sheet'>('roll');
  protected readonly from = signal(1);
  /** What is left out; another case begins anew. */
  protected readonly left = linkedSignal<string | undefined, ReadonlySet<string>>({
    source: () => this.desk.currentId(),
    computation: () => new Set(),
  });
  /** The box, and what came in it. */
  protected readonly labels = computed(() => [
    { id: BOX, what: 'The box' },
    ...(this.desk.current()?.answers?.examination.things ?? [])
      .filter((t) => t.came === 'sent' && KINDS.get(t.kind)?.part === true)
      .map((t) => ({ id: t.about ?? t.kind, what: t.wording })),
  ]);
  protected readonly wanted = computed(() => this.labels().filter((l) => !this.left().has(l.id)));
  protected readonly count = computed(() => counted(this.wanted().length, 'label', 'labels'));

  protected mark(id: string, on: boolean): void {
    this.left.update((before) => new Set(on ? [...before].filter((x) => x !== id) : [...before, id]));
  }

  protected async print(): Promise<void> {
    const view = this.desk.current();
    if (!view) return;
    const { id, state } = view;
    const tag = textOf(state, 'case.tag') ?? '';
    const common = {
      tag,
      claim: textOf(state, 'claim.number') ?? '',
      engine: textOf(state, 'engine.code') ?? '',
      day: writtenDay(dayOf(state.log[0]?.at ?? Date.now()), onPaper(this.settings.notation())),
    };
    const models = this.wanted().map((l) => ({
      ...common,
      what: l.id === BOX ? 'Box' : l.what,
      code: l.id === BOX ? boxCode(id) : boxCode(id, l.id),
    }));
    await this.papers.boxLabels(tag, models, this.on(), this.on() === 'sheet' ? this.from() - 1 : 0);
    this.commands.close('labels');
  }
}
