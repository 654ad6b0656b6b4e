import { err, ok, type Result } from '@core/quantity/result';
import { type Entry, type EntryError, GENESIS, endOf, type Heads, type LogHead, readEntry } from './entry';
import type { Shelf, ShelfError, ShelfNews } from './exchange';

/** A folder that somebody else carries between machines. What it cannot do it throws. */
export type FolderFiles = {
  /** Folders in a folder; none where there is no such folder. */
  folders(path: string): Promise<readonly string[]>;
  /** Files in a folder, each with what changes when it does. */
  files(path: string): Promise<readonly { name: string; stamp: string }[]>;
  read(path: string): Promise<string | undefined>;
  /** Writes a file whole, or leaves the one that is there. */
  write(path: string, text: string): Promise<void>;
};

/** A line that is no entry: half-written, altered, or of a newer program. */
export type FolderFault = { path: string; line: number; why: EntryError | { code: 'no_json' } };

const LOGS = 'logs';
const ENDING = '.jsonl';
/** Signs after which a file is full and the next is begun: small, since each entry writes it anew and carries it again. */
const FULL = 256 * 1024;
/** Entries that are read at once. */
const PIECE = 200;

/** What is remembered of an entry: its content is read again when it is wanted. */
type Link = LogHead & { prev: string; path: string; ids: readonly string[] };
type ReadFile = { stamp: string; links: readonly Link[]; faults: readonly FolderFault[] };

/**
 * A shelf in a folder: each log in a folder of its own, `logs/<log>/<number of its first entry>.jsonl`, an entry a line. Only its desk writes
 * it, so that carriers have nothing to merge. Copies that a carrier made of a conflict are read as well, by whatever name; half-written lines are
 * left until they are whole; an entry counts only behind the one before.
 */
export class FolderShelf implements Shelf {
  private readonly readFiles = new Map<string, ReadFile>();
  private chains = new Map<string, readonly Link[]>();

  constructor(private readonly folder: FolderFiles) {}

  /** Lines that are no entries, of what was read last. */
  faults(): readonly FolderFault[] {
    return [...this.readFiles.values()].flatMap((f) => f.faults);
  }

  since(positions: Heads): Promise<Result<ShelfNews, ShelfError>> {
    return inFolder(async () => {
      await this.look();
      const heads: Record<string, LogHead> = {};
      const wanted: Link[] = [];
      for (const [log, chain] of this.chains) {
        const end = chain.at(-1);
        if (end) heads[log] = endOf(end);
        if (wanted.length < PIECE)
          wanted.push(...chain.slice(positions[log]?.seq ?? 0).slice(0, PIECE - wanted.length));
      }
      return ok({ heads, entries: await this.entriesOf(wanted) });
    });
  }

  append(entry: Entry): Promise<Result<true, ShelfError>> {
    return inFolder(async () => {
      const chain = await this.chainOf(entry.log, new Set());
      if ((chain.at(-1)?.hash ?? GENESIS) !== entry.prev) return err({ code: 'behind' });
      const dir = `${LOGS}/${entry.log}`;
      const last = chain.at(-1)?.path;
      const text = last === undefined ? '' : ((await this.folder.read(last)) ?? '');
      const whole = last !== undefined && text.length < FULL ? last : `${dir}/${fileName(entry.seq)}`;
      // What is no entry in a file of one's own, a line cut off for example, is not written again.
      const kept = whole === last ? linesIn(text).filter((l) => readLine(l).ok) : [];
      await this.folder.write(whole, [...kept, JSON.stringify(entry), ''].join('\n'));
      this.chains.set(entry.log, await this.chainOf(entry.log, new Set()));
      return ok(true);
    });
  }

  missing(ids: readonly string[]): Promise<Result<readonly string[], ShelfError>> {
    const there = new Set([...this.chains.values()].flatMap((chain) => chain.flatMap((l) => l.ids)));
    return Promise.resolve(ok(ids.filter((id) => !there.has(id))));
  }

  /** Reads what changed in the folder. */
  private async look(): Promise<void> {
    const chains = new Map<string, readonly Link[]>();
    const seen = new Set<string>();
    for (const log of await this.folder.folders(LOGS)) chains.set(log, await this.chainOf(log, seen));
    for (const path of [...this.readFiles.keys()]) if (!seen.has(path)) this.readFiles.delete(path);
    this.chains = chains;
  }

  private async entriesOf(links: readonly Link[]): Promise<Entry[]> {
    const texts = new Map<string, Map<string, Entry>>();
    const changed = new Set<string>();
    const entries: Entry[] = [];
    for (const { path, hash } of links) {
      const there = texts.get(path) ?? entriesByHash((await this.folder.read(path)) ?? '');
      texts.set(path, there);
      const entry = there.get(hash);
      // Changed since it was looked at: what came before it is good, the rest of its log is read the next time.
      if (!entry) changed.add(path);
      else if (!changed.has(path)) entries.push(entry);
    }
    return entries;
  }

  /** The entries of a log, each behind the one before, as far as they go. Where two follow on one, the one of the smaller hash counts, everywhere. */
  private async chainOf(log: string, seen: Set<string>): Promise<readonly Link[]> {
    const dir = `${LOGS}/${log}`;
    const after = new Map<string, Link>();
    for (const { name, stamp } of await this.folder.files(dir)) {
      if (!name.endsWith(ENDING)) continue;
      const path = `${dir}/${name}`;
      seen.add(path);
      for (const link of (await this.fileAt(path, stamp, log)).links) {
        const rival = after.get(link.prev);
        if (!rival || link.hash < rival.hash) after.set(link.prev, link);
      }
    }
    const chain: Link[] = [];
    for (let at = after.get(GENESIS); at?.seq === chain.length + 1; at = after.get(at.hash)) chain.push(at);
    return chain;
  }

  private async fileAt(path: string, stamp: string, log: string): Promise<ReadFile> {
    const known = this.readFiles.get(path);
    if (known?.stamp === stamp) return known;
    const links: Link[] = [];
    const faults: FolderFault[] = [];
    for (const [i, line] of linesIn((await this.folder.read(path)) ?? '').entries()) {
      const entry = readLine(line);
      if (!entry.ok) faults.push({ path, line: i + 1, why: entry.error });
      else if (entry.value.log === log) {
        const { prev, facts } = entry.value;
        links.push({ ...endOf(entry.value), prev, path, ids: facts.map((f) => f.id) });
      }
    }
    const read = { stamp, links, faults };
    this.readFiles.set(path, read);
    return read;
  }
}

/** Does something in a folder; what the folder cannot do is an answer. */
export async function inFolder<T>(job: () => Promise<Result<T, ShelfError>>): Promise<Result<T, ShelfError>> {
  try {
    return await job();
  } catch (e) {
    return err({ code: 'away', detail: e instanceof Error ? e.message : String(e) });
  }
}

const fileName = (seq: number): string => String(seq).padStart(8, '0') + ENDING;
const linesIn = (text: string): string[] => text.split('\n').filter((l) => l.trim() !== '');

function readLine(line: string): Result<Entry, FolderFault['why']> {
  try {
    return readEntry(JSON.parse(line));
  } catch {
    return err({ code: 'no_json' });
  }
}

const entriesByHash = (text: string): Map<string, Entry> =>
  new Map(
    linesIn(text).flatMap((line) => {
      const entry = readLine(line);
      return entry.ok ? [[entry.value.hash, entry.value]] : [];
    }),
  );
