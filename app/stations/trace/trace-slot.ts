import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzProgressComponent } from 'ng-zorro-antd/progress';
import type { FileRef } from '@core/facts/fact';
import { textOf } from '@core/facts/read';
import { readNumber } from '@core/quantity/parse-quantity';
import { BOX_FAULTS } from '@core/simulate/capture-box';
import { TIME_UNITS, type TimeUnit, VOLT_UNITS, type VoltUnit } from '@core/trace/capture-dialect';
import { readWheel, USUAL_WHEELS } from '@core/trace/wheel';
import { Notices } from '../../commands/notices';
import { CaseDesk } from '../../data/case-desk';
import { FileButton } from '../../ui/file-button';
import { Pick } from '../../ui/pick';
import { failureWords, readWords } from '../../messages/capture';
import { camName, FAULT_WORDS } from '../../messages/trace';
import type { CaptureSlot } from '../../workers/trace.protocol';
import { type ChannelRole, partOf, type SaidRoles, withPart } from './said-roles';
import { FOUND, type SaidOfCapture, TraceStore } from './trace-store';

const OTHER = 'other';
/** What can be mended by saying more of the file. */
const HELPED: ReadonlySet<string> = new Set([
  'no_time',
  'no_wheel',
  'crank',
  'swapped',
  'one_channel',
  'long_gap',
]);

