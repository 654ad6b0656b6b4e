import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { CaseSummary } from '@core/answer/case-summary';
import type { Fact } from '@core/facts/fact';
import { MOST_SUMMARIES, type ShelvedSummary } from '@core/shelf/protocol';
import type { Database } from '../data/database';
import type { FactRepository } from '../data/fact-repository';
import type { RecordWork } from '../data/record-work';
import type { ShelfState } from '../data/shelf-state';
import { ofCase } from '../records/records';
import { FarRecords } from './far-records';
import type { HttpShelf } from './http-shelf';
import { isShared, type ShelfRecords } from './shelf-records';

/** Cases of a large shelf that are here whole, the last ones; the others come when they are opened. */
const WHOLE = 200;
const PART = 100;

const text = z.string();
/** What the rack and the ledger read of every summary, whoever made it. */
const FoundSchema = z.looseObject({
  id: text,
  tag: text,
  engine: text,
  who: text,
  kind: text,
  waits: text,
  opened: text,
  touched: text,
  text,
  world: text,
});

/** The summary that a desk put there; undefined where it is none. */
function summaryIn(s: ShelvedSummary): CaseSummary | undefined {
  try {
    const read = FoundSchema.parse(JSON.parse(s.text));
    return read.id === s.case ? (read as unknown as CaseSummary) : undefined;
  } catch {
    return undefined;
  }
}

/** What a desk does not hold whole: summaries of all, and cases that come when they are opened and are let go again. */
export class FarCases {
  /** Cases whose summary here is older than the shelf. */
  private readonly outdated = new Set<string>();
  /** Cases whose summary was made here and is not on the shelf yet. */
  private readonly mine = new Set<string>();
  private readonly far: FarRecords;

  constructor(
    private readonly repository: FactRepository,
    private readonly database: Database,
    private readonly records: ShelfRecords,
    private readonly work: RecordWork,
    private readonly state: ShelfState,
    /** Facts came that may point to files. */
    private readonly came: (facts: readonly Fact[]) => void,
  ) {
    this.far = new FarRecords(() => database.open());
  }

  count(): Promise<number> {
    return this.far.count();
  }

  isOld(cases: readonly string[]): void {
    for (const id of cases) this.outdated.add(id);
  }

  /** Facts of cases went to the shelf: their summaries follow. */
  went(cases: readonly string[]): void {
    for (const id of cases) this.mine.add(id);
  }

  /** Cases whose summaries a window that was closed did not put there. */
  async resume(): Promise<void> {
    for (const id of await this.records.owed()) this.mine.add(id);
  }

  /**
   * Begins with a large shelf: the last cases whole, summaries of the others, and from then on what is new. A small one is read whole by the
   * exchange. True where it was large.
   */
  async begin(shelf: HttpShelf): Promise<boolean> {
    const first = await shelf.summaries();
    if (!first.ok || first.value.summaries.length < MOST_SUMMARIES) return false;
    const ends = await shelf.since({});
    if (!ends.ok) return false;
    let stopped = false;
    const line = this.work.start('Reading the shelf', () => (stopped = true));
    let [page, done] = [first.value.summaries, 0];
    // what is here and there has to be here as it is there
    const whole = new Set([...(await this.keep(page)), ...page.slice(0, WHOLE).map((s) => s.case)]);
    while (page.length === MOST_SUMMARIES && !stopped) {
      done += page.length;
      line.done(done);
      const next = await shelf.summaries(page.at(-1));
      if (!next.ok) {
        stopped = true;
        break;
      }
      page = next.value.summaries;
      for (const id of await this.keep(page)) whole.add(id);
    }
    for (const id of whole) if (!stopped) stopped = !(await this.bring(shelf, id));
    line.end();
    // cut off, it begins at the beginning: what no summary came of would be missed
    if (!stopped) await this.records.beginAtEnd(ends.value.heads);
    return true;
  }

