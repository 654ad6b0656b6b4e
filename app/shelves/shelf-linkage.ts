import { effect, inject, Injectable, Injector, signal, untracked } from '@angular/core';
import { fromEvent, merge, retry, Subscription, timer } from 'rxjs';
import { isPractice } from '@core/facts/practice';
import { exchange, putThere, type Shelf, type ShelfError } from '@core/shelf/exchange';
import { type FolderFault, FolderShelf } from '@core/shelf/folder-shelf';
import { deskIdOf } from '@core/shelf/protocol';
import type { ShelfStanding } from '@core/shelf/standing';
import { err, ok, type Result } from '@core/quantity/result';
import { Cases } from '../data/cases';
import { Database } from '../data/database';
import { DeskKeys } from '../data/desk-keys';
import { DeskSettingsStore } from '../data/desk-settings';
import { FactRepository } from '../data/fact-repository';
import { Packs } from '../data/packs';
import { SHELF_LINK } from '../data/shelf-link';
import { RecordWork } from '../data/record-work';
import { ShelfState } from '../data/shelf-state';
import { ChosenFolder, permission } from '../records/chosen-folder';
import { roomFor } from '../records/storage-room';
import { HttpShelf } from './http-shelf';
import { LinkSchema, type ShelfLink, standingOnError } from './link-standing';
import { joinShelf, type ShelfSigner } from './shelf-requests';
import { isShared, SHELF_MEMORY, ShelfRecords } from './shelf-records';
import { ExchangeTurns, type Turn } from './exchange-turns';
import { FarCases } from './far-cases';
import { FolderPlace } from './folder-place';
import { FilesOnShelf } from './files-on-shelf';
import { GrownCases } from './grown-cases';
import { KeptCases } from './kept-cases';
import type { OfferPlace } from './house-offers';
import { NumberSign } from './number-sign';

const LOCK = 'hollow-sprocket-shelf';
/** How often a shelf that says nothing is asked, and how soon after a break, ms. */
const ASKED_MS = 30_000;
const FOLDER_MS = 5000;
const AGAIN_MS = 1000;
const LONGEST_MS = 30_000;
/** How often it is asked how much room the browser has left, ms. */
const ROOM_MS = 300_000;
/** Says that this desk is still in its case, ms. */
const HERE_MS = 20_000;

/** Brings this browser and its shelf together, as long as it is joined to one. */
@Injectable({ providedIn: 'root' })
export class ShelfLinkage {
  private readonly database = inject(Database);
  private readonly repository = inject(FactRepository);
  private readonly cases = inject(Cases);
  private readonly packs = inject(Packs);
  private readonly keys = inject(DeskKeys);
  private readonly settings = inject(DeskSettingsStore);
  private readonly state = inject(ShelfState);
  private readonly grew = new GrownCases(
    this.repository,
    this.cases,
    this.packs,
    this.state,
    inject(Injector),
  );
  readonly link = signal<ShelfLink | undefined>(undefined);
  /** Lines in the folder that are no entries, or not yet. */
  readonly faults = signal<readonly FolderFault[]>([]);
  /** Cases of which only the summary is here. */
  readonly farCases = signal(0);
  private readonly staying = new KeptCases(this.repository);
  /** Cases that stay at this desk. */
  readonly kept = this.staying.ids;
  private readonly records = new ShelfRecords(
    () => this.database.open(),
    {
      grown: (cases, facts) => {
        this.grew.grown(cases, facts);
        this.files.wanted(facts);
      },
      aside: (d) => this.repository.setAside(d),
      outdated: (cases) => this.far.isOld(cases),
      went: (cases) => this.far.went(cases),
    },
    this.kept,
  );
  private readonly files = new FilesOnShelf(this.repository, this.database, this.kept);
  private readonly far = new FarCases(
    this.repository,
    this.database,
    this.records,
    inject(RecordWork),
    this.state,
    (facts) => this.files.wanted(facts),
  );
  private shelf:
    | (Shelf & {
        http?: HttpShelf;
        folder?: ChosenFolder;
        place?: FolderPlace;
        faults?(): readonly FolderFault[];
      })
    | undefined;
  private going = new Subscription();
  /** The shelf tells what is new there. */
  private listening = false;
  private lookedAtRoom = -Infinity;
  private readonly turns = new ExchangeTurns((turn) => this.once(turn));

