import { inject, Injectable } from '@angular/core';
import { Database } from './database';

/** Milliseconds after the last key at which half-typed text is on the disk's way. */
const PAUSE_MS = 250;

/**
 * Half-typed text, kept at every pause so that closing, crashing or killing the window loses nothing. Cleared when it has
 * become a fact. Without a record store it lives as long as the window does.
 */
@Injectable({ providedIn: 'root' })
export class Drafts {
  private readonly database = inject(Database);
  private readonly texts = new Map<string, string>();
  private readonly waiting = new Set<string>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Reads all of it once, before the first field is shown. */
  async load(): Promise<void> {
    const db = await this.database.open();
    const [keys, values] = await Promise.all([db.getAllKeys('drafts'), db.getAll('drafts')]);
    keys.forEach((key, i) => {
      const text = values[i];
      if (typeof text === 'string' && !this.texts.has(key)) this.texts.set(key, text);
    });
  }

  read(caseId: string, key: string): string {
    return this.texts.get(name(caseId, key)) ?? '';
  }

  keep(caseId: string, key: string, text: string): void {
    const id = name(caseId, key);
    if ((this.texts.get(id) ?? '') === text) return;
    if (text === '') this.texts.delete(id);
    else this.texts.set(id, text);
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
      for (const id of ids) {
        const text = this.texts.get(id);
        void (text === undefined ? tx.store.delete(id) : tx.store.put(text, id));
      }
      await tx.done;
    } catch {
      // Filing tells what is wrong with the store; the text itself is still in its field.
      for (const id of ids) this.waiting.add(id);
    }
  }
}

const name = (caseId: string, key: string) => `${caseId}:${key}`;
