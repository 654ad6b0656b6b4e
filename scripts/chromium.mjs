// Debian's Chromium for the tests: found, installed when this is root, or the one line to run.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fail } from './ensure.mjs';

export function ensureChromium() {
  process.env.CHROME_BIN ??= '/usr/bin/chromium';
  if (existsSync(process.env.CHROME_BIN)) return;
  const line = 'apt-get update && apt-get install -y --no-install-recommends chromium';
  if (process.getuid?.() !== 0) fail(`The tests need Chromium. Run once: sudo sh -c "${line}"`);
  console.log('Installing Chromium from Debian’s packages (once)…');
  const run = spawnSync('sh', ['-c', line], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  if (run.status !== 0 || !existsSync(process.env.CHROME_BIN))
    fail(`Chromium could not be installed. Run this line yourself and look at what it says: ${line}`);
}
