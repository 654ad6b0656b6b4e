import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { NzMessageService } from 'ng-zorro-antd/message';
import { packId } from '@core/catalogue/pack';
import type { CaseFile, ReadCase } from '@core/claim/case-file';
import { fileFact, mergeFacts } from '@core/facts/change';
import { textOf } from '@core/facts/read';
import { reduce } from '@core/facts/state';
import { CaseDesk, type CaseView } from './case-desk';
import { Clock } from './clock';
import { download } from './download';
import { FactRepository } from './fact-repository';
import { troubleSentence } from './store-trouble';

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

  async export(view: CaseView): Promise<void> {
    if (!view.catalogue) return;
    const [{ extractPack }, { writeCaseFile }] = await Promise.all([
      import('@core/catalogue/extract-pack'),
      import('@core/claim/case-file'),
    ]);
    const pack = extractPack(
      view.catalogue,
      textOf(view.state, 'engine.code'),
      textOf(view.state, 'kit.number'),
    );
    const file = writeCaseFile(view.id, view.state.log, pack, this.clock.now());
    this.save(`case-${view.tag}.json`, file);
  }

  /** The bare facts of a case that cannot be computed, as they lie in the store. */
  exportFacts(view: CaseView): void {
    this.save(`facts-${view.tag === '—' ? view.id : view.tag}.json`, {
      case: view.id,
      facts: view.state.log,
    });
  }

  /** Records that were set aside as damaged, as they lie in the store. */
  exportDamaged(): void {
    this.save('damaged-records.json', this.repository.damaged());
  }

  /** Opens a case file. What reads and checks it is fetched when one is opened. */
  async open(file: File): Promise<void> {
    const [{ LARGEST_CASE, readCaseFile }, { caseFileSentence }] = await Promise.all([
      import('@core/claim/case-file'),
      import('../words/case-file'),
    ]);
    if (file.size > LARGEST_CASE) {
      this.refuse(caseFileSentence(file.name, { code: 'too_large', bytes: file.size, most: LARGEST_CASE }));
      return;
    }
    const read = readCaseFile(await file.text());
    if (!read.ok) {
      this.refuse(caseFileSentence(file.name, read.error));
      return;
    }
    if (read.value.digest === 'altered') {
      this.altered.set({ name: file.name, read: read.value });
      return;
    }
    if (await this.take(file.name, read.value.file))
      this.message.success(
        read.value.digest === 'verified'
          ? `${file.name}: digest verified, the case is on the rack.`
          : `${file.name}: the digest of its facts is verified; the file is of an earlier make and says nothing of its catalogue. The case is on the rack.`,
      );
  }

  /** Takes an altered file in all the same; the case then says so in a fact of its own. */
  async takeAltered(): Promise<void> {
    const waiting = this.altered();
    this.altered.set(undefined);
    if (!waiting) return;
    const { file, altered } = waiting.read;
    const words = altered
      .map((a) => `${a.part}: stated ${a.stated.slice(0, 12)}…, found ${a.found.slice(0, 12)}…`)
      .join('; ');
    const mark = fileFact(
      reduce(file.facts),
      file.case,
      { key: 'case.altered', value: words, how: 'imported' },
      this.desk.author(),
    );
    await this.take(waiting.name, { ...file, facts: [...file.facts, mark] });
  }

  private async take(name: string, file: CaseFile): Promise<boolean> {
    const stranger = file.facts.find((f) => (this.repository.caseOf(f.id) ?? file.case) !== file.case);
    if (stranger) {
      this.refuse(
        `${name} holds fact ${stranger.id}, which belongs to another case here. Nothing was changed.`,
      );
      return false;
    }
    const mine = this.desk.cases().find((c) => c.id === file.case);
    const merged = mergeFacts(mine?.state.log ?? [], file.facts);
    if (!merged.ok) {
      this.refuse(
        `${name} holds fact ${merged.error.id} with other content than the one here. Nothing was changed.`,
      );
      return false;
    }
    const known = this.desk.catalogues().has(packId(file.catalogue));
    const filed = await this.repository.add(
      file.facts,
      [],
      known ? undefined : { case: file.case, pack: file.catalogue },
    );
    if (!filed.ok) {
      this.refuse(`${name} was not taken in. ${troubleSentence(filed.error)}`);
      return false;
    }
    await this.router.navigate(['/case', file.case, 'call']);
    return true;
  }

  private refuse(sentence: string): void {
    this.message.error(sentence, { nzDuration: 20000, nzPauseOnHover: true });
  }

  private save(name: string, content: unknown): void {
    download(name, new Blob([JSON.stringify(content, null, 2)], { type: 'application/json' }));
  }
}
