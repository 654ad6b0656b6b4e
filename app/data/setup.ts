import { inject, Injectable, signal } from '@angular/core';
import * as z from 'zod';
import { PackSchema } from '@core/catalogue/pack';
import { FactSchema } from '@core/facts/fact';
import { Drafts } from './drafts';
import { FactRepository } from './fact-repository';
import { troubleOf, troubleSentence } from './store-trouble';
import { HouseStore } from './house';

const DemoSchema = z.strictObject({
  format: z.literal('hollow-sprocket-demo'),
  pack: PackSchema,
  facts: z.array(FactSchema),
});
const ServedSchema = z.object({ demo: z.boolean() });

/** Opens the records and, on the first opening of a profile, puts the demo in unless the server says to start empty. */
@Injectable({ providedIn: 'root' })
export class Setup {
  private readonly repository = inject(FactRepository);
  private readonly house = inject(HouseStore);
  private readonly drafts = inject(Drafts);
  readonly ready = signal(false);
  readonly failure = signal<string | undefined>(undefined);

  async start(): Promise<void> {
    try {
      await Promise.all([this.repository.load(), this.house.load(), this.drafts.load()]);
      if ((await this.repository.setting('opened')) !== true) {
        if (await this.wantsDemo()) await this.loadDemo();
        await this.repository.keepSetting('opened', true);
      }
      this.failure.set(undefined);
      this.ready.set(true);
    } catch (e) {
      this.failure.set(
        e instanceof DOMException
          ? troubleSentence(troubleOf(e))
          : e instanceof Error
            ? e.message
            : String(e),
      );
    }
  }

  async loadDemo(): Promise<void> {
    const answer = await fetch('demo.json');
    if (!answer.ok)
      throw new Error(`The demo data could not be fetched (status ${answer.status}). Reload to try again.`);
    const demo = DemoSchema.parse(await answer.json());
    const filed = await this.repository.add(demo.facts, [demo.pack]);
    if (!filed.ok) throw new Error(troubleSentence(filed.error));
  }

  private async wantsDemo(): Promise<boolean> {
    const answer = await fetch('setup.json');
    if (!answer.ok) return true;
    const served = ServedSchema.safeParse(await answer.json());
    return !served.success || served.data.demo;
  }
}
