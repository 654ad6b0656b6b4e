import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import type { Fact } from '@core/facts/fact';
import { endOf, type LogHead, nextEntry } from '@core/shelf/entry';
import { launch } from '../e2e/browser';
import { joinedDesk } from '../e2e/shelf-desk';
import { serve, stop } from '../server/serve';
import type { Row } from './measure';

const CASES = Number(process.env['SHELF_CASES'] ?? 200_000);
const PORT = 4392;
const PAGE = 2000;
/** A new desk can work, and has all summaries, ms. */
const [WORKS, WHOLE] = [2000, 20_000];

const day = (i: number) => new Date(Date.UTC(2026, 0, 1) + i * 60_000).toISOString();
const fact = (i: number): Fact => ({
  id: `${i.toString(36)}-${((i * 2_654_435_761) % 2 ** 32).toString(36)}-bench`,
  case: `far-${i}`,
  key: 'case.tag',
  value: String(10_000 + i),
  how: 'decided',
  by: 'Bench',
  at: day(i),
  seen: 1,
});
const summary = (i: number) => ({
  case: `far-${i}`,
  facts: 1,
  made: 'bench',
  touched: day(i),
  text: JSON.stringify({
    id: `far-${i}`,
    tag: String(10_000 + i),
    engine: 'TE16-CORM',
    who: 'Mara Finch, Saltmarsh Road Garage',
    kind: 'question',
    waits: i % 50 === 0 ? 'call' : 'sealed',
    opened: day(i),
    touched: day(i),
    text: `mara finch saltmarsh road garage ${i} `.padEnd(400, 'x'),
    world: '',
  }),
});

/** Takes the time, in the page itself, of the first strange case on the rack and of the last word of the shelf's reading. */
function watch(): void {
  const marks = window as unknown as { began?: number; first?: number; last?: number };
  const look = () => {
    if (marks.began === undefined) return;
    const rack = document.querySelector('hs-rack')?.textContent ?? '';
    if (rack.includes('Reading the shelf')) marks.last = undefined;
    else if (marks.first !== undefined) marks.last ??= performance.now() - marks.began;
    if (rack.includes('TE16-CORM')) marks.first ??= performance.now() - marks.began;
  };
  new MutationObserver(look).observe(document, { childList: true, subtree: true, characterData: true });
  addEventListener('click', () => (marks.began = performance.now()), { capture: true });
}
const told = (page: Page) =>
  page.evaluate(() => {
    const { first, last } = window as unknown as { first?: number; last?: number };
    return { first, last };
  });

/** A new desk in a browser joins a large shelf: when it can work, and when it has all summaries in its own records. */
export async function joinBench(root: string): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'hs-join-'));
  const started = await serve({
    root,
    port: PORT,
    host: '127.0.0.1',
    demo: false,
    shelf: { folder, now: () => '2026-12-01T08:00:00.000Z' },
  });
  if (!started.ok) throw new Error(JSON.stringify(started.error));
  const at = `http://127.0.0.1:${PORT}`;
  const browser = await chromium.launch(launch);
  try {
    const { desk, shelf } = await joinedDesk(at, started.invitation ?? '', 'Filler');
    let end: LogHead | undefined;
    for (let i = 0; i < CASES; i += PAGE) {
      const some = Array.from({ length: PAGE }, (_, k) => i + k);
      const entry = nextEntry(desk.id, end, some.map(fact));
      const [put, summed] = [await shelf.append(entry), await shelf.putSummaries(some.map(summary))];
      if (!put.ok || !summed.ok) throw new Error('the shelf could not be filled');
      end = endOf(entry);
    }
    const code = await shelf.invite();
    if (!code.ok) throw new Error(code.error.code);
    const context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      serviceWorkers: 'block',
    });
    const page = await context.newPage();
    await page.goto(`${at}/together?invitation=${code.value}`);
    await page.getByLabel('Name of this desk').fill('Bench');
    await page.evaluate(watch);
    await page.getByRole('button', { name: 'Join', exact: true }).click();
    await page.getByText('Reading the shelf').waitFor({ timeout: 60_000 });
    await page.getByText(/cases only the summary is here/).waitFor({ timeout: 600_000 });
    const { first, last } = await told(page);
    const here = await page.evaluate(
      (name) =>
        new Promise<number>((done, fail) => {
          const asked = indexedDB.open(name);
          asked.onerror = () => fail(asked.error ?? new Error(name));
          asked.onsuccess = () => {
            const count = asked.result.transaction('heads').objectStore('heads').count();
            count.onsuccess = () => done(count.result);
          };
        }),
      (await page.evaluate(async () => (await indexedDB.databases()).map((d) => d.name)))[0] ?? '',
    );
    return [
      row('A new desk can work: the last cases stand on its rack', first, WORKS, here),
      row('A new desk has the summaries of all cases, in its browser', last, WHOLE, here),
    ];
  } finally {
    await browser.close();
    await stop(started, 0);
    rmSync(folder, { recursive: true, force: true });
  }
}

const row = (name: string, ms: number | undefined, target: number, here: number): Row => ({
  name,
  value: ms === undefined ? 'never' : `${(ms / 1000).toFixed(1)} s`,
  target: `≤ ${target / 1000} s`,
  baseline: `${here} summaries in the browser, of ${CASES} on the shelf`,
  ratio: ms === undefined ? '' : `${(ms / target).toFixed(2)}×`,
});
