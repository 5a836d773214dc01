import { formatLoss, formatMean } from '../splice/record/reading';
import { formatAngle } from '../splice/words';
import { shownNumber } from '../units/decimals';
import type { Said } from './said';
import type { Advice, Choice } from './odds/advice';
import type { SpliceAdvice } from './odds/adviceAt';
import type { Cause } from './watch/causes';
import type { RuleName } from './watch/rule';

/** What the judge says, in English, in one place. Kindly: it speaks of readings, and of people last. */

/** Names for what is known by its identifier alone. */
export interface Names {
  readonly cable: (id: string) => string;
  readonly gear: (id: string) => string;
}

export const ruleTitles: Readonly<Record<RuleName, string>> = {
  drift: 'Losses creep up',
  shift: 'Losses went up',
  level: 'Losses are higher than usual',
  position: 'One ribbon position reads high',
  side: 'One side cleaves worse',
  blade: 'Both sides cleave worse than usual',
  over: 'Many readings over their limit',
  breaks: 'Many breaks in the proof test',
  cold: 'Breaks in the cold',
  conditions: 'The weather changed since the calibration',
  'position-of-blade': 'This blade position cleaves worse',
  pair: 'One pair of cables reads high',
  person: 'Readings differ from person to person',
  machine: 'Readings differ from machine to machine',
};

/** What was seen, in a sentence with its numbers: "Position 7 reads 0.28 dB, the others 0.03 dB, in 6 ribbons." */
export function sawWords({ strength, saw }: Said, names: Names): string {
  const { rule, about } = strength;
  const { mean, other, count } = saw;
  const loss = (value: number) => `${formatMean(value)} dB`;
  const splices = count === 1 ? '1 splice' : `${count} splices`;
  const before = (write: (value: number) => string) => (other === null ? '' : `, before ${write(other)}`);
  switch (rule) {
    case 'position':
      return `Position ${about} reads ${loss(mean)}${other === null ? '' : `, the others ${loss(other)}`}, in ${count} ribbons.`;
    case 'side':
      return `The ${about} side cleaves ${formatAngle(hundredths(mean))} on average${other === null ? '' : `, the other ${formatAngle(hundredths(other))}`}, in ${splices}.`;
    case 'blade':
    case 'position-of-blade':
      return `Cleaves of the last ${splices} are ${formatAngle(hundredths(mean))} on average${other === null ? '' : `, before ${formatAngle(hundredths(other))}`}.`;
    case 'over':
      return `${Math.round(mean * count)} of the last ${splices} read over their limit.`;
    case 'breaks':
      return `${Math.round(mean * count)} of the last ${splices} broke in the proof test.`;
    case 'cold':
      return `${Math.round(mean * count)} of the last ${splices} broke in the proof test, and it is cold.`;
    case 'conditions':
      return `${{ temperature: 'The temperature', humidity: 'The humidity', pressure: 'The air pressure' }[about] ?? 'The weather'} is no longer what it was at the last calibration, ${splices} ago.`;
    case 'pair': {
      const [one, two] = about.split(' ').map(names.cable);
      return `${one} on ${two ?? one} reads ${loss(mean)} on average with good cleaves${other === null ? '' : `, other pairs ${loss(other)}`}, in ${splices}.`;
    }
    case 'machine':
      return `With ${names.gear(about)} readings are ${loss(mean)} on average${other === null ? '' : `, with others ${loss(other)}`}, in ${splices}.`;
    case 'person':
      return `Readings entered by ${about} are ${loss(mean)} on average${other === null ? '' : `, those of others ${loss(other)}`}, in ${splices} of the same kind. It may be the gear or the place.`;
    case 'drift':
    case 'shift':
    case 'level':
      return `The last ${splices} read ${loss(mean)} on average${before(loss)}.`;
  }
}

/** The likeliest cause, as a statement: "Dirt in groove 7 is the likeliest cause." */
export function causeWords(cause: Cause, about: Said['strength']): string {
  switch (cause) {
    case 'dirt':
      return 'dirt on the ends or in the machine';
    case 'groove':
      return about.rule === 'position' ? `dirt in groove ${about.about}` : 'dirt in one groove';
    case 'blade':
      return 'a worn blade, or its position';
    case 'holder':
      return about.rule === 'side'
        ? `the cleaver or the handling of the ${about.about} side`
        : 'the cleaver of one side';
    case 'arc':
      return 'an arc that is no longer calibrated';
    case 'electrodes':
      return 'worn electrodes';
    case 'program':
      return 'a program that does not fit the fiber';
    case 'stripper':
      return 'a cold or dirty stripper that nicks the glass';
    case 'fiber':
      return 'different mode-field diameters of the two cables';
  }
}

