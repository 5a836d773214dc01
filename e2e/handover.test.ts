import { readPdf } from '../server/test/pdf';
import { fill, padKey, press, see, seeGone } from './support/browser';
import { setOffline } from './support/network';
import { onDevice } from './support/device';
import { demoJourneys } from './support/journeys';
import { savedBy } from './support/saved';
import { firstProject } from './support/shelf';

/** Handing over: what stands against it, the owner's calls, the documents, and the signed record. */

const at = demoJourneys({ site: 'U2' });

test('on a phone: each thing that stands against it leads to its place, and an owner’s call is allowed with name and reason', async () => {
  const page = await at.open({ size: 'phone' });
  await page.goto(at.demo.closure);
  await press(page, 'Hand over');
  const u2 = { role: 'group', name: 'U2 Curva do Rio' };
  await see(page, '46 splices are open.', u2);
  await see(page, 'Not ready: 4 things stand against it');
  await press(page, '1 splice waits for the owner’s call.', 'link');
  const call = { role: 'group', name: 'U2 Curva do Rio, tray 2, slot 22' };
  await see(page, 'All 3 tries are used.', call);
  await see(page, 'Try 3: 0.13 dB', call);
  await press(page, /^Allow it/);
  await see(page, 'Say who answers for the owner, above.', call);
  await fill(page, 'Who answers for the owner', 'Nilo');
  await press(page, /^Allow it/);
  await see(page, 'Give the reason.', call);
  await fill(page, 'Reason: U2 Curva do Rio, tray 2, slot 22', 'spare fiber');
  await press(page, /^Allow it/);
  await see(page, 'The owner allowed it · Nilo · spare fiber', call);
  await seeGone(page, 'to send', 'head');
  await page.goto(`${at.demo.line}/handover/ready?closure=${at.demo.closure.split('/c/')[1]}`);
  await see(page, 'Not ready: 3 things stand against it');
  await see(page, '2 splices over a limit, allowed by the owner.', u2);
  await press(page, 'It is not sealed: see what stands between here and the seal.', 'link');
  await see(page, 'Between here and the seal');
  await page.close();
}, 90_000);

test('on a wide screen: a document with its progress, the record signed, checked by its words, and a later record told', async () => {
  const page = await at.open({ size: 'wide' });
  const u1 = at.demo.definition.closures.find(({ siteId }) =>
    at.demo.definition.sites.find(({ id }) => id === siteId)!.name.startsWith('U1'),
  )!.id;
  await page.goto(`${at.demo.line}/handover/ready?closure=${u1}`);
  await see(page, 'Ready: nothing stands against acceptance');
  await press(page, 'Documents');
  const report = await savedBy(page, () => press(page, /^Report \(PDF\)/));
  expect([report.name, report.bytes.subarray(0, 5).toString()]).toEqual([
    'U1 Ponte Velha record.pdf',
    '%PDF-',
  ]);
  await see(page, 'is saved. Fingerprint of the record:');

  await page.goto(`${at.demo.line}/handover/sign?closure=${u1}`);
  await see(page, 'Nothing stands against acceptance.');
  await fill(page, 'Who signs', 'Nilo');
  await press(page, 'Inspector', 'radio');
  await fill(page, 'Remarks', 'seen on site');
  await press(page, /^Sign the record as it is now/);
  const signed = { role: 'group', name: 'Signed: U1 Ponte Velha' };
  await see(page, 'Nilo (inspector)', signed);
  const record = (await savedBy(page, () => press(page, 'The signed record (JSON)'))).bytes.toString();
  const sha256 = await page.evaluate(
    () => /SHA-256 ([0-9a-f]{64})/.exec(document.body.textContent ?? '')![1]!,
  );

  // Whoever has the file checks it on a page of its own, here with one digit of it changed as well.
  await page.goto(`${at.server.url}/verify?sha256=${sha256}`);
  await see(page, 'U1 Ponte Velha, Vale do Umbu ring, section 2: accepted, signed by Nilo (inspector)');
  const check = async (text: string) => {
    const input = await page.$('input[type=file]');
    await input!.evaluate((one, content) => {
      const files = new DataTransfer();
      files.items.add(new File([content], 'record.json', { type: 'application/json' }));
      (one as HTMLInputElement).files = files.files;
      one.dispatchEvent(new Event('change', { bubbles: true }));
    }, text);
  };
  await check(record);
  await see(page, 'It is the record of this fingerprint');
  await check(record.replace('"loss":0.02', '"loss":0.01'));
  await see(page, 'It is another record than the one of this fingerprint');

  // Opened again after it was signed: that stands as later.
  await page.goto(`${at.demo.line}/c/${u1}/seal`);
  await press(page, 'Opened again');
  await press(page, 'Record that it was opened');
  await seeGone(page, 'to send', 'head');
  await page.goto(`${at.demo.line}/handover/ready?closure=${u1}`);
  await see(page, 'signed by Nilo (inspector) · 1 record is later than that', {
    role: 'group',
    name: 'U1 Ponte Velha',
  });
  await see(page, 'Not ready: 1 thing stands against it');
  await page.close();
}, 120_000);

