import { inject, Injectable } from '@angular/core';
import { Subject } from 'rxjs';
import { knowledgeDigest } from '@core/answer/world';
import type { DeskJobs } from '../workers/desk.protocol';
import { resultOf, WorkerClient } from '../threads/worker-client';
import { FactRepository, type News } from './fact-repository';
import { MADE_WITH } from './made-with';
import { RecordWork, type WorkLine } from './record-work';

/** Sees to it that the summaries on the rack say what today's knowledge and catalogues say. A thread makes them anew. */
@Injectable({ providedIn: 'root' })
export class SummaryKeeper {
  private readonly repository = inject(FactRepository);
  private readonly work = inject(RecordWork);
  private readonly client = new WorkerClient<DeskJobs>(
    () => new Worker(new URL('../workers/desk.worker', import.meta.url), { type: 'module' }),
  );
  /** Ends the reading that goes on. */
  private stop: Subject<void> | undefined;
  /** Cases that got facts while the thread works: it may have read them before, and makes their summaries once more. */
  private readonly grown = new Set<string>();

  constructor() {
    this.repository.news$.subscribe((news) => this.hear(news));
  }

  /** Makes summaries anew where they were made with other knowledge, or never; else those that are behind their facts. */
  async check(): Promise<void> {
    if ((await this.repository.setting(MADE_WITH)) !== knowledgeDigest()) await this.rebuild();
    else {
      const behind = await this.repository.behind();
      if (behind.length > 0) await this.rebuild(behind);
    }
  }

  /** True when all summaries were made, or those of the cases named. Stopped, it goes on at the next opening. */
  async rebuild(only?: readonly string[]): Promise<boolean> {
    this.stop?.next();
    const stop = new Subject<void>();
    this.stop = stop;
    this.grown.clear();
    const line = this.work.start(
      only ? 'Reading cases again that were left behind' : 'Reading all cases anew',
      () => stop.next(),
    );
    const made = await this.ask(stop, line, only);
    line.end();
    if (this.stop !== stop) return false;
    this.stop = undefined;
    this.client.dispose();
    if (made && !only) await this.repository.keepSetting(MADE_WITH, knowledgeDigest());
    this.repository.tell({ grown: [], summaries: [], packs: [], extracts: [], allSummaries: true });
    return made;
  }

  /** All summaries, and then those of cases that grew meanwhile, until none did. */
  private async ask(
    stop: Subject<void>,
    line: WorkLine,
    only: readonly string[] | undefined,
  ): Promise<boolean> {
    const made = await resultOf(this.client.job('rebuild', only), {
      stop$: stop,
      tell: (n) => line.done(n),
    });
    if (!made.ok) return false;
    for (const d of made.value.damaged) this.repository.setAside(d);
    if (this.grown.size === 0) return true;
    const again = [...this.grown];
    this.grown.clear();
    return this.ask(stop, line, again);
  }

  /** A pack that came may answer cases that name none. */
  private hear(news: News): void {
    for (const id of news.grown) this.grown.add(id);
    if (news.packs.length > 0 && !news.elsewhere) void this.rebuild();
  }
}
