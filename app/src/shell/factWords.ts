import { formatAngle, formatLoss, micrometers, type Attempt, type SpliceFact } from '@cordel/core';

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
  }
}

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
