import { inject, Injectable } from '@angular/core';
import { meaningOf, slotKey } from '@core/facts/meaning';
import { isPractice } from '@core/facts/practice';
import { Clock } from './clock';
import { Database } from './database';

/** What is half-typed on the fact line, which is no field. */
export const FACT_LINE = 'fact-line';

/** A text and when it was typed; an empty one says that it was cleared. */
export type Draft = { text: string; at: string };

/**
 * Half-typed text, so that closing, reloading, crashing or killing the window loses nothing. Every key goes into the
 * browser's small store at once, which a reload finds again, and onto the disk as soon as the write before is done, which a
 * kill cannot take back: there is no pause in which the last key could be lost. The later of the two counts. Where both are forbidden, text lives as long as the window does.
 */
@Injectable({ providedIn: 'root' })
export class Drafts {
  private readonly database = inject(Database);
  private readonly clock = inject(Clock);
  private readonly drafts = new Map<string, Draft>();
  private readonly waiting = new Set<string>();
  private writing: Promise<void> | undefined;

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
    return Object.fromEntries(
      [...this.drafts].flatMap(([id, d]) => (d.text === '' || isPractice(id) ? [] : [[id, d.text]])),
    );
  }

  /** Half-typed text of another desk, or of this one before; what is half-typed here already stays. */
  bringBack(texts: Readonly<Record<string, string>>): void {
    for (const [id, text] of Object.entries(texts)) {
      const at = id.indexOf(':');
      if (at > 0 && (this.drafts.get(id)?.text ?? '') === '')
        this.keep(id.slice(0, at), id.slice(at + 1), text);
    }
  }

  keep(caseId: string, key: string, text: string): void {
    const id = name(caseId, key);
    if ((this.drafts.get(id)?.text ?? '') === text) return;
    const draft = { text, at: this.clock.now() };
    this.drafts.set(id, draft);
    // of a return for practice it lives as long as the window does: nothing of one lies among the records
    if (isPractice(caseId)) return;
    smallStore.put(id, draft);
    this.waiting.add(id);
    void this.write();
  }

  /** Puts what is waiting on the disk; what comes meanwhile goes with the next write, which begins at once. */
  write(): Promise<void> {
    this.writing ??= this.writeAll().finally(() => (this.writing = undefined));
    return this.writing;
  }

  private async writeAll(): Promise<void> {
    while (this.waiting.size > 0) {
      const ids = [...this.waiting];
      this.waiting.clear();
      try {
        const db = await this.database.open();
        const tx = db.transaction('drafts', 'readwrite', { durability: 'strict' });
        tx.done.catch(() => undefined);
        for (const id of ids) {
          const d = this.drafts.get(id);
          void (d === undefined ? tx.store.delete(id) : tx.store.put(d, id)).catch(() => undefined);
        }
        await tx.done;
      } catch {
        // Filing tells what is wrong with the store; the text itself is still in its field, and goes with the next key.
        for (const id of ids) this.waiting.add(id);
        return;
      }
    }
  }

  /** The later one counts. Earlier makes kept the bare text, which is older than any with a time. */
  private hold(found: string, kept: Draft | string | undefined): void {
    const [id, d] = typeof kept === 'string' ? [todaysName(found), { text: kept, at: '' }] : [found, kept];
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

/** Earlier makes named a field by its key alone, where now its thing stands before it. */
function todaysName(id: string): string {
  const at = id.indexOf(':');
  const key = id.slice(at + 1);
  return key === FACT_LINE || key.includes('|') ? id : name(id.slice(0, at), slotKey(meaningOf({ key })));
}

const PREFIX = 'hs-draft:';

/** The browser's small store, which may be forbidden or full: then it holds nothing, and nothing else stops. */
const smallStore = {
  put(id: string, d: Draft): void {
    attempt(() => localStorage.setItem(PREFIX + id, JSON.stringify(d)));
  },
  drop(id: string): void {
    attempt(() => localStorage.removeItem(PREFIX + id));
  },
  all(): [string, Draft | string][] {
    const out: [string, Draft | string][] = [];
    attempt(() => {
      for (const key of Object.keys(localStorage))
        if (key.startsWith(PREFIX)) out.push([key.slice(PREFIX.length), keptAs(localStorage.getItem(key))]);
    });
    return out;
  },
};

/** A draft with its time, or the bare text of an earlier make, which may look like anything. */
function keptAs(raw: string | null): Draft | string {
  let read: unknown;
  attempt(() => (read = JSON.parse(raw ?? '') as unknown));
  const d = read as Partial<Draft> | null | undefined;
  return typeof d === 'object' && typeof d?.text === 'string' && typeof d.at === 'string'
    ? { text: d.text, at: d.at }
    : (raw ?? '');
}

function attempt(job: () => void): void {
  try {
    job();
  } catch {
    // Forbidden, full or written by an earlier make: the disk has its own copy.
  }
}
