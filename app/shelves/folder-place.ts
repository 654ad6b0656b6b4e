import { err, ok, type Result } from '@core/quantity/result';
import type { ShelfError } from '@core/shelf/exchange';
import { type FolderDesk, FolderHouse } from '@core/shelf/folder-house';
import type { HouseOffer, Presence } from '@core/shelf/protocol';
import type { ChosenFolder } from '../records/chosen-folder';
import type { OfferPlace } from './house-offers';

const LOCK = 'hollow-sprocket-offers';

/** What a shelf in a folder has beside facts: catalogues and rules, and who is in which case. */
export class FolderPlace implements OfferPlace {
  private readonly house: FolderHouse;
  private said: string | null | undefined;

  constructor(
    private readonly folder: ChosenFolder,
    me: FolderDesk,
  ) {
    this.house = new FolderHouse(folder, me);
  }

  offers(): ReturnType<FolderHouse['offers']> {
    return this.house.offers();
  }

  /** One after the other, in every window of this browser: each writes the file anew. */
  async offer(o: HouseOffer): Promise<Result<true, ShelfError>> {
    return navigator.locks.request(LOCK, () => this.house.offer(o));
  }

  /** An offer may be carried before its file is. */
  async file(sha256: string): Promise<Result<Uint8Array<ArrayBuffer>, ShelfError>> {
    const blob = await this.folder.byHash(sha256).catch(() => undefined);
    return blob
      ? ok(new Uint8Array(await blob.arrayBuffer()))
      : err({ code: 'away', detail: 'its file was not carried here yet' });
  }

  async putFile(sha256: string, content: Uint8Array<ArrayBuffer>): Promise<Result<true, ShelfError>> {
    try {
      await this.folder.keepByHash(sha256, new Blob([content]));
      return ok(true);
    } catch (e) {
      return err({ code: 'away', detail: e instanceof Error ? e.message : String(e) });
    }
  }

  /** Says in which case this desk is, again and again while it is in one; that it is in none, once. */
  async isHere(caseId: string | null): Promise<void> {
    if (caseId === null && this.said === null) return;
    if ((await this.house.isIn(caseId, crypto.randomUUID())).ok) this.said = caseId;
  }

  /** Which others are in a case; none where the folder is out of reach. */
  async others(): Promise<readonly Presence[]> {
    const there = await this.house.others(performance.now());
    return there.ok ? there.value : [];
  }
}
