import { inject, Injectable } from '@angular/core';
import { Clock } from './clock';
import { Database } from './database';

/** Milliseconds after the last key at which half-typed text is on the disk's way. */
const PAUSE_MS = 250;

/** A text and when it was typed; an empty one says that it was cleared. */
export type Draft = { text: string; at: string };

/**
 * Half-typed text, so that closing, reloading, crashing or killing the window loses nothing. Every key goes into the
 * browser's small store at once, which a reload finds again, and after a pause onto the disk, which a kill cannot take
 * back. The later of the two counts. Where both are forbidden, text lives as long as the window does.
 */
@Injectable({ providedIn: 'root' })
export class Drafts {
  private readonly database = inject(Database);
  private readonly clock = inject(Clock);
  private readonly drafts = new Map<string, Draft>();
  private readonly waiting = new Set<string>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Reads all of it once, before the first field is shown. */
  async load(): Promise<void> {
    for (const [id, d] of smallStore.all()) this.hold(id, d);
    const db = await this.database.open();
    const [keys, values] = await Promise.all([db.getAllKeys('drafts'), db.getAll('drafts')]);
    keys.forEach((id, i) => this.hold(id, values[i]));
    for (const [id, d] of this.drafts) if (d.text === '') this.forget(id);
    void this.write();
  }

  read(caseId: string, key: string): string {
    return this.drafts.get(name(caseId, key))?.text ?? '';
  }

  /** All half-typed text, by case and field. */
  all(): Record<string, string> {
    return Object.fromEntries([...this.drafts].flatMap(([id, d]) => (d.text === '' ? [] : [[id, d.text]])));
  }

  keep(caseId: string, key: string, text: string): void {
    const id = name(caseId, key);
    if ((this.drafts.get(id)?.text ?? '') === text) return;
    const draft = { text, at: this.clock.now() };
    this.drafts.set(id, draft);
    smallStore.put(id, draft);
    this.waiting.add(id);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.write(), PAUSE_MS);
  }

  /** Puts what is waiting on the disk now. */
  async write(): Promise<void> {
    clearTimeout(this.timer);
    const ids = [...this.waiting];
    if (ids.length === 0) return;
    this.waiting.clear();
    try {
      const db = await this.database.open();
      const tx = db.transaction('drafts', 'readwrite', { durability: 'strict' });
      tx.done.catch(() => undefined);
      for (const id of ids) {
        const d = this.drafts.get(id);
        await (d === undefined ? tx.store.delete(id) : tx.store.put(d, id));
      }
      await tx.done;
    } catch {
      // Filing tells what is wrong with the store; the text itself is still in its field.
      for (const id of ids) this.waiting.add(id);
    }
  }

  private hold(id: string, d: Draft | undefined): void {
    if (typeof d?.text !== 'string' || typeof d.at !== 'string') return;
    const mine = this.drafts.get(id);
    if (!mine || mine.at < d.at) this.drafts.set(id, d);
  }

  private forget(id: string): void {
    this.drafts.delete(id);
    smallStore.drop(id);
    this.waiting.add(id);
  }
}

const name = (caseId: string, key: string) => `${caseId}:${key}`;

const PREFIX = 'hs-draft:';

/** The browser's small store, which may be forbidden or full: then it holds nothing, and nothing else stops. */
const smallStore = {
  put(id: string, d: Draft): void {
    attempt(() => localStorage.setItem(PREFIX + id, JSON.stringify(d)));
  },
  drop(id: string): void {
    attempt(() => localStorage.removeItem(PREFIX + id));
  },
  all(): [string, Draft][] {
    const out: [string, Draft][] = [];
    attempt(() => {
      for (const key of Object.keys(localStorage)) {
        if (!key.startsWith(PREFIX)) continue;
        attempt(() =>
          out.push([key.slice(PREFIX.length), JSON.parse(localStorage.getItem(key) ?? '') as Draft]),
        );
      }
    });
    return out;
  },
};

function attempt(job: () => void): void {
  try {
    job();
  } catch {
    // Forbidden, full or written by an earlier make: the disk has its own copy.
  }
}
