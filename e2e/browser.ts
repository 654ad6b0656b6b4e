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
