// How Debian's Chromium is started without a head; the same for tests, pictures and measurements.
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-background-networking',
    '--disable-quic',
    '--disable-component-update',
    '--disable-sync',
    '--disable-gpu',
    '--no-first-run',
    '--font-render-hinting=none',
  ],
};
