import type { Fact } from '@core/facts/fact';
import { err, ok, type Result } from '@core/quantity/result';
import { type Entry, follows, endOf, type Heads, type LogHead, MOST_IN_ENTRY, nextEntry } from './entry';

/** Why a shelf did not do what was asked of it. */
export type ShelfError =
  | { code: 'away'; detail: string }
  /** It lets this desk in no more. */
  | { code: 'shut_out' }
  /** What came from it cannot be read by this program: a newer one wrote it, or somebody else. */
  | { code: 'unreadable'; log: string; at: string; why: string }
  /** The log goes on further than this desk knew, or it lost its end. */
  | { code: 'behind' }
  /** It has a fact of this id that says another thing. */
  | { code: 'other_content'; id: string }
  | { code: 'refused'; detail: string };

/**
 * A shelf keeps what desks put there, each in a log of its own, and tells what is new. Whatever carries it may lose, repeat and delay; no clock
 * is asked.
 */
export type Shelf = {
  /** Where every log ends, and what comes after these positions: of each log in its order, some at a time. None: there is no more. */
  since(positions: Heads): Promise<Result<ShelfNews, ShelfError>>;
  /** Puts an entry at the end of its log: refused as `behind` where the log ends elsewhere. */
  append(entry: Entry): Promise<Result<true, ShelfError>>;
  /** Which of these facts it does not have. */
  missing(ids: readonly string[]): Promise<Result<readonly string[], ShelfError>>;
};

export type ShelfNews = { heads: Heads; entries: readonly Entry[] };

/** What a desk keeps of its shelf; it outlives a crash. */
export type ShelfMemory = {
  /** The log that this desk writes. */
  log: string;
  /** How far every log was read; of the own one, how far it was written. */
  positions: Heads;
  /** What stands on the shelf has to be asked for anew: it was just joined, or lost something. */
  recheck: boolean;
};

/** The desk's side: its facts, and which of them stand on the shelf. Each of these is one write: it is done whole or not at all. */
export type ShelfDesk = {
  memory(): Promise<ShelfMemory>;
  /** Facts of which it is not known that they stand on the shelf, some at a time, after the one named. */
  waiting(most: number, after?: Fact): Promise<readonly Fact[]>;
  /** Takes facts in, as standing on the shelf, and notes how far their logs were read. */
  take(facts: readonly Fact[], positions: Heads): Promise<void>;
  /** Notes that facts stand on the shelf and, after an entry of its own, where the log ends. */
  know(ids: readonly string[], written?: { log: string; position: LogHead }): Promise<void>;
  /** Forgets how far these logs were read, which lost their end, and which facts stand on the shelf: that is asked for anew. */
  lost(logs: readonly string[]): Promise<void>;
  rechecked(): Promise<void>;
  /** The shelf has a fact of this id that says another thing: what stands here stays, and is told. */
  contested(id: string): Promise<void>;
};

/** What an exchange did. */
export type Exchanged = { came: number; went: number; /** The shelf had lost something. */ lost: boolean };

/** Entries that are tried anew where another window, or an answer that was lost, was quicker. */
const TRIES = 5;
const BATCH = 2000;

/**
 * Brings a desk and its shelf together: what is new comes, what waits goes. It may be cut off anywhere and begun again: facts are united by
 * their ids, so that nothing is lost and nothing is there twice. What the shelf lost goes there again, by whichever desk still has it.
 * @param most facts of one entry
 */
export async function exchange(
  desk: ShelfDesk,
  shelf: Shelf,
  most = MOST_IN_ENTRY,
): Promise<Result<Exchanged, ShelfError>> {
  const sum: Exchanged = { came: 0, went: 0, lost: false };
  for (let tries = 0; tries < TRIES; tries++) {
    const pulled = await pull(desk, shelf, sum);
    if (!pulled.ok) return pulled;
    const pushed = await push(desk, shelf, most, sum);
    if (pushed.ok) return ok(sum);
    if (pushed.error.code !== 'behind') return pushed;
  }
  return err({ code: 'behind' });
}

/**
 * Puts there what waits, without asking what is new: for a desk that filed while it listens for news, which makes half the questions of a busy shelf
 * needless. What stands in the way makes it a whole exchange.
 */
