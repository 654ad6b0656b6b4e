import type { IDBPDatabase } from 'idb';
import { registryFor, worldOf } from '@core/answer/world';
import { stepNames } from '@core/fitting/named-steps';
import { allStanding, textOf } from '@core/facts/read';
import type { Notation } from '@core/facts/read-value';
import { reduce } from '@core/facts/state';
import { plainText } from '@core/facts/value';
import type { IntakeContext } from '@core/intake/context';
import { readText } from '@core/intake/read-text';
import { readsOtherwise } from '@core/intake/taught';
import type { TaughtWord } from '@core/intake/taught-words';
import { policyWith } from '@core/policy/policy';
import { cataloguesIn, readBatch } from '../records/all-cases';
import type { Records } from '../records/records';

/** Words of the house before and after, and how the house writes. */
export type WordsAsk = {
  before: TaughtWord[];
  after: TaughtWord[];
  notation: Notation;
  today: string;
  chosen: Record<string, string>;
};
/** A piece that carries meaning and that nothing takes, and the case that it stands in. */
type Untaken = { id: string; tag: string; text: string };
export type WordsAnswer = { messages: number; changed: { id: string; tag: string }[]; untaken: Untaken[] };
export type WordsLine = { progress: (done: number) => void; cancelled: () => boolean };

/** Messages are told of every so many; pieces listed at most. */
const TELL = 5;
const MOST = 400;

/** Reads the message of every case with other words: which read otherwise; and what is told in them that nothing takes. */
export async function wordsInAll(
  db: IDBPDatabase<Records>,
  ask: WordsAsk,
  line: WordsLine,
): Promise<WordsAnswer> {
  const catalogues = await cataloguesIn(db);
  const policy = policyWith(ask.chosen);
  const out: WordsAnswer = { messages: 0, changed: [], untaken: [] };
  let last: string | undefined;
  do {
    const batch = await readBatch(db, last, []);
    last = batch.last;
    for (const [id, facts] of batch.groups) {
      if (line.cancelled()) return out;
      if (!facts.some((f) => f.key === 'call.message')) continue;
      const state = reduce(facts);
      const message = allStanding(state)
        .find((s) => s.meaning.key === 'call.message')
        ?.facts.at(-1)?.value;
      const catalogue = message === undefined ? undefined : await catalogues(id, facts);
      if (message === undefined || !catalogue) continue;
      const text = plainText(message);
      const tag = textOf(state, 'case.tag') ?? '';
      const ctx: IntakeContext = {
        catalogue,
        registry: registryFor(worldOf(catalogue, { policy })),
        notation: ask.notation,
        today: ask.today,
        steps: (engine) => stepNames(catalogue, engine, policy),
      };
      out.messages++;
      if (readsOtherwise(text, ctx, ask.before, ask.after)) out.changed.push({ id, tag });
      const read = readText(text, { ...ctx, taught: ask.after });
      if (!('code' in read) && out.untaken.length < MOST)
        out.untaken.push(...read.unfiled.map((s) => ({ id, tag, text: text.slice(s.from, s.to) })));
      if (out.messages % TELL === 0) {
        line.progress(out.messages);
        // so that a cancel is heard
        await new Promise((resolve) => setTimeout(resolve));
      }
    }
  } while (last !== undefined);
  line.progress(out.messages);
  return out;
}
