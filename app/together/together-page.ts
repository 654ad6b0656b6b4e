import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { dayOf, formatDay } from '@core/quantity/dates';
import { keyCode } from '@core/claim/signature';
import type { Result } from '@core/quantity/result';
import type { ShelfError } from '@core/shelf/exchange';
import type { HouseOffer, ShelvedDesk } from '@core/shelf/protocol';
import { Notices } from '../commands/notices';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { DeskSettingsStore } from '../data/desk-settings';
import { ShelfState } from '../data/shelf-state';
import {
  farWords,
  faultWords,
  letGoWords,
  offerErrorWords,
  shelfErrorWords,
  standingLine,
  standingSentence,
} from '../messages/shelf';
import { squareModules } from '../report/square-code';
import { hasShelf } from '../shelves/shelf-requests';
import { isShared } from '../shelves/shelf-records';
import { HouseOffers, type OfferError, type OfferPlace } from '../shelves/house-offers';
import { ShelfLinkage } from '../shelves/shelf-linkage';
import { Pick } from '../ui/pick';

type Chooses = {
  showDirectoryPicker(o: { mode: 'readwrite'; id: string }): Promise<FileSystemDirectoryHandle>;
};

/** The shelf that several desks share: joining it, how this one stands to it, who is let in, what stays here. */
@Component({
  selector: 'hs-together-page',
  imports: [FormsModule, NzButtonComponent, NzInputDirective, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './together-page.html',
  styleUrl: './together-page.less',
})
export class TogetherPage {
  protected readonly together = inject(ShelfLinkage);
  protected readonly state = inject(ShelfState);
  protected readonly offers = inject(HouseOffers);
  private readonly clock = inject(Clock);
  private readonly cases = inject(Cases);
  private readonly settings = inject(DeskSettingsStore);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  /** Of the link that this page was opened by. */
  readonly invitation = input<string>('');
  protected readonly folders = 'showDirectoryPicker' in window;
  protected readonly onlyHere = ['localhost', '127.0.0.1', '[::1]'].includes(location.hostname);
  protected readonly served = signal(false);
  protected readonly name = signal('');
  protected readonly code = signal('');
  protected readonly busy = signal(false);
  protected readonly desks = signal<readonly ShelvedDesk[]>([]);
  protected readonly me = signal('');
  protected readonly renaming = signal<string | undefined>(undefined);
  protected readonly invited = signal<{ link: string; side: number; dark: string } | undefined>(undefined);
  protected readonly says = computed(() => standingSentence(this.state.standing()));
  protected readonly line = computed(() => standingLine(this.state.standing(), this.state.waiting()));
  protected readonly steward = computed(() => this.desks().some((d) => d.id === this.me() && d.steward));
  protected readonly keptCases = computed(() =>
    this.cases.summaries().filter((h) => this.together.kept().has(h.id)),
  );
  protected readonly own = computed(() =>
    this.cases
      .summaries()
      .filter((h) => isShared(h.id) && !this.together.kept().has(h.id))
      .map((h) => ({ key: h.id, wording: `${h.tag} ${h.engine} ${h.who}` })),
  );

  constructor() {
    this.cases.putBack();
    void hasShelf().then((has) => this.served.set(has));
    effect(() => {
      this.code.set(this.invitation() || '');
      this.name.set(untracked(this.settings.settings).by);
    });
    // who is let in may change with whatever the shelf says
    effect(() => {
      if (this.together.link() && this.state.standing() && this.state.here())
        untracked(() => void this.look());
    });
  }

  protected async join(): Promise<void> {
    this.busy.set(true);
    const joined = await this.together.join(codeIn(this.code()), this.name().trim() || 'Desk');
    this.busy.set(false);
    if (!joined.ok) return this.refuse(joined.error);
    await this.router.navigate(['/together'], { replaceUrl: true });
  }

  protected async chooseFolder(): Promise<void> {
    try {
      const choose = window as unknown as Chooses;
      await this.together.joinFolder(await choose.showDirectoryPicker({ mode: 'readwrite', id: 'shelf' }));
    } catch (e) {
      if (e instanceof DOMException && e.name === 'AbortError') return;
      this.notices.refuse(`The folder cannot be used: ${e instanceof Error ? e.message : String(e)}.`);
    }
  }

  protected async wake(): Promise<void> {
    await this.together.wake();
  }

  protected readonly faultLine = faultWords;
  /** What is not here whole, in a sentence. */
  protected readonly far = computed(() => farWords(this.together.farCases()));

  protected async letGo(): Promise<void> {
    const gone = await this.together.letGo();
    await this.notices.say('info', letGoWords(gone));
  }

  protected async leave(): Promise<void> {
    await this.together.leave();
    this.desks.set([]);
    this.invited.set(undefined);
  }

  protected async invite(): Promise<void> {
    const made = await this.together.server()?.invite();
    if (!made) return;
    if (!made.ok) return this.refuse(made.error);
    const link = `${location.origin}/together?invitation=${made.value}`;
    this.invited.set({ link, ...squareModules(link) });
  }

  protected async rename(id: string, name: string): Promise<void> {
    this.renaming.set(undefined);
    if (name.trim() !== '') await this.change(id, { name: name.trim() });
  }

  protected async change(id: string, change: { name?: string; out?: boolean }): Promise<void> {
    const done = await this.together.server()?.change(id, change);
    if (done && !done.ok) this.refuse(done.error);
    await this.look();
  }

  protected readonly ownRulesThere = computed(() => this.offers.rules().some((o) => this.offers.isMine(o)));
  protected readonly dayOf = (at: string): string => formatDay(dayOf(at), 'named');

  protected nameOf(desk: string): string {
    return this.desks().find((d) => d.id === desk)?.name ?? desk;
  }

  protected putCatalogue(id: string): Promise<void> {
    return this.withHouse((shelf) => this.offers.putCatalogue(shelf, id));
  }

  /** Under the day on which it is put there. */
  protected putRules(): Promise<void> {
    const name = `${this.settings.settings().by}, ${formatDay(this.clock.today(), 'named')}`;
    return this.withHouse((shelf) => this.offers.putRules(shelf, name));
  }

  protected take(o: HouseOffer): Promise<void> {
    return this.withHouse((shelf) => this.offers.take(shelf, o));
  }

  private async withHouse(job: (shelf: OfferPlace) => Promise<Result<true, OfferError>>): Promise<void> {
    const house = this.together.house();
    const done = house && (await job(house));
    if (done && !done.ok) this.notices.refuse(offerErrorWords(done.error));
  }

  protected keyOf(d: ShelvedDesk): string {
    return keyCode(d.key);
  }

  /** Tag of the case that a desk is in. */
  protected whereIs(desk: string): string | undefined {
    const at = this.state.here().find((h) => h.desk === desk)?.case;
    return this.cases.summaries().find((h) => h.id === at)?.tag;
  }

  private async look(): Promise<void> {
    const house = this.together.house();
    if (house) await this.offers.look(house);
    const came = await this.together.server()?.desks();
    if (!came?.ok) return;
    this.desks.set(came.value.desks);
    this.me.set(came.value.me);
  }

  private refuse(e: ShelfError): void {
    this.notices.refuse(shelfErrorWords(e));
  }
}

/** The invitation itself, of a link or a code that was typed. */
const codeIn = (typed: string): string => /invitation=([0-9a-z]+)/.exec(typed)?.[1] ?? typed.trim();
