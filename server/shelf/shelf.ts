import { join } from 'node:path';
import type { Heads } from '@core/shelf/entry';
import { DeskTable } from './desk-table';
import { FactTable } from './fact-table';
import { FileStore } from './file-store';
import { LetIn } from './let-in';
import { NewsLines } from './news';
import { embedded, external, type Sql } from './sql';
import { layOut } from './tables';

/** How often other processes at the same database are looked at for news, ms. */
const LOOK_MS = 1500;

export type ShelfOptions = {
  /** Folder for the files, and for the database where it is the embedded one. */
  folder: string;
  /** Connection string of a database elsewhere. */
  database?: string | undefined;
  /** What the clock of this machine says: shown, never compared. */
  now: () => string;
};

/** A shelf that is kept by this server. */
export class KeptShelf {
  readonly facts: FactTable;
  readonly desks: DeskTable;
  readonly letIn: LetIn;
  readonly files: FileStore;
  readonly news = new NewsLines();
  private readonly looking: NodeJS.Timeout | undefined;
  private seen = '';

  private constructor(
    private readonly sql: Sql,
    folder: string,
    alone: boolean,
    now: () => string,
  ) {
    this.facts = new FactTable(sql, alone);
    this.desks = new DeskTable(sql, now, alone);
    this.letIn = new LetIn(this.desks);
    this.files = new FileStore(join(folder, 'files'));
    if (!alone) this.looking = setInterval(() => void this.look(), LOOK_MS);
  }

  static async open({ folder, database, now }: ShelfOptions): Promise<KeptShelf> {
    const sql = database === undefined ? await embedded(join(folder, 'database')) : await external(database);
    await layOut(sql.query);
    return new KeptShelf(sql, folder, database === undefined, now);
  }

  /** An invitation for the first desk of all, where there is none yet. */
  async firstInvitation(): Promise<string | undefined> {
    if ((await this.desks.all()).length > 0) return undefined;
    const made = await this.desks.invite('server', true);
    return made.ok ? made.value : undefined;
  }

  async end(): Promise<void> {
    clearInterval(this.looking);
    this.news.end();
    await this.sql.end();
  }

  /** What another process wrote is told here too. */
  private async look(): Promise<void> {
    const heads: Heads | undefined = await this.facts.heads().catch(() => undefined);
    if (!heads) return;
    const now = JSON.stringify(heads);
    if (this.seen !== '' && this.seen !== now) this.news.tell();
    this.seen = now;
  }
}
