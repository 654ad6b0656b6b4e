import { inject, Injectable, signal } from '@angular/core';
import { stepOfKit, type StepOfKit } from '@core/fitting/step-of-kit';
import { Clock } from '../data/clock';
import { DeskPolicy } from '../data/desk-policy';
import { DeskSettingsStore } from '../data/desk-settings';
import { Packs } from '../data/packs';
import { download } from '../report/download';
import type { Paper } from '../report/paper';
import type { PaperJobs } from '../report/paper.protocol';
import type { PatternLetterhead } from '../report/pattern-papers';
import { resultOf, WorkerClient } from '../threads/worker-client';
import { Notices } from './notices';

type Papers = typeof import('../report/pattern-papers');

/** Letters and bulletins that come of patterns; set in a thread. */
@Injectable({ providedIn: 'root' })
export class PatternPapers {
  private readonly settings = inject(DeskSettingsStore);
  private readonly clock = inject(Clock);
  private readonly notices = inject(Notices);
  private readonly packs = inject(Packs);
  private readonly policy = inject(DeskPolicy);
  private readonly client = new WorkerClient<PaperJobs>(
    () => new Worker(new URL('../report/paper.worker', import.meta.url), { type: 'module' }),
  );
  /** True while one is being set. */
  readonly making = signal(false);

  /** The step of a kit's sheet by the newest catalogue and this house's rules. */
  step(kit: string, id: string): StepOfKit | undefined {
    const cat = this.packs.newest();
    return cat && stepOfKit(cat, kit, id, this.policy.rules());
  }

  /** Hands a paper to the browser as a file. */
  async pdf(
    name: string,
    invented: boolean,
    write: (papers: Papers, head: PatternLetterhead) => Paper,
  ): Promise<void> {
    if (this.making()) return;
    this.making.set(true);
    try {
      const head = { house: this.settings.settings().house, today: this.clock.today(), invented };
      const paper = write(await import('../report/pattern-papers'), head);
      const made = await resultOf(this.client.job('paper', { paper, photos: [], as: 'pdf' }));
      if (made.ok) download(`${name}.pdf`, made.value);
      else this.notices.refuse(`The paper could not be set: ${made.error.detail}. Try again.`);
    } catch (e) {
      this.notices.refuse(
        `The paper could not be made: ${e instanceof Error ? e.message : String(e)}. Nothing is lost; try again.`,
      );
    } finally {
      this.making.set(false);
    }
  }
}
