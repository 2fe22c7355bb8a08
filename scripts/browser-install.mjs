import { existsSync } from 'node:fs';
import { installPackages } from './machine.mjs';

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/** Where the browser is, if there is one. */
export const findBrowser = () => PLACES.find((p) => existsSync(p));

/** Installs Chromium where there is none. */
export function needBrowser() {
  if (!findBrowser()) installPackages('chromium');
}
