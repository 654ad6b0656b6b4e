import { computed, inject, Injectable, signal } from '@angular/core';
import type { NewFact } from '@core/facts/change';
import { standing } from '@core/facts/read';
import { askKey, stepThing } from '@core/fitting/fitted';
import type { AskFor, SheetStep } from '@core/fitting/sheet';
import { Say } from '../../acts/say';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';

export const PANELS = ['sheet', 'check', 'torque', 'heat', 'lost', 'why'] as const;
export type Panel = (typeof PANELS)[number];
export type Went = 'done' | 'skipped' | 'wrong';

/** The sheet of the case in hand, the step in hand, and what was said of each. */
@Injectable()
export class FitStore {
  private readonly desk = inject(CaseDesk);
  private readonly words = inject(Say);
  readonly panel = signal<Panel>('sheet');
  private readonly picked = signal<string | undefined>(undefined);

  readonly answers = computed(() => this.desk.current()?.answers);
  readonly sheet = computed(() => {
    const s = this.answers()?.sheet;
    return s?.status === 'ready' ? s : undefined;
  });
  readonly stages = computed(() => this.answers()?.drive?.stages ?? []);
  readonly fitted = computed(() => this.answers()?.fitted);
  readonly step = computed<SheetStep | undefined>(() => {
    const steps = this.sheet()?.steps ?? [];
    return steps.find((s) => s.id === this.picked()) ?? steps[0];
  });
  /** Ids of steps that a fault was shown at. */
  readonly faulty = computed(() => new Set(this.fitted()?.faults.map((f) => f.step)));

  pick(id: string | undefined): void {
    if (id !== undefined) this.picked.set(id);
  }

  /** Walks over the steps. */
  walk(by: number): void {
    const steps = this.sheet()?.steps ?? [];
    const at = steps.findIndex((s) => s.id === this.step()?.id);
    this.pick(steps[Math.max(0, Math.min(steps.length - 1, at + by))]?.id);
  }

  said(id: string): Went | undefined {
    return this.fitted()?.said.get(id)?.state;
  }

  value(step: SheetStep, ask: AskFor): number | undefined {
    return this.fitted()?.said.get(step.id)?.values[ask.id];
  }

  /** How a step went, as the fitter told it; the same again takes it back. */
  async tell(step: SheetStep, went: Went): Promise<void> {
    const about = stepThing(step.id);
    if (this.said(step.id) === went) {
      const view = this.desk.current();
      const fact = view && standing(view.state, 'step.done', about);
      if (fact) await this.held(this.desk.strike(fact));
      return;
    }
    await this.file({ about, key: 'step.done', value: went, how: 'reported' });
  }

  async tellValue(step: SheetStep, ask: AskFor, value: number): Promise<void> {
    const about = stepThing(step.id);
    const base = ask.quantity === 'minutes' ? value * 60 : value;
    const entries: NewFact[] = [{ about, key: askKey(ask), value: base, how: 'reported' }];
    if (this.said(step.id) === undefined)
      entries.unshift({ about, key: 'step.done', value: 'done', how: 'reported' });
    if (ask.key !== undefined) entries.push({ key: ask.key, value, how: 'reported' });
    await this.held(this.desk.fileAll(entries));
  }

  /** Place at which a step was done, from 1. */
  async tellPlace(step: SheetStep, place: number): Promise<void> {
    await this.held(
      this.desk.fileAll([
        ...(this.said(step.id) === undefined
          ? [{ about: stepThing(step.id), key: 'step.done', value: 'done', how: 'reported' as const }]
          : []),
        { about: stepThing(step.id), key: 'step.place', value: place, how: 'reported' },
      ]),
    );
  }

  async tellTool(step: SheetStep, tool: string): Promise<void> {
    await this.file({ about: stepThing(step.id), key: 'step.tool', value: tool, how: 'reported' });
  }

  private file(entry: NewFact): Promise<void> {
    return this.held(this.desk.file(entry));
  }

  private async held(filed: ReturnType<CaseDesk['file']>): Promise<void> {
    const done = await filed;
    if (!done.ok) this.words.refuse(troubleSentence(done.error));
  }
}