/** One capture: opened, taken from the case or from the box; what was guessed of it is shown and can be said. */
@Component({
  selector: 'hs-trace-slot',
  imports: [FileButton, NzButtonComponent, NzInputDirective, NzProgressComponent, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './trace-slot.html',
  styleUrl: './trace-slot.less',
})
export class TraceSlot {
  protected readonly store = inject(TraceStore);
  private readonly desk = inject(CaseDesk);
  private readonly notices = inject(Notices);
  readonly slot = input.required<CaptureSlot>();
  readonly title = input.required<string>();
  protected readonly readWords = readWords;
  protected readonly guesses = signal(false);
  protected readonly faults = BOX_FAULTS.map((key) => ({ key, wording: FAULT_WORDS[key] }));
  protected readonly fault = signal<string>('one_late');
  protected readonly state = computed(() =>
    this.slot() === 'mine' ? this.store.mine() : this.store.reference(),
  );
  /** What was guessed is shown where it is asked for, and where nothing could be read without it. */
  protected readonly open = computed(
    () => this.state().file !== undefined && (this.guesses() || HELPED.has(this.state().failure?.code ?? '')),
  );

  private readonly typesWheel = signal(false);
  protected readonly wheels = computed(() => {
    const named = this.store.wheel();
    return [
      ...(named === undefined
        ? [{ key: '', wording: 'found by itself' }]
        : [
            { key: '', wording: `${named}, by the catalogue` },
            { key: FOUND, wording: 'found by itself' },
          ]),
      ...USUAL_WHEELS.map((w) => ({ key: w, wording: w })),
      { key: OTHER, wording: 'another' },
    ];
  });
  protected readonly wheel = computed(() => {
    const said = this.state().said.wheel;
    if (this.typesWheel() || (said !== undefined && said !== FOUND && !USUAL_WHEELS.some((w) => w === said)))
      return OTHER;
    return said ?? '';
  });
  protected readonly another = OTHER;
  protected readonly timeUnits = [
    { key: '', wording: 'as it says' },
    ...TIME_UNITS.map((key) => ({ key, wording: key })),
  ];
  protected readonly voltUnits = [
    { key: '', wording: 'as it says' },
    ...VOLT_UNITS.map((key) => ({ key, wording: key === 'v' ? 'V' : 'mV' })),
  ];

  /** Which channel is which: as said, else as found. */
  private readonly roles = computed((): SaidRoles | undefined => {
    const { said, read } = this.state();
    if (said.roles) return said.roles;
    return (
      read && {
        crank: read.roles.crank,
        cams: read.roles.cams.map((channel, cam) => ({ channel, cam })),
      }
    );
  });
  protected readonly channels = computed(() => {
    const roles = this.roles();
    const names = this.state().read?.channels ?? [];
    return roles ? names.map((name, i) => ({ name, part: partOf(roles, i) })) : [];
  });
  protected readonly parts = computed(() => {
    const cams = this.store.teeth().cams;
    const places = Math.max(cams.length, this.channels().length - 1);
    return [
      { key: 'crank', wording: 'Crank' },
      ...Array.from({ length: places }, (_, k) => ({
        key: `cam:${k}`,
        wording: cams[k]?.name ?? camName(k),
      })),
      { key: 'none', wording: 'not used' },
    ];
  });

  private say(more: Partial<SaidOfCapture>, without?: keyof SaidOfCapture): void {
    const said = { ...this.state().said, ...more };
    if (without !== undefined) delete said[without];
    this.store.say(this.slot(), said);
  }

  protected sayPart(channel: number, part: string): void {
    const roles = this.roles();
    if (roles) this.say({ roles: withPart(roles, channel, part as ChannelRole) });
  }

  /** Takes back which channel was said to be which. */
  protected findRoles(): void {
    this.say({}, 'roles');
  }

  protected sayWheel(key: string): void {
    this.typesWheel.set(key === OTHER);
    if (key === '') this.say({}, 'wheel');
    else if (key !== OTHER) this.say({ wheel: key });
  }

  protected typeWheel(text: string): void {
    const read = readWheel(text);
    if (!read.ok) return this.notices.refuse(failureWords(text, read.error));
    this.say({ wheel: text.trim() });
  }

  protected sayTime(key: string): void {
    if (key === '') this.say({}, 'timeUnit');
    else this.say({ timeUnit: key as TimeUnit });
  }

  protected sayVolts(key: string): void {
    if (key === '') this.say({}, 'voltUnit');
    else this.say({ voltUnit: key as VoltUnit });
  }

  protected sayStep(text: string): void {
    if (text.trim() === '') return this.say({}, 'stepS');
    const us = readNumber(text);
    if (us === undefined || !(us > 0))
      return this.notices.refuse(
        `“${text}” is no interval: type microseconds from sample to sample, or nothing.`,
      );
    this.say({ stepS: us * 1e-6 });
  }

  protected chosen(files: readonly File[]): void {
    if (files[0]) this.store.open(this.slot(), files[0]);
    if (files[1] && this.slot() === 'mine') this.store.open('reference', files[1]);
  }

  protected fromCase(file: FileRef): void {
    void this.store.openKept(this.slot(), file);
  }

  /** Clips the simulated box to the engine of the case. */
  protected async fromBox(): Promise<void> {
    const mine = this.slot() === 'mine';
    const state = this.desk.current()?.state;
    const engine = (state ? textOf(state, 'engine.code') : undefined) ?? 'free';
    const fault = mine ? this.fault() : this.store.against() === 'before' ? 'one_late' : 'good';
    const wheel = readWheel(this.store.catalogue()?.wheel ?? '');
    const query = new URLSearchParams({
      fault,
      dialect: mine ? 'comma' : 'point',
      seed: mine ? '11' : '12',
      z: String(this.store.teeth().zCrank),
      cams: String(this.store.teeth().cams.length),
      ...(wheel.ok ? { teeth: wheel.value.teeth.map((t) => (t ? '1' : '0')).join('') } : {}),
    });
    const answer = await fetch(`captures/${encodeURIComponent(engine)}?${query}`).catch(() => undefined);
    if (!answer?.ok)
      return this.notices.refuse(
        'The simulated capture box does not answer. Start the desk’s server, or open a file.',
      );
    const name = `capture-${engine}-${fault}.csv`;
    this.store.open(this.slot(), new File([await answer.blob()], name, { type: 'text/csv' }));
  }
}
