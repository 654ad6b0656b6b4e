import { execFileSync } from 'node:child_process';

/** How the tests start Debian's Chromium: no sandbox (root), no background traffic. */
export const launch = {
  executablePath: process.env['CHROME_BIN'] ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-dev-shm-usage',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

/** Ends every process of the browser that runs on this profile, at once and without a word. */
export function killBrowserOf(profile: string): void {
  const list = execFileSync('ps', ['-eo', 'pid=,args='], { encoding: 'utf8' });
  for (const line of list.split('\n')) {
    const pid = Number(/^\s*(\d+)/.exec(line)?.[1]);
    if (line.includes(profile) && pid !== process.pid) process.kill(pid, 'SIGKILL');
  }
}
