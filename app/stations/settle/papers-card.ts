import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { reread } from '@core/answer/sealing';
import { type SealCheck, sealedNow } from '@core/claim/seal';
import { plainText } from '@core/facts/value';
import { CASE_FORMATS, CaseExports } from '../../commands/case-exports';
import type { CaseFormat } from '../../commands/formats/format';
import { CaseSentences } from '../../commands/case-sentences';
import { Commands } from '../../commands/commands';
import { PAPER_KINDS, type PaperKind, Reports } from '../../commands/reports';
import { CaseDesk } from '../../data/case-desk';
import { DeskKeys } from '../../data/desk-keys';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { objectionWords, percent, warningWords } from '../../messages/answers';
import { differenceWords, rereadWords } from '../../messages/difference';
import { signedWords, type Told } from '../../messages/proof';
import { fingerprintWords } from '../../messages/seal';
import { Segmented } from '../../ui/segmented';
import { StateCard } from '../../ui/state';

const LABELS: Record<PaperKind, string> = { workshop: 'Workshop', customer: 'Customer', full: 'Full' };
/** Facts that hold what the specialist adds to a paper. */
const OWN: Partial<Record<PaperKind, string>> = {
  workshop: 'claim.to_workshop',
  customer: 'claim.to_customer',
};

/** What holds a report up, its seal, the papers for their readers, and what each issue proves. */
@Component({
  selector: 'hs-papers-card',
  imports: [NzButtonComponent, Field, Segmented, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './papers-card.html',
  styles: `
    section {
      display: grid;
      gap: 5px;
    }
    .objections {
      margin: 0;
      padding-left: 18px;
    }
    p {
      margin: 0;
    }
  `,
})
export class PapersCard {
  protected readonly session = inject(DeskSession);
  private readonly desk = inject(CaseDesk);
  private readonly voice = inject(CaseSentences).voice;
  private readonly files = inject(CaseExports);
  private readonly commands = inject(Commands);
  protected readonly reports = inject(Reports);
  private readonly keys = inject(DeskKeys);
  protected readonly formats = CASE_FORMATS;
  protected readonly kinds = PAPER_KINDS.map((value) => ({ value, label: LABELS[value] }));
  protected readonly kind = signal<PaperKind>('workshop');
  protected readonly ownWords = computed(() => OWN[this.kind()]);
  protected readonly share = this.reports.share;
  protected readonly busy = computed(() => this.share() !== undefined);
  protected readonly percent = percent;
  protected readonly answers = computed(() => this.desk.current()?.answers);

  constructor() {
    void this.keys.load();
  }

  protected readonly objections = computed(() =>
    (this.answers()?.decision.objections ?? []).map(objectionWords),
  );
  protected readonly warnings = computed(() =>
    (this.answers()?.decision.warnings ?? []).map((w) => warningWords(w, this.desk.nameOf)),
  );
  protected readonly sealWords: Record<SealCheck['verdict'], string> = {
    intact: '✓ facts unchanged since',
    altered: '▲ a sealed fact was altered or is missing',
    void: '▲ no seal: it names no fact',
  };
  protected readonly seals = computed(() => this.answers()?.seals ?? []);
  protected readonly sealed = computed(() => sealedNow(this.seals()) !== undefined);

  /** The last issue, whole; those before it are a line each. */
  protected readonly newest = computed(() => this.seals().at(-1));
  protected readonly earlier = computed(() => this.seals().slice(0, -1).reverse());

  /** What the last issue would say otherwise today. */
  protected readonly rereading = computed(() => {
    const [view, s] = [this.desk.current(), this.newest()];
    const read = view?.world && s && reread(view.world, view.state, s);
    return (
      read && {
        words: rereadWords(read),
        lines: read.differs.map((d) => differenceWords(d, this.voice(), this.desk.nameOf)),
      }
    );
  });

  /** Whose issue it is; nothing of one that nobody signed. */
  protected signed(s: SealCheck): Told[] {
    return s.signatures.length > 0 ? signedWords(s, (key) => this.keys.who(key)) : [];
  }

  protected fingerprint(s: SealCheck): string {
    return fingerprintWords(plainText(s.seal.value));
  }

  protected issue(): void {
    void this.commands.seal();
  }

  protected make(as: 'pdf' | 'html'): void {
    void this.commands.report(this.kind(), as);
  }

  protected export(format: CaseFormat): void {
    const view = this.desk.current();
    if (view) void this.files.export(view, format);
  }
}
