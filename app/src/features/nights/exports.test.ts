import ical from 'ical-generator';
import ICAL from 'ical.js';
import { nightsService, type NightsAnswer } from '../../data/nights/nightsService';
import { nightsInput, pair, setup, u2 } from '../../../../core/test/nightsExample';
import { usualPace } from '@cordel/core/prepare';
import { calendarText } from './calendar';
import { planRows } from './exports';
import { dayTime, readDayTime } from './setup/DayTimeBox';

const { definition: base } = nightsInput();
const contacts = 'Night desk, ask for 2; open until 05:00\nor ring Noa, "the other crew" \u{1F4DE}';
const definition = {
  ...base,
  project: {
    ...base.project,
    name: 'Ring, section 2',
    nights: {
      ...setup,
      crews: setup.crews.map((crew) => (crew.id === pair.id ? { ...crew, contacts } : crew)),
    },
  },
};

const service = () =>
  nightsService(
    () => Date.now(),
    () => Promise.resolve(),
  );

async function answered(): Promise<NightsAnswer> {
  let last: NightsAnswer | null = null;
  const reasons = await service().plan(
    { definition, facts: [], pace: usualPace, gear: [], now: null },
    (answer) => (last = answer),
  );
  expect(reasons).not.toBeNull();
  return last!;
}

test('the calendar is read back by another library: every night of a crew, and every holding test', async () => {
  const answer = await answered();
  const text = calendarText(ical, definition, answer, Date.parse('2026-04-14T12:00:00Z'));
  const events = new ICAL.Component(ICAL.parse(text))
    .getAllSubcomponents('vevent')
    .map((one) => new ICAL.Event(one));
  const nights = events.filter(({ uid }) => !uid.includes('.holding'));
  expect(nights).toHaveLength(answer.planned.length);
  for (const planned of answer.planned) {
    const event = nights.find(({ uid }) => uid === `${planned.nightId}.${planned.crewId}@cordel`)!;
    expect(
      Math.abs(event.startDate.toJSDate().getTime() - (planned.leaves ?? planned.stops[0]!.begins)),
    ).toBeLessThan(1000);
    expect(Math.abs(event.endDate.toJSDate().getTime() - planned.ends)).toBeLessThan(1000);
    for (const { closureId } of planned.stops)
      expect(event.summary).toContain({ U1: 'U1', U2: 'U2', U3: 'U3' }[siteName(closureId)]);
  }
  // Commas, semicolons, line breaks and what is no letter come through whole.
  expect(nights.find(({ uid }) => uid.includes(pair.id))!.description).toContain(contacts);
  const holding = events.filter(({ uid }) => uid.includes('.holding'));
  expect(holding).toHaveLength(3);
  expect(holding.every(({ startDate }) => startDate.toJSDate().getUTCHours() >= 11)).toBe(true);
  // No line is longer than 75 octets (RFC 5545, 3.1).
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
});

function siteName(closureId: string): 'U1' | 'U2' | 'U3' {
  const closure = definition.closures.find(({ id }) => id === closureId)!;
  return definition.sites.find(({ id }) => id === closure.siteId)!.name as 'U1';
}

test('the table has a row for each closure of each crew’s night', async () => {
  const answer = await answered();
  const rows = planRows(definition, answer);
  expect(
    rows
      .slice(1)
      .map((row) => row[3])
      .sort(),
  ).toEqual(['U1', 'U2', 'U3']);
  expect(new Set(rows.map((row) => row.length)).size).toBe(1);
});

test('what is asked meanwhile ends what was asked before, and the answer is the plan of the core', async () => {
  const asked = service();
  const record = { definition, facts: [], pace: usualPace, gear: [], now: null };
  const first = asked.plan(record, () => undefined);
  const second = asked.plan(record, () => undefined);
  expect(await first).toBeNull();
  const reasons = (await second)!;
  expect(reasons.whys).toHaveLength(3);
  expect(reasons.changes).toEqual([]);
  const short = {
    ...definition,
    project: { ...definition.project, nights: { ...definition.project.nights, crews: [] } },
  };
  const none = await asked.plan({ ...record, definition: short }, () => undefined);
  expect(none!.changes).toHaveLength(3);
  expect(u2.closure.id).toBeTruthy();
});

test('times of day as they are typed', () => {
  expect(['4:30', '04:30', '0430', '4', '23:59', '24:00', '4:60', 'soon', ''].map(readDayTime)).toEqual([
    270,
    270,
    270,
    240,
    1439,
    null,
    null,
    null,
    null,
  ]);
  expect([270, 0, NaN].map(dayTime)).toEqual(['04:30', '00:00', '']);
});
