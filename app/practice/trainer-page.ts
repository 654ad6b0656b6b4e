import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  Injector,
  linkedSignal,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { stagesFor } from '@core/catalogue/find-records';
import { tensionerIndex } from '@core/drive/layout';
import { sheetFor, type SheetStep } from '@core/fitting/sheet';
import { viewedSense } from '@core/fitting/viewed-sense';
import {
  choicesAt,
  gatesHeld,
  spring,
  type Sprung,
  toolsAt,
  type Trap,
  trapsOf,
  turnsCrank,
} from '@core/practice/fitting';
import { stepPicture } from '../fitting/step-picture';
import { StepDrawing } from '../fitting/step-drawing';
import { DeskPolicy } from '../data/desk-policy';
import { Packs } from '../data/packs';
import { counted } from '../language/plural';
import { senseWords } from '../messages/drive';
import { sprungWords, trapWords } from '../messages/trainer';
import { Opening } from '../ui/opening';
import { Pick } from '../ui/pick';
import { StateCard } from '../ui/state';

/** What is asked at a step, one after the other. */
type Question = { is: 'step' | 'tool' | 'way' | 'side'; asks: string; answers: Answer[] };
type Answer = { key: string; letter: string; words: string; right: boolean; trap?: Trap };

/** A procedure put in order, tool and turning sense chosen: what a wrong hand would do is computed, and nothing breaks. */
@Component({
  selector: 'hs-trainer-page',
  imports: [NzButtonComponent, Opening, Pick, RouterLink, StateCard, StepDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'key($event)' },
  templateUrl: './trainer-page.html',
  styleUrl: './trainer-page.less',
})
export class TrainerPage {
  private readonly packs = inject(Packs);
  private readonly policy = inject(DeskPolicy);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly cat = this.packs.newest;
  protected readonly known = this.packs.known;
  /** Designs with a procedure, by engine. */
  protected readonly designs = computed(() => {
    const cat = this.cat();
    return (cat?.pack.variants ?? []).flatMap((v) =>
      cat && v.procedure !== undefined && v.layout !== undefined && stagesFor(cat, v.layout).length > 0
        ? [{ key: v.id, wording: `${v.engine} · ${v.name}` }]
        : [],
    );
  });
  protected readonly design = linkedSignal<string | undefined>(() => this.designs()[0]?.key);
  protected readonly stages = computed(() => {
    const [cat, id] = [this.cat(), this.design()];
    const layout = cat && id !== undefined ? cat.variants.get(id)?.layout : undefined;
    return cat && layout !== undefined ? stagesFor(cat, layout) : [];
  });
  protected readonly sheet = computed(() => {
    const [cat, id] = [this.cat(), this.design()];
    const variant = cat && id !== undefined ? cat.variants.get(id) : undefined;
    const sheet = cat && variant && sheetFor(cat, variant, this.stages(), this.policy.rules());
    return sheet?.status === 'ready' ? sheet : undefined;
  });
  /** Another engine begins anew. */
  protected readonly done = linkedSignal<unknown, readonly string[]>({
    source: this.sheet,
    computation: () => [],
  });
  protected readonly sprung = linkedSignal<unknown, Sprung | undefined>({
    source: this.sheet,
    computation: () => undefined,
  });
  /** Hands gone wrong so far, by step and trap. */
  protected readonly wrong = linkedSignal<unknown, readonly Trap[]>({
    source: this.sheet,
    computation: () => [],
  });
  /** Questions of the step in hand that are answered. */
  private readonly answered = linkedSignal<unknown, number>({ source: this.done, computation: () => 0 });
  protected readonly seed = signal(1);

