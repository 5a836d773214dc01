import {
  fibersOf,
  formatAngle,
  formatLoss,
  measuredValue,
  micrometers,
  type Attempt,
  type MeasuredLoss,
  type SpliceFact,
} from '@cordel/core';

/** What happened at a splice, in words: "Try 2: 0.12 dB · simulated". @param tries the numbers of those that were not taken back */
export function factWords(fact: SpliceFact, tries: ReadonlyMap<string, number>): string {
  switch (fact.kind) {
    case 'attempt': {
      const number = tries.get(fact.id);
      return [
        `${number ? `Try ${number}` : 'Taken back'}: ${resultWords(fact.body)}`,
        ...{ hand: [], machine: ['from the machine'], log: ['from a log'] }[fact.body.source],
        ...(fact.body.simulated ? ['simulated'] : []),
      ].join(' · ');
    }
    case 'correction':
      return fact.body.result ? `Corrected to ${resultWords(fact.body.result)}` : 'Taken back';
    case 'owner-answer':
      return {
        ask: 'Left to the owner',
        allow: 'The owner allowed it',
        redo: 'The owner wants it done again',
      }[fact.body.answer];
    case 'measured-loss':
      return measuredWords(fact);
  }
}

/** "Fiber 3 measured 0.05 dB by OTDR at 1550 nm: 0.12 from the left, -0.02 from the right" */
function measuredWords({ subject, body }: MeasuredLoss): string {
  const { position, method, wavelength, fromLeft, fromRight } = body;
  const of = fibersOf(subject) > 1 ? `Fiber ${position}` : '';
  if (fromLeft === null && fromRight === null) return capital(`${of} measurement taken back`.trim());
  const value = measuredValue(body);
  const seen = [
    fromLeft === null ? null : `${formatLoss(fromLeft)} from the left`,
    fromRight === null ? null : `${formatLoss(fromRight)} from the right`,
  ].filter(Boolean);
  const what = value === null ? 'measured from one end only' : `measured ${formatLoss(value)} dB`;
  return `${capital(`${of} ${what}`.trim())} ${methodWords[method]} at ${wavelength} nm: ${seen.join(', ')}`;
}

const methodWords = { otdr: 'by OTDR', 'power-meter': 'with a power meter' } as const;
const capital = (words: string) => words[0]!.toUpperCase() + words.slice(1);

function resultWords({
  readings,
  proofTestFailed,
  sleeveForgotten,
  sleeveConfirmed,
  light,
}: Pick<
  Attempt['body'],
  'readings' | 'proofTestFailed' | 'sleeveForgotten' | 'sleeveConfirmed' | 'light'
>): string {
  if (light) return light === 'dark' ? 'the joint stays dark' : 'light shows at the joint';
  const parts = readings.map((reading) => {
    const angles = [
      reading.cleaveLeft === null ? null : `left ${formatAngle(reading.cleaveLeft)}`,
      reading.cleaveRight === null ? null : `right ${formatAngle(reading.cleaveRight)}`,
      reading.offset == null ? null : `offset ${micrometers(reading.offset)}`,
      reading.gap == null ? null : `gap ${micrometers(reading.gap)}`,
    ].filter(Boolean);
    return [reading.loss === null ? 'no reading' : `${formatLoss(reading.loss)} dB`, ...angles].join(', ');
  });
  return [
    ...parts,
    proofTestFailed ? 'proof test failed' : null,
    sleeveForgotten ? 'sleeve forgotten' : sleeveConfirmed ? 'sleeve on' : null,
  ]
    .filter(Boolean)
    .join(' · ');
}
