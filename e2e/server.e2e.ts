import { expect, test } from '@playwright/test';

test('pages carry the strict policy, parts carry little, hashed files keep for a year', async ({
  request,
}) => {
  const page = await request.get('/case/any/call');
  expect(page.status()).toBe(200);
  const policy = page.headers()['content-security-policy'] ?? '';
  expect(policy).toContain("default-src 'self'");
  expect(policy).toContain("script-src 'self';");
  expect(policy).not.toContain("'unsafe-eval'");
  expect(page.headers()['cache-control']).toBe('no-cache');
  const html = await page.text();
  expect(html).not.toMatch(/<script(?![^>]*src=)/);
  const main = /src="(main-[A-Z0-9]{8}\.js)"/.exec(html)![1]!;
  const script = await request.get(`/${main}`, { headers: { 'accept-encoding': 'gzip' } });
  expect(script.headers()['cache-control']).toContain('max-age=31536000, immutable');
  expect(script.headers()['x-content-type-options']).toBe('nosniff');
  expect(script.headers()['content-encoding']).toBe('gzip');
  expect(script.headers()['content-security-policy']).toBeUndefined();
  // what may be opened by itself keeps the policy
  expect((await request.get('/icon.svg')).headers()['content-security-policy']).toBe(policy);
});

test('what is not there is not found, and nothing outside is served', async ({ request }) => {
  expect((await request.get('/no-such-file.js')).status()).toBe(404);
  expect((await request.get('/..%2f..%2fpackage.json')).status()).not.toBe(200);
  expect(await (await request.get('/setup.json')).json()).toEqual({ demo: true });
  expect((await request.get('/setup.json')).headers()['cache-control']).toBe('no-store');
});
