import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Desk, jsonFile } from './desk';
import { pdfText } from './pdf-text';

test('an issue is signed, verified, altered and found altered; another desk learns whose it is', async ({
  page,
  browser,
}) => {
  const desk = new Desk(page);
  await desk.open('/proof');
  const phrase = page.getByLabel('Passphrase of the backup');
  await phrase.fill('short');
  await expect(page.getByRole('button', { name: /^Make a key/ })).toBeDisabled();
  await phrase.fill('lamp under the sluice');
  const backup = await desk.download(() => page.getByRole('button', { name: /^Make a key/ }).click());
  const given = await desk.download(() => page.getByRole('button', { name: 'Save the public key' }).click());
  const signs = page.getByRole('region', { name: 'Who signs here' });
  const code = (await signs.locator('b').innerText()).trim();
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);

  await desk.open('/case/demo-2027/settle');
  const papers = page.getByRole('region', { name: 'Report and letters' });
  await desk.download(() => papers.getByRole('button', { name: 'Seal and issue', exact: true }).click());
  await expect(papers).toContainText(code);
  // three papers for three readers
  await desk.paper('Customer');
  const customer = await desk.download(() =>
    papers.getByRole('button', { name: 'PDF', exact: true }).click(),
  );
  expect((readFileSync(customer.path, 'latin1').match(/\/Type \/Page\b(?!s)/g) ?? []).length).toBe(1);
  await desk.paper('Workshop');
  await desk.type('Own words to the workshop', 'Come by, Łukasz: we show it on the bench.');
  const letter = pdfText(
    (await desk.download(() => papers.getByRole('button', { name: /PDF$/ }).click())).path,
  );
  expect(letter).toContain('Łukasz');
  expect(letter).toContain('What to do next time');
  expect(letter).not.toContain('SHA-256');
  const file = await desk.download(() => papers.getByRole('button', { name: 'Case as JSON' }).click());
  const text = readFileSync(file.path, 'utf8');
  const html = await desk.download(() => papers.getByRole('button', { name: 'HTML' }).click());

  const verify = async (on: Desk, name: string, content: string) => {
    await on.page.getByLabel('Files to verify').setInputFiles(jsonFile(name, content));
    return on.page.locator('hs-state').filter({ hasText: name });
  };
  await desk.open('/proof');
  const sound = await verify(desk, 'sound.json', text);
  await expect(sound).toContainText(`Issued by this desk, and unchanged (key ${code})`);
  const changed = await verify(desk, 'changed.json', text.replace('"value": 96420', '"value": 99420'));
  await expect(changed).toContainText('Changed since it was written: the facts.');
  await expect(changed).toContainText('but changed since');
  await expect(changed).toContainText(/99\s?420/);
  const broken = await verify(desk, 'broken.json', text.slice(0, 900));
  await expect(broken).toContainText('is broken at line');
  // own words came after the issue, so this letter is a draft and has no code
  expect(readFileSync(html.path, 'utf8')).toContain('DRAFT');

  // another desk, which has neither the case nor the key
  const second = await browser.newContext();
  const other = new Desk(await second.newPage());
  await other.open('/proof');
  await expect(await verify(other, 'sound.json', text)).toContainText('not known here: ask the desk');
  await other.page
    .getByLabel('Key files')
    .setInputFiles(jsonFile('key.json', readFileSync(given.path, 'utf8')));
  await expect(other.page.getByRole('row').filter({ hasText: code })).toContainText('Marrowfen');
  await expect(await verify(other, 'sound.json', text)).toContainText(
    'Issued by Marrowfen Drive Parts, and unchanged',
  );
  // the desk itself, in a new browser
  const kept = readFileSync(backup.path, 'utf8');
  await other.page.getByLabel('Key files').setInputFiles(jsonFile('backup.json', kept));
  const again = other.page.getByLabel('Passphrase of backup.json');
  await again.fill('lamp under the bridge');
  await other.page.getByRole('button', { name: 'Open the backup' }).click();
  await expect(other.page.getByText('does not open with this passphrase')).toBeVisible();
  await again.fill('lamp under the sluice');
  await other.page.getByRole('button', { name: 'Open the backup' }).click();
  await expect(other.page.getByRole('region', { name: 'Who signs here' }).locator('b')).toHaveText(code);
  await second.close();
});

test('the code on a letter is read from a picture, and a paper of another issue is found out', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2027/settle');
  const papers = page.getByRole('region', { name: 'Report and letters' });
  await desk.paper('Customer');
  const html = await desk.download(() => papers.getByRole('button', { name: 'HTML' }).click());
  const paper = await page.context().newPage();
  await paper.setContent(readFileSync(html.path, 'utf8'));
  const shot = await paper.screenshot({ fullPage: true });
  await paper.close();
  await desk.open('/proof');
  const picture = { name: 'letter.png', mimeType: 'image/png', buffer: shot };
  await page.getByLabel('Files to verify').setInputFiles(picture);
  const of = page.locator('hs-state').filter({ hasText: 'letter.png' });
  await expect(of).toContainText('The paper is of this issue.');
  await expect(of.getByRole('link', { name: 'Case 2027' })).toBeVisible();
  const scan = page.getByLabel('or scan the code here');
  await scan.fill(`hollow-sprocket:issue:demo-2027:1:${'ab'.repeat(32)}`);
  await scan.press('Enter');
  await expect(page.locator('hs-state').filter({ hasText: 'Code' })).toContainText('the paper is none of it');
});
