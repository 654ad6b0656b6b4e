import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import Papa from 'papaparse';
import { tableCells } from '@core/catalogue/tables';
import { largePack } from '../demo/large-catalogue';
import { launch } from '../e2e/browser';
import { serve } from '../server/serve';
import { asRow, idle, watch } from './frames';
import type { Row } from './measure';

/** Drags a slider once a frame, as a hand does. */
const drag = (page: Page, label: string, frames: number) =>
  page.evaluate(
    async ([name, n]) => {
      const handle = document.querySelector(`[role=slider][aria-label="${name}, slider"]`)!;
      const rail = handle.closest('.ant-slider')!.getBoundingClientRect();
      const send = (on: EventTarget, type: string, share: number) =>
        on.dispatchEvent(
          new MouseEvent(type, {
            bubbles: true,
            cancelable: true,
            clientX: rail.left + rail.width * share,
            clientY: rail.top + rail.height / 2,
          }),
        );
      send(handle, 'mousedown', 0.5);
      for (let k = 0; k < n; k++) {
        send(document, 'mousemove', 0.5 + 0.45 * Math.sin(k / 12));
        await new Promise(requestAnimationFrame);
      }
      send(document, 'mouseup', 0.5);
    },
    [label, frames] as const,
  );

/** Dragging on the drive bench, importing a large catalogue, and scrolling through it, in the real browser. */
export async function screenBench(root: string, layout: string): Promise<Row[]> {
  const started = await serve({ root, port: 4392, host: '127.0.0.1', demo: true });
  if (!started.ok) throw new Error(started.error.code);
  const browser = await chromium.launch(launch);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto('http://127.0.0.1:4392/drive');
    await page.getByLabel('Layout file').setInputFiles({
      name: 'bench.json',
      mimeType: 'application/json',
      buffer: Buffer.from(layout),
    });
    await page.getByRole('button', { name: 'Heads, block and gasket', exact: true }).click();
    await page.getByRole('slider', { name: 'Cylinder head nearer by, slider' }).waitFor();
    await drag(page, 'Cylinder head nearer by', 60);
    const base = await watch(page, () => idle(page, 120));
    const heads = await watch(page, () => drag(page, 'Cylinder head nearer by', 240));
    const crank = await watch(page, () => drag(page, 'Crank turned', 240));

    const pack = largePack(5000, 100_000);
    const csv = Papa.unparse(tableCells('applications', pack.applications));
    const file = join(root, '..', 'large-pack.json');
    writeFileSync(file, JSON.stringify(pack));
    await page.goto('http://127.0.0.1:4392/catalogue');
    await page.locator('main').getByText('Tables', { exact: true }).click();
    await page.getByText(/Parts \d+/).waitFor();
    const t0 = Date.now();
    const read = await watch(page, async () => {
      await page.getByLabel('Catalogue files').setInputFiles(file);
      await page.getByRole('button', { name: 'Take it in' }).waitFor({ timeout: 60_000 });
    });
    const readMs = Date.now() - t0;
    const take = await watch(page, async () => {
      await page.getByRole('button', { name: 'Take it in' }).click();
      await page.getByText(/is here\. New cases/).waitFor({ timeout: 60_000 });
    });
    await page.getByText(/What fits what \d+/).click();
    await page.getByRole('region', { name: /100000 rows/ }).waitFor();
    const scroll = await watch(page, () =>
      page.evaluate(async () => {
        const view = document.querySelector('cdk-virtual-scroll-viewport')!;
        for (let k = 0; k < 240; k++) {
          view.scrollTop += k % 40 === 0 ? 200_000 : 240;
          await new Promise(requestAnimationFrame);
        }
      }),
    );
    return [
      asRow('Dragging a head, 9 wheels, 150 teeth drawn', heads, base, '60 fps'),
      asRow('Turning the crank, the same drive', crank, base, '60 fps'),
      {
        name: 'Reading a catalogue of 100,000 rows, in a worker',
        value: `${(readMs / 1000).toFixed(1)} s`,
        target: '≤ 50 ms a task',
        baseline: `main thread: ${read.late} tasks over 50 ms, longest ${read.longest.toFixed(0)} ms (${(csv.length / 1e6).toFixed(1)} MB of rows)`,
        ratio: '—',
      },
      {
        name: 'Taking it in and showing it',
        value: `${(take.ms / 1000).toFixed(1)} s`,
        target: '≤ 50 ms a task',
        baseline: `main thread: ${take.late} tasks over 50 ms, longest ${take.longest.toFixed(0)} ms`,
        ratio: '—',
      },
      asRow('Scrolling 100,000 rows', scroll, base, 'smooth'),
    ];
  } finally {
    await browser.close();
    started.server.closeAllConnections();
    started.server.close();
  }
}
