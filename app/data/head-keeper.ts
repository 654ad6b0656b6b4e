import { inject, Injectable } from '@angular/core';
import { knowledgeDigest } from '@core/answer/world';
import type { DeskJobs } from '../workers/desk.protocol';
import { Door } from '../workers/door';
import { FactRepository, type News } from './fact-repository';
import { HeadProgress } from './head-progress';

/** Under this name the record store says with which knowledge the heads were made, and whether packs came since. */
const MADE_WITH = 'heads';

/** Sees to it that the heads on the rack say what today's knowledge and catalogues say. A thread makes them anew. */
@Injectable({ providedIn: 'root' })
export class HeadKeeper {
  private readonly repository = inject(FactRepository);
  private readonly door = new Door<DeskJobs>(
    () => new Worker(new URL('../workers/desk.worker', import.meta.url), { type: 'module' }),
  );
  private stop: AbortController | undefined;
  private readonly progress = inject(HeadProgress).progress;

  constructor() {
    this.repository.news$.subscribe((news) => this.hear(news));
  }

  /** Makes heads anew where they were made with other knowledge, or never. */
  async check(): Promise<void> {
    if ((await this.repository.setting(MADE_WITH)) !== knowledgeDigest()) await this.rebuild();
  }

  /** True when all heads were made. */
  async rebuild(): Promise<boolean> {
    this.stop?.abort();
    const stop = new AbortController();
    this.stop = stop;
    this.progress.set(0);
    const made = await this.door.ask('rebuild', undefined, {
      signal: stop.signal,
      progress: (n) => this.progress.set(n),
    });
    if (this.stop !== stop) return false;
    this.stop = undefined;
    this.door.dispose();
    if (made.ok) {
      for (const d of made.value.damaged) this.repository.setAside(d);
      await this.repository.keepSetting(MADE_WITH, knowledgeDigest());
      this.repository.tell({ grown: [], heads: [], packs: [], extracts: [], allHeads: true });
    }
    this.progress.set(undefined);
    return made.ok;
  }

  cancel(): void {
    this.stop?.abort();
    this.progress.set(undefined);
  }

  /** A pack that came may answer cases that name none. */
  private hear(news: News): void {
    if (news.packs.length > 0 && !news.elsewhere) void this.rebuild();
  }
}
