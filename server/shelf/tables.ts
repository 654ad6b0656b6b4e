import type { Query } from './sql';

/**
 * Tables of a shelf. Keys are names that spread over many machines, no numbers that grow; nothing but plain SQL: no trigger, no rule, no sequence.
 * Each make adds its statements behind those before.
 */
const MAKES: readonly (readonly string[])[] = [
  [
    // a fact lies here once, whichever logs hold it, written canonically
    `create table facts (id text primary key, case_id text not null, body text not null)`,
    `create index facts_of_case on facts (case_id)`,
    `create table logs (log text primary key, seq bigint not null, hash text not null)`,
    // ids: of its facts, in their order, as JSON
    `create table entries (log text not null, seq bigint not null, prev text not null, hash text not null, ids text not null, primary key (log, seq))`,
    `create table summaries (case_id text primary key, facts bigint not null, made text not null, touched text not null, body text not null)`,
    `create index summaries_by_time on summaries (touched, case_id)`,
    `create table desks (id text primary key, key text not null, name text not null, since text not null, steward boolean not null, shut_out boolean not null)`,
    `create table invitations (code_hash text primary key, made_by text not null, steward boolean not null, used_by text)`,
    `create table offers (kind text not null, name text not null, sha256 text not null, at text not null, desk text not null, primary key (kind, name, sha256))`,
  ],
];

/** Brings the tables to today's make; what is there is kept. */
export async function layOut(query: Query): Promise<void> {
  await query('create table if not exists makes (make bigint primary key)');
  const { rows } = await query('select coalesce(max(make), 0) as make from makes');
  const have = Number(rows[0]?.['make'] ?? 0);
  if (have > MAKES.length)
    throw new Error('a newer make of this program wrote this shelf; start that one, or give another folder');
  for (const [i, statements] of MAKES.entries()) {
    if (i < have) continue;
    for (const s of statements) await query(s);
    await query('insert into makes (make) values ($1)', [i + 1]);
  }
}
