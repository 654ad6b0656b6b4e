import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { serve, stop } from '../server/serve';

/** Sends bytes as they are and reads the whole answer. */
function raw(request: string): Promise<string> {
  const port = Number(new URL(test.info().project.use.baseURL ?? '').port);
  return new Promise((done, fail) => {
    let text = '';
    const socket = connect(port, '127.0.0.1', () => socket.write(request));
    socket.on('data', (chunk) => (text += chunk.toString()));
    socket.on('end', () => done(text));
    socket.on('error', fail);
  });
}

test('pages carry the strict policy, parts carry little, hashed files keep for a year', async ({
  request,
}) => {
  const page = await request.get('/case/any/call');
  expect(page.status()).toBe(200);
  const policy = page.headers()['content-security-policy'] ?? '';
  expect(policy).toContain("default-src 'self'");
  expect(policy).toContain("script-src 'self';");
  expect(policy).not.toContain("'unsafe-eval'");
  expect(policy).toContain("require-trusted-types-for 'script'");
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

test('a name that was pointed at this machine is refused, its own names are not', async () => {
  const ask = (host: string) => raw(`GET /health HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\n\r\n`);
  for (const host of ['attacker.invalid', 'localhost.attacker.invalid:4173', '', 'x'])
    expect((await ask(host)).split(' ')[1], host).not.toBe('200');
  for (const host of ['localhost', '127.0.0.1:80', '[::1]:4173'])
    expect((await ask(host)).split(' ')[1], host).toBe('200');
});

test('forty captures at once hold no page up: a few are made, the others are told to come back', async ({
  request,
}) => {
  const all = Array.from({ length: 40 }, (_, i) => request.get(`/captures/TE16-CORM?seed=${i}`));
  const page = await request.get('/health');
  expect(page.status()).toBe(200);
  const codes = (await Promise.all(all)).map((r) => r.status());
  expect(new Set(codes)).toEqual(new Set([200, 503]));
  expect(codes.filter((c) => c === 200).length).toBeGreaterThanOrEqual(2);
});

test('no text becomes script or markup in the page, whoever asks', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('navigation', { name: 'Rack of cases' })).toBeVisible();
  const tried = await page.evaluate(() => {
    const fails = (job: () => void) => {
      try {
        job();
        return false;
      } catch {
        return true;
      }
    };
    return [
      fails(() => (document.createElement('div').innerHTML = '<b>x</b>')),
      fails(() => (document.createElement('script').text = 'window.hit = 1')),
      fails(() => (document.createElement('script').src = 'https://elsewhere.invalid/x.js')),
      fails(() => new Worker('https://elsewhere.invalid/x.js')),
    ];
  });
  expect(tried).toEqual([true, true, true, true]);
});

test('a request that cannot be understood gets a sentence and nothing of the inside', async () => {
  // by hand: a browser or a client would mend the address first
  for (const target of ['/%', '/%c0%ae%c0%ae/x.js', '/case/%E0%A4%A', '/x.js?%', '/..%2f..%2fpackage.json']) {
    const answer = await raw(`GET ${target} HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n`);
    expect(answer).toMatch(/^HTTP\/1\.1 [24]\d\d /);
    expect(answer).not.toMatch(/\bat .*:\d+:\d+|node_modules|Error:|\/work|\/home|\.ts\b/);
  }
  expect(await raw('GET /% HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n')).toMatch(
    /^HTTP\/1\.1 400 /,
  );
});

test('answers under way are finished when the server is told to stop', async () => {
  const root = mkdtempSync(join(tmpdir(), 'hs-serve-'));
  const body = 'x'.repeat(3_000_000);
  writeFileSync(join(root, 'index.html'), '<!doctype html>');
  writeFileSync(join(root, 'large.txt'), body);
  const started = await serve({ root, port: 4188, host: '127.0.0.1', demo: false });
  if (!started.ok) throw new Error(started.error.code);
  const got = await new Promise<number>((done, fail) => {
    let n = 0;
    const socket = connect(4188, '127.0.0.1', () =>
      socket.write('GET /large.txt HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n'),
    );
    let stopping: Promise<void> | undefined;
    socket.on('data', (chunk) => {
      n += chunk.length;
      // the first bytes are here: now it is told to stop
      stopping ??= stop(started);
    });
    socket.on('end', () => void stopping?.then(() => done(n)));
    socket.on('error', fail);
  });
  expect(got).toBeGreaterThan(body.length);
  rmSync(root, { recursive: true });
});

test('what is not there is not found, and nothing outside is served', async ({ request }) => {
  expect((await request.get('/no-such-file.js')).status()).toBe(404);
  expect((await request.get('/..%2f..%2fpackage.json')).status()).not.toBe(200);
  expect(await (await request.get('/setup.json')).json()).toEqual({ demo: true });
  expect((await request.get('/setup.json')).headers()['cache-control']).toBe('no-store');
});

test('stand-ins for instruments are listed, stream their lines, break when unplugged, and refuse what they cannot do', async ({
  request,
}) => {
  const list = (await (await request.get('/instruments')).json()) as { key: string; dimension: string }[];
  expect(list.map((i) => i.key)).toEqual(expect.arrayContaining(['dial', 'scale', 'thermometer']));
  // the raw answer ends with the plug, not with an end of its own
  const text = await raw(
    'GET /instruments/scale?pace=50&unplug=10&garbage=5 HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n',
  );
  expect(text).toMatch(/content-type: text\/event-stream/i);
  expect(text).toContain('data: # Scale; resolution 0.1 g');
  const lines = [...text.matchAll(/data: t=(\S+) (\S+) g/g)];
  expect(lines.length).toBeGreaterThan(30);
  expect(Number(lines.at(-1)![1])).toBeLessThan(10);
  for (const [, , g] of lines) expect(Math.abs(Number(g) - 63.7)).toBeLessThan(0.6);
  expect(text.match(/data: \u00bf/g)?.length ?? 0).toBeGreaterThan(5);
  expect(text.endsWith('0\r\n\r\n')).toBe(false);
  expect((await request.get('/instruments/nothing')).status()).toBe(404);
  const bad = await request.get('/instruments/dial?pace=fast');
  expect(bad.status()).toBe(400);
  expect(await bad.text()).toContain('pace');
});
