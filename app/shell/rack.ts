import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { Commands } from '../commands/commands';
import { Cases } from '../data/cases';
import { RecordWork, type Work } from '../data/record-work';
import { DeskSettingsStore } from '../data/desk-settings';
import { RackFilter } from './rack-filter';
import { RackList } from './rack-list';
import { RackNotes } from './rack-notes';
import { RackTag } from './rack-tag';

/** So many tags are simply there; more are drawn as far as they are in sight, by code of their own. */
const FEW = 100;

/** Open cases as tags, newest on top. Finds by anything in any fact. */
@Component({
  selector: 'hs-rack',
  imports: [RouterLink, NzButtonComponent, RackFilter, RackList, RackNotes, RackTag],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.rail]': 'rail()' },
  template: `
    <nav aria-label="Rack of cases">
      <div class="top">
        <a class="brand" routerLink="/" title="Start page"
          ><img src="icon.svg" alt="" width="22" height="22" /> <span class="word">Hollow Sprocket</span></a
        >
        <button
          nz-button
          nzType="text"
          class="fold"
          [attr.aria-expanded]="!rail()"
          [attr.aria-label]="rail() ? 'Open the rack' : 'Narrow the rack'"
          title="Key ["
          (click)="settings.flip('rack')"
        >
          {{ rail() ? '»' : '«' }}
        </button>
        <div class="row buttons">
          <button
            nz-button
            nzType="primary"
            class="new"
            (click)="create()"
            title="New case, key n"
            aria-label="New case"
          >
            {{ rail() ? '+' : 'New case' }}
          </button>
          <button
            nz-button
            class="word"
            (click)="commands.overlay.set('palette')"
            title="Ctrl+K"
            aria-label="Find by name, Ctrl+K"
          >
            Find
          </button>
        </div>
        <div class="filter word">
          @defer (on idle) {
            <hs-rack-filter (typed)="typed.set($event)" />
          }
        </div>
      </div>
      @for (w of work.going().values(); track $index) {
        <p class="quiet">
          <span role="status">{{ w.what }}{{ far(w) }}</span>
          <button nz-button nzType="text" nzSize="small" (click)="w.stop()">Stop</button>
        </p>
      }
      @if (found().length) {
        @defer (when many()) {
          <hs-rack-list class="tags" [tags]="found()" [rail]="rail()" [narrow]="narrow()" />
        } @placeholder {
          <div class="tags">
            @for (h of first(); track h.id) {
              <hs-rack-tag [of]="h" [rail]="rail()" [narrow]="narrow()" />
            }
          </div>
        }
      } @else {
        <p class="empty">
          {{
            typed() ? 'No case holds that.' : 'No cases yet. Press n for a new one, o to open a case file.'
          }}
        </p>
      }
      @if (typed()) {
        <p class="quiet" role="status">{{ found().length }} of {{ cases.summaries().length }} cases</p>
      }
      @defer (on idle) {
        <hs-rack-notes />
      }
      <div class="foot">
        <a nz-button nzType="text" class="word" routerLink="/catalogue">Catalogue</a>
        <a nz-button nzType="text" class="word" routerLink="/ledger">Ledger</a>
        <a nz-button nzType="text" class="word" routerLink="/patterns">Patterns</a>
        <a nz-button nzType="text" class="word" routerLink="/drive">Drives</a>
        <a nz-button nzType="text" class="word" routerLink="/practice">Practice</a>
        <button nz-button nzType="text" class="word" (click)="commands.overlay.set('settings')">
          Settings
        </button>
        <button nz-button nzType="text" class="word" (click)="commands.overlay.set('keys')">Keys</button>
      </div>
    </nav>
  `,
  styleUrl: './rack.less',
})
export class Rack {
  protected readonly cases = inject(Cases);
  protected readonly work = inject(RecordWork);
  /** How far a piece of work is. */
  protected readonly far = ({ done, of }: Work): string =>
    done === undefined ? ' …' : of === undefined ? `: ${done} done` : `: ${done} of ${of}`;
  protected readonly commands = inject(Commands);
  protected readonly settings = inject(DeskSettingsStore);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly typed = signal('');
  protected readonly found = computed(() => this.cases.find(this.typed()));
  protected readonly many = computed(() => this.found().length > FEW);
  protected readonly first = computed(() => this.found().slice(0, FEW));
  private readonly query = matchMedia('(max-width: 900px)');
  protected readonly narrow = signal(this.query.matches);

  constructor() {
    const change = () => this.narrow.set(this.query.matches);
    this.query.addEventListener('change', change);
    inject(DestroyRef).onDestroy(() => this.query.removeEventListener('change', change));
    // The case in hand stays in sight, however it was opened.
    afterRenderEffect(() => {
      if (this.cases.currentId() !== undefined)
        this.host.nativeElement.querySelector('.tags [aria-current]')?.scrollIntoView({ block: 'nearest' });
    });
  }

  /** Narrowed to the tags' numbers. In a narrow window the rack lies on top, and is whole. */
  protected readonly rail = computed(() => this.settings.settings().rack === 'rail' && !this.narrow());

  protected create(): void {
    void this.commands.newCase();
  }
}
