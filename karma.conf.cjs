process.env.CHROME_BIN ??= '/usr/bin/chromium';
module.exports = (config) =>
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    // A busy machine's disk makes a durable write last; what hangs is still ended.
    client: { jasmine: { random: true, timeoutInterval: 60_000 }, clearContext: false },
    reporters: ['dots'],
    browsers: ['Headless'],
    customLaunchers: {
      Headless: {
        base: 'ChromeHeadless',
        flags: [
          '--no-sandbox',
          '--disable-gpu',
          '--disable-dev-shm-usage',
          '--disable-quic',
          '--no-first-run',
          '--disable-background-networking',
          '--disable-component-update',
          '--disable-sync',
          // a camera that shows a moving test picture
          '--use-fake-device-for-media-stream',
          '--use-fake-ui-for-media-stream',
        ],
      },
    },
    // A busy machine may not answer for a while; a run that hangs is still ended.
    reportSlowerThan: 10_000,
    // Laws over whole catalogues hold the page for as long as a busy machine needs.
    pingTimeout: 180_000,
    browserNoActivityTimeout: 600_000,
    browserDisconnectTolerance: 1,
    colors: false,
    restartOnFileChange: false,
  });
