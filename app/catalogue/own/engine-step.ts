import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { LineField } from '../../ui/line-field';
import { Segmented } from '../../ui/segmented';
import { OwnStore } from './own-store';

/** The engine itself: its code, whose it is, and whether valves meet pistons. */
@Component({
  selector: 'hs-engine-step',
  imports: [LineField, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let f = store.form();
    <section class="card form" aria-label="Engine">
      @if (store.baseName(); as name) {
        <p class="whole">
          It joins <b>{{ name }}</b
          >, as its next version.
        </p>
      } @else {
        <hs-line-field
          label="Name of the catalogue"
          example="as your desk calls it"
          [value]="f.catalogue"
          (typed)="store.type({ catalogue: $event })"
        />
        <hs-line-field
          label="Where its data come from"
          example="maker’s information, measured here"
          [value]="f.source"
          (typed)="store.type({ source: $event })"
        />
      }
      <hs-line-field
        label="Engine code"
        example="as it stands on the block"
        [value]="f.code"
        (typed)="store.type({ code: $event })"
      />
      <hs-line-field label="Maker" [value]="f.maker" (typed)="store.type({ maker: $event })" />
      <hs-line-field
        label="Family"
        example="what people call it"
        [value]="f.family"
        (typed)="store.type({ family: $event })"
      />
      <hs-line-field
        label="Vehicles"
        example="separated by commas"
        [value]="f.vehicles"
        (typed)="store.type({ vehicles: $event })"
      />
      <div class="whole">
        <b>Do valves meet pistons when timing is lost?</b>
        <hs-segmented
          label="Do valves meet pistons when timing is lost?"
          [options]="meets"
          [value]="f.interference"
          (picked)="store.type({ interference: $event })"
        />
        @if (f.interference === 'unknown') {
          <span class="quiet">Not known counts as yes.</span>
        }
      </div>
    </section>
  `,
  styleUrl: './steps.less',
})
export class EngineStep {
  protected readonly store = inject(OwnStore);
  protected readonly meets = [
    { value: 'yes', label: 'Yes' },
    { value: 'no', label: 'No' },
    { value: 'unknown', label: 'Not known' },
  ] as const;
}
