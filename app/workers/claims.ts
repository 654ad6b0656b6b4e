import type { IDBPDatabase } from 'idb';
import { type CaseSummary, summaryOf } from '@core/answer/case-summary';
import { readContextOf } from '@core/answer/read-context';
import { registryFor, type World, worldOf } from '@core/answer/world';
import { packId } from '@core/catalogue/version';
import { byOneAct, fileFacts, type NewFact } from '@core/facts/change';
import type { Registry } from '@core/facts/observable';
import type { ReadContext } from '@core/facts/read-value';
import { reduce } from '@core/facts/state';
import {
  type Cell,
  type FormGuess,
  guessForm,
  headingAt,
  headingsOf,
  type Rows,
} from '@core/intake/claims-form';
import {
  type ClaimRow,
  type ClaimsReader,
  claimsReader,
  factsOfRow,
  readsAs,
} from '@core/intake/claims-table';
import { must } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { newestCatalogue } from '../records/all-cases';
import type { Records } from '../records/records';
import type { JobChannel } from '../threads/worker-client';
import type {
  ClaimCellsAnswer,
  ClaimsAnswer,
  ClaimsAsk,
  OpenClaimsAnswer,
  OpenClaimsAsk,
  TableTrouble,
} from './claims.protocol';
import { readTable } from './read-table';

/** Rows of which each column shows what stands there. */
const EXAMPLES = 3;
/** Cases that are written at once. */
const BATCH = 20;

/** What a table is read by, and how its first rows say that it is to be read. */
type Begun = {
  world: World;
  registry: Registry;
  ctx: ReadContext;
  at: number;
  head: string[];
  guess: FormGuess;
  first: Rows;
};
/** What takes the rows of a table, made when its first ones are here. */
type Taker = (begun: Begun) => (rows: Rows) => void;

async function read(
  db: IDBPDatabase<Records>,
  ask: ClaimsAsk,
  taker: Taker,
): Promise<Result<Begun, TableTrouble>> {
  const catalogue = await newestCatalogue(db);
  if (!catalogue) return err({ code: 'no_catalogue' });
  const world = worldOf(catalogue);
  const registry = registryFor(world);
  const ctx = readContextOf(undefined, catalogue, ask.notation, ask.today);
  let begun: Begun | undefined;
  let take: ((rows: Rows) => void) | undefined;
  const table = await readTable(ask.name, ask.blob, registry, (rows) => {
    if (!begun || !take) {
      const at = headingAt(rows, registry);
      begun = {
        world,
        registry,
        ctx,
        at,
        head: headingsOf(rows, at),
        guess: guessOf(rows, at, registry, ctx, ask),
        first: rows,
      };
      take = taker(begun);
    }
    take(rows);
  });
  if (!table.ok) return table;
  return begun && begun.at >= 0 ? ok(begun) : err({ code: 'no_rows', name: ask.name });
}

function guessOf(rows: Rows, at: number, registry: Registry, ctx: ReadContext, ask: ClaimsAsk): FormGuess {
  const { dateOrder, units } = ask.notation;
  const house = { dateOrder, distance: units['distance'] === 'mi' ? ('mi' as const) : ('km' as const) };
  const guess = guessForm(rows, at, registry, ask.kept, house, readsAs(registry, ctx));
  return ask.form?.columns.length === guess.form.columns.length ? { ...guess, form: ask.form } : guess;
}

/** Reads a table of claims: what its columns are, what each row says, what cannot be read, and what is here already. Nothing is filed. */
export async function readClaimsTable(db: IDBPDatabase<Records>, ask: ClaimsAsk): Promise<ClaimsAnswer> {
  let reader: ClaimsReader | undefined;
  const begun = await read(db, ask, ({ at, guess, registry, ctx }) => {
    reader = claimsReader(at, guess.form, registry, ctx);
    return reader.push;
  });
  if (!begun.ok) return begun;
  const { head, first, at, guess } = begun.value;
  const { rows, says, columns } = must(reader);
  return ok({
    head,
    examples: head.map((_, i) => examplesOf(first.slice(at + 1), i)),
    guess,
    rows,
    says: says.join(''),
    columns,
    here: await hereOf(db, rows),
  });
}

function examplesOf(rows: Rows, column: number): string[] {
  const out = new Set<string>();
  for (const row of rows) {
    if (out.size === EXAMPLES) break;
    const cell = row[column] ?? '';
    if (cell !== '') out.add(String(cell));
  }
  return [...out];
}