  private readonly sign = new NumberSign(this.repository, this.cases, this.state, this.link);

  constructor() {
    effect(() => {
      const id = this.cases.currentId();
      untracked(() => {
        this.tellWhere(id);
        if (id !== undefined) void this.far.opened(this.shelf?.http, id);
      });
    });
  }

  /** Goes on with the shelf that this browser was joined to, if it was. */
  async start(): Promise<void> {
    await this.keys.load();
    await this.staying.load();
    const link = LinkSchema.safeParse(await this.repository.setting(SHELF_LINK));
    if (link.success) await this.connect(link.data);
  }

  /** Joins the shelf of the server that this page came from. A desk without a key gets one. */
  async join(code: string, name: string): Promise<Result<true, ShelfError>> {
    await this.keys.load();
    if (!this.keys.own()) {
      const made = await this.keys.make(undefined);
      if (!made.ok) return err({ code: 'refused', detail: made.error.code });
    }
    const key = this.keys.own()?.key ?? '';
    const joined = await joinShelf({ code, key, name }, (text) => this.keys.signText(text));
    if (!joined.ok) return joined;
    const { id } = joined.value;
    this.disconnect();
    await this.records.begin(id);
    await this.far.begin(new HttpShelf(this.signer(id)));
    await this.begin({ kind: 'server', desk: id, name });
    return ok(true);
  }

  /** Joins a shelf in a folder that the user chose. */
  async joinFolder(folder: FileSystemDirectoryHandle): Promise<void> {
    await this.keys.load();
    const own = this.keys.own();
    // a log needs a name that no other desk has; where there is a key it is told by it
    const log = own ? deskIdOf(own.key) : crypto.randomUUID();
    this.disconnect();
    await this.records.begin(log);
    await this.begin({ kind: 'folder', name: folder.name, folder });
  }

  /** Asks the browser for the folder again; it wants a hand on a button for that. */
  async wake(): Promise<void> {
    const link = this.link();
    if (link?.kind !== 'folder') return;
    if ((await permission(link.folder, 'requestPermission')) === 'granted') await this.connect(link);
  }

  /** Leaves the shelf: what stands here stays, what stands there too. */
  async leave(): Promise<void> {
    this.disconnect();
    await this.repository.keepSetting(SHELF_LINK, null);
    await this.repository.keepSetting(SHELF_MEMORY, null);
    await this.sign.forget();
    this.link.set(undefined);
    this.state.standing.set({ is: 'none' });
    this.state.waiting.set(0);
  }

  /** Whether a case goes to the shelf. What is there already stays there. */
  async share(caseId: string, shared: boolean): Promise<void> {
    await this.staying.keep(caseId, !shared);
    this.records.grew([caseId]);
    this.kick();
  }

  /** The server's shelf, for its desks and invitations. */
  server(): HttpShelf | undefined {
    return this.shelf?.http;
  }

  /** Where catalogues and rules of the house lie. */
  house(): OfferPlace | undefined {
    return this.shelf?.http ?? this.shelf?.place;
  }

  /** Lets go of cases that stand on the shelf whole, but for the last ones, and of their files. How many cases went. */
  async letGo(): Promise<number> {
    const http = this.shelf?.http;
    if (!http) return 0;
    const { gone, files } = await this.far.letGo(this.cases.currentId());
    if (files.length > 0) await this.files.letGo(http, files);
    if (gone.length > 0) this.repository.tell({ grown: gone, summaries: [], packs: [], extracts: [] });
    this.farCases.set(await this.far.count());
    return gone.length;
  }

  /** Exchanges now. */
  kick(): void {
    this.turns.ask('all');
  }

  private async begin(link: ShelfLink): Promise<void> {
    await this.repository.keepSetting(SHELF_LINK, link);
    await this.connect(link);
  }

  private disconnect(): void {
    this.going.unsubscribe();
    this.going = new Subscription();
    this.shelf = undefined;
    this.listening = false;
    this.state.here.set([]);
  }

