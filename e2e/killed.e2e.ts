import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { chromium, expect, type Page, test } from '@playwright/test';
import type { Fact } from '@core/facts/fact';
import { factsDigest } from '@core/facts/digest';
import { exchange } from '@core/shelf/exchange';
import { PlainDesk } from '@core/shelf/many-desks.fixture';
import { serve, stop } from '../server/serve';
import { killBrowserOf, launch } from './browser';
import { Desk } from './desk';
import { joinedDesk, readOnly } from './shelf-desk';

const port = 4298;
const at = `http://127.0.0.1:${port}`;

/** The facts of a case as the browser keeps them. */
const kept = (page: Page, id: string): Promise<Fact[]> =>
  page.evaluate(
    (of) =>
      new Promise<Fact[]>((done) => {
        const opening = indexedDB.open('hollow-sprocket');
        opening.onsuccess = () => {
          const all = opening.result.transaction('facts').objectStore('facts').getAll();
          all.onsuccess = () => {
            opening.result.close();
            done((all.result as Fact[]).filter((f) => f.case === of));
          };
        };
      }),
    id,
  );

test('a browser that is killed in the middle of filing, again and again, loses nothing that was filed, and the shelf has each once', async () => {
  const kills = Number(process.env['BROWSER_KILLS'] ?? 3);
  test.setTimeout(120_000 + kills * 30_000);
  const folder = mkdtempSync(join(tmpdir(), 'hs-killed-'));
  const profile = join(folder, 'profile');
  const serving = await serve({
    root: resolve('dist/app'),
    port,
    host: '127.0.0.1',
    demo: true,
    shelf: { folder: join(folder, 'shelf'), now: () => '2026-12-01T08:00:00.000Z' },
  });
  if (!serving.ok) throw new Error(JSON.stringify(serving.error));
  const begin = async (): Promise<Desk> => {
    const context = await chromium.launchPersistentContext(profile, { ...launch, serviceWorkers: 'block' });
    return new Desk(await context.newPage());
  };
  let desk = await begin();
  await desk.open(`${at}/together?invitation=${serving.invitation}`);
  await desk.page.getByLabel('Name of this desk').fill('Front desk');
  await desk.page.getByRole('button', { name: 'Join' }).click();
  const standing = () =>
    desk.page.getByRole('navigation', { name: 'Rack of cases' }).getByText(/Shelf:.*together$/);
  await expect(standing()).toBeVisible();
  await desk.page.keyboard.press('n');
  await expect(desk.page).toHaveURL(/\/case\//);
  const path = new URL(desk.page.url()).pathname;
  const id = path.split('/')[2]!;

  let n = 0;
  const filed: number[] = [];
  for (let k = 0; k < kills; k++) {
    for (let i = 0; i < 3; i++) {
      await desk.line(`odo ${50_000 + ++n} km`);
      filed.push(50_000 + n);
    }
    // one more is on its way to the disk and the shelf, further each time
    await desk.page.getByLabel('Fact line').fill(`odo ${50_000 + ++n} km`);
    await desk.page.getByLabel('Fact line').press('Enter');
    await desk.page.evaluate(async (frames) => {
      for (let f = 0; f < frames; f++) await new Promise((next) => requestAnimationFrame(next));
    }, k % 6);
    killBrowserOf(profile);
    desk = await begin();
    await desk.open(at + path);
  }
  await expect(standing()).toBeVisible({ timeout: 60_000 });

  const code = await serving.shelf!.desks.invite('server', false);
  if (!code.ok) throw new Error(JSON.stringify(code.error));
  const reader = new PlainDesk('log-reader');
  const other = await joinedDesk(at, code.value, 'Reader');
  expect((await exchange(readOnly(reader), other.shelf)).ok).toBe(true);
  const onShelf = [...reader.facts.values()].filter((f) => f.case === id);
  const here = await kept(desk.page, id);
  expect(factsDigest(onShelf)).toBe(factsDigest(here));
  const read = here.filter((f) => f.key === 'vehicle.odometer').map((f) => JSON.stringify(f.value));
  const times = (km: number) => read.filter((v) => v.includes(String(km))).length;
  expect(filed.filter((km) => times(km) !== 1)).toEqual([]);
  // what was on its way when the browser went is there whole or not at all, and never twice
  expect(read.length).toBe(new Set(read).size);
  expect(read.length).toBeGreaterThanOrEqual(filed.length);

  await desk.page.context().close();
  await stop(serving, 0);
  rmSync(folder, { recursive: true, force: true });
});
