import { nth } from '@core/quantity/must';
import { computed, inject, Injectable, signal } from '@angular/core';
import { kitOfJob } from '@core/answer/jobs';
import type { NewFact } from '@core/facts/change';
import { standing } from '@core/facts/read';
import { askKey, inBase, isPossible, stepThing } from '@core/fitting/fitted';
import { movedIn } from '@core/fitting/moved';
import { brokenGates } from '@core/fitting/order';
import type { AskFor, SheetStep } from '@core/fitting/sheet';
import { beforeStep, stepMotion } from '@core/fitting/step-motion';
import { Notices } from '../../commands/notices';
import { Bulletins } from '../../data/bulletins';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import { returnErrorWords } from '../../messages/fitting';

export type FitPanel = 'sheet' | 'check' | 'torque' | 'heat' | 'lost' | 'why';
export type Went = 'done' | 'skipped' | 'wrong';

/** The sheet of the case in hand, the step in hand, and what was said of each. */
@Injectable()
export class FitStore {
  private readonly desk = inject(CaseDesk);
  private readonly notices = inject(Notices);
  private readonly bulletins = inject(Bulletins);
  readonly panel = signal<FitPanel>('sheet');
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
  /** What the step in hand moves, after the step in front of it. */
  readonly motion = computed(() => {
    const [sheet, step, a] = [this.sheet(), this.step(), this.answers()];
    if (!sheet || !step || !a) return undefined;
    const stages = this.stages();
    return stepMotion(step, beforeStep(sheet, step, stages.length), stages, a.policy);
  });
  /** What the house tells everybody about the step in hand of this kit. */
  readonly told = computed(() => {
    const [a, step] = [this.answers(), this.step()];
    const kit = a && kitOfJob(a)?.number;
    return this.bulletins.of(kit).find((b) => b.step === step?.id);
  });
  /** The drawing has the room of the steps too. */
  readonly large = signal(false);
  /** Ids of steps that a fault was shown at. */
  readonly faulty = computed(() => new Set(this.fitted()?.faults.map((f) => f.step)));

  /** Another order that is tried: steps by id. Nothing of it is filed until it is reported. */
  readonly tried = signal<readonly string[] | undefined>(undefined);
  /** Gates that the order tried would break. */
  readonly wouldBreak = computed(() => {
    const [sheet, done] = [this.sheet(), this.tried()];
    return sheet && done ? brokenGates({ done, skipped: new Set() }, sheet.gates) : [];
  });

  /** Moves the step in hand up or down in the order that is tried. */
  shift(by: 1 | -1): void {
    const [sheet, step] = [this.sheet(), this.step()];
    if (!sheet || !step) return;
    const order = [...(this.tried() ?? sheet.steps.map((s) => s.id))];
    const at = order.indexOf(step.id);
    if (at + by < 0 || at + by >= order.length) return;
    order.splice(at, 1);
    order.splice(at + by, 0, step.id);
    this.tried.set(order.every((id, i) => id === nth(sheet.steps, i).id) ? undefined : order);
  }

  /** The order tried is how it was done: all steps, in that order. */
  async report(): Promise<void> {
    const [sheet, order] = [this.sheet(), this.tried()];
    if (!sheet || !order) return;
    const moved = movedIn(
      sheet.steps.map((s) => s.id),
      order,
    );
    const entries = sheet.steps.flatMap((s): NewFact[] => {
      const [about, place] = [stepThing(s.id), moved.get(s.id)];
      return [
        { about, key: 'step.done', value: 'done', how: 'reported' },
        ...(place === undefined
          ? []
          : [{ about, key: 'step.place', value: place, how: 'reported' as const }]),
      ];
    });
    await this.held(this.desk.fileAll(entries));
    this.tried.set(undefined);
  }

  pick(id: string | undefined): void {
    if (id !== undefined) this.picked.set(id);
  }

  /** Walks over the steps. */
  walk(by: number): void {
    const ids = this.tried() ?? this.sheet()?.steps.map((s) => s.id) ?? [];
    const at = ids.indexOf(this.step()?.id ?? '');
    this.pick(ids[Math.max(0, Math.min(ids.length - 1, at + by))]);
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
    if (!isPossible(ask, value)) {
      this.notices.refuse(returnErrorWords({ code: 'impossible', step: step.id, value }));
      return;
    }
    const about = stepThing(step.id);
    const entries: NewFact[] = [{ about, key: askKey(ask), value: inBase(ask, value), how: 'reported' }];
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
    if (!done.ok) this.notices.refuse(troubleSentence(done.error));
  }
}
