import { must, nth } from '@core/quantity/must';
import type { IDBPDatabase } from 'idb';
import { type Rejudged, rejudged } from '@core/answer/rejudge';
import { knowledgeOf, worldOf } from '@core/answer/world';
import { CAUSES } from '@core/cause/cause-data';
import { type Change, knowledgeWith } from '@core/cause/changes';
import { reduce } from '@core/facts/state';
import { policyWith } from '@core/policy/policy';
import { cataloguesIn, readBatch } from '../records/all-cases';
import type { Records } from '../records/records';

/** What is compared: the house's changes before and after, under the same policy. */
export type RejudgeAsk = { before: Change[]; after: Change[]; chosen: Record<string, string> };
/** A case that reads otherwise, by its id. */
type RejudgedCase = Rejudged & { id: string };
export type RejudgeAnswer = { cases: number; moved: RejudgedCase[] };
export type RejudgeLine = { progress: (done: number) => void; cancelled: () => boolean };

/** Cases are told of every so many. */
const TELL = 5;

/** Judges every case under two bodies of knowledge; those that read otherwise, in the order of their ids. Cases that cannot be computed are passed over. */
export async function rejudgeAll(
  db: IDBPDatabase<Records>,
  { before, after, chosen }: RejudgeAsk,
  line: RejudgeLine,
): Promise<RejudgeAnswer> {
  const catalogues = await cataloguesIn(db);
  const policy = policyWith(chosen);
  const [then, now] = [before, after].map((c) => knowledgeOf(knowledgeWith(CAUSES, c)));
  const out: RejudgeAnswer = { cases: 0, moved: [] };
  let last: string | undefined;
  do {
    const batch = await readBatch(db, last, []);
    last = batch.last;
    for (const [id, facts] of batch.groups) {
      if (line.cancelled()) return out;
      const catalogue = await catalogues(id, facts);
      if (facts.length === 0 || !catalogue) continue;
      const worlds = [must(then), must(now)].map((knowledge) => worldOf(catalogue, { policy, knowledge }));
      try {
        const moved = rejudged(reduce(facts), nth(worlds, 0), nth(worlds, 1));
        if (moved) out.moved.push({ id, ...moved });
      } catch {
        // set aside on the rack already
      }
      out.cases++;
      if (out.cases % TELL === 0) {
        line.progress(out.cases);
        // so that a cancel is heard
        await new Promise((resolve) => setTimeout(resolve));
      }
    }
  } while (last !== undefined);
  line.progress(out.cases);
  return out;
}
