import { projectSettingsSchema } from './project';
import { timeZoneSchema } from './timeZone';
import { limits } from '../../test/example';

test.each(['America/Sao_Paulo', 'Europe/Lisbon', 'Asia/Kathmandu', 'UTC'])('%s is a time zone', (name) =>
  expect(timeZoneSchema.safeParse(name).success).toBe(true),
);

test.each(['', 'Moinho', 'America/Nowhere', `America/${'x'.repeat(80)}`, 'Europe/Lisbon\u0000'])(
  '%j is none, and says what to do',
  (name) => expect(timeZoneSchema.safeParse(name).error!.issues[0]!.message).toMatch(/^No time zone has/),
);

const settings = { name: 'Example', units: 'mm', limits, window: null };

test('settings of Cordel 0.1 have none: times are shown as on the device', () =>
  expect(projectSettingsSchema.parse(settings).timeZone).toBeUndefined());

test('a window that closes before it opens is refused', () => {
  const window = { opens: '2026-04-15T08:00:00.000Z', closes: '2026-04-15T01:00:00.000Z' };
  expect(projectSettingsSchema.safeParse({ ...settings, window }).error!.issues).toMatchObject([
    { path: ['window', 'closes'], message: 'The window closes before it opens. Mend one of the two.' },
  ]);
  expect(
    projectSettingsSchema.safeParse({
      ...settings,
      window: { opens: window.closes, closes: window.opens },
    }).success,
  ).toBe(true);
});
