import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzCheckboxModule } from 'ng-zorro-antd/checkbox';
import { movedBy } from '@core/answer/difference';
import type { Fact, FileRef } from '@core/facts/fact';
import { formatDay } from '@core/quantity/dates';
import { statusOf } from '@core/facts/read';
import { Commands } from '../commands/commands';
import { Attachments } from '../commands/attachments';
import { CaseDesk } from '../data/case-desk';
import { DeskSettingsStore } from '../data/desk-settings';
import { CaseSentences } from '../commands/case-sentences';
import { FactLine } from '../entry/fact-line';
import { FileButton } from '../ui/file-button';
import { FileStrip } from '../ui/file-strip';
import { differenceWords } from '../messages/difference';
import { nameWords, valueWords } from '../messages/facts';
import { PROVENANCE_WORDS } from '../messages/reading';

type Line = {
  fact: Fact;
  /** Who filed it and on which day; empty where the line above says so already. */
  heading: string;
  name: string;
  value: string;
  meta: string;
  standing: boolean;
  rival: boolean;
};

/** The facts, newest first. A click tells what a fact moved; it can be corrected on the fact line or struck. */
@Component({
  selector: 'hs-tape',
  imports: [FactLine, FileButton, FileStrip, NzButtonComponent, NzCheckboxModule],
  host: { '(dragover)': '$event.preventDefault()', '(drop)': 'drop($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rail()) {
      <button
        nz-button
        nzType="text"
        class="open"
        aria-label="Open the tape"
        title="Key ]"
        (click)="settings.flip('tape')"
      >
        «<span class="up">{{ lines().length }} facts</span>
      </button>
    } @else {
      <hs-fact-line />
      <div class="head">
        <h2>Tape</h2>
        <hs-file-button
          wording="Attach a file"
          label="Files to attach to this case"
          (chosen)="attach($event)"
        />
        <label
          nz-checkbox
          nzId="with-struck"
          for="with-struck"
          [nzChecked]="withAside()"
          (nzCheckedChange)="withAside.set($event)"
          >struck too</label
        >
        <button
          nz-button
          nzType="text"
          nzSize="small"
          aria-label="Narrow the tape"
          title="Key ]"
          (click)="settings.flip('tape')"
        >
          »
        </button>
      </div>
      <ol aria-label="Facts, newest first">
        @for (l of lines(); track l.fact.id) {
          @if (l.heading) {
            <li class="day">{{ l.heading }}</li>
          }
          <li [class.aside]="!l.standing">
            <button class="line" [attr.aria-expanded]="open() === l.fact.id" (click)="toggle(l.fact.id)">
              <span class="name">{{ l.name }}</span>
              <span class="value">{{ l.value }}</span>
              <span class="meta">{{ l.rival ? '▲ contradicted · ' : '' }}{{ l.meta }}</span>
            </button>
            @if (open() === l.fact.id) {
              <div class="moved">
                @for (m of moves(); track m) {
                  <div>{{ m }}</div>
                } @empty {
                  <div class="quiet">It moved no answer so far.</div>
                }
                @if (l.fact.files; as files) {
                  <hs-file-strip [files]="files" [read]="blobOf" (taken)="take($event)" />
                }
                @if (l.fact.note) {
                  <div class="quiet">Note: {{ l.fact.note }}</div>
                }
                @if (l.standing && !kept(l.fact.key)) {
                  <button nz-button (click)="strike(l.fact)">Strike this fact</button>
                }
              </div>
            }
          </li>
        }
      </ol>
    }
  `,
  styleUrl: './tape.less',
})
export class Tape {
  private readonly desk = inject(CaseDesk);
  protected readonly settings = inject(DeskSettingsStore);
  private readonly commands = inject(Commands);
  private readonly attachments = inject(Attachments);
  private readonly voice = inject(CaseSentences).voice;
  protected readonly withAside = signal(false);
  protected readonly open = signal<string | undefined>(undefined);

  protected readonly rail = computed(() => this.settings.settings().tape === 'rail');

  protected readonly lines = computed<Line[]>(() => {
    const view = this.desk.current();
    if (!view) return [];
    const { state } = view;
    return state.log
      .map((fact) => ({ fact, status: statusOf(state, fact) }))
      .filter(({ status }) => status !== 'strike' && (this.withAside() || status !== 'aside'))
      .reverse()
      .map(({ fact, status }) => this.lineOf(fact, status === 'stands', status === 'rival'))
      .map((l, i, all) => (l.heading === all[i - 1]?.heading ? { ...l, heading: '' } : l));
  });

  protected readonly moves = computed<string[]>(() => {
    const view = this.desk.current();
    const fact = view?.state.log.find((f) => f.id === this.open());
    if (!view?.world || !fact) return [];
    return movedBy(view.world, view.state.log, fact, view.answers).map((d) =>
      differenceWords(d, this.voice(), this.desk.nameOf),
    );
  });

  constructor() {
    // Who asks for the fact line wants the tape open.
    effect(() => {
      if (this.commands.factLineAsked() && untracked(this.rail)) this.settings.flip('tape');
    });
  }

  protected toggle(id: string): void {
    this.open.set(this.open() === id ? undefined : id);
  }

  protected readonly blobOf = (file: FileRef): Promise<Blob | undefined> => this.attachments.blobOf(file);

  /** An issued report cannot be unsent, and a case keeps its tag. */
  protected kept(key: string): boolean {
    return key.startsWith('report.') || key === 'case.tag';
  }

  protected take(file: FileRef): void {
    void this.attachments.save(file);
  }

  /** Files dropped on the tape belong to the case. */
  protected drop(e: DragEvent): void {
    e.preventDefault();
    this.attach([...(e.dataTransfer?.files ?? [])]);
  }

  protected attach(files: readonly File[]): void {
    void this.attachments.attach(files);
  }

  protected strike(fact: Fact): void {
    void this.desk.strike(fact);
  }

  private lineOf(fact: Fact, standing: boolean, rival: boolean): Line {
    const time = new Date(fact.at);
    const two = (n: number) => String(n).padStart(2, '0');
    const day = formatDay(
      `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())}`,
      this.settings.settings().dateOrder,
    );
    return {
      fact,
      name: nameWords(fact, this.voice()),
      value: valueWords(fact, this.voice(), this.desk.nameOf),
      heading: `${fact.by} · ${day}`,
      meta: `${two(time.getHours())}:${two(time.getMinutes())} · ${PROVENANCE_WORDS[fact.how]}`,
      standing,
      rival,
    };
  }
}