test('a splice is found from anywhere with one key, also with no network, and by the distance of a trace', async () => {
  const page = await at.open({ size: 'wide' });
  await page.goto(at.demo.line);
  await see(page, '60 of 107');
  await onDevice(page);
  await setOffline(page, true);
  await page.keyboard.press('/');
  await see(page, 'What is looked for');
  await page.waitForFunction(() => document.activeElement?.tagName === 'INPUT');
  await page.keyboard.type('U2 brown violet owner');
  await see(page, '1 splice');
  await press(page, /^U2 Curva do Rio, tray 2, slot 22/, 'link');
  await see(page, 'Owner allows it');
  await page.goBack();
  await see(page, '1 splice');
  await fill(page, 'What is looked for', '3.08 km from Moinho 96');
  await see(page, /U2 Curva do Rio, 3.0\d\d.m ± \d+.m/, { role: 'group', name: 'Distance' });
  await setOffline(page, false);
  await page.close();
}, 90_000);

describe('the whole job', () => {
  test('from a typed order to the signed report, with no network until the last step', async () => {
    const school = await firstProject(at.server, 'T1');
    const page = await at.open({ size: 'phone' });
    await page.goto(school.closure);
    await see(page, '0 of 8 settled');
    await onDevice(page);
    await setOffline(page, true);
    await page.goto(`${school.closure}/plan`);
    await see(page, 'Nothing is wrong with this order.');
    await fill(page, 'Order, one line for each assignment', 'A 1-2 > B 1-2');
    await see(page, '2 splices', 'head');
    await press(page, 'Save the plan');
    await see(page, 'to send', 'head');

    await page.goto(school.bench(1, 1));
    await press(page, padKey(2));
    await see(page, 'slot 2', 'head');
    await press(page, padKey(3));
    await page.goto(school.closure);
    await see(page, '2 of 2 settled');

    await press(page, 'Seal');
    // All of the drops have their seals, spliced or not; only what is opened is looked at inside.
    const answerAll = async (label: RegExp, next: RegExp) => {
      for (;;) {
        await page.waitForFunction(
          (texts) =>
            [...document.querySelectorAll('[role=button]')].some((one) =>
              texts.some((text) => one.textContent?.startsWith(text)),
            ),
          {},
          [label.source.slice(1), next.source.slice(1)],
        );
        const more = await page.evaluate(
          (text) =>
            [...document.querySelectorAll('[role=button]')].some((one) => one.textContent?.startsWith(text)),
          label.source.slice(1),
        );
        if (!more) break;
        const before = await page.evaluate(() => document.querySelector('[role=banner]')!.textContent);
        await press(page, label);
        await page.waitForFunction(
          (head) => document.querySelector('[role=banner]')!.textContent !== head,
          {},
          before,
        );
      }
      await press(page, next);
    };
    await press(page, /^Next: Final look/);
    await answerAll(/^It is right/, /^Next: Tighten/);
    await answerAll(/^Tight: opening/, /^Next: Close/);
    await answerAll(/^It is right/, /^Next: Flash test/);
    await press(page, /^Pumped to 27.6/);
    await press(page, /^No bubbles at the other/);
    await press(page, 'Pressure out, cap back on');
    await press(page, /^Next: After the test/);
    await answerAll(/^It is right/, /^Sealed: to the stages/);
    await see(page, 'Sealed: every point is right');

    await page.goto(`${school.line}/handover/ready?closure=${school.closure.split('/c/')[1]}`);
    await see(page, 'Ready: nothing stands against acceptance');
    await see(page, /\d+ records are only on this device yet/);
    await press(page, 'Sign-off');
    await fill(page, 'Who signs', 'Nilo');
    await see(page, 'are only on this device yet. Send them first');
    await setOffline(page, false);
    await seeGone(page, 'only on this device yet');
    await press(page, /^Sign the record as it is now/);
    await see(page, 'Nilo (owner)', { role: 'group', name: 'Signed: T1 Escola' });

    await page.goto(`${school.line}/handover/documents?closure=${school.closure.split('/c/')[1]}`);
    const report = await savedBy(page, () => press(page, /^Report \(PDF\)/));
    const { pages } = await readPdf(report.bytes);
    expect(pages[0]).toContain('Good: nothing stands against its acceptance.');
    expect(pages[0]).toContain('2 of 2');
    expect(pages.join(' ')).toContain('no bubbles at 16 seals');
    await page.close();
  }, 240_000);
});
