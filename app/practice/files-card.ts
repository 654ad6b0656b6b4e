import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { Notices } from '../commands/notices';
import { Practice } from '../data/practice';
import { PracticeFiles, type TakeError } from '../data/practice-files';
import { counted } from '../language/plural';
import { agreementWords, beginErrorWords, ownReturnWords, practiceFileWords } from '../messages/practice';
import { download } from '../report/download';
import { FileButton } from '../ui/file-button';
import { Pick } from '../ui/pick';
import { PracticeWords } from './practice-words';

/** Returns of the house's own, files of them, and how far two judges agree. */
@Component({
  selector: 'hs-practice-files',
  imports: [FileButton, NzButtonComponent, Pick, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Own returns">
      <h2>Own returns</h2>
      <p class="quiet">
        A settled case without its names, texts, days and numbers: what was looked at, and what it was.
      </p>
      @if (settled().length) {
        <div class="row">
          <hs-pick
            label="From a settled case"
            [bare]="true"
            placeholder="From a settled case"
            [options]="settled()"
            [value]="chosen()"
            (picked)="chosen.set($event)"
          />
          <button nz-button nzSize="small" [disabled]="!chosen()" (click)="make()">Make it a return</button>
        </div>
      }
      @for (r of files.returns(); track r.id; let i = $index) {
        <div class="set">
          <span>Own return {{ i + 1 }}, {{ r.there.length }} things to find</span>
          @if (files.decided().has(r.id)) {
            <a nz-button nzSize="small" [routerLink]="['/practice/return', r.id]">Look back</a>
          } @else {
            <button nz-button nzSize="small" (click)="begin(r.id)">Begin</button>
          }
        </div>
      }
      <div class="row">
        <button nz-button nzSize="small" (click)="save()">Returns and verdicts as a file</button>
        <hs-file-button
          wording="Take a file in"
          label="File of returns for practice"
          accept=".json,application/json"
          (chosen)="take($event)"
        />
      </div>
    </section>
    @for (j of judged(); track j.by) {
      <section class="card" [attr.aria-label]="'Two judges: ' + j.by">
        <h2>You and {{ j.by }}</h2>
        <p>{{ j.words }}</p>
        <ul>
          @for (a of j.apart; track $index) {
            <li>{{ a }}</li>
          }
        </ul>
      </section>
    }
  `,
  styleUrl: './practice-page.less',
  styles: ':host { display: contents; }',
})
export class FilesCard {
  protected readonly files = inject(PracticeFiles);
  private readonly practice = inject(Practice);
  private readonly names = inject(PracticeWords);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly settled = computed(() =>
    this.files.settled().map((h) => ({ key: h.id, wording: `${h.tag} ${h.engine}` })),
  );
  protected readonly judged = computed(() =>
    this.files.judges().map(({ by, agreement: a }) => ({
      by,
      words: agreementWords(a, by),
      apart: a.apart.map(({ one, other, parted }) => {
        const at =
          parted === undefined
            ? 'on the same looks'
            : `apart from look ${parted.at} on (${parted.one === undefined ? 'none' : this.names.look({ key: parted.one })} / ${parted.other === undefined ? 'none' : this.names.look({ key: parted.other })})`;
        return `You: ${this.names.nameOfCause(one)}. ${by}: ${this.names.nameOfCause(other)}; ${at}.`;
      }),
    })),
  );

  protected async make(): Promise<void> {
    const id = this.chosen();
    if (id === undefined) return;
    const made = await this.files.fromCase(id);
    if (made.ok) void this.notices.say('success', 'It stands among the own returns.');
    else if (
      made.error.code === 'not_decided' ||
      made.error.code === 'not_issued' ||
      made.error.code === 'too_little'
    )
      this.notices.refuse(ownReturnWords({ code: made.error.code }));
    else this.notices.refuse(beginErrorWords(made.error));
  }

  protected async begin(id: string): Promise<void> {
    const c = this.files.returns().find((r) => r.id === id);
    if (!c) return;
    const begun = await this.practice.start(c);
    if (begun.ok) await this.router.navigate(['/case', begun.value, 'examine']);
    else this.notices.refuse(beginErrorWords(begun.error));
  }

  protected save(): void {
    download('practice.json', new Blob([this.files.written()], { type: 'application/json' }));
  }

  protected async take(chosen: readonly File[]): Promise<void> {
    for (const file of chosen) {
      const taken = await this.files.take(file);
      if (taken.ok)
        await this.notices.say(
          'success',
          `${file.name}: ${counted(taken.value.returns, 'return', 'returns')} and ${counted(taken.value.runs, 'verdict', 'verdicts')} of ${taken.value.by}.`,
        );
      else this.notices.refuse(this.why(file.name, taken.error));
    }
  }

  private why(name: string, e: TakeError): string {
    switch (e.code) {
      case 'too_large':
        return `${name} is larger than any file of returns. Nothing was taken in.`;
      case 'no_catalogue':
        return beginErrorWords(e);
      case 'no_json':
      case 'no_practice_file':
      case 'newer_version':
      case 'wrong':
      case 'unknown_cause':
      case 'unknown_observable':
        return practiceFileWords(name, e);
      default:
        return `${name} was not taken in: ${e.detail}. Try again.`;
    }
  }
}
