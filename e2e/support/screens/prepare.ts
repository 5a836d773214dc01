import type { Page } from 'puppeteer-core';
import { fill, press, see } from '../browser';
import { shown } from '../demoOfScreens';
import { asideOn, type ScreenAt } from './screenAt';

const pickTubes = async (page: Page) => {
  await press(page, /^From tube 1 BL/, 'checkbox');
  await press(page, /^To tube 1 BL/, 'checkbox');
};

const answerWrongly = async (page: Page) => {
  await press(page, 'BL blue');
  await see(page, 'BL is not what the plan expects');
};

const openClosure = async (page: Page) => {
  await press(page, /^U2 Curva do Rio.* back by/);
  await see(page, 'Why here');
  await see(page, 'It fits on the first night');
};

const openRules = async (page: Page) => {
  await press(page, /^U2 Curva do Rio circuits back by/);
  await see(page, 'Sealed before it is begun');
};

/** Planning, preparing, kit and time, the nights. */
export const prepareScreens: ScreenAt[] = [
  { name: 'kit', path: () => `${shown.demo.line}/kit`, shows: 'Single sleeve, 60 mm' },
  {
    name: 'plan',
    path: () => `${shown.demo.closure}/plan`,
    shows: '107 splices',
    then: async (page) => {
      await fill(page, 'Order, one line for each assignment', 'A 1-96 > B 1-95\nC R1 D R1\nC ');
      await see(page, 'Give both sides the same number');
    },
    onWide: (page) => see(page, 'Give both sides the same number'),
  },
  {
    name: 'plan, picked',
    path: () => `${shown.demo.closure}/plan`,
    // The check is there: what it finds moves what stands below it.
    shows: /On the trays Trays and slots Tray 1/,
    aside: true,
    then: async (page) => {
      await press(page, 'Pick on the cables');
      await pickTubes(page);
    },
    onWide: pickTubes,
  },
  { name: 'closure models', path: () => `${shown.server.url}/models`, shows: 'Dome 288' },
  { name: 'closure model', path: () => `${shown.server.url}/models/new`, shows: 'Save the model' },
  { name: 'prepare', path: () => `${shown.demo.closureAt('U3')}/prepare`, shows: 'marks 9 of 17' },
  {
    name: 'before a blade comes out',
    path: () => `${shown.demo.closureAt('U4')}/prepare/before`,
    shows: '5 cautions are open',
  },
  {
    name: 'seals and measures',
    path: () => `${shown.demo.closureAt('U3')}/prepare/seals`,
    shows: '1 of 3 cables measured',
  },
  {
    name: 'cut sheet',
    path: () => `${shown.demo.closureAt('U3')}/prepare/${shown.demo.cable('96 Mirante')}`,
    shows: '9 of 17 made',
    then: async (page) => {
      await press(page, /^14 · Cut tube 7 RD/);
      await see(page, 'Both sides are spliced', asideOn(page));
    },
  },
  {
    name: 'steps, with a question and a clock',
    path: () => `${shown.demo.closureAt('T1')}/prepare/${shown.demo.cable('Drop Hall')}/steps`,
    shows: 'Toning wire off',
    then: async (page) => {
      await press(page, 'A fused connector');
      await press(page, /^Heat\b/);
      await press(page, /^Start the clock/);
      await press(page, /^Strip the small tube/);
      await see(page, 'How many fibers come out of the drop?');
    },
  },
  {
    name: 'steps, answered wrongly',
    path: () => `${shown.demo.closureAt('U3')}/prepare/${shown.demo.cable('96 Mirante')}/steps`,
    shows: '7 of 21 done',
    then: async (page) => {
      await press(page, /^Tube 7: its color/);
      await answerWrongly(page);
    },
    onWide: answerWrongly,
  },
  {
    name: 'connectors',
    path: () => `${shown.demo.closureAt('T1')}/prepare/connectors`,
    shows: 'glows at the joint',
    then: async (page) => {
      await press(page, /^A 12 /);
      await see(page, 'What goes on first');
    },
  },
  { name: 'closure’s table', path: () => `${shown.demo.closureAt('U3')}/table`, shows: 'Save the table' },
  { name: 'time', path: () => `${shown.demo.line}/time`, shows: 'after the window closes' },
  { name: 'nights', path: () => `${shown.demo.line}/nights`, shows: 'Proven: there is no better plan.' },
  {
    name: 'nights, a closure',
    path: () => `${shown.demo.line}/nights`,
    shows: 'Proven: there is no better plan.',
    then: openClosure,
    onWide: openClosure,
  },
  {
    name: 'nights, what they are made from',
    path: () => `${shown.demo.line}/nights/setup`,
    shows: 'Ways and reserve',
    then: openRules,
    onWide: openRules,
  },
  {
    name: 'a crew’s sheet',
    path: () => {
      const { nights, crews } = shown.demo.definition.project.nights!;
      return `${shown.demo.line}/nights/sheet?night=${nights[0]!.id}&crew=${crews[0]!.id}`;
    },
    shows: 'Single sleeve, 60 mm',
  },
];
