import { inject, Injectable } from '@angular/core';
import type { TaughtWord } from '@core/intake/taught-words';
import { Clock } from './clock';
import { DeskJob } from './desk-job';
import { DeskPolicy } from './desk-policy';
import { DeskSettingsStore } from './desk-settings';

/** Tries words of the house against all kept messages, in a thread: which would read otherwise, and what nothing takes. */
@Injectable({ providedIn: 'root' })
export class WordTrial {
  private readonly settings = inject(DeskSettingsStore);
  private readonly policy = inject(DeskPolicy);
  private readonly clock = inject(Clock);
  private readonly job = new DeskJob('words');
  /** Messages done, while it goes on. */
  readonly done = this.job.done;
  readonly answer = this.job.answer;
  readonly failed = this.job.failed;

  /** Reads all messages with the words of today and with these. */
  try(after: readonly TaughtWord[]): void {
    this.job.start({
      before: [...this.settings.settings().taught],
      after: [...after],
      notation: this.settings.notation(),
      today: this.clock.today(),
      chosen: { ...this.policy.rules().chosen },
    });
  }

  cancel(): void {
    this.job.cancel();
  }

  /** Other words came: what was found is of earlier ones. */
  forget(): void {
    this.job.forget();
  }
}