/** Rows whose claim a case has already: from the summaries alone. */
async function hereOf(db: IDBPDatabase<Records>, rows: readonly ClaimRow[]): Promise<[number, string][]> {
  const known = await claimsHere(db);
  return rows.flatMap((r): [number, string][] => {
    const id = r.claim === '' ? undefined : known.get(r.claim.toUpperCase());
    return id === undefined ? [] : [[r.no, id]];
  });
}
async function claimsHere(db: IDBPDatabase<Records>): Promise<Map<string, string>> {
  const heads = await db.getAll('heads');
  return new Map(
    heads.flatMap((h): [string, string][] => (h.books?.claim ? [[h.books.claim.toUpperCase(), h.id]] : [])),
  );
}

/** Opens rows of a table as cases, so many at a time: stopped, those that are open stay whole. Of a claim that is here nothing is opened. */
export async function openClaims(
  db: IDBPDatabase<Records>,
  ask: OpenClaimsAsk,
  line: JobChannel<number>,
): Promise<OpenClaimsAnswer> {
  const wanted = new Set(ask.rows);
  const cells = new Map<number, readonly Cell[]>();
  let reader: ClaimsReader | undefined;
  const begun = await read(db, ask, ({ at, registry, ctx }) => {
    const own = claimsReader(at, ask.form, registry, ctx);
    reader = own;
    return both(own.push, keepRows(wanted, cells));
  });
  if (!begun.ok) return begun;
  const { world, registry, ctx, head } = begun.value;
  const here = await claimsHere(db);
  const rows = must(reader).rows.filter(
    (r) => wanted.has(r.no) && r.stopped === undefined && !here.has(r.claim.toUpperCase()),
  );
  const made: { summaries: CaseSummary[]; opened: [number, string][] } = { summaries: [], opened: [] };
  for (let from = 0; from < rows.length && !line.cancelled(); from += BATCH) {
    const batch = rows.slice(from, from + BATCH).map((row, i) => {
      const entries = factsOfRow(cells.get(row.no) ?? [], row.no, ask.name, head, ask.form, registry, ctx);
      return { no: row.no, ...caseOf(world, entries, `${ask.tag + from + i}${ask.mark}`, ask) };
    });
    const tx = db.transaction(['facts', 'heads'], 'readwrite', { durability: 'strict' });
    tx.done.catch(() => undefined);
    for (const { facts, summary } of batch) {
      for (const f of facts)
        void tx
          .objectStore('facts')
          .add(f)
          .catch(() => undefined);
      void tx
        .objectStore('heads')
        .put(summary)
        .catch(() => undefined);
    }
    await tx.done;
    for (const { no, summary } of batch) {
      made.summaries.push(summary);
      made.opened.push([no, summary.id]);
    }
    line.progress(made.opened.length);
    // Between two batches the thread hears whether it is to stop.
    await new Promise((rest) => setTimeout(rest));
  }
  return ok(made);
}

function caseOf(
  world: World,
  entries: readonly NewFact[],
  tag: string,
  { by, at }: Pick<OpenClaimsAsk, 'by' | 'at'>,
) {
  const id = crypto.randomUUID();
  const author = { by, now: () => at, newId: () => crypto.randomUUID() };
  const all: NewFact[] = [
    { key: 'case.tag', value: tag, how: 'decided' },
    { key: 'case.catalogue', value: packId(world.catalogue.pack), how: 'decided' },
    ...entries,
  ];
  const facts = byOneAct(fileFacts(reduce([]), id, all, author));
  return { facts, summary: summaryOf(id, facts, world) };
}

/** The cells of some rows as they came, to be taken out with what is wrong with each. */
export async function claimCells(
  db: IDBPDatabase<Records>,
  ask: ClaimsAsk & { rows: number[] },
): Promise<ClaimCellsAnswer> {
  const cells = new Map<number, readonly Cell[]>();
  const begun = await read(db, ask, () => keepRows(new Set(ask.rows), cells));
  if (!begun.ok) return begun;
  return ok({
    head: begun.value.head,
    rows: ask.rows.map((no) => ({ no, cells: [...(cells.get(no) ?? [])] })),
  });
}

/** Keeps the rows that are wanted, by their numbers. */
function keepRows(wanted: ReadonlySet<number>, into: Map<number, readonly Cell[]>): (rows: Rows) => void {
  let no = 0;
  return (rows) => {
    for (const row of rows) if (wanted.has(++no)) into.set(no, row);
  };
}
const both =
  <T>(a: (x: T) => void, b: (x: T) => void) =>
  (x: T): void => {
    a(x);
    b(x);
  };