export async function putThere(
  desk: ShelfDesk,
  shelf: Shelf,
  most = MOST_IN_ENTRY,
): Promise<Result<Exchanged, ShelfError>> {
  const sum: Exchanged = { came: 0, went: 0, lost: false };
  if ((await desk.memory()).recheck) return exchange(desk, shelf, most);
  const pushed = await push(desk, shelf, most, sum);
  if (pushed.ok) return ok(sum);
  return pushed.error.code === 'behind' ? exchange(desk, shelf, most) : pushed;
}

/** Logs of which the shelf has less than this desk read, or another end. */
function cutLogs(positions: Heads, heads: Heads): string[] {
  return Object.entries(positions).flatMap(([log, mine]) => {
    const there = heads[log];
    const cut =
      there === undefined || there.seq < mine.seq || (there.seq === mine.seq && there.hash !== mine.hash);
    return cut ? [log] : [];
  });
}

const reached = (heads: Heads, positions: Heads): boolean =>
  Object.entries(heads).every(([log, { seq }]) => (positions[log]?.seq ?? 0) >= seq);

async function pull(desk: ShelfDesk, shelf: Shelf, sum: Exchanged): Promise<Result<true, ShelfError>> {
  for (;;) {
    const { positions } = await desk.memory();
    const came = await shelf.since(positions);
    if (!came.ok) return came;
    const { heads, entries } = came.value;
    const cut = cutLogs(positions, heads);
    const read = chained(entries, positions);
    if (!read.ok) return read;
    const { facts, ends, broken } = read.value;
    const gone = [...new Set([...cut, ...broken])];
    if (gone.length > 0) {
      sum.lost = true;
      await desk.lost(gone);
      continue;
    }
    if (entries.length > 0) await desk.take(facts, ends);
    sum.came += facts.length;
    // what is filed meanwhile comes the next time: where many desks file there is always more, and what waits here has to go
    if (entries.length === 0 || reached(heads, { ...positions, ...ends })) return recheck(desk, shelf);
  }
}

/**
 * Facts of entries that follow on what was read, and where their logs end with them; logs that follow on something else: what was read before is not
 * what stands there now.
 */
function chained(
  entries: readonly Entry[],
  positions: Heads,
): Result<{ facts: Fact[]; ends: Heads; broken: ReadonlySet<string> }, ShelfError> {
  const facts: Fact[] = [];
  const broken = new Set<string>();
  const ends: Record<string, LogHead> = {};
  for (const entry of entries) {
    const { log, seq } = entry;
    const before = ends[log] ?? positions[log];
    if (follows(entry, before)) {
      ends[log] = endOf(entry);
      facts.push(...entry.facts);
    } else if (positions[log] === undefined)
      return err({ code: 'unreadable', log, at: String(seq), why: 'chain' });
    else broken.add(log);
  }
  return ok({ facts, ends, broken });
}

/** Asks which of the desk's facts stand on the shelf. */
async function recheck(desk: ShelfDesk, shelf: Shelf): Promise<Result<true, ShelfError>> {
  if (!(await desk.memory()).recheck) return ok(true);
  let after: Fact | undefined;
  for (;;) {
    const facts = await desk.waiting(BATCH, after);
    after = facts.at(-1);
    if (after === undefined) break;
    const ids = facts.map((f) => f.id);
    const missing = await shelf.missing(ids);
    if (!missing.ok) return missing;
    const gone = new Set(missing.value);
    const there = ids.filter((id) => !gone.has(id));
    if (there.length > 0) await desk.know(there);
  }
  await desk.rechecked();
  return ok(true);
}

async function push(
  desk: ShelfDesk,
  shelf: Shelf,
  most: number,
  sum: Exchanged,
): Promise<Result<true, ShelfError>> {
  for (;;) {
    const facts = await desk.waiting(most);
    if (facts.length === 0) return ok(true);
    const { log, positions } = await desk.memory();
    const entry = nextEntry(log, positions[log], facts);
    const done = await shelf.append(entry);
    if (!done.ok && done.error.code === 'other_content' && facts.some((f) => f.id === idIn(done.error))) {
      await desk.contested(idIn(done.error));
      continue;
    }
    if (!done.ok) return done;
    await desk.know(
      facts.map((f) => f.id),
      { log, position: endOf(entry) },
    );
    sum.went += facts.length;
  }
}

const idIn = (e: ShelfError): string => ('id' in e ? e.id : '');
