import { chromium, type Page } from '@playwright/test';
import { launch } from '../e2e/browser';
import { serve } from '../server/serve';
import type { Row } from './measure';

/** Bytes that may come before the rack shows. */
const FIRST_LOAD = 250_000;
const kB = (bytes: number): string => `${(bytes / 1000).toFixed(0)} kB`;
const median = (xs: number[]) => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)]!;

/** What is worked with, not the program: cases, photographs and captures of the demo. */
const MATERIAL = /(demo|judged|boxes|calls)\.json$|\.(png|zip)$/;

/** Marks the moment at which the first tag of the rack is painted. */
function markRack(): void {
  const seen = new MutationObserver(() => {
    if (!document.querySelector('hs-rack .tag')) return;
    seen.disconnect();
    requestAnimationFrame(() => performance.mark('rack'));
  });
  seen.observe(document, { childList: true, subtree: true });
}

/** Opens the page anew; answers when the rack stood (ms), and the bytes that had come by then and came until the page was at rest. */
async function toRack(page: Page, url: string): Promise<{ at: number; before: number; rested: number }> {
  await page.addInitScript(markRack);
  await page.goto(url);
  await page.getByText('TE16-CORM').first().waitFor();
  await page.waitForLoadState('networkidle');
  const { at, came } = await page.evaluate(() => ({
    at: performance.getEntriesByName('rack')[0]!.startTime,
    came: [
      ...performance.getEntriesByType('navigation'),
      ...(performance.getEntriesByType('resource') as PerformanceResourceTiming[]),
    ].map((e) => {
      const { name, responseEnd, transferSize } = e as PerformanceResourceTiming;
      return { name, end: responseEnd, bytes: transferSize };
    }),
  }));
  const program = came.filter((e) => !MATERIAL.test(e.name));
  const sum = (until: number) => program.reduce((n, e) => n + (e.end <= until ? e.bytes : 0), 0);
  return { at, before: sum(at), rested: sum(Infinity) };
}

/** Bytes over the wire before the rack shows, and the time to it, against a page of nothing in the same browser. */
export async function loadBench(root: string): Promise<Row[]> {
  const started = await serve({ root, port: 4391, host: '127.0.0.1', demo: true });
  if (!started.ok) throw new Error(started.error.code);
  const url = 'http://127.0.0.1:4391/';
  const browser = await chromium.launch(launch);
  try {
    const times: number[] = [];
    const blank: number[] = [];
    const before: number[] = [];
    const rested: number[] = [];
    for (let i = 0; i < 5; i++) {
      // what the program keeps for later comes behind: it is not part of the opening
      const context = await browser.newContext({
        viewport: { width: 1280, height: 800 },
        serviceWorkers: 'block',
      });
      const page = await context.newPage();
      const opened = await toRack(page, url);
      times.push(opened.at);
      before.push(opened.before);
      rested.push(opened.rested);
      const t = performance.now();
      await page.goto(`${url}icon.svg`);
      blank.push(performance.now() - t);
      await context.close();
    }
    const [time, base] = [median(times), median(blank)];
    return [
      {
        name: 'First load over the wire, before the rack shows',
        value: kB(median(before)),
        target: `≤ ${kB(FIRST_LOAD)}`,
        baseline: 'the target',
        ratio: `${(median(before) / FIRST_LOAD).toFixed(2)}×`,
      },
      {
        name: 'The same until the page is at rest',
        value: kB(median(rested)),
        target: '—',
        baseline: 'before the rack shows',
        ratio: `${(median(rested) / median(before)).toFixed(2)}×`,
      },
      {
        name: 'Navigation to a usable rack, first opening',
        value: `${time.toFixed(0)} ms`,
        target: '—',
        baseline: `a single icon: ${base.toFixed(0)} ms`,
        ratio: `${(time / base).toFixed(1)}×`,
      },
    ];
  } finally {
    await browser.close();
    started.server.closeAllConnections();
    started.server.close();
  }
}
