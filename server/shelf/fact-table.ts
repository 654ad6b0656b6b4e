import { canonical } from '@core/facts/canonical';
import { type Entry, follows, type Heads, type LogHead } from '@core/shelf/entry';
import type { ShelfError } from '@core/shelf/exchange';
import type { HouseOffer, ShelvedSummary } from '@core/shelf/protocol';
import { err, ok, type Result } from '@core/quantity/result';
import type { Query, SqlRow, Sql } from './sql';

/** Entries of a log that go into one answer, and facts of all of them. */
const PIECE = 200;
const MOST_ANSWERED = 6000;
/** Entries of late that lie ready, as they are asked for by every desk. */
const READY = 4000;

const text = (row: SqlRow, column: string): string => {
  const value = row[column];
  return typeof value === 'string' ? value : '';
};
const summaryIn = (row: SqlRow): ShelvedSummary => ({
  case: text(row, 'case_id'),
  facts: Number(row['facts']),
  made: text(row, 'made'),
  touched: text(row, 'touched'),
  text: text(row, 'body'),
});
const headIn = (row: SqlRow): LogHead => ({ seq: Number(row['seq']), hash: text(row, 'hash') });

/** Facts of a shelf in tables: appended, united by their ids, and told by what is new in each log. */
export class FactTable {
  /** Written entries of late by log and number, each as its JSON, the oldest first. */
  private readonly ready = new Map<string, string>();

  constructor(private readonly sql: Sql) {}

  /** Puts an entry at the end of its log, or says why not; nothing is half there. */
  append(entry: Entry): Promise<Result<true, ShelfError>> {
    const ids = entry.facts.map((f) => f.id);
    const bodies = entry.facts.map(canonical);
    return this.sql
      .together(async (query): Promise<Result<true, ShelfError>> => {
        const { rows } = await query('select seq, hash from logs where log = $1 for update', [entry.log]);
        const end = rows[0] && headIn(rows[0]);
        if (!follows(entry, end)) return err({ code: 'behind' });
        const other = await otherContent(query, ids, bodies);
        if (other !== undefined) return err({ code: 'other_content', id: other });
        await query(
          'insert into facts (id, case_id, body) select * from unnest($1::text[], $2::text[], $3::text[]) on conflict (id) do nothing',
          [ids, entry.facts.map((f) => f.case), bodies],
        );
        await query('insert into entries (log, seq, prev, hash, ids) values ($1, $2, $3, $4, $5)', [
          entry.log,
          entry.seq,
          entry.prev,
          entry.hash,
          JSON.stringify(ids),
        ]);
        const written = end
          ? await query('update logs set seq = $2, hash = $3 where log = $1 and hash = $4', [
              entry.log,
              entry.seq,
              entry.hash,
              entry.prev,
            ])
          : await query(
              'insert into logs (log, seq, hash) values ($1, $2, $3) on conflict (log) do nothing',
              [entry.log, entry.seq, entry.hash],
            );
        // another process was quicker: nothing of this stays
        if (written.changed !== 1) throw new Overtaken();
        return ok(true);
      })
      .then((done) => {
        if (done.ok) this.keepReady(entry, entryText(entry, bodies));
        return done;
      })
      .catch((e: unknown) => {
        if (e instanceof Overtaken || isTwice(e)) return err({ code: 'behind' } as const);
        throw e;
      });
  }

  async heads(): Promise<Heads> {
    const { rows } = await this.sql.query('select log, seq, hash from logs');
    return Object.fromEntries(rows.map((r) => [text(r, 'log'), headIn(r)]));
  }

  /** Where every log ends, and what comes after the positions, each entry as its JSON. */
  async since(positions: Heads): Promise<{ heads: Heads; entries: string[] }> {
    const heads = await this.heads();
    const entries: string[] = [];
    const late: { log: string; after: number }[] = [];
    for (const [log, head] of Object.entries(heads)) {
      const after = positions[log]?.seq ?? 0;
      const mine = this.readyAfter(log, after, head.seq);
      if (mine) entries.push(...mine);
      else late.push({ log, after });
    }
    if (late.length > 0) entries.push(...(await this.stored(late)));
    return { heads, entries };
  }

  async missing(ids: readonly string[]): Promise<string[]> {
    const { rows } = await this.sql.query('select id from facts where id = any($1::text[])', [ids]);
    const there = new Set(rows.map((r) => text(r, 'id')));
    return ids.filter((id) => !there.has(id));
  }

  /** All facts of a case, each as its JSON. */
  async ofCase(id: string): Promise<string[]> {
    const { rows } = await this.sql.query('select body from facts where case_id = $1', [id]);
    return rows.map((r) => text(r, 'body'));
  }

