import type { Page } from 'puppeteer-core';
import { press, see } from '../browser';
import { attach } from '../camera';
import { read, table } from '../nightLog';
import { shown } from '../demoOfScreens';
import type { ScreenAt } from './screenAt';

const readOtherwise = async (page: Page) => {
  await attach(page, 'Log of a splicing machine', [table(read)], 'night.csv');
  await press(page, 'Change how it is read');
  await see(page, 'Between the cells');
};

/** A splicing machine that is listened to, its log, and gear. */
export const machineScreens: ScreenAt[] = [
  {
    name: 'hands free, nothing linked',
    path: () => `${shown.demo.closureAt('U3')}/listen/1/1`,
    shows: 'No machine',
    then: async (page) => {
      await press(page, 'Machine');
      await see(page, 'in this page, works with no network');
    },
  },
  {
    name: 'hands free, its machine',
    path: () => `${shown.demo.closureAt('U3')}/listen/1/1`,
    shows: 'No machine',
    then: async (page) => {
      await press(page, 'Machine');
      await press(page, /single fibers.*in this page/);
      await press(page, 'Are mine: one key for each step', 'radio');
      await press(page, 'As fast as it goes', 'radio');
      await see(page, 'What is wrong tonight');
    },
    onWide: (page) => see(page, 'What is wrong tonight'),
  },
  {
    name: 'hands free, before the arc',
    path: () => `${shown.demo.closureAt('U3')}/listen/1/1`,
    shows: 'Lay in',
    then: async (page) => {
      await press(page, /^Lay in/);
      await see(page, /Fuse|Recleave/);
    },
  },
  {
    name: 'hands free, by hand',
    path: () => `${shown.demo.closureAt('U3')}/listen/1/1`,
    shows: 'Lay in',
    then: async (page) => {
      await press(page, 'By hand');
      await see(page, 'By hand: tray 1, slot 1');
    },
  },
  {
    name: 'a log, how it is read',
    path: () => `${shown.demo.closureAt('U3')}/log`,
    shows: 'Nothing is recorded before you have looked at it.',
    then: readOtherwise,
    onWide: readOtherwise,
  },
  {
    name: 'a log, compared',
    path: () => `${shown.demo.closureAt('U3')}/log`,
    shows: 'Nothing is recorded before you have looked at it.',
    then: async (page) => {
      await attach(page, 'Log of a splicing machine', [table(read)], 'night.csv');
      await press(page, 'Read it so');
      await press(page, 'Compare with what is on record');
      await see(page, 'Fills a gap 9');
    },
  },
  { name: 'gear', path: () => `${shown.server.url}/gear`, shows: 'Cleaver R' },
  {
    name: 'a machine, edited',
    path: () => `${shown.server.url}/gear`,
    shows: /Single 1 calibrated/,
    then: async (page) => {
      await press(page, /^Single 1/);
      await see(page, 'When something is due');
    },
  },
  {
    name: 'gear, a new cleaver',
    path: () => `${shown.server.url}/gear/new?kind=cleaver`,
    shows: 'Cleave length',
    then: async (page) => {
      await press(page, 'Put it on the list');
      await see(page, 'Not saved yet');
    },
  },
];
