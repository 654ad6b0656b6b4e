import { chromium, type Page } from '@playwright/test';
import { launch } from '../e2e/browser';
import { serve } from '../server/serve';
import { watch } from './frames';
import type { Row } from './measure';

const at = (share: number, xs: readonly number[]) =>
  [...xs].sort((a, b) => a - b)[Math.min(xs.length - 1, Math.floor(share * xs.length))]!;

const STATIONS = ['identify', 'fit', 'examine', 'cause', 'settle', 'drive', 'call'];

/** Milliseconds from the press on a station to its first frame; the baseline is a frame of the page as it stands. */
const switching = (page: Page, station: string) =>
  page.evaluate(async (name) => {
    const link = document.querySelector<HTMLElement>(`nav[aria-label=Stations] a[href$="/${name}"]`)!;
    const tag = `hs-${name}-page`;
    const t = performance.now();
    link.click();
    while (!document.querySelector(tag)) await new Promise((done) => setTimeout(done));
    await new Promise(requestAnimationFrame);
    // the frame that holds it is done when the next one begins
    await new Promise(requestAnimationFrame);
    return performance.now() - t;
  }, station);

/** Milliseconds from the press on a tile to the frame with the answer: the tape's top line says it. */
const pressing = (
  page: Page,
  turns: number,
  field = '#field-belt-back',
  row = '[data-row="belt.back"] button',
) =>
  page.evaluate(
    async ([n, id, rowId]) => {
      const top = () => document.querySelector('ol[aria-label^="Facts"] .line')!.textContent;
      const out: number[] = [];
      for (let k = 0; k < n; k++) {
        // a press goes on to the next inspection: back to this one, which is not counted
        document.querySelector<HTMLElement>(rowId)?.click();
        while (!document.querySelector(id)) await new Promise((done) => setTimeout(done));
        await new Promise(requestAnimationFrame);
        const list = document.querySelector<HTMLElement>(id)!;
        const tile = list.querySelectorAll<HTMLElement>('[role=option]')[k % 3]!;
        const before = top();
        const t = performance.now();
        tile.click();
        while (top() === before) await new Promise((done) => setTimeout(done));
        await new Promise(requestAnimationFrame);
        out.push(performance.now() - t);
        await new Promise(requestAnimationFrame);
      }
      return out;
    },
    [turns, field, row] as const,
  );

/** Milliseconds of one small write that is durable before it is told, in a store of its own: what the disk asks for. */
const writing = (page: Page, turns: number) =>
  page.evaluate(async (n) => {
    const db = await new Promise<IDBDatabase>((done, fail) => {
      const opening = indexedDB.open('hs-bench', 1);
      opening.onupgradeneeded = () => opening.result.createObjectStore('rows');
      opening.onsuccess = () => done(opening.result);
      opening.onerror = () => fail(new Error('no store'));
    });
    const out: number[] = [];
    for (let k = 0; k < n; k++) {
      const t = performance.now();
      await new Promise((done) => {
        const tx = db.transaction('rows', 'readwrite', { durability: 'strict' });
        tx.objectStore('rows').put({ k }, k);
        tx.oncomplete = done;
      });
      out.push(performance.now() - t);
      await new Promise(requestAnimationFrame);
    }
    db.close();
    return out;
  }, turns);

/** The same on a call: the marks are asked of an opposed engine, and a press changes what is read out. */
async function answering(page: Page): Promise<number[]> {
  await page.goto('http://127.0.0.1:4393/case/demo-2044/call');
  const line = page.getByLabel('Fact line');
  for (const fact of ['asked marks', 'mark ru 0.5', 'mark rl 0']) {
    await line.fill(fact);
    await line.press('Enter');
    await page.locator('ol[aria-label^="Facts"] .line').first().waitFor();
  }
  await page.locator('hs-answer-card .lead').waitFor();
  await pressing(page, 6, '#field-symptom');
  return pressing(page, 40, '#field-symptom');
}

/** What a hand waits for: the next station, and the answer to one tile. */
export async function handBench(root: string): Promise<Row[]> {
  const started = await serve({ root, port: 4393, host: '127.0.0.1', demo: true });
  if (!started.ok) throw new Error(started.error.code);
  const browser = await chromium.launch(launch);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto('http://127.0.0.1:4393/case/demo-2027/call');
    await page.locator('hs-call-page').waitFor();
    const first: number[] = [];
    const again: number[] = [];
    for (const s of STATIONS) first.push(await switching(page, s));
    const switched = await watch(page, async () => {
      for (let k = 0; k < 3; k++) for (const s of STATIONS) again.push(await switching(page, s));
    });
    const frame = await page.evaluate(async () => {
      const t = performance.now();
      for (let k = 0; k < 60; k++) await new Promise(requestAnimationFrame);
      return (performance.now() - t) / 60;
    });
    await switching(page, 'examine');
    await page.getByRole('tab', { name: /^Belt/ }).click();
    await pressing(page, 6);
    let pressed: number[] = [];
    const filed = await watch(page, async () => {
      pressed = await pressing(page, 40);
    });
    const disk = await writing(page, 40);
    const answered = await answering(page);
    const base = `one frame ${frame.toFixed(1)} ms`;
    return [
      {
        name: 'Station switch, 95th percentile (first visit: median)',
        value: `${at(0.95, again).toFixed(0)} ms (${at(0.5, first).toFixed(0)} ms)`,
        target: '< 100 ms',
        baseline: `${base}; tasks over 50 ms: ${switched.late}, longest ${switched.longest.toFixed(0)} ms`,
        ratio: `${(at(0.95, again) / frame).toFixed(1)}×`,
      },
      {
        name: 'A tile pressed to the answer painted, 95th percentile (median)',
        value: `${at(0.95, pressed).toFixed(0)} ms (${at(0.5, pressed).toFixed(0)} ms)`,
        target: '< 50 ms',
        baseline: `a durable write alone ${at(0.95, disk).toFixed(0)} ms (${at(0.5, disk).toFixed(0)} ms); tasks over 50 ms: ${filed.late}, longest ${filed.longest.toFixed(0)} ms`,
        ratio: `${(at(0.95, pressed) / at(0.95, disk)).toFixed(1)}×`,
      },
      {
        name: 'A fact pressed to the answer read out, opposed engine, 95th percentile (median)',
        value: `${at(0.95, answered).toFixed(0)} ms (${at(0.5, answered).toFixed(0)} ms)`,
        target: '< 50 ms',
        baseline: `a durable write alone ${at(0.95, disk).toFixed(0)} ms (${at(0.5, disk).toFixed(0)} ms)`,
        ratio: `${(at(0.95, answered) / at(0.95, disk)).toFixed(1)}×`,
      },
    ];
  } finally {
    await browser.close();
    started.server.closeAllConnections();
    started.server.close();
  }
}
