import * as z from 'zod';
import { computed, inject, Injectable, signal } from '@angular/core';
import type { Pack } from '@core/catalogue/pack';
import {
  addChange,
  type RowChange,
  RowChangeSchema,
  rowDifferences,
  withChanges,
} from '@core/catalogue/pack-changes';
import { asNext, nextVersion, packId } from '@core/catalogue/version';
import { Clock } from './clock';
import { Drafts } from './drafts';
import { OF_CATALOGUE, PackImports, parsedDraft } from './pack-imports';
import { Packs } from './packs';

const KEPT = 'changes|rows';
const KeptSchema = z.strictObject({ base: z.string(), changes: z.array(RowChangeSchema) });
/** Differences that are listed before they are taken in. */
const LISTED = 200;

/** Rows of the newest catalogue that are being corrected: kept as one types, and taken in together as its next version. */
@Injectable({ providedIn: 'root' })
export class Corrections {
  private readonly packs = inject(Packs);
  private readonly drafts = inject(Drafts);
  private readonly imports = inject(PackImports);
  private readonly clock = inject(Clock);
  private readonly kept = signal(this.restored());
  private readonly base = computed(() => this.packs.newest()?.pack);
  /** The changes so far; those of another catalogue than the newest are none of this one's. */
  readonly changes = computed<readonly RowChange[]>(() => {
    const base = this.base();
    return base && this.kept().base === packId(base) ? this.kept().changes : [];
  });
  /** The catalogue as it would be. */
  readonly pack = computed<Pack | undefined>(() => {
    const [base, changes] = [this.base(), this.changes()];
    return base && changes.length > 0 ? withChanges(base, changes) : base;
  });
  readonly differences = computed(() => {
    const [base, pack] = [this.base(), this.pack()];
    return base && pack && base !== pack ? rowDifferences(base, pack, LISTED) : [];
  });
  readonly next = computed(() => nextVersion(this.base()?.version ?? ''));

  put(change: RowChange): void {
    const base = this.base();
    if (base) this.keep(packId(base), addChange(base, this.changes(), change));
  }

  /** Takes the correction of one row back; of all, where none is named. */
  undo(table?: RowChange['table'], key?: string): void {
    const base = this.base();
    if (!base) return;
    const rest = this.changes().filter((c) => table !== undefined && (c.table !== table || c.key !== key));
    this.keep(packId(base), rest);
  }

  /** Has the next version read and checked as if it came in as a file; it is taken in or left there. */
  check(): void {
    const pack = this.pack();
    if (!pack) return;
    this.imports.read([packFile(asNext(pack, this.clock.today()))], true);
  }

  private keep(base: string, changes: RowChange[]): void {
    this.kept.set({ base, changes });
    this.drafts.keep(OF_CATALOGUE, KEPT, changes.length > 0 ? JSON.stringify({ base, changes }) : '');
  }

  private restored(): z.infer<typeof KeptSchema> {
    const read = KeptSchema.safeParse(parsedDraft(inject(Drafts).read(OF_CATALOGUE, KEPT)));
    return read.success ? read.data : { base: '', changes: [] };
  }
}

/** A catalogue as the file that it would come in as. */
export const packFile = (pack: Pack): File =>
  new File([JSON.stringify(pack)], 'catalogue.json', { type: 'application/json' });
