import type { Cause } from '../../judge/watch/causes';
import type { Remedy } from './play';

/** What a trainee reads, in English, in one place. */

export const remedyWords: Readonly<Record<Remedy, string>> = {
  brush: 'Brush the grooves',
  wipe: 'Clean holders, clamps and mirrors',
  blade: 'Turn the blade',
  holder: 'Replace the holder that is bent',
  calibrate: 'Calibrate the arc',
  electrodes: 'Replace the electrodes, and calibrate',
  program: 'Compare the program with the fiber',
  stripper: 'Warm and clean the stripper',
};

export const faultNames: Readonly<Record<Cause, string>> = {
  dirt: 'Dirt on the ends or in the machine',
  groove: 'Dirt in one groove',
  blade: 'A worn blade position',
  holder: 'A bent holder on one side',
  arc: 'An arc that is no longer calibrated',
  electrodes: 'Worn electrodes',
  program: 'A program that does not fit the fiber',
  stripper: 'A cold or dirty stripper that nicks the glass',
  fiber: 'Another fiber than the plan says',
};

/** How one tells each, and why it does what it does. Common practice. */
export const lessons: Readonly<Record<Cause, string>> = {
  dirt: 'Dust comes and goes: single fibers far out, now here, now there, and breaks. Cleaning is the answer; a redo without it is a throw of dice.',
  groove:
    'Dirt in a groove moves the same fiber the same way in every ribbon: one position stays high whatever the cleaves are. Redoing the ribbon does not help, brushing the groove does.',
  blade:
    'A worn blade position makes both sides worse, slowly. Turning it costs two minutes; recleaving every end costs more.',
  holder:
    'One side’s angles are high and the other side’s are not: it is that side’s holder, cleaver or hands. Swap the holders to see whether it moves with them.',
  arc: 'The arc follows temperature, humidity and air pressure since the last calibration. The losses rise a little everywhere, and the machine’s estimate sees only a part of it: a calibration after a change of weather is cheap.',
  electrodes:
    'Worn electrodes make the arc jump from splice to splice: good ones beside bad ones with good cleaves. A calibration alone does not hold.',
  program:
    'With the wrong program every splice is worse from the first one on, and many break. Look at the program before anything else.',
  stripper:
    'A cold or dirty stripper scratches the glass. Cleaves and losses look good, and the proof test breaks it.',
  fiber:
    'Different mode fields cost loss that no redo takes away, with good cleaves and no offset, always with the same cable. Measure from both ends, say so, and do not spend sleeves on it.',
};