  /** Keeps summaries; one that was made of fewer facts than the one that is there is left. */
  async keepSummaries(all: readonly ShelvedSummary[]): Promise<void> {
    await this.sql.query(
      `insert into summaries (case_id, facts, made, touched, body)
       select * from unnest($1::text[], $2::bigint[], $3::text[], $4::text[], $5::text[])
       on conflict (case_id) do update set facts = excluded.facts, made = excluded.made, touched = excluded.touched, body = excluded.body
       where summaries.facts <= excluded.facts`,
      [
        all.map((s) => s.case),
        all.map((s) => s.facts),
        all.map((s) => s.made),
        all.map((s) => s.touched),
        all.map((s) => s.text),
      ],
    );
  }

  /** Summaries, the case touched last first, so many after the one named. */
  async summaries(most: number, after?: { touched: string; case: string }): Promise<ShelvedSummary[]> {
    const { rows } = await this.sql.query(
      `select case_id, facts, made, touched, body from summaries
       ${after ? 'where (touched, case_id) < ($2, $3)' : ''} order by touched desc, case_id desc limit $1`,
      [most, ...(after ? [after.touched, after.case] : [])],
    );
    return rows.map(summaryIn);
  }

  async summariesOf(cases: readonly string[]): Promise<ShelvedSummary[]> {
    const { rows } = await this.sql.query(
      'select case_id, facts, made, touched, body from summaries where case_id = any($1::text[])',
      [cases],
    );
    return rows.map(summaryIn);
  }

  async offer(o: HouseOffer, desk: string): Promise<void> {
    await this.sql.query(
      'insert into offers (kind, name, sha256, at, desk) values ($1, $2, $3, $4, $5) on conflict (kind, name, sha256) do nothing',
      [o.kind, o.name, o.sha256, o.at, desk],
    );
  }

  async offers(): Promise<(HouseOffer & { desk: string })[]> {
    const { rows } = await this.sql.query('select kind, name, sha256, at, desk from offers order by at');
    return rows.map((r) => ({
      kind: text(r, 'kind') === 'rules' ? 'rules' : 'catalogue',
      name: text(r, 'name'),
      sha256: text(r, 'sha256'),
      at: text(r, 'at'),
      desk: text(r, 'desk'),
    }));
  }

  private async stored(late: readonly { log: string; after: number }[]): Promise<string[]> {
    const { rows } = await this.sql.query(
      `select e.log, e.seq, e.prev, e.hash, e.ids from unnest($1::text[], $2::bigint[]) as p (log, after)
       join entries e on e.log = p.log and e.seq > p.after and e.seq <= p.after + ${PIECE} order by e.log, e.seq`,
      [late.map((l) => l.log), late.map((l) => l.after)],
    );
    const chosen: { row: SqlRow; ids: string[] }[] = [];
    let facts = 0;
    for (const row of rows) {
      const ids = JSON.parse(text(row, 'ids')) as string[];
      if (chosen.length > 0 && facts + ids.length > MOST_ANSWERED) break;
      facts += ids.length;
      chosen.push({ row, ids });
    }
    const found = await this.sql.query('select id, body from facts where id = any($1::text[])', [
      chosen.flatMap((c) => c.ids),
    ]);
    const bodies = new Map(found.rows.map((r) => [text(r, 'id'), text(r, 'body')]));
    return chosen.map(({ row, ids }) =>
      entryText(
        { log: text(row, 'log'), prev: text(row, 'prev'), ...headIn(row) },
        ids.map((id) => bodies.get(id) ?? 'null'),
      ),
    );
  }

  private keepReady(entry: Entry, written: string): void {
    this.ready.set(`${entry.log} ${entry.seq}`, written);
    for (const key of this.ready.keys()) {
      if (this.ready.size <= READY) break;
      this.ready.delete(key);
    }
  }

  /** The entries of a log from one to its end where all of them lie ready. */
  private readyAfter(log: string, after: number, end: number): string[] | undefined {
    if (end - after > PIECE) return undefined;
    const found: string[] = [];
    for (let seq = after + 1; seq <= end; seq++) {
      const written = this.ready.get(`${log} ${seq}`);
      if (written === undefined) return undefined;
      found.push(written);
    }
    return found;
  }
}

class Overtaken extends Error {}
/** The same key was written by another (SQLSTATE 23505). */
const isTwice = (e: unknown): boolean => (e as { code?: unknown } | null)?.code === '23505';

/** The first of these facts that is there and says another thing. */
async function otherContent(
  query: Query,
  ids: readonly string[],
  bodies: readonly string[],
): Promise<string | undefined> {
  const { rows } = await query('select id, body from facts where id = any($1::text[])', [ids]);
  if (rows.length === 0) return undefined;
  const there = new Map(rows.map((r) => [text(r, 'id'), text(r, 'body')]));
  return ids.find((id, i) => there.has(id) && there.get(id) !== bodies[i]);
}

/** An entry as JSON, of facts that are JSON already. */
const entryText = (
  { log, prev, seq, hash }: LogHead & { log: string; prev: string },
  bodies: readonly string[],
): string =>
  `{"log":${JSON.stringify(log)},"seq":${seq},"prev":"${prev}","hash":"${hash}","facts":[${bodies.join(',')}]}`;
