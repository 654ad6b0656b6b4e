import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { readNumber } from '@core/quantity/parse-quantity';
import type { AskFor, Sheet, SheetStep } from '@core/fitting/sheet';
import { tighteningOrder } from '@core/fitting/pattern';
import { PatternDrawing } from '../../fitting/pattern-drawing';
import { ShortField } from '../../ui/short-field';
import { stageStill } from '../../fitting/stage-scene';
import { Tiles } from '../../ui/tiles';
import { faultWording, gatesWords, HOW_PROVED, wantedWords } from '../../messages/fitting';
import { list } from '../../language/list';
import { torqueStagesWords } from '../../messages/torque';
import { FitStore, type Went } from './fit-store';
import { StepStage } from './step-stage';

const WENT = [
  { key: 'done', wording: 'Done' },
  { key: 'skipped', wording: 'Not done' },
  { key: 'wrong', wording: 'Otherwise' },
];
const LEADS = {
  skipped: 'left out',
  reversed: 'done too early',
  wrong: 'done otherwise',
  time: 'done too soon',
} as const;

/** One step: what, with what, what proves it, the drive as it then stands; and how it went, as it was told. */
@Component({
  selector: 'hs-step-card',
  imports: [PatternDrawing, ShortField, StepStage, Tiles],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" [attr.aria-label]="'Step ' + step().number">
      @if (step().unsafe) {
        <div class="caution">
          The catalogue types a turning sense into this step; it is left out. Take the sense from the setting.
        </div>
      }
      <p class="lead">
        <span class="mono">{{ step().number }}</span> {{ step().text }}
      </p>
      @if (store.told(); as b) {
        <div class="caution">Bulletin {{ b.version }}: {{ b.text }}</div>
      }
      @if (step().caution) {
        <div class="caution">{{ step().caution }}</div>
      }
      <div class="body" [class.drawn]="drawn() || pattern()" [class.wide]="wide()">
        <div class="says">
          <dl>
            @if (step().tool; as t) {
              <dt>Tool</dt>
              <dd>
                {{ t.name }}
                @for (i of t.instead ?? []; track i.name) {
                  <div>
                    or {{ i.name }} <small class="quiet">▲ {{ i.risk }}</small>
                  </div>
                }
              </dd>
            }
            @if (step().torque; as t) {
              <dt>Torque</dt>
              <dd>
                <b>{{ plan() }}</b>
                <div>
                  {{ t.count ? t.count + ' × ' : '' }}{{ t.fastener
                  }}{{ t.leftHand ? ', left-hand thread' : '' }}{{ t.singleUse ? ', new' : '' }}
                </div>
              </dd>
            }
            @if (step().proof; as p) {
              <dt>{{ proved() }}</dt>
              <dd>{{ p.text }}</dd>
            }
            @if (step().fault) {
              <dt>Else</dt>
              <dd>{{ step().fault }}</dd>
            }
            @if (step().ask) {
              <dt>Ask</dt>
              <dd>“{{ step().ask }}”</dd>
            }
          </dl>
          @if (leads().length > 0 || step().before || gates().reasons.length > 0 || gates().before) {
            <details>
              <summary>Why here, and what else goes wrong</summary>
              <dl>
                @if (leads().length > 0) {
                  <dt>Faults</dt>
                  <dd>
                    @for (l of leads(); track l) {
                      <div>{{ l }}</div>
                    }
                  </dd>
                }
                @if (step().before || gates().reasons.length > 0) {
                  <dt>First</dt>
                  <dd>
                    @if (step().before; as b) {
                      <div>{{ b }}</div>
                    }
                    @for (r of gates().reasons; track r.why) {
                      <div>
                        <b>{{ r.steps }}</b> {{ r.why }}
                      </div>
                    }
                  </dd>
                }
                @if (gates().before) {
                  <dt>Then come</dt>
                  <dd>{{ gates().before }}</dd>
                }
              </dl>
            </details>
          }
        </div>
        @if (pattern(); as p) {
          <hs-pattern-drawing [pattern]="p" />
        } @else if (drawn()) {
          <hs-step-stage [step]="step()" [stages]="store.stages()" [motion]="store.motion()" />
        }
      </div>
      <div class="told">
        <span id="went">How it went</span>
        <hs-tiles
          id="step-went"
          labelledby="went"
          [options]="ways"
          [picked]="said()"
          (pressed)="tell($event)"
          (goOn)="store.walk(1)"
        />
        @for (a of step().proof?.asks ?? []; track a.id) {
          <hs-short-field
            [label]="a.wording"
            [unit]="unit(a)"
            [value]="store.value(step(), a) ?? ''"
            (typed)="value(a, $event)"
          />
        }
        <hs-short-field label="Done as number" [value]="place()" (typed)="placed($event)" />
      </div>
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
    }
    .lead {
      font-size: 1.2em;
      font-weight: 600;
      line-height: 1.3;
      margin: 0;
    }
    .body.drawn {
      display: grid;
      grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
      gap: var(--gap);
    }
    hs-step-stage,
    hs-pattern-drawing {
      order: -1;
    }
    hs-step-stage {
      height: max(260px, calc(100vh - 428px));
    }
    .body.wide {
      grid-template-columns: minmax(0, 1fr);
    }
    .wide hs-step-stage {
      height: max(230px, calc(100vh - 520px));
    }
    .says {
      display: grid;
      gap: 6px;
      align-content: start;
    }
    dl {
      display: grid;
      grid-template-columns: auto minmax(0, 1fr);
      gap: 2px 10px;
      margin: 0;
      align-content: start;
    }
    .drawn:not(.wide) dl {
      grid-template-columns: minmax(0, 1fr);
    }
    .drawn:not(.wide) dd {
      margin-bottom: 4px;
    }
    dt {
      color: var(--ink-2);
    }
    dd {
      margin: 0;
    }
    .told {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 14px;
      align-items: center;
      border-top: 1px solid var(--rule);
      padding: 6px 0;
      /* a long step scrolls behind it: how it went is told without scrolling */
      position: sticky;
      bottom: 0;
      background: var(--paper-2);
    }
    @media (max-width: 760px) {
      .body.drawn {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class StepCard {
  readonly step = input.required<SheetStep>();
  readonly sheet = input.required<Sheet>();
  protected readonly store = inject(FitStore);
  protected readonly ways = WENT;
  private readonly still = computed(() => stageStill(this.step(), this.store.stages()));
  protected readonly drawn = computed(() => this.still() !== undefined);
  /** A drive that is wider than tall has the width of the card. */
  protected readonly wide = computed(() => {
    const box = this.pattern() ? undefined : this.still()?.box;
    return box !== undefined && box.width > 1.25 * box.height;
  });
  protected readonly pattern = computed(() => {
    const p = this.step().pattern;
    return p && tighteningOrder(p);
  });
  protected readonly plan = computed(() => torqueStagesWords(this.step().torque?.stages ?? []));
  protected readonly gates = computed(() => gatesWords(this.step(), this.sheet()));
  protected readonly proved = computed(() => {
    const p = this.step().proof;
    return p ? HOW_PROVED[p.by] : '';
  });
  /** Each fault once, with every way to it. */
  protected readonly leads = computed(() => {
    const byCode = new Map<string, string[]>();
    for (const [when, code] of Object.entries(this.step().faults ?? {}))
      byCode.set(code, [...(byCode.get(code) ?? []), LEADS[when as keyof typeof LEADS]]);
    return [...byCode].map(([code, ways]) => `${code} ${faultWording(code)}: ${list(ways, 'or')}`);
  });
  protected readonly said = computed(() => {
    const said = this.store.said(this.step().id);
    return said ? [said] : [];
  });
  protected readonly place = computed(() => this.store.fitted()?.said.get(this.step().id)?.place ?? '');

  protected unit(a: AskFor): string {
    const wanted = wantedWords(a);
    return wanted === '' ? a.unit : `${a.unit} (${wanted})`;
  }

  protected tell(went: string): void {
    void this.store.tell(this.step(), went as Went);
  }

  protected value(a: AskFor, typed: string): void {
    const value = readNumber(typed);
    if (value !== undefined) void this.store.tellValue(this.step(), a, value);
  }

  protected placed(typed: string): void {
    const n = readNumber(typed);
    if (n !== undefined && Number.isInteger(n) && n >= 1) void this.store.tellPlace(this.step(), n);
  }
}
