import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { movedBy } from '@core/answer/difference';
import type { Fact, FileRef } from '@core/facts/fact';
import { formatDay } from '@core/quantity/dates';
import { statusOf } from '@core/facts/read';
import { Attachments } from '../acts/attachments';
import { CaseDesk } from '../data/case-desk';
import { HouseStore } from '../data/house';
import { VoiceService } from '../acts/voice';
import { AttachButton } from '../entry/attach-button';
import { FactLine } from '../entry/fact-line';
import { FileStrip } from '../ui/file-strip';
import { differenceWords } from '../words/answers';
import { nameWords, valueWords } from '../words/facts';
import { HOW_WORDS } from '../words/reading';

type Line = { fact: Fact; name: string; value: string; meta: string; standing: boolean; rival: boolean };

/** The facts, newest first. A click tells what a fact moved; it can be corrected on the fact line or struck. */
@Component({
  selector: 'hs-tape',
  imports: [AttachButton, FactLine, FileStrip, NzButtonComponent],
  host: { '(dragover)': '$event.preventDefault()', '(drop)': 'drop($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-fact-line />
    <div class="head">
      <h2>Tape</h2>
      <hs-attach-button wording="Attach a file" label="Files to attach to this case" />
      <label><input type="checkbox" #all (change)="withAside.set(all.checked)" /> put aside too</label>
    </div>
    <ol aria-label="Facts, newest first">
      @for (l of lines(); track l.fact.id) {
        <li [class.aside]="!l.standing">
          <button class="line" [attr.aria-expanded]="open() === l.fact.id" (click)="toggle(l.fact.id)">
            <span class="name">{{ l.name }}</span
            ><span class="value">{{ l.value }}</span>
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
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
    }
    .head {
      display: flex;
      justify-content: space-between;
      align-items: baseline;
      gap: 10px;
      padding: 4px 12px;
    }
    .head h2 {
      font-size: 1em;
      flex: 1;
    }
    label {
      font-size: 0.92em;
      color: var(--ink-2);
    }
    ol {
      list-style: none;
      margin: 0;
      padding: 0 8px;
      overflow: auto;
      flex: 1;
    }
    li {
      border-bottom: 1px solid var(--rule);
    }
    .line {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 0 8px;
      width: 100%;
      text-align: left;
      background: none;
      border: 0;
      padding: 3px 4px;
      cursor: pointer;
    }
    .value {
      font-weight: 600;
      max-width: 150px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .name {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .meta {
      grid-column: 1 / -1;
      font-size: 0.86em;
      color: var(--ink-2);
    }
    .aside .value,
    .aside .name {
      text-decoration: line-through;
      color: var(--ink-2);
    }
    .moved {
      background: var(--paper-2);
      padding: 6px 8px;
      margin-bottom: 4px;
      border-left: 3px solid var(--verdigris);
      display: grid;
      gap: 3px;
      justify-items: start;
    }
  `,
})
export class Tape {
  private readonly desk = inject(CaseDesk);
  private readonly house = inject(HouseStore);
  private readonly attachments = inject(Attachments);
  private readonly voice = inject(VoiceService).voice;
  protected readonly withAside = signal(false);
  protected readonly open = signal<string | undefined>(undefined);

  protected readonly lines = computed<Line[]>(() => {
    const view = this.desk.current();
    if (!view) return [];
    const { state } = view;
    return state.log
      .map((fact) => ({ fact, status: statusOf(state, fact) }))
      .filter(({ status }) => status !== 'strike' && (this.withAside() || status !== 'aside'))
      .reverse()
      .map(({ fact, status }) => this.lineOf(fact, status === 'stands', status === 'rival'));
  });

  protected readonly moves = computed<string[]>(() => {
    const view = this.desk.current();
    const fact = view?.state.log.find((f) => f.id === this.open());
    if (!view?.world || !fact) return [];
    return movedBy(view.world, view.state.log, fact, view.answers).map((d) =>
      differenceWords(d, this.voice(), this.desk.nameOf),
    );
  });

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
    void this.attachments.attach([...(e.dataTransfer?.files ?? [])]);
  }

  protected strike(fact: Fact): void {
    void this.desk.strike(fact);
  }

  private lineOf(fact: Fact, standing: boolean, rival: boolean): Line {
    const time = new Date(fact.at);
    const two = (n: number) => String(n).padStart(2, '0');
    const day = formatDay(
      `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())}`,
      this.house.settings().dateOrder,
    );
    return {
      fact,
      name: nameWords(fact, this.voice()),
      value: valueWords(fact, this.voice(), this.desk.nameOf),
      meta: `${HOW_WORDS[fact.how]} · ${fact.by} · ${day} ${two(time.getHours())}:${two(time.getMinutes())}`,
      standing,
      rival,
    };
  }
}
