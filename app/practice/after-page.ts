import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  Injector,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { After } from '@core/practice/after';
import type { LookPath } from '@core/practice/path';
import { type Done, isDecided } from '@core/practice/record';
import { SET_OF } from '@core/practice/themes';
import { Notices } from '../commands/notices';
import { Practice } from '../data/practice';
import { percent } from '../messages/answers';
import { beginErrorWords, fairnessWords, minutesBesideWords, verdictOfRunWords } from '../messages/practice';
import { tilePicture } from '../part-drawings/tile-picture';
import { Opening } from '../ui/opening';
import { StateCard } from '../ui/state';
import { TileDrawing } from '../ui/tile-drawing';
import { PracticeWords } from './practice-words';

/** A return looked back on: what had happened, both paths, what was missed, claimed or destroyed, and one thing to take along. */
@Component({
  selector: 'hs-after-page',
  imports: [NzButtonComponent, Opening, RouterLink, StateCard, TileDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './after-page.html',
  styleUrl: './after-page.less',
})
export class AfterPage {
  readonly id = input.required<string>();
  private readonly practice = inject(Practice);
  private readonly names = inject(PracticeWords);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly loaded = signal(false);
  protected readonly failed = signal('');
  /** The lesson is open: it begins folded, so that the verdict is read first. */
  protected readonly lessonOpen = signal(false);
  protected readonly run = computed<Done | undefined>(() => {
    const run = this.practice.runs().find((r) => r.case.id === this.id());
    return run && isDecided(run) ? run : undefined;
  });
  private readonly after = signal<After | undefined>(undefined);

  constructor() {
    void this.practice.load().then(() => this.loaded.set(true));
    effect(() => {
      const [run, there] = [this.run(), this.names.registry().size > 0];
      if (run && there) untracked(() => void this.lookBack(run));
    });
  }

  private async lookBack(run: Done): Promise<void> {
    const made = await this.practice.after(run, run.done);
    if (!made.ok) return this.failed.set(made.error.detail);
    this.after.set(made.value);
    afterNextRender(() => this.host.querySelector<HTMLElement>('.go-on')?.focus(), {
      injector: this.injector,
    });
  }

  protected readonly shown = computed(() => {
    const [a, run] = [this.after(), this.run()];
    if (!a || !run) return undefined;
    const cause = this.names.cause(a.truth, run.case);
    const line = (l: After['chain'][number]) => ({
      name: this.names.look(l),
      value: this.names.value(l.key, l.value, l.u),
      picture: typeof l.value === 'string' ? tilePicture(l.key, l.value) : undefined,
    });
    const lesson = a.missed[0]?.lies ?? a.chain[0];
    return {
      says: verdictOfRunWords(
        a,
        this.names.nameOfCause(a.truth, run.case),
        this.names.nameOfCause(run.done.cause, run.case),
      ),
      next: `You were ${percent(run.done.sure)} sure. ${minutesBesideWords(a.own.minutes, a.best.minutes)}`,
      chain: cause ? [cause.mechanism, cause.consequence] : [],
      lines: a.chain.map(line),
      own: this.steps(a.own),
      best: this.steps(a.best),
      ended: a.best.leader
        ? `It ends at: ${this.names.nameOfCause(a.best.leader.cause, run.case)}, ${percent(a.best.leader.share)}.`
        : '',
      missed: a.missed.map((m) => ({ ...line(m.lies), looked: m.looked })),
      claimed: a.claimed.map((c) => ({
        name: this.names.look(c),
        filed: this.names.value(c.key, c.filed),
        lay: c.lay === undefined ? undefined : this.names.value(c.key, c.lay),
      })),
      destroyed: a.destroyed.map((d) => ({ name: this.names.look(d), by: this.names.look({ key: d.by }) })),
      fairness: fairnessWords(a.fairness),
      lesson:
        lesson && cause
          ? {
              ...line(lesson),
              cause: cause.wording,
              mechanism: cause.mechanism,
              observe: this.names.registry().get(lesson.key)?.observe ?? '',
            }
          : undefined,
    };
  });

  protected readonly ways = computed(() => {
    const s = this.shown();
    if (!s) return [];
    return [
      { name: 'Your path', note: '', steps: s.own },
      { name: 'The desk’s own path', note: s.ended, steps: s.best },
    ];
  });

  private steps(p: LookPath) {
    let before = p.from;
    return p.steps.map((s) => {
      const from = before;
      before = s.share;
      return {
        name: this.names.look(s),
        minutes: s.minutes,
        from: percent(from),
        to: percent(s.share),
        way: s.share > from + 0.005 ? '↑' : s.share < from - 0.005 ? '↓' : '·',
      };
    });
  }

  protected readonly goOn = computed(() => {
    const set = this.run()?.set;
    if (!set) return 'The next one';
    return set.at < SET_OF ? `Next of the set: ${set.at + 1} of ${SET_OF}` : 'The set is done';
  });

  protected async next(): Promise<void> {
    const run = this.run();
    if (!run) return;
    if (run.set && run.set.at >= SET_OF) {
      await this.router.navigate(['/practice']);
      return;
    }
    const begun = await this.practice.next(run);
    if (begun.ok) await this.router.navigate(['/case', begun.value, 'examine']);
    else this.notices.refuse(beginErrorWords(begun.error));
  }
}
