import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { MADE_WITH } from '../app/data/made-with';
import type { Fact } from '../core/facts/fact';

/** Facts of the demo cases, by case: what generated cases are made like. */
function patterns(): Fact[][] {
  const byCase = new Map<string, Fact[]>();
  const demo = JSON.parse(readFileSync('demo/demo.json', 'utf8')) as { facts: Fact[] };
  for (const f of demo.facts) byCase.set(f.case, [...(byCase.get(f.case) ?? []), f]);
  return [...byCase.values()].map((facts) => facts.filter((f) => !f.key.startsWith('report.')));
}

/**
 * Fills the records of the page's browser with generated cases, each of so many facts: a demo case under another number and
 * caller, and then corrections of its odometer. Heads are not made: the program does that at its next opening.
 * @returns facts written
 */
export function fillDesk(page: Page, cases: number, factsPerCase: number): Promise<number> {
  return page.evaluate(
    async ({ patterns, cases, factsPerCase, madeWith }) => {
      const db = await new Promise<IDBDatabase>((done, fail) => {
        const opening = indexedDB.open('hollow-sprocket');
        opening.onsuccess = () => done(opening.result);
        opening.onerror = () => fail(new Error('the record store does not open'));
      });
      const finished = (tx: IDBTransaction) =>
        new Promise<void>((done, fail) => {
          tx.oncomplete = () => done();
          tx.onabort = () => fail(new Error(String(tx.error)));
        });
      let written = 0;
      const at = (n: number, k: number) =>
        new Date(Date.UTC(2020, 0, 1) + n * 9_000_000 + k * 60_000).toISOString();
      for (let n = 0; n < cases; ) {
        const tx = db.transaction('facts', 'readwrite', { durability: 'relaxed' });
        const store = tx.objectStore('facts');
        for (const end = Math.min(cases, n + 400); n < end; n++) {
          const id = `g${String(n).padStart(6, '0')}`;
          const own = (name: string) => name.replace(/^demo-\d+/, id);
          const pattern = patterns[n % patterns.length]!;
          let last: string | undefined;
          for (let k = 0; k < factsPerCase; k++) {
            const f = pattern[k];
            const fact: Record<string, unknown> = f
              ? { ...f, id: own(f.id), case: id, at: at(n, k) }
              : {
                  id: `${id}-x${k}`,
                  case: id,
                  key: 'vehicle.odometer',
                  value: 40_000 + k,
                  how: 'reported',
                  by: 'Ida Fennimore',
                  at: at(n, k),
                  ...(last === undefined ? {} : { supersedes: last }),
                };
            if (f?.key === 'case.tag') fact['value'] = String(10_000 + n);
            if (f?.key === 'call.who') fact['value'] = `Caller ${n} of Quarry Lane`;
            if (f?.basis) fact['basis'] = f.basis.map(own);
            if (f?.supersedes !== undefined)
              fact['supersedes'] =
                typeof f.supersedes === 'string' ? own(f.supersedes) : f.supersedes.map(own);
            if (fact['key'] === 'vehicle.odometer') last = fact['id'] as string;
            store.put(fact);
            written++;
          }
        }
        await finished(tx);
      }
      const forget = db.transaction('settings', 'readwrite');
      forget.objectStore('settings').delete(madeWith);
      await finished(forget);
      db.close();
      return written;
    },
    { patterns: patterns(), cases, factsPerCase, madeWith: MADE_WITH },
  );
}
