import { fingerprintWords, matchesFingerprint } from './fingerprint';

test('127.0.0.1 is lusab-babad, 63.84.220.193 gutih-tugad (the examples of Wilkerson, 2009)', () => {
  expect(fingerprintWords('7f0000013f54dcc1'.padEnd(64, '0')).split(' ').slice(0, 4)).toEqual([
    'lusab',
    'babad',
    'gutih',
    'tugad',
  ]);
});

test('six words say the first 96 bits', () => {
  const words = fingerprintWords('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  expect(words.split(' ')).toHaveLength(6);
  expect(words).toMatch(/^([bdfghjklmnprstvz][aiou]){2}[bdfghjklmnprstvz]( |$)/);
});

test('what somebody gives is compared whatever its case', () => {
  const hex = 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad';
  const words = fingerprintWords(hex);
  expect(
    [words, words.toUpperCase(), words.replaceAll(' ', '-'), ` ${hex.toUpperCase()} `].map((one) =>
      matchesFingerprint(hex, one),
    ),
  ).toEqual([true, true, true, true]);
  expect(
    ['', words.slice(1), hex.slice(1), hex.replace('b', 'c')].map((one) => matchesFingerprint(hex, one)),
  ).toEqual([false, false, false, false]);
});
