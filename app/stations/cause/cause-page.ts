import { must } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { explained } from '@core/answer/explained';
import { likelyCause } from '@core/answer/verdict';
import { CAUSES, noCauseOf } from '@core/cause/cause-data';
import { checkBits } from '@core/cause/next-check';
import { holding } from '@core/cause/changes';
import type { RankedCause } from '@core/cause/rank';
import { listOf, textOf } from '@core/facts/read';
import { codesUnknown } from '@core/examination/codes';
import { formatNumber } from '@core/quantity/format-quantity';
import { CaseSentences } from '../../commands/case-sentences';
import { weighsCauses } from '@core/answer/case-kind';
import { CaseDesk } from '../../data/case-desk';
import { OwnNumbers } from '../../data/own-numbers';
import { PracticeBench } from '../../data/practice-bench';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { contradictionWords, findingWords, inspectionWords, percent } from '../../messages/answers';
import { speaksWords, weightWords } from '../../messages/weights';
import {
  codeWords,
  unknownCodeWords,
  lineWords,
  causePairWords,
  turnsWords,
  undecidableWords,
} from '../../messages/explain';
import { capital } from '../../language/capital';
import { list } from '../../language/list';
import { editionWords } from '../../messages/knowledge';
import { Opening } from '../../ui/opening';
import { settlingWords, unweighedWords, verdictWords } from '../../messages/verdict';
import { CauseChain } from './cause-chain';
import { LotLine } from './lot-line';
import { WhereFound } from './where-found';
import { DecidePanel } from './decide-panel';
import { LookAlikes } from './look-alikes';
import { PracticeVerdict } from './practice-verdict';
import { outcomesOf, causeRivals } from './rivals';

/** Weights below this are not told, being rounded away; lines that are told at most. */
const LEAST_DECIBANS = 0.5;
const MOST_LINES = 8;
/** Things that did not come and are named for it. */
const MOST_LOST = 3;
/** Rivals from this share on are named where nothing is decided, and so many of them at most. */
const RIVAL = { share: 0.1, most: 4 };

