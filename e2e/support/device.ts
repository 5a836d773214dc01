import type { Page } from 'puppeteer-core';
import { patience } from './browser';

/** What a journey asks of the device itself. */

declare global {
  interface Window {
    /** The last document that was handed to the browser to save. */
    saved?: Promise<string> | undefined;
  }
}

/** Waits until the application is on the device, so that it opens with no network. */
export const onDevice = (page: Page) =>
  page.waitForFunction(() => navigator.serviceWorker.controller?.state === 'activated', {
    timeout: patience,
  });

/** Waits until so many documents whose keys have this part are on the disk of the device. */
export const documentsKept = (page: Page, part: string, least: number, most: number) =>
  page.waitForFunction(
    (wanted, low, high) =>
      new Promise<boolean>((done) => {
        const open = indexedDB.open('cordel');
        open.onsuccess = () => {
          const keys = open.result.transaction('snapshot').objectStore('snapshot').getAllKeys();
          keys.onsuccess = () => {
            open.result.close();
            const { length } = keys.result.filter((key) => (key as string).includes(wanted));
            done(length >= low && length <= high);
          };
        };
      }),
    { polling: 200, timeout: patience },
    part,
    least,
    most,
  );

/** Keeps what the page hands to the browser to save from now on in `window.saved`. */
export const catchSaved = (page: Page) =>
  page.evaluate(() => {
    const make = URL.createObjectURL.bind(URL);
    URL.createObjectURL = (blob: Blob) => {
      window.saved = blob.text();
      return make(blob);
    };
  });

/**
 * Waits until limits that were saved are kept: there is nothing left to save. Before that nothing says that they wait
 * to be sent.
 */
export const limitsKept = (page: Page) =>
  page.waitForFunction(
    () =>
      [...document.querySelectorAll<HTMLElement>('[role=button][aria-disabled=true]')].some(
        (button) => button.innerText === 'Save and judge again',
      ),
    { polling: 'raf' },
  );
