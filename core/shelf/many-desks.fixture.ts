import { factsDigest } from '@core/facts/digest';
import type { Fact } from '@core/facts/fact';
import { err, ok, type Result } from '@core/quantity/result';
import { type Entry, follows, endOf, type Heads, type LogHead } from './entry';
import { exchange, type Shelf, type ShelfDesk, type ShelfError, type ShelfMemory } from './exchange';
import type { FolderFiles } from './folder-shelf';

/** Random numbers of a seed (mulberry32). */
export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** The desk was killed between two writes. */
class Crash extends Error {}

/** A shelf in memory, as plain as can be: what it does is what the others are held against. */
export class PlainShelf implements Shelf {
  logs = new Map<string, Entry[]>();
  since(positions: Heads) {
    const heads: Record<string, LogHead> = {};
    const entries: Entry[] = [];
    for (const [log, all] of this.logs) {
      const end = all.at(-1);
      if (end) heads[log] = endOf(end);
      entries.push(...all.slice(positions[log]?.seq ?? 0).slice(0, 20));
    }
    return Promise.resolve(ok({ heads, entries: entries.slice(0, 50) }));
  }
  append(entry: Entry): Promise<Result<true, ShelfError>> {
    const all = this.logs.get(entry.log) ?? [];
    const end = all.at(-1);
    if (!follows(entry, end && endOf(end))) return Promise.resolve(err({ code: 'behind' }));
    this.logs.set(entry.log, [...all, entry]);
    return Promise.resolve(ok(true));
  }
  missing(ids: readonly string[]) {
    const there = new Set([...this.logs.values()].flat().flatMap((e) => e.facts.map((f) => f.id)));
    return Promise.resolve(ok(ids.filter((id) => !there.has(id))));
  }
}

/** A desk whose disk is this object: what it wrote before a crash is there after it. */
export class PlainDesk implements ShelfDesk {
  readonly facts = new Map<string, Fact>();
  private readonly known = new Set<string>();
  private kept: ShelfMemory;
  /** Called before and after every write; it may throw, which is a crash. */
  between: () => void = () => undefined;

  constructor(log: string) {
    this.kept = { log, positions: {}, recheck: true };
  }
  memory() {
    return Promise.resolve(this.kept);
  }
  waiting(most: number, after?: Fact) {
    const ids = [...this.facts.keys()]
      .filter((id) => !this.known.has(id) && (!after || id > after.id))
      .sort();
    return Promise.resolve(ids.slice(0, most).flatMap((id) => this.facts.get(id) ?? []));
  }
  take(facts: readonly Fact[], positions: Heads) {
    return this.write(() => {
      for (const f of facts) {
        if (!this.facts.has(f.id)) this.facts.set(f.id, f);
        this.known.add(f.id);
      }
      this.kept = { ...this.kept, positions: { ...this.kept.positions, ...positions } };
    });
  }
  know(ids: readonly string[], written?: { log: string; position: LogHead }) {
    return this.write(() => {
      for (const id of ids) this.known.add(id);
      if (written)
        this.kept = { ...this.kept, positions: { ...this.kept.positions, [written.log]: written.position } };
    });
  }
  lost(logs: readonly string[]) {
    return this.write(() => {
      this.known.clear();
      const rest = Object.entries(this.kept.positions).filter(([name]) => !logs.includes(name));
      this.kept = { ...this.kept, positions: Object.fromEntries(rest), recheck: true };
    });
  }
  rechecked() {
    return this.write(() => (this.kept = { ...this.kept, recheck: false }));
  }
  contested(id: string) {
    return this.know([id]);
  }
  private write(job: () => void): Promise<void> {
    this.between();
    job();
    this.between();
    return Promise.resolve();
  }
}

type Ways = {
  /** Shares of requests that do not arrive, whose answer is lost, that arrive twice, that arrive later. */
  lost: number;
  deaf: number;
  twice: number;
  late: number;
};

/** A shelf as a bad network shows it. */
function farAway(shelf: Shelf, random: () => number, ways: Ways, late: (() => Promise<unknown>)[]): Shelf {
  const away = { code: 'away', detail: 'simulated' } as const;
  const by =
    <T>(job: () => Promise<Result<T, ShelfError>>) =>
    async (): Promise<Result<T, ShelfError>> => {
      const dice = random();
      if (dice < ways.lost) return err(away);
      if (dice < ways.lost + ways.late) {
        late.push(job);
        return err(away);
      }
      if (dice < ways.lost + ways.late + ways.twice) await job();
      const answer = await job();
      return random() < ways.deaf ? err(away) : answer;
    };
  return {
    since: (positions) => by(() => shelf.since(positions))(),
    append: (entry) => by(() => shelf.append(entry))(),
    missing: (ids) => by(() => shelf.missing(ids))(),
  };
}

