import { canonical } from '@core/facts/canonical';
import { endOf, type Entry, follows, type LogHead } from '@core/shelf/entry';
import type { ShelfError } from '@core/shelf/exchange';
import { err, ok, type Result } from '@core/quantity/result';
import { isTwice, type Query, type Sql, textIn } from './sql';

/** Facts that are written in one transaction, unless one entry alone has more. */
const MOST_AT_ONCE = 4000;

/** Fewer facts than this wait so many ms for others to go with them. */
const FEW = 100;
const GATHER_MS = 12;

/** An entry with its facts as they are stored. */
export type Written = { entry: Entry; bodies: readonly string[] };
type Done = Result<true, ShelfError>;
type Waiting = Written & { tell: (done: Done) => void; fail: (why: unknown) => void };

/**
 * Appends entries, one transaction after the other: those that come while one is written wait and go together in the next, so that fifty desks
 * cost little more than one. Each is there whole or not at all, and is answered when it is.
 */
export class EntryWriter {
  private waiting: Waiting[] = [];
  private writing = false;

  constructor(
    private readonly sql: Sql,
    /** Entries stand in the database now, in this order. */
    private readonly stands: (written: readonly Written[]) => void,
  ) {}

  append(entry: Entry): Promise<Done> {
    return new Promise((tell, fail) => {
      this.waiting.push({ entry, bodies: entry.facts.map(canonical), tell, fail });
      if (!this.writing) void this.run();
    });
  }

  private async run(): Promise<void> {
    this.writing = true;
    while (this.waiting.length > 0) {
      // a few facts wait for others, and what lies at the door comes in: the embedded database lets nothing else run by itself
      const few = this.waiting.reduce((sum, w) => sum + w.bodies.length, 0) < FEW;
      await new Promise((go) => setTimeout(go, few ? GATHER_MS : 0));
      await this.together(this.pick());
    }
    this.writing = false;
  }

  private pick(): Waiting[] {
    let [n, facts] = [0, 0];
    for (const { bodies } of this.waiting) {
      facts += bodies.length;
      if (n > 0 && facts > MOST_AT_ONCE) break;
      n++;
    }
    return this.waiting.splice(0, n);
  }

  private async together(some: readonly Waiting[]): Promise<void> {
    try {
      const done = await this.sql.together((query) => write(query, some));
      this.stands(some.filter((_, i) => done[i]?.ok));
      for (const [i, w] of some.entries()) w.tell(done[i] ?? err({ code: 'behind' }));
    } catch (e) {
      // what one of them met is no matter of the others
      if (some.length > 1) for (const w of some) await this.together([w]);
      else if (e instanceof Overtaken || isTwice(e)) some[0]?.tell(err({ code: 'behind' }));
      else some[0]?.fail(e);
    }
  }
}

/** Another process wrote into the same log at the same time. */
class Overtaken extends Error {}

async function write(query: Query, some: readonly Written[]): Promise<Done[]> {
  const before = await endsOf(query, [...new Set(some.map((w) => w.entry.log))].sort());
  const ends = new Map(before);
  const there = await bodiesOf(query, [...new Set(some.flatMap((w) => w.entry.facts.map((f) => f.id)))]);
  const fresh: { id: string; case: string; body: string }[] = [];
  const taken: Written[] = [];
  const done = some.map((w): Done => {
    const { entry, bodies } = w;
    if (!follows(entry, ends.get(entry.log))) return err({ code: 'behind' });
    const other = entry.facts.find((f, i) => there.has(f.id) && there.get(f.id) !== bodies[i]);
    if (other) return err({ code: 'other_content', id: other.id });
    for (const [i, f] of entry.facts.entries()) {
      const body = bodies[i] ?? '';
      if (!there.has(f.id)) fresh.push({ id: f.id, case: f.case, body });
      there.set(f.id, body);
    }
    ends.set(entry.log, endOf(entry));
    taken.push(w);
    return ok(true);
  });
  if (taken.length === 0) return done;
  if (fresh.length > 0)
    await query(
      'insert into facts (id, case_id, body) select * from unnest($1::text[], $2::text[], $3::text[]) on conflict (id) do nothing',
      [fresh.map((f) => f.id), fresh.map((f) => f.case), fresh.map((f) => f.body)],
    );
  const entries = taken.map((w) => w.entry);
  await query(
    `insert into entries (log, seq, prev, hash, ids)
     select * from unnest($1::text[], $2::bigint[], $3::text[], $4::text[], $5::text[])`,
    [
      entries.map((e) => e.log),
      entries.map((e) => e.seq),
      entries.map((e) => e.prev),
      entries.map((e) => e.hash),
      entries.map((e) => JSON.stringify(e.facts.map((f) => f.id))),
    ],
  );
  await moveEnds(query, new Set(entries.map((e) => e.log)), before, ends);
  return done;
}

async function moveEnds(
  query: Query,
  logs: ReadonlySet<string>,
  before: ReadonlyMap<string, LogHead>,
  ends: ReadonlyMap<string, LogHead>,
): Promise<void> {
  const old = [...logs].filter((log) => before.has(log));
  const begun = [...logs].filter((log) => !before.has(log));
  let moved = 0;
  if (old.length > 0)
    moved += (
      await query(
        `update logs set seq = n.seq, hash = n.hash
         from unnest($1::text[], $2::bigint[], $3::text[], $4::text[]) as n (log, seq, hash, was)
         where logs.log = n.log and logs.hash = n.was`,
        [
          old,
          old.map((l) => ends.get(l)?.seq),
          old.map((l) => ends.get(l)?.hash),
          old.map((l) => before.get(l)?.hash),
        ],
      )
    ).changed;
  if (begun.length > 0)
    moved += (
      await query(
        'insert into logs (log, seq, hash) select * from unnest($1::text[], $2::bigint[], $3::text[]) on conflict (log) do nothing',
        [begun, begun.map((l) => ends.get(l)?.seq), begun.map((l) => ends.get(l)?.hash)],
      )
    ).changed;
  // another process was quicker: nothing of this stays
  if (moved !== logs.size) throw new Overtaken();
}

async function endsOf(query: Query, logs: readonly string[]): Promise<Map<string, LogHead>> {
  const { rows } = await query(
    'select log, seq, hash from logs where log = any($1::text[]) order by log for update',
    [logs],
  );
  return new Map(
    rows.map((r) => [textIn(r, 'log'), { seq: Number(r['seq']), hash: textIn(r, 'hash') }] as const),
  );
}

/** The stored text of those facts that are there. */
async function bodiesOf(query: Query, ids: readonly string[]): Promise<Map<string, string>> {
  const { rows } = await query('select id, body from facts where id = any($1::text[])', [ids]);
  return new Map(rows.map((r) => [textIn(r, 'id'), textIn(r, 'body')]));
}
