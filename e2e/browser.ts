import { type Browser, chromium } from 'playwright-core';

/** Flags for WebGL in software and no traffic of the browser's own. */
const args = [
  '--no-sandbox',
  '--use-gl=angle',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--ignore-gpu-blocklist',
  // The page is put together by the processor: on a software GPU that takes a core of its own.
  '--disable-gpu-compositing',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
  '--disable-quic',
];

/** Debian's Chromium, headless. */
export const openBrowser = (): Promise<Browser> => chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args });
