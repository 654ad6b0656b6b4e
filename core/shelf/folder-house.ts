import type * as z from 'zod';
import { ok, type Result } from '@core/quantity/result';
import { LogName } from './entry';
import type { ShelfError } from './exchange';
import { type FolderFiles, inFolder } from './folder-shelf';
import { FolderHereSchema, FolderOfferSchema, type HouseOffer, type Presence } from './protocol';

const OFFERS = 'offers';
const HERE = 'here';
const LINES = '.jsonl';
const ONE = '.json';
/** A desk that has not stirred for so long, by the clock of whoever looks, is in its case no more, ms. */
export const GONE_MS = 120_000;

type Heard = { said: z.infer<typeof FolderHereSchema>; at: number };

/** The desk that writes: its log, and how it is called. */
export type FolderDesk = { readonly log: string; readonly name: () => string };

/**
 * What a shelf in a folder has beside facts: catalogues and rules that desks put there (`offers/<log>.jsonl`, a line each), and who is in which case
 * (`here/<log>.json`). Each desk writes its own two files and no others.
 */
export class FolderHouse {
  /** What each desk said last, and when that was seen to change: the clocks of other machines are not asked. */
  private readonly heard = new Map<string, Heard>();

  constructor(
    private readonly folder: FolderFiles,
    private readonly me: FolderDesk,
  ) {}

  /** The newest offer of each kind and name, the newest last, each by the name of its desk. What is no offer, or not yet, is left. */
  offers(): Promise<Result<{ offers: (HouseOffer & { desk: string })[] }, ShelfError>> {
    return inFolder(async () => {
      const found: (HouseOffer & { desk: string })[] = [];
      for (const { name } of await this.folder.files(OFFERS)) {
        if (!name.endsWith(LINES)) continue;
        for (const line of ((await this.folder.read(`${OFFERS}/${name}`)) ?? '').split('\n')) {
          const offer = read(FolderOfferSchema, line);
          if (offer) found.push(plain(offer));
        }
      }
      found.sort((a, b) => compare(a.at, b.at) || compare(a.sha256, b.sha256));
      const newest = new Map(found.map((o) => [`${o.kind} ${o.name}`, o]));
      return ok({ offers: found.filter((o) => newest.get(`${o.kind} ${o.name}`) === o) });
    });
  }

  /** Puts an offer behind those of this desk; its file has to be there. One at a time: the desk's file is written anew. */
  offer(o: HouseOffer): Promise<Result<true, ShelfError>> {
    return inFolder(async () => {
      const path = `${OFFERS}/${this.me.log}${LINES}`;
      const lines = ((await this.folder.read(path)) ?? '').split('\n');
      const kept = lines.filter((l) => read(FolderOfferSchema, l) !== undefined);
      const line = JSON.stringify({ ...o, by: this.me.name() });
      await this.folder.write(path, [...kept.filter((l) => l !== line), line, ''].join('\n'));
      return ok(true);
    });
  }

  /** Says in which case this desk is. @param beat anything that it has not said before: it stirs by that */
  isIn(caseId: string | null, beat: string): Promise<Result<true, ShelfError>> {
    return inFolder(async () => {
      const said = { name: this.me.name(), case: caseId, beat };
      await this.folder.write(`${HERE}/${this.me.log}${ONE}`, JSON.stringify(said));
      return ok(true);
    });
  }

  /** Which other desks are in a case: those that stirred since this one looks, and not too long ago. @param now ms, of a clock that only goes forward */
  others(now: number): Promise<Result<Presence[], ShelfError>> {
    return inFolder(async () => {
      const here: Presence[] = [];
      for (const { name } of await this.folder.files(HERE)) {
        const desk = name.slice(0, -ONE.length);
        // a carrier's copy of a conflict is no desk
        if (!name.endsWith(ONE) || !LogName.safeParse(desk).success || desk === this.me.log) continue;
        const heard = this.hear(desk, (await this.folder.read(`${HERE}/${name}`)) ?? '', now);
        if (heard && heard.said.case !== null && now - heard.at < GONE_MS)
          here.push({ desk, name: heard.said.name, case: heard.said.case });
      }
      return ok(here);
    });
  }

  /** Takes note of what a desk says now; half-written, what it said before holds until it is whole. */
  private hear(desk: string, text: string, now: number): Heard | undefined {
    const before = this.heard.get(desk);
    const said = read(FolderHereSchema, text);
    if (!said) return before;
    // what lay there when this desk came may be of last week
    const at = before === undefined ? -Infinity : before.said.beat === said.beat ? before.at : now;
    const heard = { said, at };
    this.heard.set(desk, heard);
    return heard;
  }
}

const plain = ({ by, ...o }: z.infer<typeof FolderOfferSchema>) => ({ ...o, desk: by });
const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

function read<T>(schema: z.ZodType<T>, text: string): T | undefined {
  if (text.trim() === '') return undefined;
  try {
    return schema.parse(JSON.parse(text));
  } catch {
    return undefined;
  }
}