/** What to do, and how it tells the cause from the next likely one. Common practice. */
export function checkWords(cause: Cause | null, { rule, about }: Said['strength']): string {
  switch (cause) {
    case 'dirt':
      return 'Clean the grooves, the holders and the stripper, and fuse one more.';
    case 'groove':
      return rule === 'position'
        ? `Brush groove ${about} on both sides and fuse one ribbon. If ${about} is still high, look at that fiber’s ends.`
        : 'Brush all grooves and fuse one ribbon.';
    case 'blade':
      return 'Turn the blade to its next position and cleave one pair.';
    case 'holder':
      return 'Swap the holders of the two sides and cleave one pair: if the angle moves with the holder, it is the holder.';
    case 'arc':
      return 'Calibrate the arc and fuse one more.';
    case 'electrodes':
      return 'Clean the electrodes with the machine off, calibrate, and look whether readings still jump. Replace them if they do.';
    case 'program':
      return 'Compare the program that is on with the fiber, then calibrate.';
    case 'stripper':
      return 'Warm the stripper to body temperature, clean it, and look at one stripped end.';
    case 'fiber':
      return 'A redo will not help. Measure one splice from both ends; the average of the two is its loss.';
    case null:
      switch (rule) {
        case 'machine':
          return 'Calibrate both machines and fuse the same pair of scraps on each.';
        case 'position-of-blade':
          return 'Turn the blade to its next position and compare ten cleaves.';
        default:
          return 'Change places for ten splices: if the difference stays with the place, it is the gear.';
      }
  }
}

/** "9 in 10"; at the ends finer. */
export function oddsOf(chance: number): string {
  if (chance >= 0.985) return '99 in 100';
  if (chance >= 0.935) return '19 in 20';
  if (chance < 0.015) return '1 in 100';
  if (chance < 0.065) return '1 in 20';
  return `${Math.round(chance * 10)} in 10`;
}

/** The one plain line: "Redo: 9 in 10 come out at 0.10 or less; slack for 4." */
export function adviceLine({
  advice,
  odds,
  limit,
  redosLeft,
  triesLeft,
  pair,
  fieldsDiffer,
}: SpliceAdvice): string {
  const chance = `${oddsOf(odds.holds)} come out at ${formatLoss(limit)} or less`;
  const slack = redosLeft === null ? '' : redosLeft === 1 ? '; slack for 1 more' : `; slack for ${redosLeft}`;
  const between = pair
    ? ` ${pair.count} between these cables read ${range(pair)}${fieldsDiffer ? '; the mode fields differ' : ''}.`
    : fieldsDiffer
      ? ' The mode fields of the two cables differ.'
      : '';
  switch (advice.choice) {
    case 'redo':
      return `Redo: ${chance}${slack}.`;
    case 'leave':
      return `Leave it: a redo gains little, ${chance}.${between}`;
    case 'owner':
      return triesLeft === 0 || redosLeft === 0
        ? `Ask the owner: ${redosLeft === 0 ? 'there is no slack for another try' : 'all tries are used'}.`
        : `Ask the owner before another try: only ${chance}${slack}.${between}`;
    case 'measure':
      return `Measure from both ends before another try: only ${chance}.${between}`;
  }
}

function range({ low, high }: { low: number; high: number }): string {
  const [from, to] = [formatLoss(hundredths(low)), formatLoss(hundredths(high))];
  return from === to ? from : `${from} to ${to}`;
}

export const choiceWords: Readonly<Record<Choice, string>> = {
  leave: 'leaving it',
  redo: 'a redo',
  owner: 'asking the owner',
  measure: 'measuring first',
};

/** The same in a few words: "9 in 10 hold; slack for 4". */
export function adviceShort({ advice, odds, redosLeft }: SpliceAdvice): string {
  const slack = redosLeft === null ? '' : `; slack for ${redosLeft}`;
  const first = { redo: '', leave: 'Leave it: ', owner: 'Ask the owner: ', measure: 'Measure first: ' };
  return `${first[advice.choice]}${oddsOf(odds.holds)} hold${slack}.`;
}

/** What would change it: "Leaving it would be 12 min dearer. It turns where fewer than 4 in 10 hold." */
export function flipWords({ choice, runnerUp, flipsAt }: Advice): string {
  if (!runnerUp) return 'There is nothing else to choose.';
  const dearer = Math.max(1, Math.round(runnerUp.dearer));
  const first = `${capital(choiceWords[runnerUp.choice])} would cost about ${shownNumber(String(dearer))} min more of the window.`;
  if (flipsAt === null) return first;
  return choice === 'redo'
    ? `${first} It turns where fewer than ${oddsOf(flipsAt)} hold.`
    : `${first} A redo is worth it where ${oddsOf(flipsAt)} hold.`;
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1);
const hundredths = (value: number) => Math.round(value * 100) / 100;
