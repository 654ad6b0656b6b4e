import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { type OwnEngine } from '@core/catalogue/own-engine';
import { partsLacking } from '@core/catalogue/own-rows';
import { PART_KINDS } from '@core/catalogue/pack';
import { counted } from '../../language/plural';
import { beltName } from '../../messages/own-engine';
import type { TileChoice } from '../../ui/letters';
import { LineField } from '../../ui/line-field';
import { Pick } from '../../ui/pick';
import { OwnStore } from './own-store';

type OwnPart = OwnEngine['kit']['parts'][number];

/** The kit that fits: its number, its terms, and what lies in it. */
@Component({
  selector: 'hs-kit-step',
  imports: [LineField, NzButtonComponent, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let k = store.form().kit;
    <section class="card" aria-label="Kit">
      <div class="form">
        <hs-line-field label="Kit number" [value]="k.number" (typed)="change({ number: $event })" />
        <hs-line-field
          label="What it is called"
          example="Belt kit"
          [value]="k.name"
          (typed)="change({ name: $event })"
        />
        <hs-line-field
          label="Warranty, months"
          example="no limit by months"
          [value]="k.months"
          (typed)="change({ months: $event })"
        />
        <hs-line-field
          label="Warranty, km"
          example="no limit by km"
          [value]="k.km"
          (typed)="change({ km: $event })"
        />
      </div>
      @for (p of k.parts; track $index; let i = $index) {
        <div class="line parts" role="group" [attr.aria-label]="'Part ' + (i + 1)">
          <hs-line-field
            label="Part number"
            [bare]="i > 0"
            [value]="p.number"
            (typed)="part(i, { number: $event })"
          />
          <hs-pick
            [label]="'Kind of part ' + (i + 1)"
            [bare]="true"
            [options]="kinds"
            [value]="p.kind"
            (picked)="part(i, { kind: asKind($event) })"
          />
          <hs-line-field label="Name" [bare]="i > 0" [value]="p.name" (typed)="part(i, { name: $event })" />
          <hs-line-field
            label="Pieces"
            [bare]="i > 0"
            [value]="p.quantity"
            (typed)="part(i, { quantity: $event })"
          />
          <button nz-button [attr.aria-label]="'Remove part ' + (i + 1)" (click)="remove(i)">✕</button>
        </div>
      } @empty {
        <p class="quiet">What lies in the kit: its belt or chain first.</p>
      }
      <div class="row">
        <button nz-button (click)="add()">Add a part</button>
        @if (missing().length > 0) {
          <button nz-button (click)="fromDrive()">
            As the drive has it: {{ counted(missing().length, 'part', 'parts') }}
          </button>
        }
      </div>
    </section>
  `,
  styleUrl: './steps.less',
})
export class KitStep {
  protected readonly counted = counted;
  protected readonly store = inject(OwnStore);
  protected readonly kinds = PART_KINDS.map((key): TileChoice => ({ key, wording: key }));

  protected asKind(key: string): OwnPart['kind'] {
    return PART_KINDS.find((k) => k === key) ?? 'belt';
  }

  protected change(part: Partial<OwnEngine['kit']>): void {
    this.store.type({ kit: { ...this.store.form().kit, ...part } });
  }

  protected part(i: number, part: Partial<OwnPart>): void {
    this.change({ parts: this.store.form().kit.parts.map((p, k) => (k === i ? { ...p, ...part } : p)) });
  }

  protected add(): void {
    const parts = this.store.form().kit.parts;
    const kind = parts.length === 0 ? this.store.photo().kind : 'idler';
    this.change({ parts: [...parts, { number: '', kind, name: '', quantity: '1' }] });
  }

  protected remove(i: number): void {
    this.change({ parts: this.store.form().kit.parts.filter((_, k) => k !== i) });
  }

  /** Parts of the drive that this kit has not. */
  protected readonly missing = computed((): OwnPart[] => {
    const layout = this.store.layout();
    if (!layout) return [];
    return partsLacking(layout, this.store.form().kit.parts).map(({ kind, wheel }) => ({
      number: '',
      kind,
      name: wheel ?? beltName(layout),
      quantity: '1',
    }));
  });

  protected fromDrive(): void {
    this.change({ parts: [...this.store.form().kit.parts, ...this.missing()] });
  }
}
