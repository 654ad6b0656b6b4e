import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { type Browser, type BrowserContext, chromium, expect, type Page, test } from '@playwright/test';
import { serve, type Serving, stop } from '../server/serve';
import { launch } from './browser';
import type { Fact } from '@core/facts/fact';
import { endOf, nextEntry, type LogHead } from '@core/shelf/entry';
import { MOST_SUMMARIES } from '@core/shelf/protocol';
import { Desk } from './desk';
import { joinedDesk } from './shelf-desk';

const port = 4295;
const at = `http://127.0.0.1:${port}`;

/** A house: a server with a shelf, and desks, each a browser profile of its own. */
class House {
  private readonly folder = mkdtempSync(join(tmpdir(), 'hs-house-'));
  private serving: Serving | undefined;
  private browser: Browser | undefined;
  private readonly contexts: BrowserContext[] = [];
  invitation = '';

  async serves(): Promise<void> {
    const started = await serve({
      root: resolve('dist/app'),
      port,
      host: '127.0.0.1',
      demo: true,
      shelf: { folder: join(this.folder, 'shelf'), now: () => '2026-12-01T08:00:00.000Z' },
    });
    if (!started.ok) throw new Error(JSON.stringify(started.error));
    this.serving = started;
    this.invitation = started.invitation ?? this.invitation;
  }

  async serverStops(): Promise<void> {
    if (this.serving) await stop(this.serving, 0);
    this.serving = undefined;
  }

  async desk(): Promise<Desk> {
    this.browser ??= await chromium.launch(launch);
    const context = await this.browser.newContext({
      viewport: { width: 1280, height: 800 },
      locale: 'de-DE',
      timezoneId: 'Europe/Berlin',
      serviceWorkers: 'block',
    });
    this.contexts.push(context);
    return new Desk(await context.newPage());
  }

