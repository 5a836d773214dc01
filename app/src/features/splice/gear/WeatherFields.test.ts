import fc from 'fast-check';
import { readWeather, weatherText } from './WeatherFields';

test.each([
  ['mm', 'altitude', { temperature: '11,5', humidity: '82', pressure: '420' }, 11.5, 96.4],
  ['mm', 'pressure', { temperature: '-3', humidity: '', pressure: '96.2' }, -3, 96.2],
  // 52.7 °F is 11.5 °C; 1378 ft are 420 m.
  ['in', 'altitude', { temperature: '52.7', humidity: '82', pressure: '1378' }, 11.5, 96.4],
] as const)('reads %s by %s', (units, by, text, temperature, pressure) => {
  const { conditions, troubles } = readWeather(text, units, by);
  expect(troubles).toEqual({});
  expect(conditions!.temperature).toBeCloseTo(temperature, 6);
  expect(conditions!.pressure).toBeCloseTo(pressure, 1);
  expect(conditions!.humidity).toBe(text.humidity === '' ? null : Number(text.humidity));
});

test('an empty field was not looked at', () => {
  expect(readWeather({ temperature: '', humidity: ' ', pressure: '' }, 'mm', 'altitude').conditions).toEqual({
    temperature: null,
    humidity: null,
    pressure: null,
  });
});

test.each([
  ['temperature', 'mild', 'mm', 'altitude', 'Give a number, or leave it empty.'],
  ['humidity', '101', 'mm', 'altitude', 'Humidity is at most 100 %.'],
  ['pressure', '9000', 'mm', 'altitude', 'No place on land is at this altitude.'],
  ['pressure', '1013', 'mm', 'pressure', 'Air pressure is at most 120 kPa.'],
] as const)('says what is wrong with %s “%s”', (field, text, units, by, trouble) => {
  const weather = { temperature: '', humidity: '', pressure: '', [field]: text };
  expect(readWeather(weather, units, by)).toEqual({ conditions: null, troubles: { [field]: trouble } });
});

test('what is shown is read back as it was, to the digits that are shown', () => {
  fc.assert(
    fc.property(
      fc.record({
        temperature: fc.integer({ min: -40, max: 50 }),
        humidity: fc.integer({ min: 0, max: 100 }),
        pressure: fc.double({ min: 60, max: 103, noNaN: true }),
      }),
      fc.constantFrom('mm' as const, 'in' as const),
      fc.constantFrom('altitude' as const, 'pressure' as const),
      (weather, units, by) => {
        const { conditions } = readWeather(weatherText(weather, units, by), units, by);
        expect(conditions!.temperature).toBeCloseTo(weather.temperature, 1);
        expect(conditions!.humidity).toBe(weather.humidity);
        // Altitudes are shown to 10 m or ft, and 10 m are about 0.12 kPa at sea level.
        expect(Math.abs(conditions!.pressure! - weather.pressure)).toBeLessThan(0.13);
      },
    ),
  );
});
