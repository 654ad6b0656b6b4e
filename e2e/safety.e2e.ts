import { readFileSync, writeFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { Desk } from './desk';

test('a backup of everything restores in a new profile, after a look at what it holds; a broken one changes nothing', async ({
  page,
  browser,
}, info) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2041/call');
  await desk.type('Distance now', '77123');
  await expect(desk.tape()).toContainText(/77.?123/);
  await desk.open('/safety');
  await expect(page.getByRole('region', { name: 'Restore' })).toBeVisible();
  const out = await desk.download(() => page.getByRole('button', { name: /^Back everything up/ }).click());
  await expect(page.getByText(/^Last backup:/)).toBeVisible();
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);
  const entries = unzipSync(readFileSync(out.path));
  const list = JSON.parse(strFromU8(entries['backup.json']!)) as {
    cases: number;
    files: { name: string; sha256: string }[];
  };
  expect(list.files.length).toBeGreaterThan(0);

  const other = await browser.newContext();
  const page2 = await other.newPage();
  await page2.route('**/setup.json', (route) => route.fulfill({ json: { demo: false } }));
  const desk2 = new Desk(page2);
  await desk2.open('/safety');
  const choose = page2.getByLabel('Backup file');
  const restore = page2.getByRole('region', { name: 'Restore' });
  const saved = (name: string, content: Record<string, Uint8Array>) => {
    const path = info.outputPath(name);
    writeFileSync(path, zipSync(content, { level: 0 }));
    return path;
  };
  await choose.setInputFiles(saved('none.zip', { 'a.txt': strToU8('a') }));
  await expect(page2.getByText(/none\.zip is no backup of this program/)).toBeVisible();
  // facts that are none: all of it is read before anything is written
  await choose.setInputFiles(
    saved('cut.zip', { ...entries, 'desk/1.json': entries['desk/1.json']!.slice(0, 999) }),
  );
  await expect(restore).toContainText(`${list.cases} cases`);
  await restore.getByRole('button', { name: 'Take it in' }).click();
  await expect(page2.getByText(/cut\.zip, desk\/1\.json, is broken at line/)).toBeVisible();
  await expect(page2.getByText('No cases yet')).toBeVisible();
  await restore.getByRole('button', { name: 'Leave it' }).click();
  // one photograph changed: told, and left
  const photo = Object.keys(entries).find((n) => n.startsWith('files/'))!;
  await choose.setInputFiles(saved('all.zip', { ...entries, [photo]: strToU8('another') }));
  await restore.getByRole('button', { name: 'Take it in' }).click();
  const changed = list.files.find((f) => photo.includes(f.sha256))!;
  await expect(page2.getByText(/all\.zip: \d+ cases are on the rack/)).toContainText(changed.name, {
    timeout: 60_000,
  });
  await desk2.open('/case/demo-2041/call');
  await expect(desk2.tape()).toContainText(/77.?123/);
  await expect(desk2.tape()).toContainText('TE16-CORM');
  await other.close();
});

test('a backup goes into a folder day by day; a folder that is gone is told, and the next one is chosen', async ({
  page,
}) => {
  // the browser's own folder stands for one that the system's chooser gives
  await page.addInitScript(() => {
    Object.assign(window, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('backups', { create: true }),
    });
  });
  const inFolder = () =>
    page.evaluate(async () => {
      const root = await navigator.storage.getDirectory();
      const all: [string, number][] = [];
      const folder = (await root.getDirectoryHandle('backups', { create: true })) as unknown as {
        values(): AsyncIterable<FileSystemFileHandle>;
      };
      for await (const e of folder.values()) all.push([e.name, (await e.getFile()).size]);
      return all;
    });
  const desk = new Desk(page);
  await desk.open('/safety');
  const card = page.getByRole('region', { name: 'Backup' });
  await card.getByRole('button', { name: 'Back up into a folder, day by day' }).click();
  await expect(card.getByText(/^Last backup:/)).toBeVisible();
  await expect.poll(async () => (await inFolder()).length).toBe(1);
  const [[name, size]] = (await inFolder()) as [[string, number]];
  expect(name).toMatch(/\.zip$/);
  expect(size).toBeGreaterThan(10_000);

  // years later the desk is opened, and the folder was thrown away
  await page.evaluate(async () =>
    (await navigator.storage.getDirectory()).removeEntry('backups', { recursive: true }),
  );
  await page.clock.setFixedTime('2031-01-02T08:00:00Z');
  await page.reload();
  const says = card.getByRole('status');
  await expect(says).toHaveClass(/caution/);
  await card.getByRole('button', { name: 'Another folder' }).click();
  await expect(says).not.toHaveClass(/caution/);
  await expect.poll(async () => (await inFolder()).length).toBe(1);
  await card.getByRole('button', { name: 'No longer' }).click();
  await expect(card.getByRole('button', { name: 'Back up into a folder, day by day' })).toBeVisible();
});
