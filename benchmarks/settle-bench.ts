import { chromium, type Page } from '@playwright/test';
import { launch } from '../e2e/browser';
import { fillDesk } from '../e2e/many';
import { serve } from '../server/serve';
import { quantile, type Row } from './measure';

const [CASES, FACTS, PORT, PHOTOS] = [20_000, 40, 4394, 20];

/** Milliseconds from an act on the ledger to the frame that shows its answer. */
const answered = (page: Page, acts: readonly ({ type: string } | { press: string })[]) =>
  page.evaluate(async (wanted) => {
    const out: number[] = [];
    const said = () => document.querySelector('hs-ledger-page header [role=status]')?.textContent;
    const first = () => document.querySelector('hs-ledger-page tbody tr:not([aria-hidden])')?.textContent;
    for (const act of wanted) {
      await new Promise(requestAnimationFrame);
      const before = [said(), first()].join();
      const t = performance.now();
      if ('type' in act) {
        const box = document.querySelector<HTMLInputElement>('hs-ledger-page input[type=search]')!;
        box.value = act.type;
        box.dispatchEvent(new Event('input'));
      } else {
        const buttons = Array.from(document.querySelectorAll<HTMLButtonElement>('hs-ledger-page th button'));
        buttons.find((b) => b.textContent.trim().startsWith(act.press))!.click();
      }
      // what finds the same rows in the same order changes no word: two frames without a change are an answer too
      for (let frame = 0; frame < 2 && [said(), first()].join() === before; frame++)
        await new Promise(requestAnimationFrame);
      out.push(performance.now() - t);
    }
    return out;
  }, acts);

/** Photographs as a camera makes them: large, and with so much in them that they do not shrink to nothing. */
const attachPhotos = (page: Page, count: number) =>
  page.evaluate(async (n) => {
    const files = new DataTransfer();
    for (let k = 0; k < n; k++) {
      const canvas = new OffscreenCanvas(4000, 3000);
      const paint = canvas.getContext('2d')!;
      for (let i = 0; i < 4000; i++) {
        paint.fillStyle = `hsl(${(i * 37 + k * 11) % 360} 50% ${30 + (i % 50)}%)`;
        paint.fillRect((i * 137) % 4000, (i * 251) % 3000, 90, 60);
      }
      const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 });
      files.items.add(new File([blob], `photo-${k}.jpg`, { type: 'image/jpeg' }));
    }
    const input = document.querySelector<HTMLInputElement>('hs-tape input[type=file]')!;
    input.files = files.files;
    input.dispatchEvent(new Event('change', { bubbles: true }));
  }, count);

/** Makes the full report; milliseconds from the press to the file, and the longest task of the page meanwhile. */
async function report(page: Page): Promise<{ ms: number; longest: number }> {
  await page.evaluate(() => {
    const w = window as unknown as { hsLong: number[] };
    w.hsLong = [];
    new PerformanceObserver((list) => w.hsLong.push(...list.getEntries().map((e) => e.duration))).observe({
      entryTypes: ['longtask'],
    });
  });
  const coming = page.waitForEvent('download', { timeout: 120_000 });
  const t = Date.now();
  await page
    .getByRole('region', { name: 'Report and letters' })
    .getByRole('button', { name: /PDF$/ })
    .click();
  await coming;
  const ms = Date.now() - t;
  const long = await page.evaluate(() => (window as unknown as { hsLong: number[] }).hsLong);
  return { ms, longest: Math.max(0, ...long) };
}

/** The ledger of a large desk, and a report full of photographs, in the real browser. */
export async function settleBench(root: string): Promise<Row[]> {
  const started = await serve({ root, port: PORT, host: '127.0.0.1', demo: true });
  if (!started.ok) throw new Error(started.error.code);
  const url = `http://127.0.0.1:${PORT}/`;
  const browser = await chromium.launch(launch);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${url}case/demo-2027/settle`);
    const papers = page.getByRole('region', { name: 'Report and letters' });
    await papers.getByText('Full', { exact: true }).click();
    await report(page);
    const plain = await report(page);
    await attachPhotos(page, PHOTOS);
    await page
      .getByText(`photo-${PHOTOS - 1}.jpg`)
      .first()
      .waitFor({ timeout: 120_000 });
    const full = await report(page);

    await page.goto(url);
    await page.getByText('TE16-CORM').first().waitFor();
    await fillDesk(page, CASES, FACTS);
    await page.goto(url);
    await page.getByText(/^Reading all cases anew/).waitFor();
    await page.getByText(/^Reading all cases anew/).waitFor({ state: 'detached', timeout: 180_000 });
    const opened: number[] = [];
    for (let k = 0; k < 5; k++) {
      await page.getByRole('link', { name: 'Drives' }).click();
      await page.waitForURL(/drive$/);
      opened.push(
        await page.evaluate(async () => {
          const link = Array.from(document.querySelectorAll('hs-rack a')).find(
            (a) => a.textContent.trim() === 'Ledger',
          )!;
          const t = performance.now();
          (link as HTMLElement).click();
          while (!document.querySelector('hs-ledger-page tbody a.code'))
            await new Promise(requestAnimationFrame);
          return performance.now() - t;
        }),
      );
    }
    const typed = 'caller 12345 of quarry';
    const keys = Array.from({ length: typed.length }, (_, i) => ({ type: typed.slice(0, i + 1) }));
    const filtered = await answered(page, keys);
    await answered(page, [{ type: '' }]);
    const known = await page.locator('hs-ledger-page th button').allTextContents();
    const columns = known.map((k) => k.replace(/[↑↓]/, '').trim()).filter(Boolean);
    const sorted = await answered(
      page,
      [...columns, ...columns].map((press) => ({ press })),
    );
    const row = (name: string, ms: number, target: string, baseline: string, ratio = '—'): Row => ({
      name,
      value: `${ms.toFixed(0)} ms`,
      target,
      baseline,
      ratio,
    });
    return [
      row(
        `Ledger of ${CASES} cases opened, median of 5`,
        quantile(opened, 0.5),
        '< 500 ms',
        `first time ${opened[0]!.toFixed(0)} ms`,
      ),
      row(
        'Ledger filtered, a key, p95',
        quantile(filtered, 0.95),
        '< 50 ms',
        `median ${quantile(filtered, 0.5).toFixed(0)} ms`,
      ),
      row(
        'Ledger sorted by any column, p95',
        quantile(sorted, 0.95),
        '< 50 ms',
        `median ${quantile(sorted, 0.5).toFixed(0)} ms`,
      ),
      row(
        `Report with ${PHOTOS} photographs of 12 Mpx`,
        full.ms,
        '< 3000 ms',
        `without them ${plain.ms} ms; longest task of the page ${full.longest.toFixed(0)} ms`,
        `${(full.ms / plain.ms).toFixed(1)}×`,
      ),
    ];
  } finally {
    await browser.close();
    started.server.closeAllConnections();
    started.server.close();
  }
}
