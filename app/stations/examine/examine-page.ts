import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  Injector,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { ExaminedThing } from '@core/answer/examined';
import { CaseSentences } from '../../commands/case-sentences';
import { counted } from '../../language/plural';
import { thingPicture } from '../../part-drawings/thing-picture';
import { Commands } from '../../commands/commands';
import { CaseDesk } from '../../data/case-desk';
import { PracticeBench } from '../../data/practice-bench';
import { DeskSettingsStore } from '../../data/desk-settings';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { SettingsPair } from '../../entry/settings-pair';
import { settlingWords } from '../../messages/verdict';
import { list } from '../../language/list';
import { usageWords } from '../../messages/answers';
import { examineOpening } from '../../messages/openings';
import { Opening } from '../../ui/opening';
import { shownOf } from './shown-value';
import { ExamineStore } from './examine-store';
import { BoxStrip } from './box-strip';
import { CompareThingsPanel } from './compare-panel';
import { DamageMapPart } from './damage-map';
import { InspectionList } from './inspection-list';
import { InspectionPanel } from './inspection-panel';
import { ThingDrawing } from './thing-drawing';
import { ThingFacts } from './thing-facts';

/** Inspections that are proposed at once. */
const BEST = 4;

/** The bench: what is in the box, one thing in hand, drawn, and its inspections in the order of the work. */
@Component({
  selector: 'hs-examine-page',
  imports: [
    Opening,
    BoxStrip,
    CompareThingsPanel,
    DamageMapPart,
    Field,
    InspectionList,
    InspectionPanel,
    NzButtonComponent,
    RouterLink,
    SettingsPair,
    ThingDrawing,
    ThingFacts,
  ],
  providers: [ExamineStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown)': 'press($event)' },
  templateUrl: './examine-page.html',
  styleUrl: './examine-page.less',
})
export class ExaminePage {
  protected readonly session = inject(DeskSession);
  protected readonly store = inject(ExamineStore);
  protected readonly desk = inject(CaseDesk);
  protected readonly practising = inject(PracticeBench).undecided;
  protected readonly commands = inject(Commands);
  protected readonly counted = counted;
  private readonly voice = inject(CaseSentences).voice;
  private readonly settings = inject(DeskSettingsStore);
  private readonly injector = inject(Injector);
  /** The thing in hand is shown beside a new one and others. */
  protected readonly comparing = signal(false);
  private readonly panel = viewChild(InspectionPanel);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  /** True from the second frame on: the first one is not kept waiting for what lies below its edge. */
  protected readonly later = signal(false);
  protected readonly drive = computed(() => this.desk.current()?.answers?.drive);
  private readonly ran = computed(() => {
    const usage = this.desk.current()?.answers?.usage ?? {};
    return usage.distance || usage.time || usage.back ? usageWords(usage, this.settings.notation()) : '';
  });
  constructor() {
    const router = inject(Router);
    // A scanned label names the part that it is on.
    inject(ActivatedRoute)
      .queryParamMap.pipe(takeUntilDestroyed())
      .subscribe((asked) => {
        const part = asked.get('part');
        if (part === null) return;
        this.store.take(part);
        // Scanned again it is asked for again.
        void router.navigate([], { queryParams: {}, replaceUrl: true });
      });
    afterNextRender(() => setTimeout(() => this.later.set(true)));
  }

  protected readonly opening = computed(() => {
    const view = this.desk.current();
    const a = view?.answers;
    return (
      a &&
      examineOpening(a, view.state, this.voice(), this.ran(), (t, l) => shownOf(this.session, l, t.about))
    );
  });
  protected readonly missing = computed(() =>
    list(this.store.things().flatMap((t) => (t.came === 'not_sent' ? [t.wording.toLowerCase()] : []))),
  );
  /** What would settle most, of what is made on this bench, by worth; a question is not weighed, and nothing would settle it. */
  protected readonly best = computed(() => {
    const a = this.desk.current()?.answers;
    if (!a || a.kind === 'question') return [];
    const most = Math.max(0, ...a.conclude.wanted.map((w) => w.settles));
    return a.conclude.wanted.slice(0, BEST).map((w) => {
      const thing = this.store
        .things()
        .find((t) => t.about === w.about && t.inspections.some((l) => l.inspection.key === w.key));
      return {
        ...w,
        wording: `${a.registry.get(w.key)?.wording ?? w.key}${thing ? `, ${thing.wording.toLowerCase()}` : ''}`,
        worth: settlingWords(w.settles, most, w.minutes),
      };
    });
  });
  /** What the things that did not come could have settled. */
  protected readonly lost = computed(() => {
    const a = this.desk.current()?.answers;
    return a && a.kind !== 'question' ? a.conclude.lost.map((l) => l.wording.toLowerCase()).join(', ') : '';
  });

  /** The thing in hand is drawn with places for its inspections. */
  protected readonly drawn = computed(() => {
    const [t, view] = [this.store.hand(), this.desk.current()];
    if (!t || !view || this.mapped(t)) return false;
    return (thingPicture(t, view.state, view.answers?.drive)?.zones.length ?? 0) > 0;
  });
  /** The list stands beside it: where somebody wants it so, where nothing is drawn, and beside another part. */
  protected readonly listed = computed(
    () =>
      this.settings.settings().looks === 'list' ||
      !this.drawn() ||
      this.comparing() ||
      // what a look shows has to be in sight beside what it may be
      this.practising(),
  );

  protected turnList(): void {
    this.settings.change({ looks: this.listed() ? 'picture' : 'list' });
  }

  protected mapped(t: ExaminedThing): 'belt' | 'chain' | undefined {
    return t.kind === 'belt' || t.kind === 'chain' ? t.kind : undefined;
  }

  /** Opens an inspection and goes into it. */
  protected open(key: string): void {
    this.store.open(key);
    afterNextRender(
      () =>
        this.host
          .querySelector<HTMLElement>('hs-inspection-panel .entry, hs-inspection-panel button')
          ?.focus(),
      { injector: this.injector },
    );
  }

  protected go(key: string, about: string | undefined): void {
    this.store.go(key, about);
    this.open(key);
  }

  /** Another thing in hand, and the hand at its inspection: what had the focus is gone with the thing before. */
  private next(by: 1 | -1): void {
    this.store.step(by);
    const inspection = this.store.inspection();
    if (inspection) this.open(inspection.inspection.key);
  }

  /** Page up and down: another thing; plus: another of this kind; asterisk, in a box for figures too: nothing found at the rest of this place; equals: side by side. */
  protected press(e: KeyboardEvent): void {
    if (e.ctrlKey || e.altKey || e.metaKey) return;
    const inWords =
      e.target instanceof HTMLTextAreaElement ||
      (e.target instanceof HTMLInputElement && e.target.dataset['figures'] === undefined);
    const typing = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement;
    if (e.key === 'PageDown' || e.key === 'PageUp') this.next(e.key === 'PageDown' ? 1 : -1);
    else if (e.key === '+' && !typing) void this.store.another();
    else if (e.key === '=' && !typing) this.comparing.update((c) => !c);
    else if (e.key === '*' && !inWords) void this.panel()?.sound();
    else return;
    e.preventDefault();
  }
}
