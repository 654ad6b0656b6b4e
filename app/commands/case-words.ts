import { inject, Injectable } from '@angular/core';
import type { Fact } from '@core/facts/fact';
import { CaseDesk } from '../data/case-desk';
import { nameWords, valueWords } from '../messages/facts';
import { CaseSentences } from './case-sentences';

/** Facts of the case in hand in words. */
@Injectable({ providedIn: 'root' })
export class CaseWords {
  private readonly desk = inject(CaseDesk);
  private readonly voice = inject(CaseSentences).voice;

  of(fact: Fact): string {
    const context = this.voice();
    return `${nameWords(fact, context)} ${valueWords(fact, context, this.desk.nameOf)}`;
  }
}