  private async connect(link: ShelfLink): Promise<void> {
    this.disconnect();
    const memory = await this.records.memory().catch(() => undefined);
    await this.sign.of(memory?.log);
    this.link.set(link);
    if (link.kind === 'folder' && (await permission(link.folder, 'queryPermission')) !== 'granted') {
      this.state.standing.set({ is: 'asleep' });
      return;
    }
    // a window that was closed may not have put its summaries there
    if (link.kind === 'server') await this.far.resume();
    if (link.kind === 'server') this.listen(new HttpShelf(this.signer(link.desk)), link.desk);
    else {
      const folder = new ChosenFolder(link.folder);
      const me = { log: memory?.log ?? '', name: () => this.settings.settings().by };
      this.shelf = Object.assign(new FolderShelf(folder), { folder, place: new FolderPlace(folder, me) });
      this.going.add(timer(0, FOLDER_MS).subscribe(() => this.kick()));
    }
    this.going.add(timer(0, HERE_MS).subscribe(() => this.tellWhere(this.cases.currentId())));
    this.going.add(
      merge(this.repository.news$, fromEvent(window, 'online'), timer(0, ASKED_MS)).subscribe((news) => {
        if (typeof news === 'object' && 'grown' in news) {
          // a summary that was made may be one that the shelf waits for
          if (news.grown.length === 0 && news.summaries.length === 0) return;
          this.records.grew(news.grown);
          // while the shelf tells its news it needs no asking
          if (this.shelf?.http && this.listening) return this.turns.ask('put');
        }
        this.kick();
      }),
    );
  }

  private listen(http: HttpShelf, desk: string): void {
    this.shelf = Object.assign(http, { http });
    const line$ = http.listen().pipe(
      retry({
        delay: (_e, n) => {
          this.listening = false;
          return timer(Math.min(LONGEST_MS, AGAIN_MS * 2 ** (n - 1)));
        },
        resetOnSuccess: true,
      }),
    );
    this.going.add(
      line$.subscribe((said) => {
        this.listening = true;
        if (said.is === 'new') this.kick();
        else this.state.here.set(said.here.filter((h) => h.desk !== desk));
      }),
    );
  }

  private signer(desk: string): ShelfSigner {
    return { desk, sign: (text) => this.keys.signText(text) };
  }

  private tellWhere(id: string | undefined): void {
    void (this.shelf?.http ?? this.shelf?.place)?.isHere(
      id === undefined || isPractice(id) || !isShared(id) || this.kept().has(id) ? null : id,
    );
  }

  /** Where the browser's room is short, what the shelf has goes from here by itself. */
  private async makeRoom(): Promise<void> {
    const now = performance.now();
    if (now - this.lookedAtRoom < ROOM_MS) return;
    this.lookedAtRoom = now;
    if ((await roomFor(0, navigator.storage)).kind !== 'enough') await this.letGo();
  }

  /** One window of a browser at a time exchanges. */
  private async once(turn: Turn): Promise<void> {
    const { shelf } = this;
    if (!shelf) return;
    await this.repository.written();
    try {
      const bring = turn === 'put' ? putThere : exchange;
      const done = await navigator.locks.request(LOCK, () => bring(this.records, shelf));
      if (this.shelf !== shelf) return;
      // where nothing waited nothing was said either
      if (turn === 'all' || !done.ok || done.value.went > 0)
        this.state.standing.set(done.ok ? standingAfter(shelf.http) : standingOnError(done.error));
      if (done.ok) await this.files.exchange(shelf);
      if (shelf.place) this.state.here.set(await shelf.place.others());
      if (done.ok && shelf.http) {
        await this.far.exchange(shelf.http);
        await this.far.again(shelf.http, this.cases.currentId());
        await this.makeRoom();
      }
    } catch (e) {
      if (this.shelf === shelf)
        this.state.standing.set({ is: 'refused', detail: e instanceof Error ? e.message : String(e) });
    }
    await this.grew.summarise();
    if (this.shelf !== shelf) return;
    this.faults.set(shelf.faults?.() ?? []);
    this.state.waiting.set(await this.records.count());
    this.farCases.set(await this.far.count());
  }
}

/** Together, unless a newer program wrote what this one cannot read. */
const standingAfter = (http: HttpShelf | undefined): ShelfStanding =>
  http && http.unread.size > 0
    ? { is: 'refused', detail: 'a newer program wrote there what this one cannot read' }
    : { is: 'together' };
