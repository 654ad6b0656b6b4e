import { chromium, type Page } from '@playwright/test';
import { launch } from '../e2e/browser';
import { serve } from '../server/serve';
import { quantile, type Row } from './measure';

const PORT = 4394;
const ROUNDS = 12;
const CASES = ['demo-2027', 'demo-2033', 'demo-2044'] as const;
const STATIONS = ['Call', 'Identify', 'Fit', 'Examine', 'Cause', 'Settle'] as const;

type Marks = { first: number; shifts: { at: number; value: number; of: string }[] };

/** Notes, before any script of the page runs, what is painted first and what moves after it was shown. */
const watchShifts = (page: Page) =>
  page.addInitScript(() => {
    const hs: { first: number; shifts: { at: number; value: number; of: string }[] } = {
      first: 0,
      shifts: [],
    };
    (window as unknown as { felt: typeof hs }).felt = hs;
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) if (e.name === 'first-contentful-paint') hs.first = e.startTime;
    }).observe({ type: 'paint', buffered: true });
    type Shift = PerformanceEntry & {
      value: number;
      hadRecentInput: boolean;
      sources: { node: Element | null }[];
    };
    new PerformanceObserver((list) => {
      for (const e of list.getEntries() as Shift[])
        if (!e.hadRecentInput)
          hs.shifts.push({
            at: e.startTime,
            value: e.value,
            of: e.sources
              .map((s) => (s.node instanceof Element ? s.node : s.node?.['parentElement' as never]))
              .map(
                (n: Element | undefined | null) => `${n?.tagName.toLowerCase() ?? '?'}.${n?.className ?? ''}`,
              )
              .join(' '),
          });
    }).observe({ type: 'layout-shift', buffered: true });
  });
const felt = (page: Page): Promise<Marks> => page.evaluate(() => (window as unknown as { felt: Marks }).felt);

/** Milliseconds from the press on a station to the frame that shows it, its heading and its first card. */
const walk = (page: Page, names: readonly string[]) =>
  page.evaluate(async (wanted) => {
    const out: number[] = [];
    const frame = () => new Promise(requestAnimationFrame);
    for (const name of wanted) {
      const links = Array.from(document.querySelectorAll<HTMLElement>('nav[aria-label=Stations] a'));
      const link = links.find((a) => a.textContent.includes(name))!;
      const before = document.querySelector('router-outlet:last-of-type + *')?.tagName;
      const t = performance.now();
      link.click();
      for (;;) {
        await frame();
        const now = document.querySelector(`hs-${name.toLowerCase()}-page`);
        if (now && now.tagName !== before && now.querySelector('.card, h2, section')) break;
        if (performance.now() - t > 5000) throw new Error(`${name} does not show`);
      }
      // the next frame is the one that was painted
      await frame();
      out.push(performance.now() - t);
      await new Promise((done) => setTimeout(done, 150));
    }
    return out;
  }, names);

/** Milliseconds from the press on a tile to the frame in which the answer says otherwise. */
const tiles = (page: Page, rounds: number) =>
  page.evaluate(async (n) => {
    const out: number[] = [];
    const frame = () => new Promise(requestAnimationFrame);
    for (let k = 0; k < n; k++) {
      const options = Array.from(document.querySelectorAll<HTMLElement>('[role=listbox] [role=option]'));
      const option = options.find((o) => o.getAttribute('aria-selected') !== 'true')!;
      const said = () => document.querySelector('hs-opening')?.textContent;
      const before = said();
      const t = performance.now();
      option.click();
      let changed = true;
      while (said() === before) {
        await frame();
        if (performance.now() - t > 2000) {
          changed = false;
          break;
        }
      }
      await frame();
      if (changed) out.push(performance.now() - t);
      await new Promise((done) => setTimeout(done, 200));
    }
    return out;
  }, rounds);

/** What is felt: first paint, moving between stations, from a tile to its answer, and whether anything moves once it was shown. */
export async function feltBench(root: string): Promise<Row[]> {
  const started = await serve({ root, port: PORT, host: '127.0.0.1', demo: true });
  if (!started.ok) throw new Error(started.error.code);
  const url = `http://127.0.0.1:${PORT}`;
  const browser = await chromium.launch(launch);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await watchShifts(page);
    await page.goto(url);
    await page.getByText('TE16-CORM').first().waitFor();
    await page.waitForTimeout(4000);
    const first = (await felt(page)).first;
    const opened = await felt(page);
    // a second opening, as every morning
    await page.goto(url);
    await page.getByText('TE16-CORM').first().waitFor();
    await page.waitForTimeout(1500);
    const again = await felt(page);
    const warm: number[] = [];
    const cold: number[] = [];
    const moved: string[] = [];
    let shift = 0;
    for (const id of CASES) {
      await page.goto(`${url}/case/${id}/call`);
      await page.locator('hs-call-page h2').first().waitFor();
      cold.push(...(await walk(page, STATIONS.slice(1))));
      for (let k = 0; k < ROUNDS / 3; k++) warm.push(...(await walk(page, STATIONS)));
      // What moves is measured under real presses: what follows one within half a second is no shift.
      await page.goto(`${url}/case/${id}/call`);
      await page.locator('hs-call-page h2').first().waitFor();
      await page.waitForTimeout(1500);
      for (const name of STATIONS) {
        await page.locator('nav[aria-label=Stations] a', { hasText: name }).click();
        await page.waitForTimeout(1200);
      }
      const marks = await felt(page);
      shift = Math.max(
        shift,
        marks.shifts.reduce((s, m) => s + m.value, 0),
      );
      moved.push(...marks.shifts.map((m) => `${id} ${Math.round(m.at)} ms: ${m.of} ${m.value.toFixed(4)}`));
    }
    await page.goto(`${url}/case/demo-2041/identify`);
    await page.locator('[role=listbox] [role=option]').first().waitFor();
    await page.waitForTimeout(800);
    const answered = await tiles(page, 30);
    const sum = (m: Marks) => m.shifts.reduce((s, x) => s + x.value, 0);
    const row = (name: string, value: string, target: string, baseline: string): Row => ({
      name,
      value,
      target,
      baseline,
      ratio: '—',
    });
    const ms = (v: number) => `${v.toFixed(0)} ms`;
    return [
      row('First paint of the start page, first opening', ms(first), '≤ 600 ms', ''),
      row(
        'Station to station, p95',
        ms(quantile(warm, 0.95)),
        '≤ 80 ms',
        `${warm.length} ways, median ${ms(quantile(warm, 0.5))}; first time in a window p95 ${ms(quantile(cold, 0.95))}`,
      ),
      row(
        'Tile to answer, p95',
        ms(quantile(answered, 0.95)),
        '≤ 50 ms',
        `${answered.length} tiles, median ${ms(quantile(answered, 0.5))}`,
      ),
      row(
        'Layout shift of the start page',
        `${sum(opened).toFixed(4)}`,
        '0',
        `a second opening ${sum(again).toFixed(4)}: ${[...opened.shifts, ...again.shifts].map((s) => `${Math.round(s.at)} ms ${s.of}`).join('; ')}`,
      ),
      row(
        'Layout shift of the stations, the worst case',
        shift.toFixed(4),
        '0',
        [...new Set(moved)].slice(0, 12).join('; '),
      ),
    ];
  } finally {
    await browser.close();
    started.server.closeAllConnections();
    started.server.close();
  }
}
