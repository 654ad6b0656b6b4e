import { createHash, randomBytes } from 'node:crypto';
import {
  deskIdOf,
  MOST_DESKS,
  MOST_INVITATIONS,
  type ShelfRefusal,
  type ShelvedDesk,
} from '@core/shelf/protocol';
import { err, ok, type Result } from '@core/quantity/result';
import { SharedReading } from './shared-reading';
import type { SqlRow, Sql } from './sql';

/** How long what was read holds where other processes write too: a desk that one of them shut out is answered so long by this one, ms. */
const HOLDS_MS = 1000;

const deskIn = (r: SqlRow): ShelvedDesk => ({
  id: String(r['id']),
  key: String(r['key']),
  name: String(r['name']),
  since: String(r['since']),
  steward: r['steward'] === true,
  out: r['shut_out'] === true,
});
const hashed = (code: string): string => createHash('sha256').update(code).digest('hex');

/** Who is let in: desks by their keys, and invitations that let one desk in, once. Of an invitation only its hash is kept. */
export class DeskTable {
  private known: { desks: ReadonlyMap<string, ShelvedDesk>; until: number } | undefined;
  private changes = 0;
  private readonly reading = new SharedReading(() => this.all());

  /** @param alone no other process writes into this database */
  constructor(
    private readonly sql: Sql,
    private readonly now: () => string,
    private readonly alone: boolean,
  ) {}

  async all(): Promise<ShelvedDesk[]> {
    return (await this.sql.query('select * from desks order by since, id')).rows.map(deskIn);
  }

  /** A desk, as it was changed last: every request asks this. */
  async desk(id: string): Promise<ShelvedDesk | undefined> {
    let { known } = this;
    while (!known || performance.now() > known.until) {
      const until = this.alone ? Infinity : performance.now() + HOLDS_MS;
      const { changes } = this;
      const desks = new Map((await this.reading.ask()).map((d) => [d.id, d] as const));
      // somebody was shut out while this was read: it is read again
      if (changes !== this.changes) continue;
      known = this.known = { desks, until };
    }
    return known.desks.get(id);
  }

  /** Makes an invitation. @param steward whoever takes it may invite others and shut them out */
  async invite(madeBy: string, steward: boolean): Promise<Result<string, ShelfRefusal>> {
    const { rows } = await this.sql.query('select count(*) as n from invitations where used_by is null');
    if (Number(rows[0]?.['n'] ?? 0) >= MOST_INVITATIONS)
      return err({ code: 'too_much', detail: `${MOST_INVITATIONS} invitations are open` });
    const code = randomBytes(20).toString('hex');
    await this.sql.query(
      'insert into invitations (code_hash, made_by, steward, used_by) values ($1, $2, $3, null)',
      [hashed(code), madeBy, steward],
    );
    return ok(code);
  }

  /** Lets a desk in by an invitation, which is then used up. A desk that is in already stays what it is. */
  async join(code: string, key: string, name: string): Promise<Result<ShelvedDesk, ShelfRefusal>> {
    const id = deskIdOf(key);
    const joined = await this.sql.together(async (query): Promise<Result<ShelvedDesk, ShelfRefusal>> => {
      const known = (await query('select * from desks where id = $1', [id])).rows[0];
      if (known) {
        const desk = deskIn(known);
        return desk.out ? err({ code: 'shut_out', detail: desk.name }) : ok(desk);
      }
      const count = await query('select count(*) as n from desks');
      if (Number(count.rows[0]?.['n'] ?? 0) >= MOST_DESKS)
        return err({ code: 'too_much', detail: `${MOST_DESKS} desks are let in` });
      const used = await query(
        'update invitations set used_by = $2 where code_hash = $1 and used_by is null',
        [hashed(code), id],
      );
      if (used.changed !== 1) return err({ code: 'code_used', detail: '' });
      const steward = await query('select steward from invitations where code_hash = $1', [hashed(code)]);
      const desk = {
        id,
        key,
        name,
        since: this.now(),
        steward: steward.rows[0]?.['steward'] === true,
        out: false,
      };
      await query(
        'insert into desks (id, key, name, since, steward, shut_out) values ($1, $2, $3, $4, $5, false)',
        [id, key, name, desk.since, desk.steward],
      );
      return ok(desk);
    });
    this.forget();
    return joined;
  }

  async change(
    id: string,
    { name, out }: { name?: string | undefined; out?: boolean | undefined },
  ): Promise<boolean> {
    const { changed } = await this.sql.query(
      'update desks set name = coalesce($2, name), shut_out = coalesce($3, shut_out) where id = $1',
      [id, name ?? null, out ?? null],
    );
    this.forget();
    return changed === 1;
  }

  private forget(): void {
    this.changes++;
    this.known = undefined;
  }
}