/** Rivals weighed on all the evidence; the specialist decides. */
@Component({
  selector: 'hs-cause-page',
  imports: [
    Opening,
    NgTemplateOutlet,
    NzButtonComponent,
    Field,
    RouterLink,
    CauseChain,
    LotLine,
    WhereFound,
    DecidePanel,
    LookAlikes,
    PracticeVerdict,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cause-page.html',
  styleUrl: './cause-page.less',
})
export class CausePage {
  protected readonly session = inject(DeskSession);
  protected readonly desk = inject(CaseDesk);
  /** Of a return for practice the trainee's own verdict comes first. */
  protected readonly practising = inject(PracticeBench).undecided;
  protected readonly capital = capital;
  private readonly knowledge = inject(OwnNumbers);
  private readonly voice = inject(CaseSentences).voice;
  /** Cause or outcome that was chosen. */
  protected readonly opened = signal<string | undefined>(undefined);
  protected readonly all = signal(false);
  /** The figures are open; they are not worked out before. */
  protected readonly figures = signal(false);

  private readonly answers = computed(() => this.desk.current()?.answers);
  /** Nothing came back and nothing is claimed: there is nothing to find the cause of. */
  protected readonly question = computed(() => {
    const state = this.desk.current()?.state;
    return state !== undefined && !weighsCauses(state);
  });
  /** What is weighed; nothing of a question. */
  private readonly judged = computed(() => (this.question() ? undefined : this.answers()));
  /** Nothing is weighed before there is something to weigh. */
  protected readonly weighed = computed(() => (this.judged()?.ranking.weighed ?? 0) > 0);
  protected readonly decided = computed(() => {
    const state = this.desk.current()?.state;
    return state ? textOf(state, 'cause.decided') : undefined;
  });
  protected readonly edition = computed(() =>
    editionWords(CAUSES.edition, holding(this.knowledge.changes()).size),
  );

  /** What was chosen; else what was decided, where the drive can have it; else the leader. */
  protected readonly shown = computed(() => {
    const causes = this.judged()?.ranking.causes ?? [];
    const decided = this.decided();
    const there = noCauseOf(decided) ?? causes.find((c) => c.cause.key === decided)?.cause.key;
    return this.opened() ?? there ?? causes[0]?.cause.key;
  });
  protected readonly rivals = computed(() => {
    const a = this.judged();
    if (!a) return { rows: [], more: 0, below: '', outcomes: [] };
    const { all, likely } = causeRivals(a, this.decided());
    const chosen = all.filter((r) => r.key === this.shown() && !likely.includes(r));
    const some = [...likely, ...chosen];
    return {
      rows: this.all() ? all : some,
      more: all.length - likely.length - chosen.length,
      // rounded up, so that what is said of all of them is so
      below: percent(
        Math.ceil(100 * Math.max(0.01, ...all.filter((r) => !some.includes(r)).map((r) => must(r.p)))) / 100,
      ),
      outcomes: outcomesOf(a, this.decided()),
    };
  });
  protected readonly detail = computed(() => {
    const c = this.judged()?.ranking.causes.find((x) => x.cause.key === this.shown());
    return c ? this.detailOf(c) : undefined;
  });
  /** An outcome that is no cause, with the reason that is proposed for it. */
  protected readonly outcome = computed(() => {
    const key = noCauseOf(this.shown());
    const a = this.judged();
    if (!key || !a) return undefined;
    const rivals = a.ranking.causes
      .filter((c) => c.probability >= RIVAL.share)
      .slice(0, RIVAL.most)
      .map((c) => ({ wording: c.cause.wording, p: c.probability }));
    const lost = a.conclude.lost.map((l) => `${l.wording.toLowerCase()}, which did not come`);
    const looks = this.checks().flatMap((c) =>
      c.inspections.slice(0, 1).map((l) => this.lookOf(l.key).toLowerCase()),
    );
    return {
      key,
      name: CAUSES[key].wording,
      proposed: key === 'undecidable' ? undecidableWords(rivals, looks, lost) : '',
    };
  });

  private readonly found = computed(() => {
    const a = this.judged();
    return a && likelyCause(a);
  });
  /** What the case comes to, in a sentence or two. */
  protected readonly verdict = computed(() => {
    const [a, x] = [this.judged(), this.found()];
    return a && x && verdictWords(x, a.policy, this.voice());
  });
  /** The card below says the same of the leader, line by line, unless something was seen itself. */
  protected readonly because = computed(() => this.found()?.because.seen === true || !this.detail()?.leader);
  /** A further check that was opened. */
  protected readonly check = signal<string | undefined>(undefined);
  protected readonly unweighed = computed(() => {
    const [a, view] = [this.judged(), this.desk.current()];
    return a && view ? unweighedWords(a.ranking, view.state, this.voice()) : [];
  });

  protected readonly checks = computed(() => {
    const possible = (this.judged()?.conclude.possible ?? []).slice(0, 3);
    const best = Math.max(0, ...possible.map((c) => c.settles));
    return possible.map((c) => ({
      finding: c.finding,
      inspections: [...c.first, ...c.inspections],
      how: this.answers()?.registry.get(c.inspections[0]?.key ?? '')?.observe ?? '',
      name: this.lookOf(must(c.inspections[0]).key),
      worth: `${settlingWords(c.settles, best, c.minutes)}${c.first.length === 0 ? '' : `; ${list(c.first.map((f) => this.lookOf(f.key).toLowerCase()))} first, which it would undo`}`,
    }));
  });

  /** What the checks would tell, in bits; worked out where it is read. */
  protected readonly bits = computed(() => {
    const a = this.judged();
    if (!a) return [];
    return a.conclude.possible.slice(0, 3).map((c) => {
      const of = formatNumber(checkBits(a.causes, a.findings, c.finding), 2);
      const whether = formatNumber(c.settles, 2);
      const name = this.lookOf(must(c.inspections[0]).key);
      return `${name}: ${of} bits of which cause it is, ${whether} of whether it is the leader, which is doubted for it`;
    });
  });

  /** What would have told something, and did not come. */
  protected readonly lost = computed(() =>
    (this.judged()?.conclude.lost ?? [])
      .slice(0, MOST_LOST)
      .map((l) => l.wording.toLowerCase())
      .join('; '),
  );

  /** Why the leader leads: against the runner-up, through its mechanisms, and what would turn it. */
  protected readonly leads = computed(() => {
    const a = this.judged();
    const e = a && this.weighed() ? explained(a) : undefined;
    if (!e) return undefined;
    const v = this.voice();
    const lines = e.lines.filter((l) => Math.abs(l.decibans) >= LEAST_DECIBANS);
    return {
      leader: e.leader.wording,
      consequence: e.leader.consequence,
      runner: e.runner.wording,
      lines: lines.slice(0, MOST_LINES).map((l) => lineWords(l, v)),
      working: e.working.map((w) => ({
        name: w.wording,
        p: w.probability,
        share: percent(w.probability),
        shows: w.shows.map((f) => findingWords(f, v)),
      })),
      turns: turnsWords(e, v),
      pair: (this.found()?.together.length ?? 0) > 0 ? undefined : causePairWords(e),
    };
  });
  protected readonly codes = computed(() => {
    const [a, view] = [this.judged(), this.desk.current()];
    if (!a || !view) return [];
    const unknown = codesUnknown(listOf(view.state, 'fault.codes'));
    return [...a.codes.map(codeWords), ...unknown.map(unknownCodeWords)];
  });
  /** What faults that stand together show or explain is owed to them, and speaks against none of them. */
  private readonly owed = computed(() => {
    const faults = this.found()?.together ?? [];
    return new Set(faults.flatMap((f) => [...f.shownBy, ...f.explains].map((x) => x.finding)));
  });
  protected readonly unexplained = computed(() =>
    (this.judged()?.ranking.unexplained ?? [])
      .filter((f) => !this.owed().has(f.finding))
      .map((f) => findingWords(f, this.voice())),
  );
  protected readonly contradictions = computed(() => [
    ...(this.judged()?.ranking.contradictions.map((c) => `${c.wording} ${c.means}`) ?? []),
    ...(this.answers()?.contradictions ?? []).map((c) => contradictionWords(c, this.voice())),
  ]);
  /** What was found and no band or grade of the knowledge holds. */
  protected readonly strange = computed(() =>
    (this.judged()?.ranking.strange ?? []).map((f) => findingWords(f, this.voice())),
  );

  private lookOf(key: string): string {
    const o = this.answers()?.registry.get(key);
    return o ? inspectionWords(o) : key;
  }

  private detailOf(c: RankedCause) {
    const v = this.voice();
    const line = (w: RankedCause['weights'][number]) => speaksWords(w, v);
    const sorted = [...c.weights].sort((a, b) => Math.abs(b.nats) - Math.abs(a.nats));
    return {
      key: c.cause.key,
      name: c.cause.wording,
      mechanism: c.cause.mechanism,
      consequence: c.cause.consequence,
      leader: c === this.judged()?.ranking.causes[0],
      for: sorted.filter((w) => w.nats > 0.05).map(line),
      against: sorted.filter((w) => w.nats < -0.05 && !this.owed().has(w.finding)).map(line),
      factors: sorted.filter((w) => Math.abs(w.nats) > 0.05).map((w) => weightWords(w, v)),
    };
  }
}