  protected readonly choice = computed(() => {
    const sheet = this.sheet();
    return sheet && choicesAt(sheet, this.done(), this.seed());
  });
  private readonly questions = computed<Question[]>(() => {
    const [sheet, choice] = [this.sheet(), this.choice()];
    if (!sheet || !choice) return [];
    const { right } = choice;
    const steps = choice.all.map((s): Omit<Answer, 'letter'> => {
      const gate = gatesHeld(sheet.gates, s.id, this.done())[0];
      return {
        key: s.id,
        words: s.text,
        right: s === right,
        ...(gate ? { trap: { kind: 'early', step: s.id, gate } } : {}),
      };
    });
    return [
      { is: 'step', asks: 'What comes next?', answers: lettered(steps) },
      ...this.toolQuestion(right),
      ...this.wayQuestion(right),
      ...this.sideQuestion(right),
    ];
  });
  protected readonly question = computed(() => this.questions()[this.answered()]);
  /** The step in hand, once it was chosen. */
  protected readonly step = computed(() => (this.answered() > 0 ? this.choice()?.right : undefined));
  /** Traps of the step that is looked at: the one in hand, else the one just done. */
  protected readonly at = computed(() => {
    const sheet = this.sheet();
    return this.step() ?? sheet?.steps.find((s) => s.id === this.done().at(-1));
  });
  protected readonly traps = computed(() => {
    const [sheet, step] = [this.sheet(), this.at()];
    if (!sheet || !step) return [];
    return trapsOf(sheet, this.stages())
      .filter((t) => t.step === step.id)
      .map((trap) => ({ trap, words: trapWords(trap, sheet) }));
  });
  protected readonly picture = computed(() => {
    const step = this.sprung()?.step ?? this.at();
    return step && stepPicture(step, this.stages());
  });
  protected readonly told = computed(() => {
    const [sheet, sprung] = [this.sheet(), this.sprung()];
    return sheet && sprung ? sprungWords(sprung, sheet) : [];
  });
  protected readonly says = computed(() => {
    const [sheet, done] = [this.sheet(), this.done().length];
    if (!sheet) return '';
    if (done < sheet.steps.length) return `Step ${done + 1} of ${sheet.steps.length}`;
    return this.wrong().length === 0 ? 'Done, and nothing went wrong on the way.' : 'Done.';
  });
  protected readonly next = computed(() => {
    const sprung = this.wrong().length;
    return [this.step()?.text, sprung > 0 ? `${counted(sprung, 'trap', 'traps')} sprung so far.` : '']
      .filter(Boolean)
      .join(' ');
  });

  private toolQuestion(step: SheetStep): Question[] {
    const sheet = this.sheet();
    const tools = sheet ? toolsAt(sheet, step, this.seed()) : [];
    if (tools.length < 2) return [];
    const answers = tools.map((name) => ({
      key: name,
      words: name,
      right: name === step.tool?.name,
      ...(name === step.tool?.name ? {} : { trap: { kind: 'tool' as const, step: step.id } }),
    }));
    return [{ is: 'tool', asks: 'With which tool?', answers: lettered(answers) }];
  }

  private wayQuestion(step: SheetStep): Question[] {
    const layout = this.stages()[step.spot.stage]?.layout;
    if (!layout || !turnsCrank(step)) return [];
    const answers = (['cw', 'ccw'] as const).map((way) => ({
      key: way,
      words: viewedSense(way, layout, true),
      right: way === layout.runs,
      ...(way === layout.runs ? {} : { trap: { kind: 'against' as const, step: step.id } }),
    }));
    return [{ is: 'way', asks: 'Which way is the crank turned?', answers: lettered(answers) }];
  }

  private sideQuestion(step: SheetStep): Question[] {
    const sheet = this.sheet();
    const layout = this.stages()[step.spot.stage]?.layout;
    const carrier = layout?.wheels[tensionerIndex(layout)]?.carrier;
    const trap =
      sheet && trapsOf(sheet, this.stages()).find((t) => t.step === step.id && t.kind === 'far_side');
    if (!trap || carrier?.kind !== 'eccentric') return [];
    const answers = (['cw', 'ccw'] as const).map((way) => ({
      key: way,
      words: senseWords(way),
      right: way === carrier.keyTurn,
      ...(way === carrier.keyTurn ? {} : { trap }),
    }));
    return [{ is: 'side', asks: 'Which way is its key turned?', answers: lettered(answers) }];
  }

  protected answer(a: Answer): void {
    if (a.trap) return this.spring(a.trap);
    if (!a.right) return;
    this.sprung.set(undefined);
    const step = this.choice()?.right;
    if (this.answered() + 1 < this.questions().length) this.answered.update((n) => n + 1);
    else if (step) this.done.update((d) => [...d, step.id]);
    afterNextRender(() => this.host.querySelector<HTMLElement>('.answer')?.focus(), {
      injector: this.injector,
    });
  }

  /** Springs a trap: what follows is said, and the work stands as it stood. */
  protected spring(trap: Trap): void {
    const sheet = this.sheet();
    if (!sheet) return;
    this.sprung.set(spring(sheet, this.stages(), trap, this.done()));
    this.wrong.update((w) => [...w, trap]);
  }

  protected again(): void {
    this.seed.update((s) => s + 1);
    this.done.set([]);
    this.sprung.set(undefined);
    this.wrong.set([]);
  }

  /** Letters answer. */
  protected key(e: KeyboardEvent): void {
    const typing =
      e.target instanceof HTMLElement && e.target.closest('input, textarea, .cdk-overlay-container');
    if (typing || e.ctrlKey || e.metaKey || e.altKey || e.defaultPrevented) return;
    const answer = this.question()?.answers.find((a) => a.letter === e.key);
    if (!answer) return;
    e.preventDefault();
    this.answer(answer);
  }
}

const lettered = (all: readonly Omit<Answer, 'letter'>[]): Answer[] =>
  all.map((a, i) => ({ ...a, letter: 'abcdefgh'.charAt(i) }));
