import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzSliderModule } from 'ng-zorro-antd/slider';
import type { Stage } from '@core/drive/stages';
import { nth } from '@core/quantity/must';
import type { SheetStep } from '@core/fitting/sheet';
import { motionFrame, type StepMotion } from '@core/fitting/step-motion';
import { stageScene, stageStill } from '../../fitting/stage-scene';
import { motionWords } from '../../messages/motion';
import { isBox, isFreeKey } from '../../ui/free-keys';
import { sayHandle } from '../../ui/slider-handle';

/** How long a motion is shown: so much for each turn of the driving wheel, and no less than this, ms. */
const TURN_MS = 2200;
const LEAST_MS = 1400;

/**
 * The drive large, as it stands at a step, with what the step moves: played, or taken by hand. Whoever asked the system for
 * less motion is shown the ends and what he takes by hand, nothing that runs by itself.
 */
@Component({
  selector: 'hs-step-stage',
  imports: [FormsModule, NzButtonComponent, NzSliderModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'key($event)' },
  template: `
    @if (still(); as s) {
      @let now = scene();
      <svg [attr.viewBox]="viewBox()" role="img" [attr.aria-label]="label()">
        @for (w of now.wheels; track w.id) {
          <g [class.lit]="w.lit" [attr.opacity]="w.opacity">
            @if (w.shoe) {
              <path class="shoe" [attr.d]="w.shoe" stroke-width="7" />
            } @else {
              <g [attr.transform]="w.at">
                @if (w.teeth) {
                  <path class="body" [attr.d]="w.teeth" [attr.stroke-width]="s.unit" />
                } @else {
                  <circle class="body" [attr.r]="w.r" [attr.stroke-width]="1.2 * s.unit" />
                }
                <line
                  class="spoke"
                  [attr.x1]="w.r * 0.35"
                  [attr.x2]="w.r * 0.7"
                  [attr.stroke-width]="1.6 * s.unit"
                />
                <circle class="hub" [attr.r]="w.r * 0.16" [attr.stroke-width]="s.unit" />
              </g>
              @if (w.mark) {
                <path class="mark" [attr.transform]="w.mark" [attr.d]="w.pointer" />
                <path
                  class="index"
                  [attr.transform]="w.index"
                  [attr.d]="w.line"
                  [attr.stroke-width]="2 * s.unit"
                />
              }
            }
          </g>
        }
        @if (now.belt) {
          <g [attr.opacity]="now.loop">
            <path
              class="belt"
              [class.slack]="now.slack"
              [attr.d]="now.belt"
              [attr.stroke-width]="now.beltWidth"
            />
            <path class="teeth" [attr.d]="now.teeth" stroke-width="2.2" />
          </g>
        }
        @for (c of now.carriers; track $index) {
          <g [attr.opacity]="c.opacity">
            @if (c.plunger) {
              <path class="plunger" [attr.d]="c.plunger" stroke-width="7" />
            }
            <path class="arm" [attr.d]="c.d" [attr.stroke-width]="2.6 * s.unit" />
            <circle class="pivot" [attr.cx]="c.pivot.x" [attr.cy]="c.pivot.y" [attr.r]="3.4 * s.unit" />
          </g>
        }
        @for (a of s.arrows; track $index) {
          <path [attr.class]="a.is" [attr.d]="a.d" />
        }
        @for (n of s.names; track n.id) {
          <text
            class="name"
            [attr.opacity]="n.id === s.tensioner ? now.tensioner : 1"
            [attr.x]="n.x"
            [attr.y]="n.y"
            [style.font-size.px]="s.textMm"
          >
            {{ n.name }}
          </text>
        }
        @for (t of s.words; track $index) {
          <text [attr.class]="t.is" [attr.x]="t.x" [attr.y]="t.y" [style.font-size.px]="s.textMm">
            {{ t.text }}
          </text>
        }
      </svg>
      @if (motion()) {
        <div class="row play">
          <button nz-button nzSize="small" (click)="playing() ? stop() : play()">
            {{ playing() ? 'Stop' : calm() ? (share() < 1 ? 'After' : 'Before') : 'Play' }} <kbd>m</kbd>
          </button>
          <nz-slider
            nzTooltipVisible="never"
            [nzMin]="0"
            [nzMax]="100"
            [nzStep]="1"
            [ngModel]="share() * 100"
            (ngModelChange)="taken($event)"
          />
        </div>
        <p class="quiet" aria-live="polite">{{ says() }}</p>
      }
    }
  `,
  styleUrl: './step-stage.less',
})
export class StepStage {
  readonly step = input.required<SheetStep>();
  readonly stages = input.required<readonly Stage[]>();
  readonly motion = input<StepMotion>();
  private readonly calmed = matchMedia('(prefers-reduced-motion: reduce)');
  protected readonly calm = signal(this.calmed.matches);
  /** How much of the motion is done; another step stands as it ends. */
  protected readonly share = linkedSignal({ source: () => this.step().id, computation: () => 1 });
  protected readonly playing = signal(false);
  private frame = 0;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  private readonly layout = computed(() => nth(this.stages(), this.step().spot.stage).layout);
  protected readonly still = computed(() => stageStill(this.step(), this.stages()));
  protected readonly scene = computed(() => {
    const now = nth(this.step().now.stages, this.step().spot.stage);
    return stageScene(
      this.layout(),
      this.step(),
      motionFrame(this.layout(), now, this.motion(), this.share()),
    );
  });
  protected readonly viewBox = computed(() => {
    const b = this.still()?.box;
    return b ? `${b.x} ${b.y} ${b.width} ${b.height}` : '';
  });
  protected readonly says = computed(() => {
    const m = this.motion();
    return m ? `${motionWords(this.layout(), m).join('. ')}.` : '';
  });
  protected readonly label = computed(() =>
    [this.still()?.title ?? '', this.says()].filter(Boolean).join('. '),
  );

