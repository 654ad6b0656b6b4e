import { computed, inject, Injectable, signal } from '@angular/core';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { readPackJson } from '@core/catalogue/read-pack';
import { ChangesSchema } from '@core/cause/changes';
import { canonical } from '@core/facts/canonical';
import type { ShelfError } from '@core/shelf/exchange';
import type { HouseOffer } from '@core/shelf/protocol';
import { err, ok, type Result } from '@core/quantity/result';
import { Clock } from '../data/clock';
import { Database } from '../data/database';
import { DeskSettingsStore } from '../data/desk-settings';
import { FactRepository } from '../data/fact-repository';
import { OwnNumbers } from '../data/own-numbers';
import { Packs } from '../data/packs';
import { hashOf } from '../records/hash';
import { getPack } from '../records/pack-records';
import type { HttpShelf } from './http-shelf';

/** What a house judges by, as a file on the shelf. */
const RulesSchema = z.strictObject({
  format: z.literal('hollow-sprocket-rules'),
  formatVersion: z.literal(1),
  chosen: z.record(z.string().max(80), z.string().max(80)),
  numbers: ChangesSchema,
});
/** Where catalogues and rules of the house lie, each by its file. */
export type OfferPlace = Pick<HttpShelf, 'offers' | 'offer' | 'file' | 'putFile'>;
export type OfferError = ShelfError | { code: 'no_such_thing' } | { code: 'cannot_be_read' };

/** Catalogues and rules of the house on the shelf: put there by one desk as a version, taken by another when it wants to. Nothing of it changes a desk by itself. */
@Injectable({ providedIn: 'root' })
export class HouseOffers {
  private readonly repository = inject(FactRepository);
  private readonly database = inject(Database);
  private readonly settings = inject(DeskSettingsStore);
  private readonly numbers = inject(OwnNumbers);
  private readonly packs = inject(Packs);
  private readonly clock = inject(Clock);
  private readonly all = signal<readonly (HouseOffer & { desk: string })[]>([]);
  /** Digest of what this desk judges by, as it was last looked at. */
  private readonly mine = signal('');
  /** Catalogues that are on the shelf and not here. */
  readonly catalogues = computed(() => {
    const here = new Set(this.packs.names().map((p) => p.id));
    return this.all().filter((o) => o.kind === 'catalogue' && !here.has(o.name));
  });
  /** Catalogues that are here and not on the shelf. */
  readonly ownCatalogues = computed(() => {
    const there = new Set(this.all().flatMap((o) => (o.kind === 'catalogue' ? [o.name] : [])));
    return this.packs.names().filter((p) => !there.has(p.id));
  });
  /** Versions of the rules, the last one first. */
  readonly rules = computed(() =>
    this.all()
      .filter((o) => o.kind === 'rules')
      .reverse(),
  );
  /** Whether this desk judges by a version. */
  isMine(o: HouseOffer): boolean {
    return o.sha256 === this.mine();
  }

  async look(shelf: OfferPlace): Promise<void> {
    const came = await shelf.offers();
    if (came.ok) this.all.set(came.value.offers);
    this.mine.set(await hashOf(bytesOf(await this.rulesText())));
  }

  async putCatalogue(shelf: OfferPlace, id: string): Promise<Result<true, OfferError>> {
    const pack = await this.database.read((db) => getPack(db, id));
    return pack ? this.put(shelf, 'catalogue', id, JSON.stringify(pack)) : err({ code: 'no_such_thing' });
  }

  /** @param name under which the version stands */
  async putRules(shelf: OfferPlace, name: string): Promise<Result<true, OfferError>> {
    return this.put(shelf, 'rules', name, await this.rulesText());
  }

  /** Takes a version or a catalogue in: from then on this desk judges, or answers, by it. */
  async take(shelf: OfferPlace, o: HouseOffer): Promise<Result<true, OfferError>> {
    const file = await shelf.file(o.sha256);
    if (!file.ok) return file;
    if ((await hashOf(file.value)) !== o.sha256) return err({ code: 'cannot_be_read' });
    const text = new TextDecoder().decode(file.value);
    const taken = o.kind === 'catalogue' ? await this.takeCatalogue(text) : await this.takeRules(text);
    if (taken) await this.look(shelf);
    return taken ? ok(true) : err({ code: 'cannot_be_read' });
  }

  private async takeCatalogue(text: string): Promise<boolean> {
    const { pack } = readPackJson(text);
    return pack !== undefined && (await this.repository.add({ packs: [pack] })).ok;
  }

  private async takeRules(text: string): Promise<boolean> {
    let rules: z.infer<typeof RulesSchema>;
    try {
      rules = RulesSchema.parse(JSON.parse(text));
    } catch {
      return false;
    }
    if (!(await this.numbers.keep(rules.numbers)).ok) return false;
    this.settings.change({ chosen: rules.chosen });
    return true;
  }

  private async put(
    shelf: OfferPlace,
    kind: HouseOffer['kind'],
    name: string,
    text: string,
  ): Promise<Result<true, OfferError>> {
    const bytes = bytesOf(text);
    const sha256 = await hashOf(bytes);
    const kept = await shelf.putFile(sha256, bytes);
    if (!kept.ok) return kept;
    const done = await shelf.offer({ kind, name, sha256, at: this.clock.now() });
    if (done.ok) await this.look(shelf);
    return done;
  }

  private async rulesText(): Promise<string> {
    await this.numbers.ready();
    return canonical({
      format: 'hollow-sprocket-rules',
      formatVersion: 1,
      chosen: this.settings.settings().chosen,
      numbers: this.numbers.changes(),
    });
  }
}

const bytesOf = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);
