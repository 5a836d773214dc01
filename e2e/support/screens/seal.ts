import type { Page } from 'puppeteer-core';
import { fill, press, see } from '../browser';
import { shown } from '../demoOfScreens';
import type { ScreenAt } from './screenAt';

const openPhoto = async (page: Page) => {
  await press(page, 'Photo 1 of 1, Tray 2: its lid closes');
  await see(page, 'Take out of the record');
};

/** Sealing and handing over. */
export const sealScreens: ScreenAt[] = [
  { name: 'seal', path: () => `${shown.demo.closure}/seal/stages`, shows: 'Between here and the seal' },
  {
    name: 'seal, final look',
    path: () => `${shown.demo.closure}/seal/look`,
    shows: '0 of 14 right',
    then: async (page) => {
      await press(page, /^Not right/);
      await see(page, 'What is wrong: Tray 1');
    },
    onWide: (page) => see(page, 'What is wrong: Tray 1'),
  },
  {
    name: 'seal, a photo',
    path: () => `${shown.demo.closureAt('U1')}/seal/stages`,
    shows: 'Tray 2: its lid closes',
    then: openPhoto,
    onWide: openPhoto,
  },
  { name: 'seal, tighten', path: () => `${shown.demo.closure}/seal/tighten`, shows: '0 of 4 tight' },
  {
    name: 'seal, before the test',
    path: () => `${shown.demo.closure}/seal/test`,
    shows: 'Soap after pumping',
  },
  { name: 'seal, under pressure', path: () => `${shown.pumped}/seal/test`, shows: 'Look at the rest, then' },
  { name: 'seal, holding test', path: () => `${shown.demo.closure}/seal/hold`, shows: 'Begin the test' },
  { name: 'ready', path: () => `${shown.demo.line}/handover`, shows: '46 splices are open.' },
  { name: 'owner’s calls', path: () => `${shown.demo.line}/handover/calls`, shows: 'All 3 tries are used.' },
  {
    name: 'documents',
    path: () => `${shown.demo.line}/handover/documents`,
    shows: 'Report of one page (PDF)',
  },
  {
    name: 'sign-off',
    path: () => `${shown.demo.line}/handover/sign?closure=${shown.signedClosure()}`,
    shows: 'Nothing stands against acceptance.',
    then: async (page) => {
      await fill(page, 'Who signs', 'Nilo');
      await press(page, /^Sign the record as it is now/);
      await see(page, 'The signed record (JSON)');
    },
  },
];
