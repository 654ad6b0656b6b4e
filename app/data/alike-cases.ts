import { inject, Injectable } from '@angular/core';
import { filedObservables } from '@core/facts/read';
import { reduce, type State } from '@core/facts/state';
import { Cases } from './cases';
import { FactRepository } from './fact-repository';

/** Cases that are looked through, newest first, and those that are shown. */
const LOOKED_AT = 60;
const SHOWN = 7;
export type AlikeCase = { id: string; tag: string; state: State };

/** Other returns of the same engine, or of the same kit or part by number, of which something that is asked for was filed. */
@Injectable({ providedIn: 'root' })
export class AlikeCases {
  private readonly cases = inject(Cases);
  private readonly repository = inject(FactRepository);

  /** @param keys observables of which one has to be filed; @param numbers of kit and part, as far as they are known */
  async find(
    of: { id: string; engine: string; numbers: readonly string[] },
    keys: readonly string[],
  ): Promise<AlikeCase[]> {
    const numbers = of.numbers.map((n) => n.toLowerCase());
    const summaries = this.cases
      .summaries()
      .filter(
        (h) =>
          h.id !== of.id &&
          ((of.engine !== '' && h.engine === of.engine) || numbers.some((n) => h.text.includes(n))),
      )
      .slice(0, LOOKED_AT);
    const out: AlikeCase[] = [];
    for (const h of summaries) {
      const state = reduce(await this.repository.factsOf(h.id));
      const filed = filedObservables(state);
      if (keys.some((k) => filed.has(k))) out.push({ id: h.id, tag: h.tag, state });
      if (out.length === SHOWN) break;
    }
    return out;
  }
}