  constructor() {
    afterRenderEffect(() => {
      const percent = Math.round(this.share() * 100);
      if (!this.motion()) return;
      const says = { label: 'How far it has moved', min: 0, max: 100, now: percent, text: `${percent} %` };
      sayHandle(this.host.nativeElement, says);
    });
    const turned = (e: MediaQueryListEvent) => this.calm.set(e.matches);
    this.calmed.addEventListener('change', turned);
    inject(DestroyRef).onDestroy(() => {
      this.calmed.removeEventListener('change', turned);
      this.stop();
    });
  }

  protected play(): void {
    if (this.calm()) {
      this.share.update((s) => (s < 1 ? 1 : 0));
      return;
    }
    const step = this.step().id;
    const d = this.motion()?.driver;
    const ms = Math.max(LEAST_MS, d ? (TURN_MS * Math.abs(d.toDeg - d.fromDeg)) / 360 : 0);
    let began: number | undefined;
    const tick = (at: number) => {
      began ??= at;
      const share = Math.min(1, (at - began) / ms);
      // Another step was taken meanwhile: its picture is not this motion's.
      if (this.step().id !== step) return this.stop();
      this.share.set(share);
      if (share < 1) this.frame = requestAnimationFrame(tick);
      else this.playing.set(false);
    };
    this.playing.set(true);
    this.share.set(0);
    this.frame = requestAnimationFrame(tick);
  }

  protected stop(): void {
    cancelAnimationFrame(this.frame);
    this.playing.set(false);
  }

  protected taken(percent: number): void {
    if (this.playing()) return;
    this.share.set(percent / 100);
  }

  protected key(e: KeyboardEvent): void {
    const page = this.host.nativeElement.closest<HTMLElement>('hs-fit-page') ?? undefined;
    if (e.key !== 'm' || !this.motion() || !isFreeKey(e, page) || isBox(e.target)) return;
    if (this.playing()) this.stop();
    else this.play();
    e.preventDefault();
  }
}
