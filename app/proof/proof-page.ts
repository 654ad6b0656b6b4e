import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzTableModule } from 'ng-zorro-antd/table';
import { readSealText } from '@core/claim/seal-text';
import { keyCode } from '@core/claim/signature';
import { proofOf, proofOfCode } from '@core/claim/verify';
import { OBSERVABLES, registryWith } from '@core/facts/registry';
import { reduce } from '@core/facts/state';
import { factWords } from '../messages/facts';
import { dayOf, formatDay } from '@core/quantity/dates';
import { CaseSentences } from '../commands/case-sentences';
import { Notices } from '../commands/notices';
import { Cases } from '../data/cases';
import { DeskKeys, type KeyFileError } from '../data/desk-keys';
import { FactRepository } from '../data/fact-repository';
import { caseFileSentence } from '../messages/case-file';
import { paperCodeWords, digestWords, hereWords, issueProofWords, type Told } from '../messages/proof';
import { download } from '../report/download';
import { resultOf, WorkerClient } from '../threads/worker-client';
import { FileButton } from '../ui/file-button';
import { StateCard } from '../ui/state';
import type { IntakeJobs } from '../workers/intake.protocol';

/** What a file or code came to. */
type Proof = { name: string; told: Told[]; differ: string[]; case?: { id: string; tag: string } };
const SHORTEST = 10;
const BASE = registryWith(OBSERVABLES, []);
const asKey = (_table: string, key: string): string => key;

