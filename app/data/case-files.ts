import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { NzMessageService } from 'ng-zorro-antd/message';
import { extractPack } from '@core/catalogue/extract-pack';
import { packId } from '@core/catalogue/pack';
import { type CaseFile, readCaseFile, type ReadCase, writeCaseFile } from '@core/claim/case-file';
import { fileFact, mergeFacts } from '@core/facts/change';
import { reduce, textOf } from '@core/facts/state';
import { caseFileSentence } from '../words/reading';
import { CaseDesk, type CaseView } from './case-desk';
import { Clock } from './clock';
import { download } from './download';
import { FactRepository } from './fact-repository';

/** A file whose digest does not match, waiting for a word from the user. */
export type Altered = { name: string; read: ReadCase };

/** Cases out to open files and in again. */
@Injectable({ providedIn: 'root' })
export class CaseFiles {
  private readonly repository = inject(FactRepository);
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  private readonly message = inject(NzMessageService);
  private readonly router = inject(Router);
  readonly altered = signal<Altered | undefined>(undefined);

  export(view: CaseView): void {
    if (!view.catalogue) return;
    const pack = extractPack(
      view.catalogue,
      textOf(view.state, 'engine.code'),
      textOf(view.state, 'kit.number'),
    );
    const file = writeCaseFile(view.id, view.state.log, pack, this.clock.now());
    download(
      `case-${view.tag}.json`,
      new Blob([JSON.stringify(file, null, 2)], { type: 'application/json' }),
    );
  }

  async open(file: File): Promise<void> {
    const read = readCaseFile(await file.text());
    if (!read.ok) {
      this.message.error(caseFileSentence(file.name, read.error), {
        nzDuration: 20000,
        nzPauseOnHover: true,
      });
      return;
    }
    if (read.value.digest === 'altered') {
      this.altered.set({ name: file.name, read: read.value });
      return;
    }
    if (await this.take(file.name, read.value.file))
      this.message.success(`${file.name}: digest verified, the case is on the rack.`);
  }

  /** Takes an altered file in all the same; the case then says so in a fact of its own. */
  async takeAltered(): Promise<void> {
    const waiting = this.altered();
    this.altered.set(undefined);
    if (!waiting) return;
    const { file, actual } = waiting.read;
    const words = `stated ${file.digest.facts.slice(0, 12)}…, found ${actual.slice(0, 12)}…`;
    const mark = fileFact(
      reduce(file.facts),
      file.case,
      { key: 'case.altered', value: words, how: 'imported' },
      this.desk.author(),
    );
    await this.take(waiting.name, { ...file, facts: [...file.facts, mark] });
  }

  private async take(name: string, file: CaseFile): Promise<boolean> {
    const mine = this.desk.cases().find((c) => c.id === file.case);
    const merged = mergeFacts(mine?.state.log ?? [], file.facts);
    if (!merged.ok) {
      this.message.error(
        `${name} holds fact ${merged.error.id} with other content than the one here. Nothing was changed.`,
        { nzDuration: 20000 },
      );
      return false;
    }
    const known = this.desk.catalogues().has(packId(file.catalogue));
    await this.repository.add(file.facts, known ? [] : [file.catalogue]);
    await this.router.navigate(['/case', file.case, 'call']);
    return true;
  }
}
