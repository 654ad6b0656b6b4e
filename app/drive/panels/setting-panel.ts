import { must, nth, num } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { limitsOf, readingAt, readingUnit } from '@core/drive/carrier';
import { tensionerIndex } from '@core/drive/layout';
import { lengthDifference } from '@core/drive/stack-up';
import { judgeBand } from '@core/quantity/judge';
import { intendedSetting, type Setting, travelFrom } from '@core/drive/tensioner';
import { standing } from '@core/facts/read';
import { formatNumber } from '@core/quantity/format-quantity';
import { CaseDesk } from '../../data/case-desk';
import { DialField } from '../../ui/dial-field';
import { LimitStrip, type Strip } from '../../ui/limit-strip';
import {
  clearanceWords,
  followsWords,
  pathSentence,
  readingName,
  readingWords,
  senseWords,
  settingName,
  SHOWN_WORDS,
} from '../../messages/drive';
import { DriveStore } from '../drive-store';

/** Standard uncertainty of a length taken with a caliper, mm. */
const CALIPER_MM = 0.03;

/** All settings that give the length, the held tensioner, and which one the returned part shows. */
@Component({
  selector: 'hs-setting-panel',
  imports: [NzButtonComponent, DialField, LimitStrip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (carrier(); as c) {
      @for (s of settings(); track s.name) {
        <div class="one" [class.on]="s.on">
          <div class="row">
            <b>{{ s.name }}</b>
            <button nz-button [disabled]="s.on" (click)="show(s.wrong)">
              {{ s.on ? '◆ drawn' : 'Draw this one' }}
            </button>
          </div>
          <div>{{ s.words }}</div>
        </div>
      }
      @for (i of impossible(); track $index) {
        <p class="quiet">Not possible: {{ i }}</p>
      }
      @if (strip(); as s) {
        <hs-limit-strip [strip]="s" />
      }
      <hs-dial-field
        [label]="'Held at'"
        [unit]="unit()"
        [min]="range().min"
        [max]="range().max"
        [step]="0.1"
        [digits]="1"
        [value]="held()"
        (turned)="store.set({ heldAt: $event })"
      />
      <p>{{ slack() }}</p>
      @if (store.what().heldAt !== undefined) {
        <button nz-button (click)="store.set({ heldAt: undefined })">Let it follow again</button>
      }
      @if (unit() === 'mm') {
        <h3>Stand-out from two lengths</h3>
        <hs-dial-field
          label="Overall"
          unit="mm"
          [min]="10"
          [max]="250"
          [step]="0.05"
          [value]="overall()"
          (turned)="overall.set($event)"
          (misread)="overallBroken.set($event)"
        />
        <hs-dial-field
          label="Body alone"
          unit="mm"
          [min]="5"
          [max]="240"
          [step]="0.05"
          [value]="bodyMm()"
          (turned)="bodyMm.set($event)"
          (misread)="bodyBroken.set($event)"
        />
        <p>{{ standOut() }}</p>
      }
      @if (shown(); as s) {
        <p>
          The returned part shows <b>{{ s.words }}</b
          >.
        </p>
        @if (!s.filed && s.key) {
          <button nz-button nzType="primary" (click)="file()">File: it shows {{ s.short }}</button>
        } @else if (s.filed) {
          <p class="quiet">◆ filed as a fact of this case.</p>
        }
      }
    } @else {
      <p class="quiet">This stage has no tensioner: its centres are fixed.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      align-content: start;
      grid-template-columns: minmax(0, 1fr);
    }
    .one {
      border-left: 3px solid var(--rule-strong);
      padding-left: 8px;
    }
    .one.on {
      border-color: var(--verdigris);
    }
    .row {
      justify-content: space-between;
    }
  `,
})
export class SettingPanel {
  protected readonly store = inject(DriveStore);
  private readonly desk = inject(CaseDesk);
  protected readonly carrier = computed(() => {
    const layout = this.store.state()?.layout;
    return layout?.wheels[tensionerIndex(layout)]?.carrier;
  });
  private readonly pair = computed(() => {
    const [s, c] = [this.store.state()?.settings, this.carrier()];
    return s && c ? intendedSetting(s, c) : {};
  });
  protected readonly unit = computed(() => (this.carrier() ? readingUnit(must(this.carrier())) : ''));
  protected readonly settings = computed(() => {
    const { right, other } = this.pair();
    const wrong = this.store.what().wrongWay;
    const free = this.store.what().heldAt === undefined;
    return [
      ...(right ? [{ name: settingName(this.carrier(), 'right'), s: right, wrong: false }] : []),
      ...(other ? [{ name: settingName(this.carrier(), 'other'), s: other, wrong: true }] : []),
    ].map((x) => ({ ...x, on: free && x.wrong === wrong, words: this.words(x.s) }));
  });
  protected readonly impossible = computed(() => {
    const state = this.store.state();
    const c = this.carrier();
    return (state?.settings?.impossible ?? []).map(
      (i) =>
        `${c ? readingWords(c, readingAt(c, i.carrierDeg)) : ''} ${pathSentence(must(state).layout, i.why)}`,
    );
  });
  protected readonly range = computed(() => {
    const c = this.carrier();
    if (!c) return { min: 0, max: 1 };
    if (c.kind === 'eccentric') return { min: -180, max: 180 };
    return { min: c.plunger?.minMm ?? 0, max: limitsOf(c).end };
  });
  protected readonly held = computed(
    () => this.store.what().heldAt ?? this.store.state()?.setting?.reading ?? 0,
  );
  protected readonly slack = computed(() => {
    const s = this.store.state();
    if (this.store.what().heldAt === undefined || !s)
      return `It follows: ${s?.layout.kind ?? 'drive'} and path are equally long.`;
    const mm = s.slackMm;
    return mm >= 0
      ? `▲ ${mm.toFixed(2)} mm slack: it would hang, and jump in the end.`
      : `▲ ${(-mm).toFixed(2)} mm too short: strained, or it cannot be brought there.`;
  });
  protected readonly strip = computed<Strip | undefined>(() => {
    const c = this.carrier();
    const s = this.store.state();
    if (!c || !s) return undefined;
    const { window, end } = limitsOf(c);
    const value = s.setting?.reading ?? this.held();
    return {
      label: `${readingName(c)} in this state`,
      ...this.range(),
      window,
      nominal: window.nominal,
      end,
      value,
      good: value >= window.from && value <= window.to,
      text: readingWords(c, value),
    };
  });
  /** Measured with a caliper, each to its standard uncertainty. */
  protected readonly overall = signal<number | undefined>(undefined);
  protected readonly bodyMm = signal<number | undefined>(undefined);
  protected readonly overallBroken = signal(false);
  protected readonly bodyBroken = signal(false);
  protected readonly standOut = computed(() => {
    const [c, overall, body] = [this.carrier(), this.overall(), this.bodyMm()];
    if (!c || overall === undefined || body === undefined || this.overallBroken() || this.bodyBroken())
      return 'Both lengths give how far it stands out, judged against its window.';
    const d = lengthDifference({ value: overall, u: CALIPER_MM }, { value: body, u: CALIPER_MM });
    const word = {
      within: '✓ within its window',
      outside: '▲ outside its window',
      cannot_tell: '? cannot tell',
    };
    return `It stands out ${d.value.toFixed(2)} ± ${d.u.toFixed(2)} mm: ${word[judgeBand(d.value, d.u, limitsOf(c).window)]}.`;
  });
  protected readonly shown = computed(() => {
    const drive = this.desk.current()?.answers?.drive;
    const key = drive?.shown;
    if (!this.store.inCase() || this.store.stageAt() !== 0 || !key) return undefined;
    const state = this.desk.current()?.state;
    const fact = state && standing(state, 'drive.setting_shown');
    return {
      words: SHOWN_WORDS[key],
      short: {
        right: 'the intended setting',
        wrong_way: 'the wrong way round',
        slack: 'slack',
        beyond: 'more than its window',
        end: 'the end mark',
        cannot_tell: '',
      }[key],
      key: key === 'cannot_tell' ? undefined : key,
      filed: fact?.value === key,
    };
  });

  protected show(wrongWay: boolean): void {
    this.store.set({ wrongWay, heldAt: undefined });
  }

  protected file(): void {
    const key = this.shown()?.key;
    const state = this.desk.current()?.state;
    const basis = ['tensioner.pointer', 'tensioner.extension']
      .map((k) => state && standing(state, k)?.id)
      .filter((id) => id !== undefined);
    if (key) void this.desk.file({ key: 'drive.setting_shown', value: key, how: 'computed', basis });
  }

  private words(s: Setting): string {
    const layout = must(this.store.state()).layout;
    const c = must(this.carrier());
    const i = tensionerIndex(layout);
    const n = layout.wheels.length;
    const wraps = [(i + n - 1) % n, i, (i + 1) % n]
      .map((k) => `${nth(layout.wheels, k).name} ${((num(s.path.wraps, k) * 180) / Math.PI).toFixed(0)}°`)
      .join(', ');
    const room = s.clearance
      ? `${s.clearance.mm.toFixed(1)} mm ${clearanceWords(layout, s.clearance)}`
      : 'not known';
    const settings = must(this.store.state()).settings;
    const travel = settings && travelFrom(layout, settings, s);
    const ends = travel
      ? ` Follows ${followsWords(travel)}${travel.toStartMm === undefined || !s.inWindow ? '' : `; ${formatNumber(travel.toStartMm, 1)} mm of shortening to its start`}.`
      : '';
    return `${readingName(c)} ${readingWords(c, s.reading)}, ${s.inWindow ? 'in its window' : 'outside its window'}. Wrap: ${wraps}. Smallest clearance ${room}. Takes up slack ${senseWords(s.takeUp)}.${ends}`;
  }
}
