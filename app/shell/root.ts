import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  viewChild,
} from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { Commands } from '../acts/commands';
import { Database } from '../data/database';
import { FactRepository } from '../data/fact-repository';
import { Fetching } from '../acts/fetching';
import { Setup } from '../acts/setup';
import { troubleSentence } from '../data/store-trouble';
import { commandFor } from './keyboard';
import { AlteredDialog } from './altered-dialog';
import { HouseDialog } from './house-dialog';
import { KeysDialog } from './keys-dialog';
import { Palette } from './palette';
import { Rack } from './rack';

/** The frame: rack on the left, what is in hand on the right, dialogs above. */
@Component({
  selector: 'hs-root',
  imports: [RouterOutlet, NzButtonComponent, Rack, Palette, KeysDialog, HouseDialog, AlteredDialog],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'press($event)' },
  template: `
    @if (trouble(); as t) {
      <p class="trouble" role="alert">
        ▲ {{ t }}
        @if (repository.trouble()) {
          <button nz-button (click)="repository.trouble.set(undefined)">Read</button>
        }
      </p>
    }
    @if (fetching.missing()) {
      <p class="trouble" role="alert">
        ▲ This part of the program could not be fetched: the server does not answer. Start it again (npm
        start), then go on; everything filed is kept.
        <button nz-button (click)="again()">Try again</button>
      </p>
    }
    @if (repository.damaged().length; as n) {
      <p class="trouble" role="status">
        ▲ {{ n }} {{ n === 1 ? 'record is' : 'records are' }} damaged and set aside; the rest works.
        <button nz-button (click)="commands.exportDamaged()">Take out as JSON</button>
      </p>
    }
    @if (setup.failure(); as f) {
      <main class="failed">
        <h1>The desk could not be opened</h1>
        <p role="alert">{{ f }}</p>
        <button nz-button nzType="primary" (click)="start()">Try again</button>
      </main>
    } @else if (setup.ready()) {
      <div class="frame">
        <hs-rack />
        <router-outlet />
      </div>
      <hs-palette />
      <hs-keys-dialog />
      <hs-house-dialog />
      @defer (when commands.filesUsed()) {
        <hs-altered-dialog />
      }
    } @else {
      <p class="boot">Opening the desk…</p>
    }
    <input
      #file
      hidden
      type="file"
      tabindex="-1"
      aria-label="Case file"
      accept=".json,.zip,application/json,application/zip"
      (change)="picked(file)"
    />
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    .frame {
      display: grid;
      grid-template-columns: 214px minmax(0, 1fr);
      height: 100dvh;
    }
    .frame > ::ng-deep :not(hs-rack):not(router-outlet) {
      min-width: 0;
      min-height: 0;
    }
    .trouble {
      background: var(--brass-soft);
      margin: 0;
      padding: 6px 12px;
    }
    .failed {
      padding: 40px;
      max-width: 60ch;
    }
    @media (max-width: 900px) {
      .frame {
        grid-template-columns: minmax(0, 1fr);
        grid-template-rows: auto minmax(0, 1fr);
      }
    }
  `,
})
export class Root {
  protected readonly setup = inject(Setup);
  protected readonly repository = inject(FactRepository);
  private readonly database = inject(Database);
  /** What is wrong with the record store: with the last filing, or with the store itself. */
  protected readonly trouble = computed(() => {
    const t = this.repository.trouble() ?? this.database.trouble();
    return t && troubleSentence(t);
  });
  protected readonly fetching = inject(Fetching);
  protected readonly commands = inject(Commands);
  private readonly fileInput = viewChild.required<ElementRef<HTMLInputElement>>('file');

  constructor() {
    void this.setup.start();
    effect(() => {
      if (this.commands.importAsked() > 0) this.fileInput().nativeElement.click();
    });
  }

  protected again(): void {
    void this.fetching.again();
  }

  protected start(): void {
    void this.setup.start();
  }

  protected press(e: KeyboardEvent): void {
    if (this.commands.overlay() !== undefined) return;
    const command = commandFor(e, this.commands.list());
    if (!command) return;
    e.preventDefault();
    command.run();
  }

  protected picked(input: HTMLInputElement): void {
    const file = input.files?.[0];
    input.value = '';
    if (file) void this.commands.openFile(file);
  }
}
