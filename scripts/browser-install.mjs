import { existsSync } from 'node:fs';
import { installPackages } from './machine.mjs';

/**
 * Chromium without a window of its own: it shows a page as Chromium does, for half the work. Then
 * Chromium itself, where that is what there is.
 */
const PLACES = [
  '/usr/bin/chromium-headless-shell',
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
];

/** Where the browser is, if there is one, and whether it has no window of its own. */
export function findBrowser() {
  const path = PLACES.find((p) => existsSync(p));
  return path && { path, isShell: path === PLACES[0] };
}

/** Installs a browser where there is none. */
export function needBrowser() {
  if (!findBrowser()) installPackages('chromium-headless-shell');
}
