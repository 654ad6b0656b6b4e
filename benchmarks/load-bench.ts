import { chromium, type Page } from '@playwright/test';
import { launch } from '../e2e/browser';
import { serve } from '../server/serve';
import type { Row } from './measure';

const median = (xs: number[]) => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)]!;

async function toRack(page: Page, url: string): Promise<number> {
  const t = performance.now();
  await page.goto(url);
  await page.getByRole('button', { name: 'New case' }).first().waitFor();
  await page.getByText('TE16-CORM').first().waitFor();
  return performance.now() - t;
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
    let bytes = 0;
    for (let i = 0; i < 5; i++) {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      const page = await context.newPage();
      const cdp = await context.newCDPSession(page);
      await cdp.send('Network.enable');
      let sum = 0;
      const parts = new Map<string, string>();
      cdp.on('Network.responseReceived', (e) => parts.set(e.requestId, e.response.url));
      cdp.on('Network.loadingFinished', (e) => {
        if (!/(demo|judged)\.json$/.test(parts.get(e.requestId) ?? '')) sum += e.encodedDataLength;
      });
      times.push(await toRack(page, url));
      bytes = sum;
      const t = performance.now();
      await page.goto(`${url}icon.svg`);
      blank.push(performance.now() - t);
      await context.close();
    }
    const [time, base] = [median(times), median(blank)];
    return [
      {
        name: 'First load, gzip, before the rack shows',
        value: `${(bytes / 1000).toFixed(0)} kB`,
        target: '≤ 320 kB',
        baseline: 'the target',
        ratio: `${(bytes / 320000).toFixed(2)}×`,
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