/** Files and papers held against their seals, and the keys by which it is known whose they are. Looking changes nothing. */
@Component({
  selector: 'hs-proof-page',
  imports: [FileButton, NzButtonComponent, NzInputDirective, NzTableModule, RouterLink, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './proof-page.html',
  styleUrl: './proof-page.less',
  host: { '(dragover)': '$event.preventDefault()', '(drop)': 'dropped($event)' },
})
export class ProofPage {
  protected readonly keys = inject(DeskKeys);
  private readonly repository = inject(FactRepository);
  private readonly cases = inject(Cases);
  private readonly notices = inject(Notices);
  private readonly voice = inject(CaseSentences).voice;
  protected readonly proofs = signal<readonly Proof[]>([]);
  protected readonly reading = signal(false);
  protected readonly passphrase = signal('');
  /** A backup that waits for its passphrase. */
  protected readonly waiting = signal<{ name: string; text: string } | undefined>(undefined);
  protected readonly weak = computed(() => {
    const { length } = this.passphrase();
    return length > 0 && length < SHORTEST;
  });
  protected readonly SHORTEST = SHORTEST;
  protected readonly day = (at: string): string => formatDay(dayOf(at), 'named');
  protected readonly code = keyCode;

  constructor() {
    void this.keys.load();
  }

  protected dropped(e: DragEvent): void {
    const files = [...(e.dataTransfer?.files ?? [])];
    if (files.length === 0) return;
    e.preventDefault();
    e.stopPropagation();
    void this.verify(files);
  }

  protected async verify(files: readonly File[]): Promise<void> {
    this.reading.set(true);
    try {
      for (const file of files) {
        const proof = file.type.startsWith('image/') ? await this.ofPicture(file) : await this.ofFile(file);
        this.proofs.update((all) => [proof, ...all.filter((p) => p.name !== proof.name)]);
      }
    } finally {
      this.reading.set(false);
    }
  }

  private async ofFile(file: File): Promise<Proof> {
    const { name } = file;
    const client = new WorkerClient<IntakeJobs>(
      () => new Worker(new URL('../workers/intake.worker', import.meta.url), { type: 'module' }),
    );
    try {
      const came = await resultOf(client.job('case', { name, blob: file }));
      if (!came.ok) return bad(name, `${name} could not be read: ${came.error.detail}.`);
      if (!came.value.ok) return bad(name, caseFileSentence(name, came.value.error));
      const { read } = came.value.value;
      const id = read.file.case;
      const p = proofOf(read, reduce(read.file.facts), await this.repository.factsOf(id));
      const who = (key: string) => this.keys.who(key);
      // no case is in hand: what only a catalogue knows is told by its key
      const voice = { ...this.voice(), registry: BASE };
      return {
        name,
        told: [
          digestWords(p),
          ...p.seals.flatMap((s) => issueProofWords(s, who)),
          ...noSeal(p.seals.length),
          ...hereWords(p),
        ],
        differ: (p.here?.differ ?? []).map(
          (d) => `${factWords(d.file, voice, asKey)}; here: ${factWords(d.here, voice, asKey)}`,
        ),
        ...this.known(id),
      };
    } finally {
      client.dispose();
    }
  }

  private async ofPicture(file: File): Promise<Proof> {
    const { readQr } = await import('../commands/read-qr');
    const text = await readQr(file);
    if (text === undefined)
      return bad(
        file.name,
        'No square code was found on the picture. Take it from nearer, with the code flat and whole.',
      );
    return this.ofCode(file.name, text);
  }

  private async ofCode(name: string, text: string): Promise<Proof> {
    const code = readSealText(text);
    if (!code) return bad(name, 'The code is none of an issued paper of ours.');
    const facts = await this.repository.factsOf(code.case);
    const p = proofOfCode(code, facts.length > 0 ? reduce(facts) : undefined);
    return {
      name,
      told: paperCodeWords(p, (key) => this.keys.who(key)),
      differ: [],
      ...this.known(code.case),
    };
  }

  /** What a scanner typed. */
  protected async typed(box: HTMLInputElement): Promise<void> {
    const text = box.value.trim();
    if (text === '') return;
    const proof = await this.ofCode('Code', text);
    this.proofs.update((all) => [proof, ...all.filter((p) => p.name !== proof.name)]);
    box.value = '';
  }

  protected kindOf(p: Proof): 'contradicted' | 'sealed' {
    return p.told.some((t) => t.as === 'look') ? 'contradicted' : 'sealed';
  }

  private known(id: string): { case?: { id: string; tag: string } } {
    const head = this.cases.summaries().find((h) => h.id === id);
    return head ? { case: { id, tag: head.tag } } : {};
  }

  /** A key pair from now on; its backup is saved where a passphrase was typed. */
  protected async make(): Promise<void> {
    if (this.weak()) return;
    const made = await this.keys.make(this.passphrase() || undefined);
    if (!made.ok) return this.notices.refuse(keyTrouble('', made.error));
    this.passphrase.set('');
    if (made.value) save(`signing-key-backup.json`, made.value);
    void this.notices.say('success', `Issues are signed from now on, key ${this.keys.code() ?? ''}.`);
  }

  protected savePublic(): void {
    const file = this.keys.publicFile();
    if (file) save('signing-key.json', file);
  }

  protected async take(files: readonly File[]): Promise<void> {
    for (const f of files) await this.taken(f.name, await f.text());
  }

  protected async opened(): Promise<void> {
    const w = this.waiting();
    if (w) await this.taken(w.name, w.text, this.passphrase());
  }

  private async taken(name: string, text: string, passphrase?: string): Promise<void> {
    const read = await this.keys.take(text, passphrase);
    if (read.ok) {
      this.waiting.set(undefined);
      this.passphrase.set('');
      void this.notices.say('success', `${read.value.house}: key ${keyCode(read.value.key)} is known here.`);
    } else if (read.error.code === 'passphrase_wanted') this.waiting.set({ name, text });
    else this.notices.refuse(keyTrouble(name, read.error));
  }
}

const bad = (name: string, words: string): Proof => ({ name, told: [{ words, as: 'look' }], differ: [] });
const noSeal = (seals: number): Told[] =>
  seals > 0 ? [] : [{ words: 'No report was issued of it: nothing in it is sealed.', as: 'plain' }];
const save = (name: string, content: unknown): void =>
  download(name, new Blob([JSON.stringify(content, null, 2)], { type: 'application/json' }));

function keyTrouble(name: string, e: KeyFileError): string {
  switch (e.code) {
    case 'no_crypto':
      return 'This browser keeps keys only for pages that came by https or from this machine. Nothing was changed.';
    case 'wrong_passphrase':
      return `${name} does not open with this passphrase, or was changed. Nothing was changed here; type it again.`;
    case 'passphrase_wanted':
      return `${name} opens with its passphrase only.`;
    case 'other_format':
      return `${name} is no key file of this program. Nothing was changed.`;
    default:
      return caseFileSentence(name, e);
  }
}
