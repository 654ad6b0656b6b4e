import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { lookAlikes } from '@core/answer/look-alikes';
import { readSign, signsOf } from '@core/answer/signs';
import { CaseSentences } from '../../commands/case-sentences';
import { CaseDesk } from '../../data/case-desk';
import { Cases } from '../../data/cases';
import { findingWords, signWords } from '../../messages/answers';

/** Cases that are told, and signs that are told of each. */
const [MOST, SIGNS] = [3, 4];

/** Settled cases whose parts looked like these, with what was found. */
@Component({
  selector: 'hs-look-alikes',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Settled cases like this one">
      <h2>Settled cases like this one</h2>
      @for (c of alike(); track c.id) {
        <p>
          <a [routerLink]="['/case', c.id, 'cause']">{{ c.tag }}</a> {{ c.engine }}: <b>{{ c.decided }}</b
          ><br />
          <small>Both: {{ c.shares }}.{{ c.differs ? ' Otherwise: ' + c.differs + '.' : '' }}</small>
        </p>
      } @empty {
        <p class="quiet">None that shows anything of this. They come once causes are decided.</p>
      }
    </section>
  `,
  styles: 'p a { text-decoration: underline; }',
})
export class LookAlikes {
  private readonly desk = inject(CaseDesk);
  private readonly cases = inject(Cases);
  private readonly voice = inject(CaseSentences).voice;

  protected readonly alike = computed(() => {
    const view = this.desk.current();
    const a = view?.answers;
    if (!a) return [];
    const signs = signsOf(a.causes, a.findings);
    const v = this.voice();
    return lookAlikes(a.causes, this.cases.summaries(), { id: view.id, signs }, MOST).map((x) => ({
      id: x.summary.id,
      tag: x.summary.tag,
      engine: x.summary.engine,
      decided: this.desk.nameOf('cause', x.decided),
      shares: x.shares
        .slice(0, SIGNS)
        .map((s) => signWords(readSign(s), v))
        .join('; '),
      differs: x.differs
        .slice(0, SIGNS)
        .map((finding) => findingWords({ finding }, v))
        .join('; '),
    }));
  });
}
