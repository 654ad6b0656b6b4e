import { computed, inject, Injectable } from '@angular/core';
import type { Possible } from '@core/answer/applies';
import { isQuoted } from '@core/answer/to-do';
import type { CatalogueLimit } from '@core/examination/catalogue-limit';
import type { DriveAnswer } from '@core/answer/drive-answer';
import type { NewFact } from '@core/facts/change';
import type { Fact, FactValue } from '@core/facts/fact';
import type { Observable } from '@core/facts/observable';
import { type ReadContext, unitFor } from '@core/facts/read-value';
import { showValue } from '@core/facts/show-value';
import type { State } from '@core/facts/state';
import { CaseDesk, type Filed } from '../data/case-desk';
import { Cases } from '../data/cases';
import { Drafts } from '../data/drafts';
import { PracticeBench, type ToLook } from '../data/practice-bench';
import { DeskSettingsStore } from '../data/desk-settings';
import type { Session } from './session';

const WHO = 'call.who';
const VEHICLE = 'vehicle.name';

/** The case in hand, as fields see it. */
@Injectable({ providedIn: 'root' })
export class DeskSession implements Session {
  private readonly desk = inject(CaseDesk);
  private readonly bench = inject(PracticeBench);
  private readonly cases = inject(Cases);
  private readonly drafts = inject(Drafts);
  private readonly settings = inject(DeskSettingsStore);
  readonly readOnly = false;

  observable(key: string): Observable | undefined {
    return this.desk.registry().get(key);
  }

  state(): State | undefined {
    return this.desk.current()?.state;
  }

  possible(): Pick<Possible, 'has'> {
    return this.desk.current()?.answers?.possible ?? { has: undefined };
  }

  drive(): DriveAnswer | undefined {
    return this.desk.current()?.answers?.drive;
  }

  limit(key: string, about: string | undefined): CatalogueLimit | undefined {
    const examination = this.desk.current()?.answers?.examination;
    return examination?.things
      .filter((t) => t.about === about)
      .flatMap((t) => t.inspections)
      .find((l) => l.inspection.key === key)?.limit;
  }

  readContext(): ReadContext {
    return this.desk.readContext();
  }

  show(o: Observable, value: FactValue, u?: number): string {
    return showValue(o, value, this.settings.notation(), this.desk.nameOf, u);
  }

  unit(o: Observable): string {
    return unitFor(o, this.settings.notation()) ?? '';
  }

  thing(about: string | undefined): string {
    return this.desk.thing(about);
  }

  codes(o: Observable): readonly string[] {
    const cat = this.desk.current()?.catalogue;
    if (o.key === WHO) return this.callers();
    if (o.key === VEHICLE) return this.vehicles();
    if (o.type.kind !== 'ref' || !cat) return [];
    if (o.type.table === 'engine') return [...cat.engines.keys()];
    return o.type.table === 'kit' ? [...cat.kits.keys()] : [];
  }

  /** People and workshops of this desk's own cases, the latest first. */
  private readonly callers = computed(() => [
    ...new Set(
      this.cases
        .summaries()
        .map((h) => h.who)
        // A message that nobody read yet stands for its writer on the rack, and is none.
        .filter((who) => who !== '' && !isQuoted(who)),
    ),
  ]);
  /** Vehicles of the engine of the case, of all engines while none is known. */
  private readonly vehicles = computed(() => {
    const view = this.desk.current();
    const own = view?.answers?.engine;
    return own ? own.vehicles : (view?.catalogue?.pack.engines.flatMap((e) => e.vehicles) ?? []);
  });

  draft(slot: string): string {
    return this.drafts.read(this.desk.currentId() ?? '', slot);
  }

  keepDraft(slot: string, text: string): void {
    this.drafts.keep(this.desk.currentId() ?? '', slot, text);
  }

  file(entry: NewFact | ((state: State) => NewFact | undefined)): Promise<Filed> {
    return this.desk.file(entry);
  }

  toLook(o: Observable, about: string | undefined): ToLook | undefined {
    return this.bench.toLook(o, about);
  }

  strike(fact: Fact): Promise<Filed> {
    return this.desk.strike(fact);
  }
}
