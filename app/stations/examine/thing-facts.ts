import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { ExaminedThing } from '@core/answer/examined';
import { KINDS } from '@core/facts/kinds';
import { CaseDesk } from '../../data/case-desk';
import { AnotherPart } from '../../entry/another-part';
import { PartDetails } from '../../entry/part-details';
import { PartFiles } from '../../entry/part-files';
import { balanceWords, OBLIGATION } from '../../messages/pieces';
import { spreadWords } from '../../messages/spread';
import { stackWords } from '../../messages/examination';

/** What the readings of the thing in hand come to together, which one it is, and its pictures. */
@Component({
  selector: 'hs-thing-facts',
  imports: [AnotherPart, PartDetails, PartFiles],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let t = thing();
    @for (b of balances(); track b.by) {
      <p class="says" aria-live="polite">{{ wordsOf(b) }}</p>
    }
    @if (missing()) {
      <p class="caution">{{ obligation }}</p>
    }
    @for (w of spreads(); track w) {
      <p class="says" aria-live="polite">{{ w }}</p>
    }
    @for (w of stacks(); track w) {
      <p class="says" aria-live="polite">{{ w }}</p>
    }
    @if (isPart()) {
      <div class="foot">
        <hs-part-details [about]="t.about ?? t.kind" [name]="t.wording" />
        <hs-part-files [about]="t.about ?? t.kind" [name]="t.wording" />
        <hs-another-part [kind]="t.kind" />
      </div>
    }
  `,
  styles: `
    .says {
      margin: 0 0 4px;
      font-weight: 600;
    }
    .foot {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
    }
  `,
})
export class ThingFacts {
  readonly thing = input.required<ExaminedThing>();
  private readonly desk = inject(CaseDesk);
  protected readonly obligation = OBLIGATION;
  protected readonly isPart = computed(() => KINDS.get(this.thing().kind)?.part === true);
  protected readonly wordsOf = balanceWords;
  protected readonly balances = computed(() => {
    const { kind, about } = this.thing();
    const all = kind === 'guide' ? (this.desk.current()?.answers?.balances ?? []) : [];
    return all.filter((b) => b.about === (about ?? ''));
  });
  protected readonly missing = computed(() => this.balances().some((b) => b.verdict === 'missing'));
  protected readonly spreads = computed(() => {
    const { kind, about } = this.thing();
    const all = this.desk.current()?.answers?.spreads ?? [];
    return all.filter((s) => s.kind === kind && s.about === (about ?? '')).map(spreadWords);
  });
  protected readonly stacks = computed(() => {
    const { kind, about } = this.thing();
    const of = kind === 'tensioner' ? 'stand_out' : kind === 'sprocket' ? 'slot' : undefined;
    const all = this.desk.current()?.answers?.stacks ?? [];
    return all.filter((s) => s.kind === of && s.about === (about ?? '')).map(stackWords);
  });
}
