import { counted } from '../language/plural';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  Injector,
  viewChild,
} from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { Commands, type OpenDialog } from '../commands/commands';
import { Database } from '../data/database';
import { FactRepository } from '../data/fact-repository';
import { Fetching } from '../commands/fetching';
import { Setup } from '../commands/setup';
import { SHELF_LINK } from '../data/shelf-link';
import { type StoreTrouble, troubleSentence } from '../data/store-trouble';
import { commandFor } from './keyboard';
import { StateCard } from '../ui/state';
import { AlteredDialog } from './altered-dialog';
import { GlossaryDrawer } from './glossary-drawer';
import { LabelsDialog } from './labels-dialog';
import { ScanDialog } from './scan-dialog';
import { SettingsDialog } from './settings-dialog';
import { PolicyDialog } from './policy-dialog';
import { KeysDialog } from './keys-dialog';
import { Palette } from './palette';
import { ProgramUpdate } from '../offline/program-update';
import { UpdateStrip } from '../offline/update-strip';
import { TourStrip } from '../tours/tour-strip';
import { Rack } from './rack';

/** Troubles that leave the desk to be read only. */
const READ_ONLY: ReadonlySet<StoreTrouble['code']> = new Set(['newer', 'forbidden']);

/** The frame: rack on the left, what is in hand on the right, dialogs above. */
@Component({
  selector: 'hs-root',
  imports: [
    RouterOutlet,
    NzButtonComponent,
    Rack,
    TourStrip,
    UpdateStrip,
    Palette,
    KeysDialog,
    SettingsDialog,
    PolicyDialog,
    AlteredDialog,
    GlossaryDrawer,
    LabelsDialog,
    ScanDialog,
    StateCard,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  // a page's own keys are heard on the document, before these: what a page takes is not meant for the desk
  host: { '(window:keydown)': 'press($event)' },
  template: `
    @if (trouble(); as t) {
      <hs-state [kind]="t.kind" [title]="t.words" [urgent]="true">
        <div class="row">
          <button nz-button (click)="commands.exportDesk()">Everything as one file</button>
          @if (repository.trouble()) {
            <button nz-button (click)="repository.trouble.set(undefined)">Read</button>
          }
        </div>
      </hs-state>
    }
    @if (fetching.missing()) {
      <hs-state
        kind="offline"
        title="This part of the program could not be fetched: the server does not answer."
        [urgent]="true"
      >
        <div class="row">
          Start it again (npm start), then go on; everything filed is kept.
          <button nz-button (click)="again()">Try again</button>
        </div>
      </hs-state>
    }
    @if (repository.damaged().length; as n) {
      <hs-state
        kind="failed"
        [title]="counted(n, 'record is', 'records are') + ' damaged and set aside; the rest works.'"
      >
        <button nz-button (click)="commands.exportDamaged()">Take out as JSON</button>
      </hs-state>
    }
    @if (setup.failure(); as f) {
      <main class="failed">
        <hs-state kind="failed" title="The desk could not be opened" [urgent]="true">
          <p>{{ f }}</p>
          <button nz-button nzType="primary" (click)="start()">Try again</button>
        </hs-state>
      </main>
    } @else if (setup.ready()) {
      <div class="frame" [class.under]="commands.tour() !== undefined || newer()">
        @if (commands.tour() !== undefined || newer()) {
          <div class="over">
            @defer (when newer()) {
              <hs-update-strip />
            }
            @defer (when commands.tour() !== undefined) {
              <hs-tour-strip />
            }
          </div>
        }
        <button nz-button class="skip" (click)="toWork()">To the work</button>
        <hs-rack />
        <router-outlet />
      </div>
      @defer (when asked('palette')) {
        <hs-palette />
      }
      @defer (when asked('keys')) {
        <hs-keys-dialog />
      }
      @defer (when asked('settings')) {
        <hs-settings-dialog />
      }
      @defer (when asked('policy')) {
        <hs-rules-dialog />
      }
      @defer (when asked('labels')) {
        <hs-labels-dialog />
      }
      @defer (when asked('scan')) {
        <hs-scan-dialog />
      }
      @defer (when asked('glossary')) {
        <hs-glossary-drawer />
      }
      @defer (when commands.filesUsed()) {
        <hs-altered-dialog />
      }
    } @else {
      <hs-state kind="loading" title="Opening the desk…" />
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
      grid-template-columns: auto minmax(0, 1fr);
      height: 100dvh;
    }
    .frame > ::ng-deep :not(hs-rack):not(router-outlet) {
      min-width: 0;
      min-height: 0;
    }
    .frame.under {
      grid-template-rows: auto minmax(0, 1fr);
    }
    /* For the tabulator: a rack has many cases. */
    .skip {
      position: absolute;
      z-index: 5;
      top: 4px;
      left: 4px;
    }
    .skip:not(:focus) {
      width: 1px;
      height: 1px;
      overflow: hidden;
      padding: 0;
      clip-path: inset(50%);
    }
    .over {
      grid-column: 1 / -1;
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
      .frame.under {
        grid-template-rows: auto auto minmax(0, 1fr);
      }
    }
  `,
})
export class Root {
  protected readonly counted = counted;
  protected readonly setup = inject(Setup);
  protected readonly repository = inject(FactRepository);
  private readonly database = inject(Database);
  /** What is wrong with the record store: with the last filing, or with the store itself. */
  protected readonly trouble = computed(() => {
    const t = this.repository.trouble() ?? this.database.trouble();
    // Where nothing can be filed any more the desk is read-only; else it failed once and may be tried again.
    return (
      t && {
        kind: READ_ONLY.has(t.code) ? ('read_only' as const) : ('failed' as const),
        words: troubleSentence(t),
      }
    );
  });
  private readonly injector = inject(Injector);
  private readonly update = inject(ProgramUpdate);
  protected readonly newer = computed(() => this.update.waiting() || this.update.broken());
  protected readonly fetching = inject(Fetching);
  protected readonly commands = inject(Commands);
  private readonly fileInput = viewChild.required<ElementRef<HTMLInputElement>>('file');

  constructor() {
    void this.setup.start();
    effect(() => {
      if (this.commands.importAsked() > 0) this.fileInput().nativeElement.click();
    });
    effect(() => {
      if (!this.setup.ready()) return;
      if (cameFromSystem()) void this.takeIn();
      void this.join();
    });
  }

  /** Goes on with the shelf that this browser is joined to; without one nothing of it is fetched. */
  private async join(): Promise<void> {
    if (!(await this.repository.setting(SHELF_LINK))) return;
    const { ShelfLinkage } = await import('../shelves/shelf-linkage');
    await this.injector.get(ShelfLinkage).start();
  }

  /** Files that the system opened with this program, and what was shared with it. */
  private async takeIn(): Promise<void> {
    const { FromSystem } = await import('../offline/from-system');
    await this.injector.get(FromSystem).start();
  }

  /** Past the rack, to what the page in hand is about. */
  protected toWork(): void {
    const main = document.querySelector('main');
    if (!main) return;
    main.tabIndex = -1;
    main.focus();
  }

  protected again(): void {
    void this.fetching.again();
  }

  protected start(): void {
    void this.setup.start();
  }

  /** True from the first time that something over the desk is asked for: it is fetched then, and kept. */
  protected asked(overlay: OpenDialog): boolean {
    return this.commands.overlay() === overlay;
  }

  protected press(e: KeyboardEvent): void {
    const overlay = this.commands.overlay();
    if (overlay === 'palette') this.typeAhead(e);
    if (overlay !== undefined || e.defaultPrevented) return;
    const command = commandFor(e, this.commands.list());
    if (!command) return;
    e.preventDefault();
    command.run();
  }

  /** Quick hands type before the list by name is there, or while its dialog has the focus itself: it gets their keys when it opens. */
  private typeAhead(e: KeyboardEvent): void {
    if (e.target instanceof HTMLElement && e.target.closest('.cdk-overlay-container input')) return;
    const typed = e.key === 'Enter' ? '\n' : e.key;
    if (typed.length !== 1 || e.ctrlKey || e.metaKey) return;
    e.preventDefault();
    this.commands.typedAhead.update((t) => t + typed);
  }

  protected picked(input: HTMLInputElement): void {
    const file = input.files?.[0];
    input.value = '';
    if (file) void this.commands.openFile(file);
  }
}

/** Only as a program of its own, or when something was shared: else nothing of it is fetched. */
const cameFromSystem = (): boolean =>
  matchMedia('(display-mode: standalone)').matches || new URLSearchParams(location.search).has('shared-in');