  /** Puts summaries there that were made here, and reads anew those that are old. */
  async exchange(shelf: HttpShelf): Promise<void> {
    const ids = [...this.mine];
    for (let i = 0; i < ids.length; i += PART) {
      if (!(await this.put(shelf, ids.slice(i, i + PART)))) return;
    }
    if (this.outdated.size === 0) return;
    const came = await shelf.summariesOf([...this.outdated].slice(0, MOST_SUMMARIES));
    if (!came.ok) return;
    const newer: ShelvedSummary[] = [];
    for (const s of came.value.summaries)
      if (s.facts > ((await this.far.factsOf(s.case)) ?? Infinity)) newer.push(s);
    await this.keep(newer);
    for (const s of newer) this.outdated.delete(s.case);
  }

  /** The shelf is back: a case that waited for it comes. */
  async again(shelf: HttpShelf, id: string | undefined): Promise<void> {
    if (id !== undefined && this.state.fetching() === 'away') await this.opened(shelf, id);
  }

  /** A case was opened: where only its summary is here it comes whole. */
  async opened(shelf: HttpShelf | undefined, id: string): Promise<void> {
    if ((await this.far.factsOf(id)) === undefined) return this.state.fetching.set('no');
    this.state.fetching.set('coming');
    this.state.fetching.set(shelf && (await this.bring(shelf, id)) ? 'no' : 'away');
  }

  /** Lets go of cases that were not touched for longest, but for so many; how many went, and the files they pointed to. */
  async letGo(inHand: string | undefined, keep = WHOLE): Promise<{ gone: string[]; files: string[] }> {
    const heads = (await this.database.read((db) => db.getAll('heads'))).filter((h) => isShared(h.id));
    heads.sort((a, b) => (a.touched < b.touched ? 1 : -1));
    return this.far.letGo(heads.slice(keep).flatMap((h) => (h.id === inHand ? [] : [h.id])));
  }

  private async bring(shelf: HttpShelf, id: string): Promise<boolean> {
    const came = await shelf.caseFacts(id);
    if (!came.ok) return false;
    await this.far.bring(id, came.value);
    this.outdated.delete(id);
    this.came(came.value);
    this.repository.tell({ grown: [id], summaries: [], packs: [], extracts: [] });
    return true;
  }

  /** Keeps summaries of cases that are not here; those that are come back. */
  private async keep(page: readonly ShelvedSummary[]): Promise<string[]> {
    const read = page.flatMap((s) => {
      const summary = summaryIn(s);
      return summary ? [{ summary, facts: s.facts }] : [];
    });
    const summaries = await this.far.keep(read);
    if (summaries.length > 0) this.repository.tell({ grown: [], summaries, packs: [], extracts: [] });
    const far = new Set(summaries.map((h) => h.id));
    return read.flatMap(({ summary: { id } }) => (far.has(id) ? [] : [id]));
  }

  /** Puts summaries of cases there as they are here; of what is behind its facts none, its turn comes. False where that failed. */
  private async put(shelf: HttpShelf, ids: readonly string[]): Promise<boolean> {
    const made: ShelvedSummary[] = [];
    const done: string[] = [];
    for (const id of ids) {
      // what grows while this is under way has its turn again
      this.mine.delete(id);
      const [head, behind, facts] = await this.database.read((db) =>
        Promise.all([db.get('heads', id), db.getKey('behind', id), db.count('facts', ofCase(id))]),
      );
      // a case that is here as a summary alone has its maker elsewhere
      if (facts === 0) done.push(id);
      else if (!head || behind !== undefined) this.mine.add(id);
      else
        made.push({
          case: id,
          facts,
          made: head.world.slice(0, 80),
          touched: head.touched,
          text: JSON.stringify(head),
        });
    }
    if (made.length > 0 && !(await shelf.putSummaries(made)).ok) {
      for (const s of made) this.mine.add(s.case);
      return false;
    }
    done.push(...made.map((s) => s.case));
    if (done.length > 0) await this.records.paid(done.filter((id) => !this.mine.has(id)));
    return true;
  }
}
