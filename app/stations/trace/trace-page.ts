import { nth } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { traceFacts } from '@core/answer/trace-answer';
import { readNumber } from '@core/quantity/parse-quantity';
import { Attachments } from '../../commands/attachments';
import { Notices } from '../../commands/notices';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import { Segmented } from '../../ui/segmented';
import { againstWords, traceVerdictWords } from '../../messages/trace';
import { type Filing, TraceSays } from './trace-says';
import { TraceDrive } from './trace-drive';
import { TraceSlot } from './trace-slot';
import { type Against, TraceStore } from './trace-store';
import { FILED, TraceTold } from './trace-told';
import { TraceView } from './trace-view';

/** Teeth that a wheel of a drive may have. */
const TEETH = { least: 10, most: 120 };
const TITLES: Readonly<Record<Against, string>> = {
  catalogue: 'What the catalogue names',
  good: 'A good engine',
  before: 'This engine before the repair',
};

/** The trace bench: a capture of crank and cam, held against the catalogue or another one, answered in teeth and degrees. */
@Component({
  selector: 'hs-trace-page',
  imports: [NzInputDirective, Segmented, TraceSays, TraceSlot, TraceTold, TraceView],
  providers: [TraceDrive, TraceStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(dragover)': '$event.preventDefault()', '(drop)': 'dropped($event)' },
  templateUrl: './trace-page.html',
  styleUrl: './trace-page.less',
})
export class TracePage {
  protected readonly store = inject(TraceStore);
  private readonly desk = inject(CaseDesk);
  private readonly attachments = inject(Attachments);
  private readonly notices = inject(Notices);
  protected readonly titles = TITLES;

  protected readonly againsts = computed(() =>
    (['catalogue', 'good', 'before'] as const)
      .filter((a) => a !== 'catalogue' || this.store.catalogue())
      .map((value) => ({ value, label: TITLES[value] })),
  );
  protected readonly edges = computed(
    () => this.store.catalogue()?.cams.reduce((n, c) => n + c.pattern.edges.length, 0) ?? 0,
  );

  /** What stands with the case: as it came, and after the repair. */
  protected readonly filed = computed(() => {
    const a = this.desk.current()?.answers;
    const { unit, cams } = this.store.teeth();
    const units = { crank: unit, cam: cams[0]?.unit ?? unit };
    return [
      { of: 'As it came', answer: a?.trace },
      { of: 'After the repair', answer: a?.traceAfter },
    ].flatMap(({ of, answer }) =>
      answer?.said ? [`${of}: ${traceVerdictWords(answer.said, units, this.store.has())}`] : [],
    );
  });

  protected dropped(e: DragEvent): void {
    const files = [...(e.dataTransfer?.files ?? [])];
    if (files.length === 0) return;
    e.preventDefault();
    e.stopPropagation();
    const other =
      this.store.against() !== 'catalogue' && this.store.mine().read && !this.store.reference().read;
    this.store.open(other ? 'reference' : 'mine', nth(files, 0));
    if (files[1]) this.store.open('reference', files[1]);
  }

  protected sayTeeth(which: 'zCrank' | 'zCam', text: string): void {
    const n = readNumber(text);
    if (n === undefined || !Number.isInteger(n) || n < TEETH.least || n > TEETH.most)
      return this.notices.refuse(`“${text}” is no number of teeth between ${TEETH.least} and ${TEETH.most}.`);
    this.store.typed.update((t) => ({ ...t, [which]: n }));
  }

  /** Keeps both captures with the case and files what each says of a cam against the catalogue: as it came, and after the repair. */
  protected async fileBoth(cam: number): Promise<void> {
    const [before, after] = [this.store.reference(), this.store.mine()];
    const said = this.store.beforeAfter();
    if (!said || !before.file || !after.file) return;
    const id = this.store.known()?.cams[cam]?.id;
    const facts = [];
    for (const { of, slot, side } of [
      { of: 'came', slot: before, side: said.before },
      { of: 'repaired', slot: after, side: said.after },
    ] as const) {
      const shift = side.find((c) => c.cam === cam)?.shift;
      if (!shift || !slot.file || !slot.read) return;
      const files = await this.attachments.attach([slot.file]);
      facts.push(...traceFacts(shift, slot.read.wheel, files, againstWords(shift, 'the catalogue'), id, of));
    }
    const done = await this.desk.fileAll(facts);
    if (!done.ok) this.notices.refuse(troubleSentence(done.error));
    else void this.notices.say('success', FILED.repaired);
  }

  /** Keeps the capture with the case and files what it says of a cam. */
  protected async file({ cam: c, of }: Filing): Promise<void> {
    const mine = this.store.mine();
    if (!c.shift || !mine.file || !mine.read) return;
    const files = await this.attachments.attach([mine.file]);
    const other =
      this.store.against() === 'catalogue' ? 'the catalogue' : (this.store.reference().read?.name ?? '');
    const cam = this.store.known()?.cams[c.cam]?.id;
    const facts = traceFacts(c.shift, mine.read.wheel, files, againstWords(c.shift, other), cam, of);
    const done = await this.desk.fileAll(facts);
    if (!done.ok) this.notices.refuse(troubleSentence(done.error));
    else void this.notices.say('success', FILED[of]);
  }
}
