import type { ProjectDefinition } from '@cordel/core';
import type { Page } from 'puppeteer-core';
import { request } from '../../../server/test/process';
import { fill, press, see, seeGone } from '../browser';
import { setOffline } from '../network';
import { shown } from '../demoOfScreens';
import type { ScreenAt } from './screenAt';

/** The shelf, the line and what stands on it, losses, practice. */
export const lineScreens: ScreenAt[] = [
  { name: 'shelf', path: () => shown.server.url, shows: '156 of 287 splices' },
  {
    name: 'preferences',
    path: () => shown.server.url,
    shows: '156 of 287 splices',
    then: async (page) => {
      await press(page, /^Preferences/);
      await see(page, 'Text size');
    },
  },
  { name: 'new project', path: () => `${shown.server.url}/new`, shows: 'Cable B' },
  { name: 'line', path: () => shown.demo.line, shows: '60 of 107' },
  { name: 'losses', path: () => `${shown.demo.line}/losses`, shows: 'dB mean' },
  {
    name: 'settings',
    path: () => `${shown.demo.line}/settings`,
    shows: 'As a clock in America/Sao_Paulo shows it.',
  },
  { name: 'limits', path: () => `${shown.demo.line}/limits`, shows: 'Save and judge again' },
  { name: 'closure', path: () => shown.demo.closure, shows: '60 of 107 settled' },
  { name: 'backup', path: () => `${shown.server.url}/backup`, shows: 'there is something on this shelf' },
  {
    name: 'measured losses',
    path: () => `${shown.demo.closureAt('U1')}/measure/1`,
    shows: '12 of 24 fibers measured',
  },
  {
    name: 'losses, looked at',
    path: () => `${shown.demo.line}/losses/look`,
    shows: 'Position 7 has the highest mean',
  },
  { name: 'practice', path: () => `${shown.server.url}/practice`, shows: 'Which fiber is 157?' },
  {
    name: 'practice, a night',
    path: () => `${shown.server.url}/practice/night-1`,
    shows: 'Ribbon 1 of 12',
    then: async (page) => {
      await press(page, 'Fuse');
      await see(page, 'Read so far');
    },
    onWide: (page) => see(page, 'Read so far'),
  },
  {
    name: 'practice, a night that is over',
    path: () => `${shown.server.url}/practice/night-4`,
    shows: 'Fiber 1 of 24',
    then: async (page) => {
      const actions = Array.from({ length: 24 }, () => [{ do: 'fuse' }, { do: 'accept' }]).flat();
      await page.evaluate((night) => localStorage.setItem('cordel.nights-running', JSON.stringify(night)), {
        'night-4': { seed: 20_260_415, actions },
      });
      await page.reload();
      await press(page, 'See how it went');
      await see(page, 'It was: an arc');
    },
  },
  {
    name: 'practice, a question answered',
    path: () => `${shown.server.url}/practice`,
    shows: 'Which fiber is 157?',
    then: async (page) => {
      await press(page, 'Begin, 20 questions');
      await see(page, '1 of 20');
      const answers = await page.$$('[role=button][tabindex="0"]');
      await answers[1]!.click();
      await see(page, /Right\.|Not this one\./);
    },
  },
  {
    name: 'check a record',
    path: () => `${shown.server.url}/verify?sha256=${'0'.repeat(64)}`,
    shows: 'Nothing with this',
  },
  {
    name: 'find',
    path: () =>
      `${shown.server.url}/find?project=${shown.demo.projectId}&q=${encodeURIComponent('3.08 km brown')}`,
    shows: 'U2 Curva do Rio, tray 2, slot 22',
  },
  {
    name: 'cable',
    path: () => `${shown.demo.line}/cable/${shown.demo.cable('144 Ladeira')}`,
    shows: 'Ribbon 1, fibers 1 to 12',
  },
  {
    name: 'cable, edited',
    path: () => `${shown.demo.line}/cable/${shown.demo.cable('48 Ladeira')}/edit`,
    shows: 'Save the cable',
    then: (page) => press(page, 'Own'),
  },
  {
    name: 'site',
    path: () => `${shown.demo.line}/s/${shown.demo.definition.sites[0]!.id}`,
    shows: 'Save the site',
  },
  {
    name: 'follow',
    path: () => `${shown.demo.line}/follow?cable=${shown.demo.cable('96 Moinho')}&fiber=75`,
    shows: '4 splices',
  },
  {
    name: 'nothing here',
    path: () => `${shown.server.url}/elsewhere`,
    shows: 'There is no page at this address',
  },
  {
    name: 'decide',
    path: () => `${shown.demo.line}/limits`,
    shows: 'Save and judge again',
    then: async (page) => {
      await overtakeLimits(page);
      await press(page, 'Yours: 4', 'radio');
    },
  },
];

/**
 * Limits are changed on this page with no network, and by somebody else meanwhile; the page stands where that is
 * decided.
 */
async function overtakeLimits(page: Page): Promise<void> {
  const url = `${shown.server.url}/api/projects/${shown.demo.projectId}`;
  await setOffline(page, true);
  await fill(page, 'Tries, before it is the owner’s call', '4');
  await fill(page, 'Single splice, at most (dB)', '0.12');
  await press(page, 'Save and judge again');
  await see(page, 'to send', 'head');
  const { body } = await request<ProjectDefinition>(url);
  const { id: _, lineVersion: __, ...settings } = body.project;
  const limits = {
    ...settings.limits,
    tries: settings.limits.tries + 2,
    singleMax: settings.limits.singleMax + 0.05,
  };
  await request(`${url}/settings`, 'PUT', { ...settings, limits });
  await setOffline(page, false);
  await seeGone(page, 'to send', 'head');
  await page.goto(`${shown.server.url}/waiting`);
  await press(page, 'Decide: Settings and limits changed');
  await see(page, 'Somebody else saved this while your change waited here.');
}
