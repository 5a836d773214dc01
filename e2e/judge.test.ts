import { factVersion, runsOf, type PlacedSplice } from '@cordel/core';
import { randomUUID } from 'node:crypto';
import type { Page } from 'puppeteer-core';
import { everyFact, request } from '../server/test/process';
import { fill, press, see, seeGone, type Size } from './support/browser';
import { demoJourneys } from './support/journeys';
import { makeRibbonProject } from './support/ribbonProject';

/** What the judge says at the bench: of a series, from the first hint until it is put right, and of one splice, with its odds. */

const dirty = 7;
const losses = (seventh: string) =>
  Array.from({ length: 12 }, (_, index) => (index + 1 === dirty ? seventh : `0.0${(index % 3) + 1}`));

const at = demoJourneys({ each: false });

/** A ribbon was spliced so many minutes ago. */
function spliced(closureId: string, { left, right }: PlacedSplice, ago: number) {
  return {
    v: factVersion('attempt'),
    id: randomUUID(),
    kind: 'attempt',
    madeAt: new Date(Date.now() - ago * 60_000).toISOString(),
    by: 'Davi',
    device: null,
    subject: { on: 'splice', closureId, left: runsOf(left), right: runsOf(right) },
    body: {
      source: 'hand',
      simulated: true,
      readings: losses('0.09').map((loss) => ({ loss: Number(loss), cleaveLeft: 0.5, cleaveRight: 0.4 })),
      proofTestFailed: false,
      note: '',
    },
  };
}

/** Enters the ribbon at hand as a pasted column. */
async function paste(page: Page, column: readonly string[], slot: number): Promise<void> {
  await see(page, `Ribbon at slot ${slot}: which colors lie at the hinge, left and right?`);
  await press(page, 'BL BL: blue left, blue right');
  await press(page, 'Details');
  await press(page, 'Paste a column');
  await fill(page, 'Losses', column.join('\n'));
  await press(page, 'Record the 12 losses');
  await see(page, `slot ${slot + 1}`, 'head');
}

test.each<Size>(['phone', 'wide'])(
  'a night with a dirty groove, from the first hint to mended: %s',
  async (size) => {
    const { definition, closureId, ribbons } = makeRibbonProject(12);
    const { server } = at;
    await request(`${server.url}/api/projects`, 'POST', definition);
    const project = `${server.url}/api/projects/${definition.project.id}`;
    const facts = ribbons.slice(0, 4).map((ribbon, index) => spliced(closureId, ribbon, 60 - 10 * index));
    expect((await request(`${project}/facts`, 'POST', { facts })).status).toBe(200);
    const page = await at.open({ size });
    await page.goto(`${server.url}/p/${definition.project.id}/c/${closureId}/t/1/5`);
    await paste(page, losses('0.10'), 5);
    // Five ribbons: it may still be chance.
    await seeGone(page, 'One ribbon position reads high');
    await paste(page, losses('0.09'), 6);
    await see(page, 'One ribbon position reads high');
    await see(page, 'Likeliest: dirt in groove 7');

    await press(page, /^One ribbon position reads high/);
    // The mean of five times 0.09 and 0.10; that of four times 0.01, 0.02 and 0.03 without one 0.01 is 0.23 / 11.
    await see(page, 'Position 7 reads 0.092 dB, the others 0.021 dB, in 6 ribbons.');
    await see(page, 'Brush groove 7 on both sides and fuse one ribbon.');
    // What stands in the chart is what was read.
    await press(page, 'The numbers: Splices of the chart');
    await see(page, '5: 0.10; beside it 0.01, 0.02, 0.03');
    await press(page, 'It does not matter …');
    await press(page, 'Set it aside');
    await see(page, 'Say why in a few words');
    await press(page, 'Back');
    await press(page, 'It is put right');
    await seeGone(page, 'One ribbon position reads high');
    // It is clean now, and stays quiet; what was answered is on record.
    await paste(page, losses('0.02'), 7);
    await seeGone(page, 'reads high');
    await seeGone(page, 'to send', 'head');
    const all = await everyFact<{ kind: string; body: unknown }>(`${project}/facts`);
    const answers = all.filter(({ kind }) => kind === 'pattern-answer');
    expect(answers.map(({ body }) => body)).toContainEqual({
      rule: 'position',
      about: '7',
      machine: null,
      answer: 'done',
      note: '',
    });
    await page.close();
  },
  180_000,
);

test('a redo is weighed: its odds, what they are made from, what would change it, and the owner’s words about what it costs', async () => {
  const { demo } = at;
  const page = await at.open({ size: 'phone' });
  await page.goto(demo.bench(2, 19));
  await see(page, /Redo: 9 in 10 come out at 0\.10 or less; slack for \d+\./);
  await press(page, 'Why?');
  await see(page, 'Asking the owner would cost about');
  await see(page, /From \d+ first tries between these cables/);
  await see(page, 'the worst');
  await press(page, 'Close');

  // Every minute counts, what is over is tolerated, and fiber is short: then it is left.
  await page.goto(`${demo.line}/limits`);
  await press(page, 'Every minute counts', 'radio');
  await press(page, 'Tolerable now and then', 'radio');
  await press(page, 'Short', 'radio');
  await press(page, 'Save and judge again');
  await see(page, 'Save and judge again');
  await page.goto(demo.bench(2, 19));
  await see(page, /Ask the owner before another try|Leave it: a redo gains little/);
  await page.close();
}, 120_000);
