// How Debian's Chromium is started without a head.
const args = [
  '--no-sandbox',
  '--disable-background-networking',
  '--disable-quic',
  '--disable-component-update',
  '--disable-sync',
  '--disable-gpu',
  '--no-first-run',
  // As Debian's desktops draw letters.
  '--font-render-hinting=slight',
];

/**
 * Its shell that never has a window, for tests and pictures: the whole browser starts a renderer
 * for its own window with each context, which costs a second of processor time.
 */
export const CHROMIUM = { executablePath: '/usr/bin/chromium-headless-shell', args };

/** The whole browser, which can capture its tabs and is what people have: for measurements. */
export const WHOLE_CHROMIUM = { executablePath: '/usr/bin/chromium', args };
