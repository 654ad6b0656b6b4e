import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { RouterLink } from '@angular/router';
import { likelyCause } from '@core/answer/verdict';
import type { FaultAnswer } from '@core/answer/nodes/claim';
import { recordFault } from '@core/answer/decide';
import { repeatsOf } from '@core/answer/repeats';
import { twinsOf } from '@core/answer/twins';
import { fitterOf } from '@core/answer/workshop';
import { has, textOf } from '@core/facts/read';
import { faultThing } from '@core/facts/thing';
import { waitingOf } from '@core/claim/promise';
import { CaseDesk } from '../../data/case-desk';
import { Cases } from '../../data/cases';
import { Clock } from '../../data/clock';
import { DeskSettingsStore } from '../../data/desk-settings';
import { PracticeBench } from '../../data/practice-bench';
import { CaseSentences } from '../../commands/case-sentences';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { CostsCard } from './costs-card';
import { PapersCard } from './papers-card';
import { settleOpening } from '../../messages/openings';
import { Opening } from '../../ui/opening';
import { waitingWords } from '../../messages/costs';
import { repeatWords, SEVERITY_WORDS } from '../../messages/faults';
import { factWords } from '../../messages/facts';
import { planOnCase, termsWords } from '../../messages/terms';

const WEIGHED = 'claim.told_weighed';
/** Objections that a second signature ends. */
const SIGNED = new Set(['tie_unsigned', 'amount_unsigned', 'second_same']);
const SECOND = 'claim.second';
/** Sums that lines of cost are told by; they stand in the card of costs. */
const SUMS = new Set(['claim.cost_part', 'claim.cost_labour', 'claim.cost_other']);
const SOLD = 'kit.sold';
/** Earlier cases that are named; the rest are counted. */
const MOST_REPEATS = 6;
const WITHOUT = 'claim.without_document';

