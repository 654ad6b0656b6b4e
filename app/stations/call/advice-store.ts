import { must } from '@core/quantity/must';
import { computed, inject, Injectable, linkedSignal } from '@angular/core';
import { type Advice, type CallerQuestion } from '@core/advice/advice';
import { advise, questionsAsked } from '@core/advice/advise';
import { agreedMarksOf } from '@core/advice/marks';
import type { Stage } from '@core/drive/stages';
import { wheelThing } from '@core/facts/thing';
import { CaseDesk } from '../../data/case-desk';
import { Clock } from '../../data/clock';
import type { MarkDial } from '../../ui/mark-dials';
import { standsWords } from '../../messages/advice';

/** The answers to what the caller of the case in hand wants to know. */
@Injectable()
export class AdviceStore {
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);

  readonly all = computed<Advice[]>(() => {
    const view = this.desk.current();
    if (!view?.answers || !view.world) return [];
    const c = { world: view.world, state: view.state, a: view.answers, today: this.clock.today() };
    return questionsAsked(view.state).map((asked) => advise(asked, c));
  });
  private readonly asked = computed(() =>
    this.all()
      .map((a) => a.asked)
      .join(' '),
  );
  /** The one that is being answered. */
  readonly at = linkedSignal<string, CallerQuestion | undefined>({
    source: this.asked,
    computation: (asked, before) =>
      before?.value !== undefined && asked.split(' ').includes(before.value)
        ? before.value
        : (asked.split(' ')[0] as CallerQuestion) || undefined,
  });
  readonly current = computed(() => this.all().find((a) => a.asked === this.at()));

  /** Marks of the drive, each with where it must stand and what was told of it. */
  readonly dials = computed<MarkDial[]>(() => {
    const a = this.desk.current()?.answers;
    if (!a || this.current()?.draw !== 'marks') return [];
    const predicted = agreedMarksOf(a.possible.designs, must(this.desk.current()).state);
    const stages = a.possible.designs[0];
    if (!predicted || !stages) return [];
    const seen = new Map((a.drive?.marks ?? a.openMarks)?.marks.map((m) => [m.about, m]));
    return predicted.map((p): MarkDial => {
      const deg = 360 / (teethOf(stages, p.about) ?? 40);
      const m = seen.get(p.about);
      const must = `must stand ${standsWords(p.teeth)}`;
      return {
        name: p.name,
        teeth: p.teeth,
        predictedDeg: p.teeth * deg,
        seenDeg: m && m.teeth * deg,
        says: m ? `told ${standsWords(m.teeth)}, ${must}` : `${must}, not told yet`,
        verdict: !m
          ? 'unseen'
          : m.verdict.verdict === 'as_predicted'
            ? 'right'
            : m.verdict.verdict === 'cannot_tell'
              ? 'unsure'
              : 'wrong',
      };
    });
  });
}

const teethOf = (stages: readonly Stage[], about: string): number | undefined =>
  stages.flatMap((s) => s.layout.wheels).find((w) => wheelThing(w.id) === about)?.teeth;
