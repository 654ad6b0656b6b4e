import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { decideCause } from '@core/answer/decide';
import { explained } from '@core/answer/explained';
import type { RankedCause } from '@core/cause/rank';
import { standing, textOf } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import { VoiceService } from '../../acts/voice';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { codeWords, lineWords, pairWords, sureWords, turnsWords, workingWords } from '../../words/explain';
import { contradictionWords, decideSentence, findingWords, percent, weightWords } from '../../words/answers';

/** Weights below this are not told, being rounded away; lines that are told at most. */
const LEAST_DECIBANS = 0.5;
const MOST_LINES = 8;

/** Rivals weighed on all the evidence; the specialist decides. */
@Component({
  selector: 'hs-cause-page',
  imports: [NzButtonComponent, NzInputDirective, Field, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cause-page.html',
  styleUrl: './cause-page.less',
})
export class CausePage {
  protected readonly session = inject(DeskSession);
  protected readonly desk = inject(CaseDesk);
  private readonly voice = inject(VoiceService).voice;
  protected readonly opened = signal<string | undefined>(undefined);
  /** Nothing came back and nothing is claimed: there is nothing to find the cause of. */
  protected readonly question = computed(() => this.desk.current()?.answers?.kind === 'question');
  protected readonly ranking = computed(() =>
    this.question() ? undefined : this.desk.current()?.answers?.ranking,
  );
  protected readonly shown = computed(() => this.opened() ?? this.ranking()?.causes[0]?.cause.key);
  protected readonly decided = computed(() => {
    const state = this.desk.current()?.state;
    return state ? textOf(state, 'cause.decided') : undefined;
  });
  protected readonly reason = computed(() => {
    const state = this.desk.current()?.state;
    return (state && standing(state, 'cause.decided')?.note) ?? '';
  });
  protected readonly rows = computed(() =>
    (this.ranking()?.causes ?? []).map((c) => ({
      key: c.cause.key,
      name: c.cause.wording,
      fault: c.cause.fault ?? '',
      family: c.cause.family,
      p: c.probability,
      share: percent(c.probability),
      odds: oddsWords(c.probability),
      decided: c.cause.key === this.decided(),
    })),
  );
  protected readonly all = signal(false);
  /** Faults that the fitting sheet shows: their causes are told, however unlikely all else makes them. */
  private readonly onSheet = computed(
    () => new Set(this.desk.current()?.answers?.fitted?.faults.map((f) => f.code)),
  );
  /** Those that are worth a look: from one in a hundred on, the one decided, the one looked at, and what the sheet shows. */
  protected readonly likely = computed(() =>
    this.rows().filter(
      (r) => this.all() || r.p >= 0.01 || r.decided || r.key === this.shown() || this.onSheet().has(r.fault),
    ),
  );
  protected readonly unlikely = computed(() =>
    this.all() ? this.rows().length : this.rows().length - this.likely().length,
  );
  protected readonly none = computed(() => percent(this.ranking()?.none ?? 0));
  protected readonly detail = computed(() => {
    const c = this.ranking()?.causes.find((x) => x.cause.key === this.shown());
    return c ? this.detailOf(c) : undefined;
  });
  protected readonly unexplained = computed(() =>
    (this.ranking()?.unexplained ?? []).map((f) => findingWords(f, this.voice())),
  );
  protected readonly contradictions = computed(() => [
    ...(this.ranking()?.contradictions.map((c) => c.wording) ?? []),
    ...(this.desk.current()?.answers?.contradictions ?? []).map((c) => contradictionWords(c, this.voice())),
  ]);
  /** Why a decision was not taken. */
  protected readonly why = signal('');
  /** Nothing is weighed before there is something to weigh. */
  protected readonly weighed = computed(() => (this.ranking()?.weighed ?? 0) > 0);
  protected readonly checks = computed(() =>
    (this.question() ? [] : (this.desk.current()?.answers?.checks ?? [])).slice(0, 3).map((c) => ({
      finding: c.finding,
      looks: c.looks,
      worth: `${c.bits.toFixed(2)} bits for ${c.minutes} min`,
    })),
  );

  /** The leader is decided at once; another cause needs a reason, which is kept with the decision. */
  protected decide(key: string, reason: string): void {
    const a = this.desk.current()?.answers;
    const entry = a && decideCause(a, key, reason);
    if (entry?.ok) void this.desk.file(entry.value);
    else if (entry) this.why.set(decideSentence(entry.error, this.desk.nameOf));
  }

  /** Why the leader leads: against the runner-up, through its mechanisms, and what would turn it. */
  protected readonly leads = computed(() => {
    const a = this.desk.current()?.answers;
    const e = a && this.weighed() && !this.question() ? explained(a) : undefined;
    if (!e) return undefined;
    const v = this.voice();
    const p = a!.ranking.causes[0]!.probability;
    const lines = e.lines.filter((l) => Math.abs(l.decibans) >= LEAST_DECIBANS);
    return {
      leader: e.leader.wording,
      runner: e.runner.wording,
      sure: sureWords(p, a!.rules.sureFrom),
      undecided: p < a!.rules.sureFrom.likely,
      lines: lines.slice(0, MOST_LINES).map((l) => lineWords(l, v)),
      working: e.working.map((w) => workingWords(w, v)),
      turns: turnsWords(e, v),
      pair: pairWords(e),
    };
  });
  protected readonly codes = computed(() =>
    this.question() ? [] : (this.desk.current()?.answers?.codes ?? []).map(codeWords),
  );
  /** What was found and no band or grade of the knowledge holds. */
  protected readonly strange = computed(() =>
    (this.ranking()?.strange ?? []).map((f) => findingWords(f, this.voice())),
  );

  private detailOf(c: RankedCause) {
    const line = (w: RankedCause['weights'][number]) => weightWords(w, this.voice());
    const sorted = [...c.weights].sort((a, b) => Math.abs(b.nats) - Math.abs(a.nats));
    return {
      key: c.cause.key,
      name: c.cause.wording,
      mechanism: c.cause.mechanism,
      consequence: c.cause.consequence,
      leader: c === this.ranking()?.causes[0],
      for: sorted.filter((w) => w.nats > 0.05).map(line),
      against: sorted.filter((w) => w.nats < -0.05).map(line),
    };
  }
}

function oddsWords(p: number): string {
  const odds = p / (1 - p);
  return odds >= 1
    ? `${odds >= 100 ? '>100' : odds.toFixed(1)} : 1`
    : `1 : ${odds <= 0.01 ? '>100' : (1 / odds).toFixed(1)}`;
}
