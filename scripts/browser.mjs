import { mkdtempSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';
import { findBrowser } from './browser-install.mjs';

/**
 * Parts of a browser's own window that are pages themselves: nobody sees them here, and each new
 * window would start a program for each of them.
 */
const UNSEEN = [
  ...['InitialWebUI', 'PreloadTopChromeWebUI', 'PreloadTopChromeWebUILessNavigations'],
  ...['WebUIToolbar', 'WebUILocationBar', 'WebUIReloadButton', 'WebUIBackForwardButton'],
  ...['WebUIHomeButton', 'WebUISplitTabsButton', 'WebUIOmniboxPopup', 'WebUIOmniboxFullPopup'],
  ...['WebUIOmniboxAimPopup', 'OmniboxAim', 'SideBySide', 'TabSearch'],
];

/**
 * A headless browser with an empty profile, at 1280×800, that asks nobody outside for anything.
 *
 * @param engine flags of the engine that runs scripts
 */
export async function openBrowser(engine = []) {
  const { path, isShell } = findBrowser();
  const profile = mkdtempSync(join(tmpdir(), 'yantrel-browser-'));
  const browser = await puppeteer.launch({
    executablePath: path,
    headless: isShell ? 'shell' : true,
    userDataDir: profile,
    defaultViewport: { width: 1280, height: 800 },
    args: [
      ...(engine.length ? [`--js-flags=${engine.join(' ')}`] : []),
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-dev-shm-usage',
      '--force-color-profile=srgb',
      `--disable-features=${UNSEEN.join()}`,
    ],
  });
  // Chromium may still be writing when it is told to go; a profile that stays is in the system's temporary folder.
  browser.once(
    'disconnected',
    () =>
      void rm(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 }).catch(
        () => undefined,
      ),
  );
  return browser;
}
