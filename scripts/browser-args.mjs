/** How the browser is started for tests and figures: without a graphics card, and without calling out. */
export const BROWSER = process.env.CHROMIUM ?? '/usr/bin/chromium';

export const BROWSER_ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
