import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { type BrowserContext, chromium, expect, type Page, test } from '@playwright/test';
import { serve, type Serving, stop } from '../server/serve';
import { launch } from './browser';
import { Desk } from './desk';

const port = 4294;
const at = `http://127.0.0.1:${port}`;

/** A browser that keeps what it had when it is started again, and a server that can be stopped. */
class Machine {
  private readonly folder = mkdtempSync(join(tmpdir(), 'hs-offline-'));
  private readonly root = join(this.folder, 'app');
  private server: Serving | undefined;
  private context: BrowserContext | undefined;

  constructor() {
    cpSync(resolve('dist/app'), this.root, { recursive: true });
  }

  /** What the program is made of. */
  list(): { timestamp: number; hashTable: Record<string, string> } {
    return JSON.parse(readFileSync(join(this.root, 'ngsw.json'), 'utf8')) as ReturnType<Machine['list']>;
  }

  /** The server has a newer make of the program from now on. */
  isMadeAnew(): void {
    const list = this.list();
    writeFileSync(join(this.root, 'ngsw.json'), JSON.stringify({ ...list, timestamp: list.timestamp + 1 }));
  }

  async serves(): Promise<void> {
    const started = await serve({ root: this.root, port, host: '127.0.0.1', demo: true });
    if (!started.ok) throw new Error(started.error.code);
    this.server = started;
  }

  async serverStops(): Promise<void> {
    if (this.server) await stop(this.server, 0);
    this.server = undefined;
  }

  /** A cold start of the browser. */
  async starts(): Promise<Page> {
    await this.context?.close();
    this.context = await chromium.launchPersistentContext(join(this.folder, 'profile'), {
      ...launch,
      viewport: { width: 1280, height: 800 },
      serviceWorkers: 'allow',
      acceptDownloads: true,
    });
    return this.context.pages()[0] ?? this.context.newPage();
  }

  async ends(): Promise<void> {
    await this.context?.close();
    await this.serverStops();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** Waits until everything that the program is made of lies in the browser. */
const isWhole = (page: Page) =>
  expect
    .poll(
      () =>
        page.evaluate(async () => {
          const list = (await (await fetch('/ngsw.json')).json()) as { hashTable: Record<string, string> };
          const there = new Set<string>();
          for (const name of await caches.keys())
            for (const r of await (await caches.open(name)).keys()) there.add(new URL(r.url).pathname);
          return Object.keys(list.hashTable).filter((path) => !there.has(path)).length;
        }),
      { timeout: 60_000 },
    )
    .toBe(0);

let machine: Machine;
test.beforeEach(() => {
  machine = new Machine();
});
test.afterEach(() => machine.ends());

test('after one visit everything works with the server gone, from a cold start: stations, threads, photographs, papers', async () => {
  await machine.serves();
  let page = await machine.starts();
  let desk = new Desk(page);
  await page.goto(at);
  await expect(page.getByRole('navigation', { name: 'Rack of cases' })).toBeVisible();
  await isWhole(page);
  await machine.serverStops();

  page = await machine.starts();
  const failed: string[] = [];
  page.on('pageerror', (e) => failed.push(e.message));
  desk = new Desk(page);
  await page.goto(`${at}/case/demo-2041/identify`);
  // never opened before
  for (const station of ['Fit', 'Examine', 'Cause', 'Settle', 'Call']) {
    await desk.go(station);
    await expect(page.getByRole('main').getByRole('heading').first()).toBeVisible();
  }
  // a font of the page and a thread of the program
  expect(await page.evaluate(() => document.fonts.ready.then((f) => f.check('13px "IBM Plex Sans"')))).toBe(
    true,
  );
  await page.goto(`${at}/patterns`);
  await expect(page.getByRole('main').getByRole('heading').first()).toBeVisible();
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  // a photograph of the demo
  const photo = Object.keys(machine.list().hashTable).find((path) => path.startsWith('/photos/')) ?? '';
  expect(await page.evaluate(async (path) => (await (await fetch(path)).blob()).type, photo)).toBe(
    'image/png',
  );
  // filed and still there after another cold start
  await page.goto(`${at}/`);
  await desk.newCase();
  await desk.line('odo 48200 km');
  await page.waitForURL(/case/);
  const path = new URL(page.url()).pathname;
  page = await machine.starts();
  await page.goto(at + path);
  await expect(page.getByRole('complementary', { name: /tape/i })).toContainText('48');
  expect(failed).toEqual([]);
});

test('a newer program is told, not forced: the window goes on, takes it when asked, and nothing half-typed is lost', async () => {
  await machine.serves();
  const page = await machine.starts();
  const desk = new Desk(page);
  await page.goto(at);
  await isWhole(page);
  await page.reload();
  await desk.newCase();
  await page.getByLabel('Fact line').fill('odo 5');
  machine.isMadeAnew();
  await page.evaluate(() => dispatchEvent(new Event('online')));
  const strip = page.getByRole('region', { name: 'Newer program' });
  await expect(strip).toBeVisible({ timeout: 60_000 });
  await expect(page.getByLabel('Fact line')).toHaveValue('odo 5');
  await strip.getByRole('button', { name: 'Take it now' }).click();
  await expect(page.getByLabel('Fact line')).toHaveValue('odo 5');
  await expect(strip).toHaveCount(0);
});

test('what another program shares goes through the one door for what came in', async () => {
  await machine.serves();
  const page = await machine.starts();
  await page.goto(at);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.reload();
  await page.evaluate(async () => {
    const form = new FormData();
    form.append('title', 'Rattle');
    form.append('text', 'Rattles at cold start since the belt was fitted.');
    await fetch('/shared-in', { method: 'POST', body: form });
  });
  await page.goto(`${at}/?shared-in`);
  await expect(page).toHaveURL(/case\/.*call/);
  await expect(page.getByRole('main')).toContainText('Rattles at cold start');
});
