import { type Browser, chromium } from 'playwright-core';

/** Flags for WebGL in software and no traffic of the browser's own. */
const args = [
  '--no-sandbox',
  '--use-gl=angle',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--ignore-gpu-blocklist',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
  '--disable-quic',
];

/** Debian's Chromium, headless. */
export const openBrowser = (): Promise<Browser> => chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args });
