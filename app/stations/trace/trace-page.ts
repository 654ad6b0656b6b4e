import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzProgressComponent } from 'ng-zorro-antd/progress';
import { isOffset, traceFacts } from '@core/answer/trace-answer';
import { textOf } from '@core/facts/read';
import { BOX_FAULTS } from '@core/simulate/capture-box';
import { turnedOn, VIEW_STEP } from '@core/trace/cycle-view';
import { USUAL_WHEELS } from '@core/trace/wheel';
import { readNumber } from '@core/quantity/parse-quantity';
import { Attachments } from '../../acts/attachments';
import { download } from '../../acts/download';
import { Say } from '../../acts/say';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import { CaptureChart, type CaptureLine, type CaptureMark } from '../../ui/capture-chart';
import { FileButton } from '../../ui/file-button';
import { Pick } from '../../ui/pick';
import { writeCsv } from '../../report/csv';
import { againstWords, arithmeticWords, compareTrouble, readWords, verdictWords } from '../../words/trace';
import { TraceStore, type Slot } from './trace-store';

const SLOTS = [
  { slot: 'mine' as const, title: 'The engine in question' },
  { slot: 'reference' as const, title: 'Known good, or another time' },
];
const FAULT_WORDS: Readonly<Record<(typeof BOX_FAULTS)[number], string>> = {
  good: 'good',
  one_late: 'one late',
  one_early: 'one early',
  two_late: 'two late',
  worn: 'a fraction late',
  upside_down: 'cam upside down',
  phaser: 'phaser moving',
};
/** Teeth that a wheel of a drive may have. */
const TEETH = { least: 10, most: 120 };
/** How high each signal is drawn over the other, volts. */
const LIFT = 7;

