import { DestroyRef, inject, Injectable, Injector } from '@angular/core';
import { styled } from '../ui/controls-styles';

/** The library writes a message as markup: what came in with a file's name or an id is text all the same. */
const asText = (words: string): string =>
  words.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** How long a refusal stays that has a place and a reason to be read, ms. */
const TO_READ = 20_000;

/** Short words to the user, over the desk. What shows them, and its stylesheet, are fetched when there is something to say. */
@Injectable({ providedIn: 'root' })
export class Notices {
  private readonly injector = inject(Injector);
  private gone = false;

  constructor() {
    inject(DestroyRef).onDestroy(() => (this.gone = true));
  }

  /** @param ms how long it stays; the library's own time unless given */
  async say(kind: 'info' | 'success' | 'warning' | 'error', words: string, ms?: number): Promise<void> {
    const { NzMessageService } = await styled(() => import('ng-zorro-antd/message'));
    // What shows the words came after the desk had been closed: nobody is left to read them.
    if (this.gone) return;
    const options = ms === undefined ? {} : { nzDuration: ms, nzPauseOnHover: true };
    this.injector.get(NzMessageService)[kind](asText(words), options);
  }

  /** Says what was not done and why. */
  refuse(words: string): void {
    void this.say('error', words, TO_READ);
  }
}