/** Fault against the claim, decision, and the report that can be proved. */
@Component({
  selector: 'hs-settle-page',
  imports: [NzButtonComponent, RouterLink, CostsCard, Field, Opening, PapersCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './settle-page.html',
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(340px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    hs-opening {
      grid-column: 1 / -1;
      margin: 0;
    }
    hs-costs-card {
      display: block;
      grid-column: 1 / -1;
      min-width: 0;
    }
    section {
      display: grid;
      gap: 5px;
    }
    small {
      display: block;
    }
    .laid {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    .laid hs-field {
      flex: 1;
      min-width: 0;
    }
    .fault > button {
      justify-self: start;
    }
    .fault {
      border-bottom: 1px solid var(--rule);
      padding: 4px 0;
      display: grid;
      gap: 2px;
    }
  `,
})
export class SettlePage {
  /** Faults of which is shown what they are: the step, what parts show of it, what to advise. */
  protected readonly unfolded = signal<ReadonlySet<string>>(new Set());
  protected readonly practising = inject(PracticeBench).undecided;
  protected readonly session = inject(DeskSession);
  protected readonly desk = inject(CaseDesk);
  private readonly settings = inject(DeskSettingsStore);
  private readonly voice = inject(CaseSentences).voice;
  private readonly clock = inject(Clock);
  private readonly cases = inject(Cases);
  protected readonly answers = computed(() => this.desk.current()?.answers);
  protected readonly opening = computed(() => {
    const view = this.desk.current();
    const a = view?.answers;
    return a && settleOpening(a, view.state, likelyCause(a), this.voice());
  });
  protected readonly terms = computed(() => {
    const t = this.answers()?.terms;
    return t ? termsWords(t, this.settings.notation()) : 'Cannot tell: the kit is not known.';
  });
  /** What the plan of the kit says, what of it bears on this claim, and what it leaves out. */
  protected readonly plan = computed(() => {
    const a = this.answers();
    return a && planOnCase(a, this.settings.notation());
  });
  /** How long a claim waits; other cases are promised nothing. */
  protected readonly waiting = computed(() => {
    const [view, a] = [this.desk.current(), this.answers()];
    if (!view || a?.kind !== 'claim') return undefined;
    const promised = a.policy.promiseDays;
    const w = waitingOf(view.state, a.seals, this.clock.today(), promised);
    return w && { late: w.over > 0, words: waitingWords(w, promised) };
  });
  /** Other cases of the same claim. */
  protected readonly twins = computed(() => {
    const view = this.desk.current();
    const claim = view && textOf(view.state, 'claim.number');
    return view && claim !== undefined
      ? twinsOf(this.cases.summaries(), view.id, claim).slice(0, MOST_REPEATS)
      : [];
  });
  protected unfold(code: string): void {
    this.unfolded.update((all) => {
      const next = new Set(all);
      if (!next.delete(code)) next.add(code);
      return next;
    });
  }

  private keysOf(group: string): string[] {
    return this.desk.groupsAt('settle').flatMap((g) => (g.key === group ? g.fields.map((o) => o.key) : []));
  }
  protected readonly claimKeys = computed(() =>
    this.keysOf('claim').filter((k) => !SUMS.has(k) && (k !== SOLD || this.wantsSale())),
  );
  /** The sale is asked for only where the plan begins at it, or where it is filed. */
  private readonly wantsSale = computed(() => {
    const state = this.desk.current()?.state;
    const from = this.answers()?.kit?.terms.from ?? 'fitted';
    const begins = from === 'sold' || (from === 'fitted_else_sold' && !(state && has(state, 'kit.fitted')));
    return begins || (state !== undefined && has(state, SOLD));
  });
  /** Going on without a document is asked for only where one is missing; what we told them, where we did. */
  protected readonly decisionKeys = computed(() =>
    this.keysOf('decision').filter(
      (k) =>
        (k !== WITHOUT || this.needsWithout()) &&
        (k !== WEIGHED || this.advised()) &&
        (k !== SECOND || this.needsSecond()),
    ),
  );
  private readonly advised = computed(() => {
    const state = this.desk.current()?.state;
    return state !== undefined && has(state, 'call.told');
  });
  private readonly needsSecond = computed(() => {
    const wanted = this.answers()?.decision.objections.some((o) => SIGNED.has(o.code));
    const state = this.desk.current()?.state;
    return wanted === true || (state !== undefined && has(state, SECOND));
  });
  private readonly needsWithout = computed(() => {
    const missing = this.answers()?.decision.objections.some((o) => o.code === 'missing_document');
    const state = this.desk.current()?.state;
    return missing === true || (state !== undefined && has(state, WITHOUT));
  });
  protected readonly faults = computed(() =>
    (this.answers()?.faults ?? [])
      .filter((f) => f.proposed || f.recorded !== undefined || f.evidence.length > 0)
      .sort((a, b) => Number(b.proposed) - Number(a.proposed))
      .map((f) => ({
        answer: f,
        thing: faultThing(f.fault.code),
        severity: SEVERITY_WORDS[f.severity],
        evidence: f.evidence.map((id) => this.factText(id)),
        repeats: f.recorded ? this.repeats(f) : [],
      })),
  );
  /** Earlier cases of the workshop with this fault, and those that missed the same step. */
  private repeats(f: FaultAnswer): { words: string; cases: { id: string; tag: string }[] }[] {
    const view = this.desk.current();
    if (!view) return [];
    const { id, state } = view;
    const found = repeatsOf(this.cases.summaries(), {
      id,
      opened: state.log[0]?.at ?? '',
      shop: fitterOf(state),
      code: f.fault.code,
      step: f.step?.id,
    });
    return (['fault', 'step'] as const).flatMap((same) =>
      found[same].length > 0
        ? [{ words: repeatWords(same, found[same].length), cases: found[same].slice(0, MOST_REPEATS) }]
        : [],
    );
  }
  protected record(f: FaultAnswer): void {
    const a = this.answers();
    const entry = a && recordFault(a, f.fault.code);
    if (entry?.ok) void this.desk.file(entry.value);
  }

  protected withdraw(f: FaultAnswer): void {
    if (f.recorded) void this.desk.strike(f.recorded);
  }

  private factText(id: string): string {
    const fact = this.desk.current()?.state.log.find((f) => f.id === id);
    return fact ? factWords(fact, this.voice(), this.desk.nameOf) : id;
  }
}