/** The trace bench: a capture of crank and cam against another one, answered in teeth and degrees. */
@Component({
  selector: 'hs-trace-page',
  imports: [CaptureChart, FileButton, NzButtonComponent, NzInputDirective, NzProgressComponent, Pick],
  providers: [TraceStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(dragover)': '$event.preventDefault()', '(drop)': 'dropped($event)' },
  templateUrl: './trace-page.html',
  styleUrl: './trace-page.less',
})
export class TracePage {
  protected readonly store = inject(TraceStore);
  protected readonly desk = inject(CaseDesk);
  private readonly attachments = inject(Attachments);
  private readonly say = inject(Say);
  private readonly chart = viewChild(CaptureChart);
  protected readonly slots = SLOTS;
  protected readonly step = VIEW_STEP;
  protected readonly readWords = readWords;
  protected readonly wheels = [
    { key: '', wording: 'found by itself' },
    ...USUAL_WHEELS.map((w) => ({ key: w, wording: w })),
  ];
  protected readonly faults = BOX_FAULTS.map((key) => ({ key, wording: FAULT_WORDS[key] }));
  protected readonly fault = signal<string>('one_late');
  protected readonly engine = computed(() => {
    const state = this.desk.current()?.state;
    return (state ? textOf(state, 'engine.code') : undefined) ?? 'free';
  });

  protected readonly answers = computed(() =>
    this.store.compared().map((c) =>
      c.error
        ? { cam: c.cam, said: compareTrouble(c.error), lines: [] }
        : {
            cam: c.cam,
            said: verdictWords(c.said, this.store.tooth(), this.store.has()),
            lines: arithmeticWords(c.said, c.wheels, c.shift, this.store.tooth()),
          },
    ),
  );
  /** What can be filed: a shift that is an offset, and no more than that. */
  protected readonly toFile = computed(() => this.store.compared().find((c) => c.shift && isOffset(c.said)));

  protected readonly lines = computed((): CaptureLine[] => {
    const [a, b] = [this.store.mine().read, this.store.reference().read];
    const shift = this.store.compared().find((c) => c.shift)?.shift;
    const out: CaptureLine[] = [];
    if (a) {
      out.push({ name: a.channels[a.roles.crank] ?? 'Crank', values: a.view.crank, lift: 0, look: 'crank' });
      a.view.cams.forEach((values, i) =>
        out.push({ name: a.cams[i]!.name, values, lift: LIFT * (i + 1), look: 'mine' }),
      );
    }
    b?.view.cams.forEach((values, i) =>
      out.push({
        name: `${b.cams[i]!.name}, the other capture`,
        values: turnedOn(values, shift?.aligned ?? 0),
        lift: LIFT * (i + 1) - 0.4,
        look: 'other',
      }),
    );
    return out;
  });
  protected readonly marks = computed((): CaptureMark[] => {
    const a = this.store.mine().read;
    const edges = (a?.cams[0]?.pattern?.edges ?? []).map((e) => ({
      deg: e.deg,
      text: `${e.deg.toFixed(1)}°`,
    }));
    return a && !a.even ? [{ deg: 0, text: 'gap' }, { deg: 360, text: 'gap' }, ...edges] : edges;
  });
  protected readonly chartLabel = computed(
    () =>
      `Crank and cam over one cycle${this.store.reference().read ? ', both captures' : ''}; arrows pan, plus and minus zoom`,
  );

  protected open(slot: Slot, files: readonly File[]): void {
    if (files[0]) void this.store.open(slot, files[0]);
    if (files[1] && slot === 'mine') void this.store.open('reference', files[1]);
  }

  protected dropped(e: DragEvent): void {
    const files = [...(e.dataTransfer?.files ?? [])];
    if (files.length === 0) return;
    e.preventDefault();
    e.stopPropagation();
    this.open(
      this.store.mine().read && !this.store.reference().read && files.length === 1 ? 'reference' : 'mine',
      files,
    );
  }

  /** Clips the simulated box to the engine of the case. */
  protected async fromBox(slot: Slot): Promise<void> {
    const fault = slot === 'reference' ? 'good' : this.fault();
    const z = (this.store.known() ?? this.store.typed()).zCrank;
    const query = new URLSearchParams({
      fault,
      dialect: slot === 'mine' ? 'comma' : 'point',
      seed: slot === 'mine' ? '11' : '12',
      z: String(z),
    });
    const answer = await fetch(`captures/${encodeURIComponent(this.engine())}?${query}`).catch(
      () => undefined,
    );
    if (!answer?.ok)
      return this.say.refuse(
        'The simulated capture box does not answer. Start the desk’s server, or open a file.',
      );
    await this.store.open(
      slot,
      new File([await answer.blob()], `capture-${this.engine()}-${fault}.csv`, { type: 'text/csv' }),
    );
  }

  protected sayWheel(key: string): void {
    this.store.wheel.set(key === '' ? undefined : key);
    this.store.again();
  }

  protected sayStep(text: string): void {
    const us = text.trim() === '' ? undefined : readNumber(text);
    if (text.trim() !== '' && !(us !== undefined && us > 0))
      return this.say.refuse(
        `“${text}” is no interval: type microseconds from sample to sample, or nothing.`,
      );
    this.store.stepS.set(us === undefined ? undefined : us * 1e-6);
    this.store.again();
  }

  protected sayTeeth(which: 'zCrank' | 'zCam', text: string): void {
    const n = readNumber(text);
    if (n === undefined || !Number.isInteger(n) || n < TEETH.least || n > TEETH.most)
      return this.say.refuse(`“${text}” is no number of teeth between ${TEETH.least} and ${TEETH.most}.`);
    this.store.typed.update((t) => ({ ...t, [which]: n }));
  }

  /** Keeps the capture with the case and files what it says. */
  protected async file(): Promise<void> {
    const [c, mine] = [this.toFile(), this.store.mine()];
    if (!c?.shift || !mine.file || !mine.read) return;
    const files = await this.attachments.attach([mine.file]);
    const against = againstWords(c.shift, this.store.reference().read?.name ?? '');
    const done = await this.desk.fileAll(traceFacts(c.shift, mine.read.wheel, files, against));
    if (!done.ok) this.say.refuse(troubleSentence(done.error));
    else void this.say.say('success', 'Filed: it weighs in Cause.');
  }

  /** Edges of both captures as a table. */
  protected edgeTable(): void {
    const rows = this.store
      .compared()
      .flatMap((c) =>
        (c.shift?.edges ?? []).map((e) => [
          c.cam,
          Number(e.deg.toFixed(3)),
          e.rising ? 'rising' : 'falling',
          Number(e.shift.toFixed(3)),
          e.out ? 'left out' : '',
        ]),
      );
    const head = ['cam', 'crank_deg', 'edge', 'late_deg', 'remark'];
    download('cam-edges.csv', new Blob([writeCsv([head, ...rows])], { type: 'text/csv' }));
  }

  protected async picture(): Promise<void> {
    const url = this.chart()?.picture();
    if (url) download('capture.png', await (await fetch(url)).blob());
  }
}
