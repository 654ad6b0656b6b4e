import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { PatternOrder } from '@core/fitting/pattern';
import { patternPicture } from './pattern-picture';
import { StepDrawing } from './step-drawing';

/** Bolts in the order in which they are done, with the rounds. */
@Component({
  selector: 'hs-pattern-drawing',
  imports: [StepDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-step-drawing [picture]="picture()" />
    <p class="quiet">In the order of the numbers, in {{ pattern().rounds }} rounds.</p>
  `,
  styles: ':host { display: block; } hs-step-drawing { height: 130px; } p { margin: 0; text-align: center; }',
})
export class PatternDrawing {
  readonly pattern = input.required<PatternOrder>();
  protected readonly picture = computed(() => patternPicture(this.pattern()));
}