export type Course = {
  seed: number;
  desks: number;
  facts: number;
  /** What befalls the shelf itself, now and then. */ mishap?: () => void;
};
export type Outcome = {
  digests: readonly string[];
  filed: string;
  counts: readonly number[];
  facts: number;
  crashes: number;
  mishaps: number;
};

/**
 * Desks that file, go away for long, are killed between any two writes and come back, over a network that loses, repeats and delays; their clocks are
 * wrong by days. At the end the network holds, and each of them exchanges until nothing moves.
 */
export async function runCourse(course: Course, shelf: Shelf): Promise<Outcome> {
  const random = seeded(course.seed);
  const below = (n: number) => Math.floor(random() * n);
  const desks = Array.from({ length: course.desks }, (_, i) => new PlainDesk(`log-${course.seed}-${i}`));
  const skews = desks.map(() => (random() - 0.5) * 20 * 86_400_000);
  const away = desks.map(() => 0);
  const all = new Map<string, Fact>();
  const late: (() => Promise<unknown>)[] = [];
  let [crashes, mishaps] = [0, 0];
  const file = (at: number, n: number) => {
    for (let i = 0; i < n && all.size < course.facts; i++) {
      const id = `f-${course.seed}-${(all.size * 7919 + 13) % 1_000_003}`;
      const fact: Fact = {
        id,
        case: `case-${below(40)}`,
        key: 'vehicle.distance',
        value: below(300_000),
        how: 'reported',
        by: `Desk ${at}`,
        at: new Date(Date.UTC(2026, 10, 1) + (skews[at] ?? 0) + all.size * 1000).toISOString(),
        seen: 1 + below(30),
      };
      all.set(id, fact);
      desks[at]?.facts.set(id, fact);
    }
  };
  const ways: Ways = { lost: 0.08, deaf: 0.08, twice: 0.08, late: 0.05 };
  const each = Math.max(1, Math.ceil(course.facts / 120));
  while (all.size < course.facts) {
    const at = below(desks.length);
    const desk = desks[at];
    if (!desk) continue;
    file(at, 1 + below(each));
    away[at] = random() < 0.03 ? 30 : Math.max(0, (away[at] ?? 0) - 1);
    if ((away[at] ?? 0) > 0) continue;
    desk.between = () => {
      if (random() < 0.02) throw new Crash();
    };
    try {
      await exchange(desk, farAway(shelf, random, ways, late), 1 + below(2 * each));
    } catch (e) {
      if (!(e instanceof Crash)) throw e;
      crashes++;
    }
    desk.between = () => undefined;
    while (late.length > 0 && random() < 0.5) await late.splice(below(late.length), 1)[0]?.();
    if (course.mishap && random() < 0.02) {
      course.mishap();
      mishaps++;
    }
  }
  for (const job of late) await job();
  for (let moved = true; moved; ) {
    moved = false;
    for (const desk of desks) {
      const done = await exchange(desk, shelf);
      if (!done.ok) throw new Error(JSON.stringify(done.error));
      moved ||= done.value.came + done.value.went > 0 || done.value.lost;
    }
  }
  return {
    digests: desks.map((d) => factsDigest([...d.facts.values()])),
    filed: factsDigest([...all.values()]),
    counts: desks.map((d) => d.facts.size),
    facts: all.size,
    crashes,
    mishaps,
  };
}

/** A folder in memory, with a carrier that can be cruel to it. */
export class PlainFolder implements FolderFiles {
  kept = new Map<string, { text: string; stamp: number }>();
  private stamps = 0;
  folders(path: string) {
    const below = [...this.kept.keys()].filter((f) => f.startsWith(`${path}/`));
    return Promise.resolve([...new Set(below.map((f) => f.slice(path.length + 1).split('/')[0] ?? ''))]);
  }
  files(path: string) {
    return Promise.resolve(
      [...this.kept].flatMap(([f, { stamp }]) =>
        f.slice(0, f.lastIndexOf('/')) === path
          ? [{ name: f.slice(path.length + 1), stamp: String(stamp) }]
          : [],
      ),
    );
  }
  read(path: string) {
    return Promise.resolve(this.kept.get(path)?.text);
  }
  write(path: string, text: string) {
    this.put(path, text);
    return Promise.resolve();
  }
  put(path: string, text: string): void {
    this.kept.set(path, { text, stamp: ++this.stamps });
  }
  /** Any file of it, by chance. */
  any(random: () => number): string | undefined {
    const names = [...this.kept.keys()];
    return names[Math.floor(random() * names.length)];
  }
}
