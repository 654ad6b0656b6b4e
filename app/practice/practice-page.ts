import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { calibration, isDecided } from '@core/practice/record';
import { SET_OF, THEMES } from '@core/practice/themes';
import { formatNumber } from '@core/quantity/format-quantity';
import type { Result } from '@core/quantity/result';
import { Notices } from '../commands/notices';
import { CaseDesk } from '../data/case-desk';
import { type BeginError, Practice } from '../data/practice';
import { Packs } from '../data/packs';
import { capital } from '../language/capital';
import { counted } from '../language/plural';
import { percent } from '../messages/answers';
import { beginErrorWords, calibrationWords, spacedWords } from '../messages/practice';
import { Opening } from '../ui/opening';
import { StateCard } from '../ui/state';
import { FilesCard } from './files-card';
import { PracticeWords } from './practice-words';
import { ReliabilityChart } from './reliability-chart';

/** So many decided returns are listed. */
const LISTED = 8;

/** Returns whose truth is known: begun, gone on with, and what one's own verdicts are worth. */
@Component({
  selector: 'hs-practice-page',
  imports: [FilesCard, NzButtonComponent, Opening, ReliabilityChart, RouterLink, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './practice-page.html',
  styleUrl: './practice-page.less',
})
export class PracticePage {
  protected readonly practice = inject(Practice);
  protected readonly packs = inject(Packs);
  private readonly names = inject(PracticeWords);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  protected readonly themes = THEMES;
  protected readonly of = SET_OF;
  protected readonly busy = signal(false);

  constructor() {
    void this.practice.load();
    // what was in hand is put back: the commands of a case are none here
    void inject(CaseDesk).open(undefined);
  }

  protected readonly opening = computed(() => {
    const [open] = this.practice.open();
    const [due] = this.practice.spaced();
    if (open) return { says: 'One is begun and not decided.', next: 'Go on with it, or begin another.' };
    return due
      ? {
          says: `Next: ${due.family}.`,
          next: `${capital(spacedWords(due))}. What you get right comes back later each time, what you get wrong after the next.`,
        }
      : { says: '', next: '' };
  });
  protected readonly open = computed(() => this.practice.open()[0]);
  protected readonly week = computed(() => {
    const week = this.practice.week();
    const mine = this.practice.runs().filter((r) => r.set?.key === `week-${week}` && isDecided(r)).length;
    return { week, mine, name: `${Math.floor(week / 100)}, week ${week % 100}` };
  });
  protected readonly sure = computed(() => calibration(this.practice.done()));
  protected readonly sureWords = computed(() => calibrationWords(this.sure()));
  /** Brier score of the first and the last ten, once there are so many. */
  protected readonly over = computed(() => {
    const t = this.sure().overTime;
    const [first, last] = [t[9], t.at(-1)];
    return t.length >= 20 && first && last
      ? `Over the first ten it was ${formatNumber(first.brier, 2)}, over the last ten ${formatNumber(last.brier, 2)}.`
      : '';
  });
  protected readonly families = computed(() =>
    this.practice.spaced().map((s) => ({
      family: s.family,
      words: `${s.seen === 0 ? '' : `${s.right} of ${s.seen} right, `}${spacedWords(s)}`,
    })),
  );
  protected readonly last = computed(() =>
    [...this.practice.done()]
      .sort((a, b) => (a.done.at < b.done.at ? 1 : -1))
      .slice(0, LISTED)
      .map((r) => ({
        id: r.case.id,
        words: `${r.done.right ? '✓' : '✕'} ${this.names.nameOfCause(r.case.cause, r.case)}, ${percent(r.done.sure)} sure, ${r.done.minutes} min`,
      })),
  );
  protected readonly decided = computed(() => counted(this.practice.done().length, 'return', 'returns'));

  protected goOn(): void {
    const open = this.open();
    if (open) void this.router.navigate(['/case', open.case.id, 'examine']);
  }

  protected weakest(): void {
    void this.go(() => this.practice.beginWeakest());
  }

  protected theme(key: string): void {
    void this.go(() => this.practice.beginSet(key));
  }

  protected thisWeek(): void {
    void this.go(() => this.practice.beginSet('mixed', this.week().week));
  }

  private async go(begin: () => Promise<Result<string, BeginError>>): Promise<void> {
    if (this.busy()) return;
    this.busy.set(true);
    const begun = await begin();
    this.busy.set(false);
    if (begun.ok) await this.router.navigate(['/case', begun.value, 'examine']);
    else this.notices.refuse(beginErrorWords(begun.error));
  }
}
