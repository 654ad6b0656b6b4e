/** Why the record store did not do what was asked of it. What was typed is still on the screen. */
export type StoreTrouble = {
  code: 'full' | 'closed' | 'newer' | 'blocked' | 'forbidden' | 'failed' | 'unfit';
  detail: string;
};

/** What would be written cannot stand, or cannot be read again: nothing of it is. */
export class Unfit extends Error {}

/** What the browser threw, as a kind of trouble. */
export function troubleOf(e: unknown): StoreTrouble {
  const name = e instanceof DOMException || e instanceof Error ? e.name : '';
  const detail = e instanceof Error ? e.message : String(e);
  if (e instanceof Unfit) return { code: 'unfit', detail };
  if (name === 'QuotaExceededError') return { code: 'full', detail };
  if (name === 'VersionError') return { code: 'newer', detail };
  if (name === 'SecurityError') return { code: 'forbidden', detail };
  if (name === 'InvalidStateError') return { code: 'closed', detail };
  return { code: 'failed', detail };
}

/** What happened to the record store and what to do about it. */
export function troubleSentence(t: StoreTrouble): string {
  switch (t.code) {
    case 'full':
      return 'The browser’s store is full: this was NOT filed. Make room on the disk or export old cases, then file it again; what you typed is still in its field.';
    case 'closed':
      return 'The browser closed the record store: this was NOT filed. It is opened again at the next try; what you typed is still in its field.';
    case 'newer':
      return 'Another window runs a newer version of this program. Reload this one to go on; nothing more can be filed here.';
    case 'blocked':
      return 'Another window holds an older version of the records open. Close it; this one goes on by itself.';
    case 'forbidden':
      return 'This browser forbids the record store (private window or settings): nothing can be filed. Allow site data for this address, then reload.';
    case 'unfit':
      return `This was NOT filed: ${t.detail}. What you typed is still in its field.`;
    case 'failed':
      return `The record store refused: this was NOT filed (${t.detail}). What you typed is still in its field; try again.`;
  }
}
