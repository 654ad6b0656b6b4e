import { mkdirSync } from 'node:fs';

export type SqlRow = Readonly<Record<string, unknown>>;
/** What stands in a column of text. */
export const textIn = (row: SqlRow, column: string): string => {
  const value = row[column];
  return typeof value === 'string' ? value : '';
};
/** Whether a statement failed since the same key was written by another (SQLSTATE 23505). */
export const isTwice = (e: unknown): boolean => (e as { code?: unknown } | null)?.code === '23505';
/** Runs one statement with its values. */
export type Query = (
  text: string,
  values?: readonly unknown[],
) => Promise<{ rows: SqlRow[]; changed: number }>;

/** A database that speaks PostgreSQL: only plain SQL goes through here. */
export type Sql = {
  query: Query;
  /** All of it or nothing; begun again where the engine asks for that. */
  together<T>(work: (query: Query) => Promise<T>): Promise<T>;
  end(): Promise<void>;
};

/** PostgreSQL compiled for Node, its data in a folder: nothing to install. */
export async function embedded(folder: string): Promise<Sql> {
  mkdirSync(folder, { recursive: true });
  const { PGlite } = await import('@electric-sql/pglite');
  const db = await PGlite.create(folder);
  type Asks = Pick<typeof db, 'query'>;
  const by =
    (on: Asks): Query =>
    async (text, values = []) => {
      const { rows, affectedRows } = await on.query<SqlRow>(text, [...values]);
      return { rows, changed: affectedRows ?? 0 };
    };
  return {
    query: by(db),
    together: (work) => db.transaction((tx) => work(by(tx))),
    end: () => db.close(),
  };
}

/** A transaction that ran into another is begun again so many times (SQLSTATE 40001, 40P01). */
const TRIES = 5;
const RAN_INTO = new Set(['40001', '40P01']);

/** A server elsewhere, by its connection string. */
export async function external(connectionString: string): Promise<Sql> {
  const { default: pg } = await import('pg');
  const pool = new pg.Pool({ connectionString, max: 8 });
  // a connection that breaks while nobody uses it is opened anew at the next question
  pool.on('error', () => undefined);
  type Asks = {
    query(text: string, values: unknown[]): Promise<{ rows: SqlRow[]; rowCount: number | null }>;
  };
  const by =
    (on: Asks): Query =>
    async (text, values = []) => {
      const { rows, rowCount } = await on.query(text, [...values]);
      return { rows, changed: rowCount ?? 0 };
    };
  await pool.query('select 1');
  return {
    query: by(pool),
    async together(work) {
      for (let tries = 1; ; tries++) {
        const client = await pool.connect();
        try {
          await client.query('begin');
          const done = await work(by(client));
          await client.query('commit');
          return done;
        } catch (e) {
          await client.query('rollback').catch(() => undefined);
          if (tries >= TRIES || !RAN_INTO.has(String((e as { code?: unknown }).code))) throw e;
        } finally {
          client.release();
        }
      }
    },
    end: () => pool.end(),
  };
}
