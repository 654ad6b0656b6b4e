import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { Fact } from '@core/facts/fact';
import { CaseDesk } from '../data/case-desk';
import { CaseSentences } from '../commands/case-sentences';
import { StateCard } from '../ui/state';
import { contradictionWords } from '../messages/answers';
import { valueWords } from '../messages/facts';

/** Facts that cannot both be true, or not of this drive; at every station, until they are settled. */
@Component({
  selector: 'hs-disagree',
  imports: [NzButtonComponent, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (lines().length) {
      <section aria-label="Facts that do not agree">
        <hs-state kind="contradicted" title="Does not agree">
          <ul>
            @for (w of lines(); track w.says) {
              <li>
                {{ w.says }}
                @for (k of w.keep; track k.fact.id) {
                  <button nz-button nzSize="small" (click)="keep(k.fact)">Keep {{ k.value }}</button>
                }
              </li>
            }
          </ul>
        </hs-state>
      </section>
    }
  `,
  styles: `
    section {
      border-top: 1px solid var(--rule-strong);
      max-height: 30vh;
      overflow: auto;
    }
    button {
      margin: 2px 4px 2px 0;
    }
    ul {
      margin: 2px 0 0;
      padding-left: 16px;
    }
  `,
})
export class Disagree {
  private readonly desk = inject(CaseDesk);
  private readonly voice = inject(CaseSentences).voice;
  protected readonly lines = computed(() =>
    (this.desk.current()?.answers?.contradictions ?? []).map((c) => ({
      says: contradictionWords(c, this.voice()),
      keep: c.code === 'rivals' ? this.choices(c.facts) : [],
    })),
  );

  /** One of those that contradict holds: it is filed again as it was known, and settles the others, which stay on the tape. */
  protected keep({ about, key, place, value, how, u, files, note }: Fact): void {
    void this.desk.file({
      ...{ about, key, place, value, how },
      ...(u === undefined ? {} : { u }),
      ...(files ? { files } : {}),
      ...(note === undefined ? {} : { note }),
    });
  }

  /** What can be kept: each value once. */
  private choices(facts: readonly Fact[]): { fact: Fact; value: string }[] {
    const byValue = new Map(
      [...facts].reverse().map((fact) => [valueWords(fact, this.voice(), this.desk.nameOf), fact]),
    );
    return [...byValue].map(([value, fact]) => ({ value, fact })).reverse();
  }
}
