import { inject, Injectable } from '@angular/core';
import type { Fact } from '@core/facts/fact';
import { CaseDesk } from '../data/case-desk';
import { nameWords, valueWords } from '../messages/facts';
import { VoiceService } from './voice';

/** Facts of the case in hand in words. */
@Injectable({ providedIn: 'root' })
export class CaseWords {
  private readonly desk = inject(CaseDesk);
  private readonly voice = inject(VoiceService).voice;

  of(fact: Fact): string {
    const voice = this.voice();
    return `${nameWords(fact, voice)} ${valueWords(fact, voice, this.desk.nameOf)}`;
  }
}
