import { computed, inject, Injectable } from '@angular/core';
import type { Observable } from '@core/facts/observable';
import { isPractice } from '@core/facts/practice';
import { silent } from '@core/facts/silence';
import { destroys, isLook, type Look, lookAt, minutesOf, patienceLeft, type Seen } from '@core/practice/look';
import { entryOf } from '@core/practice/entry';
import { isDecided, type Run } from '@core/practice/record';
import { slotName } from '@core/practice/virtual-case';
import { CaseDesk } from './case-desk';
import { PracticeRecords } from './practice-records';

/** What a look at an observable is to a trainee: still to be made, at this cost; or made, and what came of it. */
export type ToLook = { minutes: number; asked: boolean; destroys: readonly string[]; seen?: Seen };

/** The return for practice in hand: what looks at it show, what they cost, and who still answers. Nothing of a real case. */
@Injectable({ providedIn: 'root' })
export class PracticeBench {
  private readonly desk = inject(CaseDesk);
  private readonly records = inject(PracticeRecords);

  constructor() {
    void this.records.load();
  }

  /** The run of the case in hand; none of a real case. */
  readonly run = computed<Run | undefined>(() => {
    const id = this.desk.currentId();
    return isPractice(id) ? this.records.runs().find((r) => r.case.id === id) : undefined;
  });
  /** A return that is not decided: what the desk thinks of it is kept back. */
  readonly undecided = computed(() => {
    const run = this.run();
    return run !== undefined && !isDecided(run);
  });
  readonly minutes = computed(() => (this.run()?.looks ?? []).reduce((s, l) => s + l.minutes, 0));
  /** Minutes that the caller still has. */
  readonly patience = computed(() => {
    const run = this.run();
    return run ? patienceLeft(run.case, run.looks, this.desk.registry()) : 0;
  });
  /** What a look is to the trainee; undefined where nothing is practised, or it is no look. */
  toLook(o: Observable, about: string | undefined): ToLook | undefined {
    const run = this.run();
    if (!run || isDecided(run) || !isLook(o)) return undefined;
    const slot = slotName({ key: o.key, about });
    if (run.case.opening.some((l) => slotName(l) === slot)) return undefined;
    const at = run.looks.findIndex((l) => slotName(l) === slot);
    const registry = this.desk.registry();
    const made = at < 0 ? run.looks : run.looks.slice(0, at);
    return {
      minutes: minutesOf(o),
      asked: o.how === 'reported',
      destroys: at < 0 ? destroys(run.case, o, about, made) : [],
      ...(at < 0 ? {} : { seen: lookAt(run.case, o, about, made, registry) }),
    };
  }

  /** Makes a look; what cannot be seen at all is filed at once as not known. */
  async look(o: Observable, about: string | undefined): Promise<void> {
    const run = this.run();
    if (!run || isDecided(run)) return;
    const seen = lookAt(run.case, o, about, run.looks, this.desk.registry());
    const idle = seen.is === 'destroyed' || seen.is === 'rung_off' || seen.is === 'not_sent';
    const look: Look = {
      key: o.key,
      ...(about === undefined ? {} : { about }),
      minutes: idle ? 0 : minutesOf(o),
    };
    const kept = await this.records.keepRun({ ...run, looks: [...run.looks, look] });
    if (!kept.ok) return;
    if (seen.is === 'unknown' || seen.is === 'rung_off')
      await this.desk.file({ key: o.key, about, value: silent('unknown'), how: o.how });
    if (seen.is === 'not_sent' || seen.is === 'destroyed')
      await this.desk.file({ key: o.key, about, value: silent('notExamined'), how: o.how });
    // What is written down by place, or by a recorder, stands as it was read.
    if (seen.is === 'found' && (o.place !== undefined || o.type.kind === 'series'))
      await this.desk.fileAll(seen.lies.map(entryOf));
  }

  /** Files what was seen as it was seen. */
  async takeOver(o: Observable, about: string | undefined): Promise<void> {
    const seen = this.toLook(o, about)?.seen;
    if (seen?.is === 'found') await this.desk.fileAll(seen.lies.map(entryOf));
  }
}
