import { inject, Injectable } from '@angular/core';
import { strToU8, zipSync } from 'fflate';
import type { Pack } from '@core/catalogue/pack';
import { type TableName, TABLES } from '@core/catalogue/pack-issue';
import { PackHeadSchema } from '@core/catalogue/read-pack';
import { tableCells } from '@core/catalogue/tables';
import { writeCsv } from '../report/csv';
import { Packs } from '../data/packs';
import { workbookOf } from '../data/workbooks';
import { download } from '../report/download';
import { Notices } from './notices';

/** Catalogues out to open files. */
@Injectable({ providedIn: 'root' })
export class PackExports {
  private readonly packs = inject(Packs);
  private readonly notices = inject(Notices);

  json(): void {
    const pack = this.packs.newest()?.pack;
    if (pack)
      download(
        `${nameOf(pack)}.json`,
        new Blob([JSON.stringify(pack, null, 1)], { type: 'application/json' }),
      );
  }

  /** All tables as one workbook, a sheet each. */
  workbook(): Promise<void> {
    const pack = this.packs.newest()?.pack;
    return pack ? this.asWorkbook(nameOf(pack), (t) => tableCells(t, pack[t])) : Promise.resolve();
  }

  /** The headings of all tables, to be filled in. */
  empty(): Promise<void> {
    return this.asWorkbook('catalogue-empty', (t) => tableCells(t, []));
  }

  private async asWorkbook(name: string, cellsOf: (t: TableName) => (string | number)[][]): Promise<void> {
    const made = await workbookOf(TABLES.map((t) => ({ sheet: t, rows: cellsOf(t) })));
    if ('blob' in made) download(`${name}.xlsx`, made.blob);
    else this.notices.refuse(`The workbook could not be written: ${made.failed}.`);
  }

  /** One CSV a table and pack.json, zipped. */
  csv(): void {
    const pack = this.packs.newest()?.pack;
    if (!pack) return;
    const head = PackHeadSchema.parse(
      Object.fromEntries(Object.keys(PackHeadSchema.shape).map((k) => [k, pack[k as keyof Pack]])),
    );
    const files = Object.fromEntries(
      TABLES.map((t) => [`${t}.csv`, strToU8(writeCsv(tableCells(t, pack[t])))]),
    );
    const zip = zipSync({ 'pack.json': strToU8(JSON.stringify(head, null, 1)), ...files });
    download(`${nameOf(pack)}.zip`, new Blob([zip], { type: 'application/zip' }));
  }
}

const nameOf = (pack: Pack) =>
  `catalogue-${pack.name}-${pack.version}`.toLowerCase().replace(/[^a-z0-9.-]+/g, '-');
