import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { simulateCapture } from '@core/simulate/capture';
import { camOf } from '@core/simulate/capture-box';
import { writeCapture } from '@core/simulate/capture-file';
import { launch } from '../e2e/browser';
import { serve } from '../server/serve';
import { asRow, idle, watch } from './frames';
import type { Row } from './measure';

const PORT = 4395;
/** Some twenty-five bytes a row. */
const SAMPLES = 4_000_000;

/** A recording of minutes as a file of some 100 MB. */
function largeTable(): string {
  const rateHz = 50_000;
  const capture = simulateCapture({
    seed: 3,
    teeth: Array.from({ length: 60 }, (_, i) => i < 58),
    cam: camOf('free'),
    late: 18,
    rpm: 240,
    ripple: 0.1,
    cycles: Math.floor((SAMPLES / rateHz) * 2) - 2,
    rateHz,
    crank: 'swing',
    noise: 0.03,
    jitterDeg: 0.05,
  });
  return writeCapture(capture, { separator: ',', decimal: '.', heading: 'one', time: 's', volts: 'V' });
}

/** The page while the thread reads a table of 100 MB, answers, and draws stretches of it. */
export async function traceScreenBench(root: string): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'hs-capture-'));
  const file = join(folder, 'long.csv');
  writeFileSync(file, largeTable());
  const started = await serve({ root, port: PORT, host: '127.0.0.1', demo: true });
  if (!started.ok) throw new Error(started.error.code);
  const browser = await chromium.launch(launch);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`http://127.0.0.1:${PORT}/trace`);
    const good = page.getByRole('region', { name: 'A good engine' });
    await good.getByRole('button', { name: 'From the simulated box' }).click();
    await page.locator('hs-capture-chart canvas').waitFor();
    const base = await watch(page, () => idle(page, 60));
    const reading = await watch(page, async () => {
      await page.getByLabel('The engine in question, capture file', { exact: true }).setInputFiles(file);
      await page.getByText('One tooth late at the crank').waitFor({ timeout: 120_000 });
    });
    await page.getByText('The whole recording').click();
    const cursor = page.getByRole('slider', { name: 'Cursor over the recording' });
    await cursor.focus();
    const zooming = await watch(page, async () => {
      for (const key of ['+', '+', '+', 'Home', '+', '+', '-', 'End', '-', '-']) {
        await page.keyboard.press(key);
        await idle(page, 6);
      }
    });
    return [
      asRow('The page while a table of 100 MB is read', reading, base, 'no task over 50 ms'),
      asRow('Zooming over its samples', zooming, base, 'no task over 50 ms'),
    ];
  } finally {
    await browser.close();
    started.server.close();
    rmSync(folder, { recursive: true });
  }
}
