import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { canonical } from '@core/facts/canonical';
import type { Fact } from '@core/facts/fact';
import { endOf, type LogHead, nextEntry } from '@core/shelf/entry';
import { PlainDesk, PlainShelf, runCourse } from '@core/shelf/many-desks.fixture';
import { FactTable } from '../server/shelf/fact-table';
import { embedded, type Sql } from '../server/shelf/sql';
import { layOut } from '../server/shelf/tables';
import { quantile, type Row } from './measure';
import { newsRow } from './shelf-news-bench';

/** Facts of the filled shelf. A large house has 8 million of 200,000 cases, which take ten minutes to fill. */
const FACTS = Number(process.env['SHELF_FACTS'] ?? 400_000);
const PER_CASE = 40;

let made = 0;
const fact = (caseId: string): Fact => ({
  id: `${(++made).toString(36)}-${((made * 2_654_435_761) % 2 ** 32).toString(36)}-bench`,
  case: caseId,
  key: 'vehicle.distance',
  value: made,
  how: 'reported',
  by: 'Bench',
  at: new Date(Date.UTC(2026, 0, 1) + made * 1000).toISOString(),
  seen: 1,
});
const ms = (x: number) => (x >= 1000 ? `${(x / 1000).toFixed(1)} s` : `${x.toFixed(0)} ms`);
const timed = async (job: () => Promise<unknown>): Promise<number> => {
  const t = performance.now();
  await job();
  return performance.now() - t;
};

/** 10,000 facts pushed as a desk does, against the engine's own bulk insert of the same rows. */
async function pushRow(sql: Sql, table: FactTable): Promise<Row> {
  await sql.query('create table bare (id text primary key, case_id text not null, body text not null)');
  await sql.query('create index bare_of_case on bare (case_id)');
  let end: LogHead | undefined;
  const [mine, bare]: [number[], number[]] = [[], []];
  for (let round = 0; round < 5; round++) {
    const facts = Array.from({ length: 10_000 }, (_, i) => fact(`push-${i % 250}`));
    const desk = new PlainDesk('b'.repeat(20));
    for (const f of facts) desk.facts.set(f.id, f);
    const t = performance.now();
    for (let i = 0; i < facts.length; i += 2000) {
      const entry = nextEntry('b'.repeat(20), end, facts.slice(i, i + 2000));
      await table.append(entry);
      end = endOf(entry);
    }
    mine.push(performance.now() - t);
    const rows = facts.map((f) => [f.id, f.case, canonical(f)] as const);
    bare.push(
      await timed(() =>
        sql.query(
          'insert into bare (id, case_id, body) select * from unnest($1::text[], $2::text[], $3::text[])',
          [rows.map((r) => r[0]), rows.map((r) => r[1]), rows.map((r) => r[2])],
        ),
      ),
    );
  }
  const [a, b] = [quantile(mine, 0.5), quantile(bare, 0.5)];
  return {
    name: 'push of 10,000 facts',
    value: ms(a),
    target: '2.0×',
    baseline: `the engine's own insert: ${ms(b)}`,
    ratio: `${(a / b).toFixed(1)}×`,
  };
}

async function fill(table: FactTable): Promise<void> {
  let end: LogHead | undefined;
  for (let done = 0; done < FACTS; done += 2000) {
    const facts = Array.from({ length: 2000 }, (_, i) => fact(`case-${Math.floor((done + i) / PER_CASE)}`));
    const entry = nextEntry('a'.repeat(20), end, facts);
    await table.append(entry);
    end = endOf(entry);
    const cases = [...new Set(facts.map((f) => f.case))];
    await table.keepSummaries(
      cases.map((id) => ({
        case: id,
        facts: PER_CASE,
        made: 'bench',
        touched: facts.at(-1)?.at ?? '',
        text: JSON.stringify({ id, tag: id, engine: 'TE16-CORM', who: 'Bench', text: 'x'.repeat(400) }),
      })),
    );
  }
}

/** Many desks over a bad network, seed after seed. */
async function courseRow(): Promise<Row> {
  const seeds = Number(process.env['SHELF_SEEDS'] ?? 100);
  let [apart, facts] = [0, 0];
  const took = await timed(async () => {
    for (let seed = 1; seed <= seeds; seed++) {
      const shelf = new PlainShelf();
      let before = new Map(shelf.logs);
      const mishap = () => {
        const now = new Map(shelf.logs);
        shelf.logs = before;
        before = now;
      };
      const o = await runCourse(
        { seed, desks: 10, facts: Number(process.env['SHELF_COURSE'] ?? 300), mishap },
        shelf,
      );
      facts += o.facts;
      if (o.digests.some((d) => d !== o.filed) || o.counts.some((n) => n !== o.facts)) apart++;
    }
  });
  return {
    name: `courses of 10 desks that end apart, of ${seeds}`,
    value: String(apart),
    target: '0',
    baseline: `${facts} facts in ${ms(took)}`,
    ratio: '',
  };
}

export async function shelfBench(root: string): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'hs-bench-'));
  const sql = await embedded(join(folder, 'database'));
  await layOut(sql.query);
  const table = new FactTable(sql, true);
  const rows = [await courseRow(), await pushRow(sql, table)];
  const filling = await timed(() => fill(table));
  let count = 0;
  let first = 0;
  const t = performance.now();
  for (let after: { touched: string; case: string } | undefined, more = true; more; ) {
    const some = await table.summaries(2000, after);
    for (const s of some) JSON.parse(s.text);
    count += some.length;
    if (first === 0) first = performance.now() - t;
    const last = some.at(-1);
    more = last !== undefined;
    if (last) after = { touched: last.touched, case: last.case };
  }
  rows.push({
    name: `all summaries of ${FACTS} facts, ${count} cases`,
    value: ms(performance.now() - t),
    target: '20 s / 2 s',
    baseline: `the first 2000: ${ms(first)}; filled in ${ms(filling)}`,
    ratio: '',
  });
  await sql.end();
  rmSync(folder, { recursive: true, force: true });
  rows.push(await newsRow(root));
  return rows;
}
