import { computed, inject, Injectable, linkedSignal } from '@angular/core';
import type { NewFact } from '@core/facts/change';
import type { FactValue } from '@core/facts/fact';
import { placeKey, placeWords } from '@core/facts/place';
import { factsOf, has, numberOf, placedOf, textOf, thingsOf, valueOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { stepNames } from '@core/fitting/named-steps';
import { toFile } from '@core/intake/to-file';
import { must } from '@core/quantity/must';
import { readValue } from '@core/facts/read-value';
import { type Proposal, slotOf } from '@core/intake/proposal';
import { readText } from '@core/intake/read-text';
import { CaseDesk, type Filed } from '../../data/case-desk';
import { Cases } from '../../data/cases';
import { Clock } from '../../data/clock';
import { DeskPolicy } from '../../data/desk-policy';
import { DeskSettingsStore } from '../../data/desk-settings';
import { DeskSession } from '../../entry/desk-session';
import { readSentence } from '../../messages/reading';
import { doubtWords } from '../../messages/intake';
import { plainText } from '@core/facts/value';

/** A message as it came. */
const MESSAGE = 'call.message';
const COMPLAINT = 'complaint';
/** Which of several vehicles of its message a case is. */
const WHICH = 'call.which';
/** Letters that the rows bear; the ones behind have none and are pressed. */
const LETTERS = 'abcdefghijklmnopqrstuvwxyz';

type Take = 'take' | 'leave' | 'filed';
/** One proposal as the list shows it. */
export type MessageRow = {
  id: string;
  letter: string;
  what: string;
  value: string;
  take: Take;
  /** It could be something else: somebody has to choose it. */
  ask: boolean;
  why: string;
  proposal: Proposal;
};
type Choice = { take?: Take; value?: FactValue; u?: number | undefined };

/** The message of the case in hand, read, and what of it is to be filed. Nothing is kept but the message itself. */
@Injectable()
export class MessageStore {
  private readonly desk = inject(CaseDesk);
  private readonly session = inject(DeskSession);
  private readonly settings = inject(DeskSettingsStore);
  private readonly clock = inject(Clock);
  private readonly policy = inject(DeskPolicy);
  private readonly all = inject(Cases);

  /** The latest message; '' when none came. */
  readonly message = computed(() => {
    const state = this.desk.current()?.state;
    const last = state ? factsOf(state, MESSAGE).at(-1)?.value : undefined;
    return typeof last === 'string' ? last : '';
  });
  private readonly engine = computed(() => this.said('engine.code'));
  private readonly odometer = computed(() => {
    const state = this.desk.current()?.state;
    return state && numberOf(state, 'vehicle.odometer');
  });
  private readonly catalogue = computed(() => this.desk.current()?.catalogue);
  private readonly registry = computed(() => this.desk.registry());
  readonly read = computed(() => {
    const [text, catalogue] = [this.message(), this.catalogue()];
    if (text === '' || !catalogue) return undefined;
    return readText(text, {
      catalogue,
      registry: this.registry(),
      notation: this.settings.notation(),
      today: this.clock.today(),
      engine: this.engine(),
      odometerKm: this.odometer(),
      taught: this.settings.settings().taught,
      steps: (engine) => stepNames(catalogue, engine, this.policy.rules()),
    });
  });
  /** Vehicles or claims that the message tells of, by their names there; one has none. */
  readonly cases = computed(() => {
    const read = this.read();
    if (!read || 'code' in read || read.cases.count < 2) return [];
    return Array.from({ length: read.cases.count }, (_, i) => ({
      no: i + 1,
      name: read.cases.names[i] ?? `no. ${i + 1}`,
    }));
  });
  /** Which of them this case is. */
  readonly which = computed(() => {
    const state = this.desk.current()?.state;
    return (state && numberOf(state, WHICH)) ?? 1;
  });
  /** Those that have no case of their own from here yet. */
  readonly others = computed(() => this.cases().filter((c) => c.no !== this.which()));
  /** Pieces that carry meaning and that nothing takes. */
  readonly unfiled = computed(() => {
    const read = this.read();
    return read && !('code' in read) ? read.unfiled : [];
  });
  /** What was chosen by hand, by row; a new message begins anew. */
  private readonly chosen = linkedSignal<string, ReadonlyMap<string, Choice>>({
    source: this.message,
    computation: () => new Map(),
  });

  readonly rows = computed<MessageRow[]>(() => {
    const read = this.read();
    const state = this.desk.current()?.state;
    if (!read || 'code' in read || !state) return [];
    return this.proposalsOf(this.which())
      .filter((p) => this.registry().has(p.key))
      .map((p, i): MessageRow => {
        const id = `${slotOf(p)} ${JSON.stringify(p.value)}`;
        const own = this.chosen().get(id);
        const value = own?.value ?? p.value;
        const stands = this.standingOf(state, p);
        const filed =
          stands !== undefined && (same(stands, value) || (p.month === true && sameMonth(stands, value)));
        const ask = p.sure === 'ask';
        // What stands already is not overwritten by a message unless somebody says so.
        const usual: Take = ask || (stands !== undefined && !filed) ? 'leave' : 'take';
        return {
          id,
          letter: LETTERS[i] ?? '',
          what: this.wording(p),
          value: this.show(p, value),
          take: filed ? 'filed' : (own?.take ?? usual),
          ask: ask && !filed && stands === undefined,
          why:
            stands !== undefined && !filed && p.doubt !== 'witness'
              ? `stands: ${this.show(p, stands)}; press it to correct that`
              : doubtWords(p),
          proposal:
            own?.value === undefined ? p : { ...p, value, ...(own.u === undefined ? {} : { u: own.u }) },
        };
      });
  });
  readonly taken = computed(() => this.rows().filter((r) => r.take === 'take'));
  readonly left = computed(() => {
    const read = this.read();
    return read && !('code' in read) ? read.left : '';
  });

  /** A message is kept word for word before anything is made of it. */
  keep(text: string): Promise<Filed> {
    return this.desk.file({ key: MESSAGE, value: text.trim(), how: 'reported', series: 'messages' });
  }

  /** Takes or leaves a row; of several values for one thing by one voice at most one is taken. */
  toggle(row: MessageRow): void {
    if (row.take === 'filed') return;
    const take = row.take === 'take' ? 'leave' : 'take';
    this.chosen.update((before) => {
      const next = new Map(before);
      next.set(row.id, { ...before.get(row.id), take });
      if (take === 'take')
        for (const rival of this.rows())
          if (rival.id !== row.id && excludes(rival.proposal, row.proposal) && rival.take === 'take')
            next.set(rival.id, { ...before.get(rival.id), take: 'leave' });
      return next;
    });
  }

  /** Another value for a row; why it cannot be, or ''. */
  change(row: MessageRow, typed: string): string {
    const o = this.registry().get(row.proposal.key);
    if (!o) return '';
    const read = readValue(o, typed, this.desk.readContext());
    if (!read.ok) return readSentence(read.error);
    this.chosen.update((before) => new Map(before).set(row.id, { take: 'take', ...read.value }));
    return '';
  }

  /** Files what is taken, all or nothing, and keeps what is left over as the complaint. */
  async file(): Promise<Filed> {
    const state = this.desk.current()?.state;
    const entries = this.entriesOf(this.taken().map((r) => r.proposal));
    const left = this.left();
    if (state && left !== '' && !has(state, COMPLAINT))
      entries.push({ key: COMPLAINT, value: left, how: 'reported' });
    return this.desk.fileAll(entries);
  }

  /**
   * Opens each of the others as a case of its own, with the message and what is sure of it; one whose claim is known here already
   * is left as it is. The tags of those that were opened, and of those that were there.
   */
  async openOthers(): Promise<{ opened: number; known: string[] }> {
    const [message, back] = [this.message(), this.desk.currentId()];
    const out = { opened: 0, known: [] as string[] };
    for (const { no } of this.others()) {
      const own = this.proposalsOf(no).filter((p) => p.sure !== 'ask' && this.registry().has(p.key));
      const claim = own.find((p) => p.key === 'claim.number')?.value;
      const there = typeof claim === 'string' ? this.all.find(claim).find((s) => s.id !== back) : undefined;
      if (there) {
        out.known.push(there.tag);
        continue;
      }
      const opened = await this.desk.newCase([
        { key: MESSAGE, value: message, how: 'reported', series: 'messages' },
        { key: WHICH, value: no, how: 'decided' },
        ...toFile(own, [], this.registry(), () => crypto.randomUUID()),
      ]);
      if (opened.ok) out.opened++;
    }
    await this.desk.open(back);
    return out;
  }

  /** Proposals of one of the vehicles, and of all of them. */
  private proposalsOf(no: number): readonly Proposal[] {
    const read = this.read();
    if (!read || 'code' in read) return [];
    return read.proposals.filter((p) => p.of === undefined || p.of === 0 || p.of === no);
  }

  private entriesOf(proposals: readonly Proposal[]): NewFact[] {
    const state = this.desk.current()?.state;
    const parts = state ? thingsOf(state, this.registry()) : [];
    return toFile(proposals, parts, this.registry(), () => crypto.randomUUID());
  }

  /** What stands in the place that a proposal would take. */
  private standingOf(state: State, p: Proposal): FactValue | undefined {
    if (!p.part && p.which !== 'new' && !p.place) return valueOf(state, p.key, p.about);
    const kind = p.part?.kind ?? this.registry().get(p.key)?.part;
    const place = p.part?.place ?? (p.which === 'new' ? 'new' : undefined);
    const about =
      place === undefined
        ? p.about
        : thingsOf(state, this.registry()).find((t) => t.kind === kind && t.place === place)?.id;
    if (place !== undefined && about === undefined) return undefined;
    return p.place
      ? placedOf(state, p.key, about).find((x) => placeKey(x.place) === placeKey(must(p.place)))?.value
      : valueOf(state, p.key, about);
  }

  private wording(p: Proposal): string {
    // While the drive is open its wheels go by their ids.
    const named = this.desk.thing(p.about).replaceAll('-', ' ');
    const thing = p.part ? p.part.place : p.which === 'new' ? 'new part' : named;
    const place = p.place ? placeWords(p.place) : '';
    return [this.registry().get(p.key)?.wording ?? p.key, thing, place].filter(Boolean).join(', ');
  }

  private show(p: Proposal, value: FactValue): string {
    const o = this.registry().get(p.key);
    return o ? this.session.show(o, value, value === p.value ? p.u : undefined) : plainText(value);
  }

  private said(key: string): string | undefined {
    const state = this.desk.current()?.state;
    return state && textOf(state, key);
  }
}

/** Two values for one thing by one voice: only one of them can be meant. */
const excludes = (a: Proposal, b: Proposal): boolean => slotOf(a) === slotOf(b) && a.hearsay === b.hearsay;
const sameMonth = (a: FactValue, b: FactValue): boolean =>
  typeof a === 'string' && typeof b === 'string' && a.slice(0, 7) === b.slice(0, 7);
const same = (a: FactValue, b: FactValue): boolean => JSON.stringify(a) === JSON.stringify(b);
