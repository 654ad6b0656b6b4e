import { type Entry, type Heads, type LogHead } from '@core/shelf/entry';
import type { ShelfError } from '@core/shelf/exchange';
import type { HouseOffer, ShelvedSummary } from '@core/shelf/protocol';
import type { Result } from '@core/quantity/result';
import { EntryWriter } from './entry-writer';
import { SharedReading } from './shared-reading';
import { type Sql, type SqlRow, textIn } from './sql';

/** Entries of a log that go into one answer, and facts of all of them. */
const PIECE = 200;
const MOST_ANSWERED = 6000;
/** Entries of late that lie ready, as they are asked for by every desk, and what of them goes into one answer, characters. */
const READY = 32_000_000;
const ANSWERED = 4_000_000;

const summaryIn = (row: SqlRow): ShelvedSummary => ({
  case: textIn(row, 'case_id'),
  facts: Number(row['facts']),
  made: textIn(row, 'made'),
  touched: textIn(row, 'touched'),
  text: textIn(row, 'body'),
});
const headIn = (row: SqlRow): LogHead => ({ seq: Number(row['seq']), hash: textIn(row, 'hash') });

/** Facts of a shelf in tables: appended, united by their ids, and told by what is new in each log. */
export class FactTable {
  /** Written entries of late by log and number, each as its JSON, the oldest first. */
  private readonly ready = new Map<string, string>();
  private readyLength = 0;
  private readonly writer: EntryWriter;
  private readonly ends: SharedReading<Record<string, LogHead>>;
  /** Where every log ends, where nobody else writes. */
  private own: Record<string, LogHead> | undefined;

  /** @param alone no other process writes into this database */
  constructor(
    private readonly sql: Sql,
    private readonly alone: boolean,
  ) {
    this.ends = new SharedReading(async () => {
      const { rows } = await this.sql.query('select log, seq, hash from logs');
      return Object.fromEntries(rows.map((r) => [textIn(r, 'log'), headIn(r)]));
    });
    this.writer = new EntryWriter(sql, (written) => {
      for (const { entry, bodies } of written) {
        if (this.own) this.own[entry.log] = { seq: entry.seq, hash: entry.hash };
        this.keepReady(entry, entryText(entry, bodies));
      }
    });
  }

  /** Puts an entry at the end of its log, or says why not; nothing is half there. */
  async append(entry: Entry): Promise<Result<true, ShelfError>> {
    // from the first reading on what is written is noted
    if (this.alone) await this.heads();
    return this.writer.append(entry);
  }

  async heads(): Promise<Heads> {
    if (!this.alone) return this.ends.ask();
    if (this.own) return this.own;
    const read = await this.ends.ask();
    // whoever read first notes from then on what is written: a second reading may be older than that
    this.own ??= read;
    return this.own;
  }

  /** Where every log ends, and what comes after the positions, each entry as its JSON. */
  async since(positions: Heads): Promise<{ heads: Heads; entries: string[] }> {
    const heads = await this.heads();
    const entries: string[] = [];
    const late: { log: string; after: number }[] = [];
    let length = 0;
    for (const [log, head] of Object.entries(heads)) {
      const after = positions[log]?.seq ?? 0;
      const mine = this.readyAfter(log, after, head.seq);
      if (!mine) late.push({ log, after });
      // what does not go into this answer goes into the next: they are asked for until there is none
      for (const written of length < ANSWERED ? (mine ?? []) : []) {
        entries.push(written);
        length += written.length;
      }
    }
    if (late.length > 0) entries.push(...(await this.stored(late)));
    return { heads, entries };
  }

  async missing(ids: readonly string[]): Promise<string[]> {
    const { rows } = await this.sql.query('select id from facts where id = any($1::text[])', [ids]);
    const there = new Set(rows.map((r) => textIn(r, 'id')));
    return ids.filter((id) => !there.has(id));
  }

  /** All facts of a case, each as its JSON. */
  async ofCase(id: string): Promise<string[]> {
    const { rows } = await this.sql.query('select body from facts where case_id = $1', [id]);
    return rows.map((r) => textIn(r, 'body'));
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
      kind: textIn(r, 'kind') === 'rules' ? 'rules' : 'catalogue',
      name: textIn(r, 'name'),
      sha256: textIn(r, 'sha256'),
      at: textIn(r, 'at'),
      desk: textIn(r, 'desk'),
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
      const ids = JSON.parse(textIn(row, 'ids')) as string[];
      if (chosen.length > 0 && facts + ids.length > MOST_ANSWERED) break;
      facts += ids.length;
      chosen.push({ row, ids });
    }
    const found = await this.sql.query('select id, body from facts where id = any($1::text[])', [
      chosen.flatMap((c) => c.ids),
    ]);
    const bodies = new Map(found.rows.map((r) => [textIn(r, 'id'), textIn(r, 'body')]));
    return chosen.map(({ row, ids }) =>
      entryText(
        { log: textIn(row, 'log'), prev: textIn(row, 'prev'), ...headIn(row) },
        ids.map((id) => bodies.get(id) ?? 'null'),
      ),
    );
  }

  private keepReady(entry: Entry, written: string): void {
    this.ready.set(`${entry.log} ${entry.seq}`, written);
    this.readyLength += written.length;
    for (const [key, oldest] of this.ready) {
      if (this.readyLength <= READY) break;
      this.ready.delete(key);
      this.readyLength -= oldest.length;
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

/** An entry as JSON, of facts that are JSON already. */
const entryText = (
  { log, prev, seq, hash }: LogHead & { log: string; prev: string },
  bodies: readonly string[],
): string =>
  `{"log":${JSON.stringify(log)},"seq":${seq},"prev":"${prev}","hash":"${hash}","facts":[${bodies.join(',')}]}`;