  async ends(): Promise<void> {
    for (const c of this.contexts) await c.close();
    await this.browser?.close();
    await this.serverStops();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

async function joins(desk: Desk, name: string, code: string): Promise<void> {
  await desk.open(`${at}/together?invitation=${code}`);
  await desk.page.getByLabel('Name of this desk').fill(name);
  await desk.page.getByRole('button', { name: 'Join' }).click();
  await expect(standing(desk.page)).toContainText('together');
}
/** The steward's desk makes an invitation for one more. */
async function invites(desk: Desk): Promise<string> {
  await desk.page.getByRole('button', { name: 'Invite a desk' }).click();
  const link = desk.page.getByRole('link', { name: /invitation=/ });
  return /invitation=(\w+)/.exec((await link.textContent()) ?? '')![1]!;
}
const standing = (page: Page) => page.getByRole('navigation', { name: 'Rack of cases' }).getByText(/Shelf:/);
const rackLink = (page: Page, tag: string) =>
  page.getByRole('navigation', { name: 'Rack of cases' }).getByRole('link', { name: new RegExp(`^${tag}`) });

/** The folder of a desk as its machine shows it: the browser's own, since no test can press a chooser of the system. */
async function hasFolder(desk: Desk): Promise<void> {
  await desk.page.addInitScript(() => {
    Object.assign(window, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('carried', { create: true }),
    });
  });
}

type Carried = Record<string, string>;
/** Everything in the folder of a desk, by path. */
const inFolder = (desk: Desk): Promise<Carried> =>
  desk.page.evaluate(async () => {
    const out: Record<string, string> = {};
    const walk = async (dir: FileSystemDirectoryHandle, path: string): Promise<void> => {
      const entries = (dir as unknown as { values(): AsyncIterable<FileSystemHandle> }).values();
      for await (const e of entries)
        if (e.kind === 'directory') await walk(e as FileSystemDirectoryHandle, `${path}${e.name}/`);
        else out[path + e.name] = await (await (e as FileSystemFileHandle).getFile()).text();
    };
    const root = await navigator.storage.getDirectory();
    await walk(await root.getDirectoryHandle('carried', { create: true }), '');
    return out;
  });
/** Carries files into the folder of a desk, as whatever the house uses for that would. */
const carry = (files: Carried, to: Desk): Promise<void> =>
  to.page.evaluate(async (all) => {
    const root = await navigator.storage.getDirectory();
    const top = await root.getDirectoryHandle('carried', { create: true });
    for (const [path, text] of Object.entries(all)) {
      let dir = top;
      const parts = path.split('/');
      const name = parts.pop() ?? '';
      for (const p of parts) dir = await dir.getDirectoryHandle(p, { create: true });
      const stream = await (await dir.getFileHandle(name, { create: true })).createWritable();
      await stream.write(text);
      await stream.close();
    }
  }, files);

let house: House;
test.beforeEach(async () => {
  house = new House();
  await house.serves();
});
test.afterEach(() => house.ends());

test('two desks work on one case over the server; the network goes and comes; a desk is shut out', async () => {
  test.setTimeout(240_000);
  const [one, two] = [await house.desk(), await house.desk()];
  await joins(one, 'Front desk', house.invitation);
  const code = await invites(one);
  await joins(two, 'Bench', code);

  // used up: a third desk is told so, and nothing is let in
  const three = await house.desk();
  await three.open(`${at}/together?invitation=${code}`);
  await three.page.getByRole('button', { name: 'Join' }).click();
  await expect(three.page.getByText(/was used/)).toBeVisible();

  // a case that one begins stands at the other, and what each files comes to both
  await one.page.goto(at);
  // within reach: the number needs nothing behind it
  await expect(standing(one.page)).toContainText('together');
  await one.newCase();
  await one.line('odo 48200 km');
  const path = new URL(one.page.url()).pathname;
  const tag = (await one.page.getByRole('heading', { level: 1 }).textContent())!.trim().split(/\s/)[0]!;
  expect(tag).toMatch(/^\d+$/);
  await expect(rackLink(two.page, tag)).toBeVisible();
  await rackLink(two.page, tag).click();
  await expect(two.tape()).toContainText(/48\D?200/);
  await expect(one.page.getByRole('status', { name: 'Others in this case' })).toContainText('Bench');
  await two.line('complaint rattle at cold start');
  await expect(one.tape()).toContainText('rattle at cold start');
  await expect(one.page.getByRole('status', { name: 'Others in this case' })).toContainText('1 fact came in');

  // the network goes: both work on, each says what is not on the shelf yet
  await house.serverStops();
  await one.line('odo 48300 km');
  await two.line('odo 48400 km');
  await expect(standing(one.page)).toContainText('1 fact to go');
  await expect(standing(two.page)).toContainText('out of reach');
  await one.page.goto('about:blank');
  await house.serves();
  await one.open(at + path);
  // both corrected the same: side by side, for a choice
  for (const desk of [one, two]) {
    await expect(standing(desk.page)).toHaveText(/together$/, { timeout: 60_000 });
    await expect(desk.tape()).toContainText(/48\D?300/);
    await expect(desk.tape()).toContainText(/48\D?400/);
    await expect(desk.tape()).toContainText('contradicted');
  }

  // shut out: it keeps what it has and works on, and nothing of it comes any more
  await one.open(`${at}/together`);
  await one.page.getByRole('button', { name: 'Shut out' }).click();
  await expect(standing(two.page)).toContainText('shut out', { timeout: 60_000 });
  await two.line('complaint squeals');
  await expect(two.tape()).toContainText('squeals');
  await one.open(at + path);
  await expect(one.tape()).toContainText('rattle at cold start');
  await expect(one.tape()).not.toContainText('squeals');
  // let in again, it comes
  await one.open(`${at}/together`);
  await one.page.getByRole('button', { name: 'Let in' }).click();
  await two.page.reload();
  await one.open(at + path);
  await expect(one.tape()).toContainText('squeals', { timeout: 60_000 });
});

test('a catalogue and the rules of the house go from desk to desk: nothing changes before it is taken', async () => {
  test.setTimeout(240_000);
  const [one, two] = [await house.desk(), await house.desk()];
  await joins(one, 'Front desk', house.invitation);
  const code = await invites(one);

  // a version of the catalogue with an engine more, and a number seen otherwise
  await one.page.goto(`${at}/catalogue`);
  await one.page.getByRole('group', { name: 'Shown as' }).getByText('Tables').click();
  await one.page.getByRole('group', { name: 'Tables' }).getByText('Engines').click();
  await one.page.getByRole('button', { name: 'New row' }).click();
  const row = one.page.getByRole('dialog', { name: 'Engines: a new row' });
  await row.getByLabel('Code').fill('PQ77-ROOK');
  await row.getByLabel('Maker').fill('Rookhope');
  await row.getByLabel('Family').fill('Petrol');
  await one.pick('Interference', 'unknown');
  await row.getByRole('button', { name: 'Keep the correction' }).click();
  await one.page.getByRole('button', { name: /^Check as version/ }).click();
  await one.page.getByRole('button', { name: 'Take it in' }).click();
  await expect(one.page.getByRole('region', { name: 'Corrections' })).toHaveCount(0);
  await one.page.goto(`${at}/knowledge`);
  await one.page.getByLabel('Find a cause').fill('dirty seat');
  await one.page.getByRole('button', { name: /^Pump fitted on a dirty seat/ }).press('Enter');
  await one.page.getByRole('button', { name: /^How common/ }).press('Enter');
  await one.page.getByLabel('Here it is').fill('30');
  await one.page.getByLabel('On what ground').fill('Seven of our nine cases.');
  await one.page.getByLabel('On what ground').press('Enter');
  await expect(one.page.getByText(/1 number of its own/)).toBeVisible();
  await one.page.goto(`${at}/together`);
  const house1 = one.page.getByRole('region', { name: 'Of the house' });
  // the demo's version and the corrected one
  const put = house1.getByRole('button', { name: 'Put it on the shelf' });
  for (const left of [2, 1]) {
    await expect(put).toHaveCount(left);
    await put.first().click();
  }
  await expect(put).toHaveCount(0);
  await house1.getByRole('button', { name: 'Put this desk’s rules on the shelf' }).click();
  await expect(house1.getByText('judged by here')).toBeVisible();

  await joins(two, 'Bench', code);
  const house2 = two.page.getByRole('region', { name: 'Of the house' });
  await expect(house2.getByText(/from Front desk, not here/)).toBeVisible();
  await two.page.goto(`${at}/catalogue`);
  await two.page.getByLabel('Find by engine').fill('pq77');
  await expect(two.page.getByRole('button', { name: /PQ77-ROOK/ })).toHaveCount(0);
  await two.page.goto(`${at}/together`);
  await house2.getByRole('button', { name: 'Take it' }).click();
  await expect(house2.getByText(/not here/)).toHaveCount(0);
  await house2.getByRole('button', { name: 'Judge by these' }).click();
  await expect(house2.getByText('judged by here')).toBeVisible();
  await two.page.goto(`${at}/knowledge`);
  await expect(two.page.getByText(/1 number of its own/)).toBeVisible();
  await two.page.goto(`${at}/catalogue`);
  await two.page.getByLabel('Find by engine').fill('pq77');
  await expect(two.page.getByRole('button', { name: /PQ77-ROOK/ })).toBeVisible();
});

test('a folder that is carried between two machines is a shelf: half-written files wait, copies of a conflict are read', async () => {
  test.setTimeout(240_000);
  const [one, two] = [await house.desk(), await house.desk()];
  for (const desk of [one, two]) {
    await hasFolder(desk);
    await desk.open(`${at}/together`);
    await desk.page.getByRole('button', { name: 'Choose the folder' }).click();
    await expect(standing(desk.page)).toHaveText(/together$/);
  }
  await one.page.goto(at);
  await one.newCase();
  await one.line('odo 48200 km');
  await one.line('complaint rattle at cold start');
  const tag = (await one.page.getByRole('heading', { level: 1 }).textContent())!.trim().split(/\s/)[0]!;
  // the other machine may give the same number meanwhile
  expect(tag).toMatch(/^\d+-[0-9A-Z]{2}$/);
  await expect(standing(one.page)).toHaveText(/together$/);
  await expect.poll(async () => Object.values(await inFolder(one)).join('')).toContain('rattle');

  // cut off on its way: what is whole comes, the rest when it is
  const written = await inFolder(one);
  const path = Object.keys(written).find((p) => p.startsWith('logs/'));
  const whole = written[path!]!;
  await carry({ [path!]: whole.slice(0, whole.lastIndexOf('rattle')) }, two);
  await expect(rackLink(two.page, tag)).toBeVisible({ timeout: 30_000 });
  await rackLink(two.page, tag).click();
  await expect(two.tape()).toContainText(/48\D?200/);
  await expect(two.tape()).not.toContainText('rattle');
  // the carrier brings the whole of it under another name, as it does with conflicts
  await carry({ [path!.replace('.jsonl', ' (copy of the bench).jsonl')]: whole }, two);
  await expect(two.tape()).toContainText('rattle', { timeout: 30_000 });

  await two.line('odo 48300 km');
  await expect.poll(async () => Object.values(await inFolder(two)).join('')).toContain('48300');
  const back = Object.fromEntries(
    Object.entries(await inFolder(two)).filter(
      ([p]) => !p.startsWith(path!.split('/').slice(0, 2).join('/')),
    ),
  );
  await carry(back, one);
  await expect(one.tape()).toContainText(/48\D?300/, { timeout: 30_000 });

  // who is in a case is told as far as it is carried
  await one.page.goto(`${at}/together`);
  const others = one.page.getByRole('region', { name: 'Who is in a case' });
  await expect(others).toBeVisible();
  await expect
    .poll(
      async () => {
        const all = Object.entries(await inFolder(two));
        await carry(Object.fromEntries(all.filter(([p]) => p.startsWith('here/'))), one);
        return others.textContent();
      },
      { timeout: 90_000, intervals: [3000] },
    )
    .toContain(tag);

  // a catalogue and rules go the same way; one half carried is none
  const house1 = one.page.getByRole('region', { name: 'Of the house' });
  await house1.getByRole('button', { name: 'Put it on the shelf' }).click();
  await house1.getByRole('button', { name: 'Put this desk’s rules on the shelf' }).click();
  await expect(house1.getByText('judged by here')).toBeVisible();
  await two.page.goto(`${at}/together`);
  const house2 = two.page.getByRole('region', { name: 'Of the house' });
  await expect(house2.getByRole('button', { name: 'Put it on the shelf' })).toHaveCount(1);
  const offered = Object.entries(await inFolder(one)).filter(([p]) => /^(offers|files)\//.test(p));
  await carry(Object.fromEntries(offered), two);
  await expect(house2.getByRole('button', { name: 'Put it on the shelf' })).toHaveCount(0, {
    timeout: 30_000,
  });
  await expect(house2.getByText('judged by here')).toBeVisible();
});

test('a desk does not hold everything: of a large shelf the last cases come whole, others when they are opened, and are let go again', async () => {
  test.setTimeout(240_000);
  const filler = await joinedDesk(at, house.invitation, 'Front desk');
  const day = (i: number) => new Date(Date.UTC(2026, 5, 1) + i * 60_000).toISOString();
  const factsOf = (i: number): Fact[] =>
    (
      [
        ['case.tag', String(10_000 + i)],
        ['vehicle.distance', 40_000 + i],
      ] as const
    ).map(([key, value], k) => ({
      id: `f${i}-${k}`,
      case: `far-${i}`,
      key,
      value,
      how: 'reported',
      by: 'Mara Finch',
      at: day(i),
      seen: k + 1,
    }));
  const count = MOST_SUMMARIES + 50;
  let end: LogHead | undefined;
  for (let i = 0; i < count; i += 500) {
    const facts = Array.from({ length: Math.min(500, count - i) }, (_, k) => factsOf(i + k)).flat();
    const entry = nextEntry(filler.desk.id, end, facts);
    expect((await filler.shelf.append(entry)).ok).toBe(true);
    end = endOf(entry);
  }
  for (let i = 0; i < count; i += 1000) {
    const some = Array.from({ length: Math.min(1000, count - i) }, (_, k) => i + k);
    const put = await filler.shelf.putSummaries(
      some.map((k) => ({
        case: `far-${k}`,
        facts: 2,
        made: 'test',
        touched: day(k),
        text: JSON.stringify({
          id: `far-${k}`,
          tag: String(10_000 + k),
          engine: '',
          who: '',
          kind: 'question',
          waits: 'call',
          opened: day(k),
          touched: day(k),
          text: `mara finch ${40_000 + k}`,
          world: '',
        }),
      })),
    );
    expect(put.ok).toBe(true);
  }
  const code = await filler.shelf.invite();
  if (!code.ok) throw new Error(code.error.code);

  const desk = await house.desk();
  await joins(desk, 'Bench', code.value);
  await expect(desk.page.getByText(new RegExp(`Of 1\\D?850 cases only the summary`))).toBeVisible({
    timeout: 60_000,
  });
  // found by what stands in its summary, and whole when it is opened
  const filter = desk.page.getByLabel('Filter cases by any fact');
  await filter.fill('40007');
  await rackLink(desk.page, '10007').click();
  await expect(desk.tape()).toContainText(/40\D?007/);
  // what comes of a case that is here as a summary alone is told, not kept in part
  await desk.open(`${at}/together`);
  await desk.page.getByRole('button', { name: 'Keep only the last cases here whole' }).click();
  await expect(desk.page.getByText(/1 case is now here as a summar|now here as summaries/)).toBeVisible();
  const late = { ...factsOf(7)[1]!, id: 'late', value: 77_777, seen: 9 };
  expect((await filler.shelf.append(nextEntry(filler.desk.id, end, [late]))).ok).toBe(true);
  await filter.fill('40007');
  await rackLink(desk.page, '10007').click();
  await expect(desk.tape()).toContainText(/77\D?777/);
  // out of reach it says so, and everything that is here works on
  await house.serverStops();
  await filter.fill('40009');
  await rackLink(desk.page, '10009').click();
  await expect(desk.page.getByText('This case lies on the shelf, which is out of reach')).toBeVisible({
    timeout: 60_000,
  });
  await filter.fill('77777');
  await rackLink(desk.page, '10007').click();
  await expect(desk.tape()).toContainText(/77\D?777/);
});
