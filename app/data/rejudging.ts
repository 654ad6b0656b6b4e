import { inject, Injectable } from '@angular/core';
import type { Change } from '@core/cause/changes';
import { DeskJob } from './desk-job';
import { DeskPolicy } from './desk-policy';

/** Judges every case again in a thread: what would be said otherwise with other numbers. */
@Injectable({ providedIn: 'root' })
export class Rejudging {
  private readonly ruled = inject(DeskPolicy);
  private readonly job = new DeskJob('rejudge');
  /** Cases done, while it goes on. */
  readonly done = this.job.done;
  readonly answer = this.job.answer;
  readonly failed = this.job.failed;

  judge(before: readonly Change[], after: readonly Change[]): void {
    this.job.start({ before: [...before], after: [...after], chosen: { ...this.ruled.rules().chosen } });
  }

  cancel(): void {
    this.job.cancel();
  }

  /** Other numbers came: what was found is of earlier ones. */
  forget(): void {
    this.job.forget();
  }
}
