import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzCheckboxComponent } from 'ng-zorro-antd/checkbox';
import type { OwnEngine } from '@core/catalogue/own-engine';
import { LineField } from '../../ui/line-field';
import { Segmented } from '../../ui/segmented';
import { OwnStore } from './own-store';

type Design = OwnEngine['designs'][number];

/** The designs of the engine: when each was built, and the one thing that tells them apart. */
@Component({
  selector: 'hs-designs-step',
  imports: [LineField, NzButtonComponent, NzCheckboxComponent, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let f = store.form();
    <section class="card" aria-label="Designs">
      <p class="quiet">
        One engine code is often built in several designs with other belts. Days may be a year or a month;
        what is not known stays empty.
      </p>
      @for (d of f.designs; track $index; let i = $index) {
        <div class="line" role="group" [attr.aria-label]="'Design ' + (i + 1)">
          <hs-line-field
            [label]="'Design ' + (i + 1)"
            [example]="f.designs.length > 1 ? 'narrow belt' : 'needs no name while it is the only one'"
            [value]="d.name"
            (typed)="change(i, { name: $event })"
          />
          <hs-line-field
            label="Built from"
            example="2014-03"
            [value]="d.from"
            (typed)="change(i, { from: $event })"
          />
          <hs-line-field label="to" example="2018" [value]="d.to" (typed)="change(i, { to: $event })" />
          @if (f.designs.length > 1) {
            <hs-line-field
              label="One sees"
              [example]="f.tell.wording === '' ? 'after the question below' : 'five'"
              [value]="d.seen"
              (typed)="change(i, { seen: $event })"
            />
            <label
              nz-checkbox
              [nzId]="'has-drive-' + i"
              [attr.for]="'has-drive-' + i"
              [nzChecked]="d.drive"
              (nzCheckedChange)="change(i, { drive: $event })"
              title="It has the drive of the next step"
              >this drive</label
            >
            <button nz-button [attr.aria-label]="'Remove design ' + (i + 1)" (click)="remove(i)">✕</button>
          }
        </div>
      }
      <div class="row"><button nz-button (click)="add()">Another design</button></div>
      @if (f.designs.length > 1) {
        <div class="form">
          <hs-line-field
            label="What tells them apart"
            example="Screws of the cover"
            [value]="f.tell.wording"
            (typed)="store.type({ tell: { wording: $event, say: f.tell.say, look: f.tell.look } })"
          />
          <hs-line-field
            label="How you ask for it on the phone"
            example="Please count the screws round the cover: five or seven?"
            [value]="f.tell.say"
            (typed)="store.type({ tell: { wording: f.tell.wording, say: $event, look: f.tell.look } })"
          />
          <div class="whole">
            <b>To see it one needs</b>
            <hs-segmented
              label="To see it one needs"
              [options]="looks"
              [value]="f.tell.look"
              (picked)="store.type({ tell: { wording: f.tell.wording, say: f.tell.say, look: $event } })"
            />
          </div>
        </div>
      }
    </section>
  `,
  styleUrl: './steps.less',
})
export class DesignsStep {
  protected readonly store = inject(OwnStore);
  protected readonly looks = [
    { value: 'phone', label: 'papers' },
    { value: 'eye', label: 'a look' },
    { value: 'cover', label: 'the cover off' },
    { value: 'front', label: 'the front off' },
  ] as const;

  protected change(i: number, part: Partial<Design>): void {
    this.store.type({
      designs: this.store.form().designs.map((d, k) => (k === i ? { ...d, ...part } : d)),
    });
  }

  protected add(): void {
    const designs = this.store.form().designs;
    this.store.type({ designs: [...designs, { name: '', from: '', to: '', seen: '', drive: false }] });
  }

  protected remove(i: number): void {
    this.store.type({ designs: this.store.form().designs.filter((_, k) => k !== i) });
  }
}
