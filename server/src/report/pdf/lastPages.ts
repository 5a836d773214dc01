import { lossText } from '@cordel/core';
import { plural, type Context } from './context';
import { accent, ink, soft, type TableCell } from './paper';

/** Limits, what is estimated, gear, cables, and how to check the record. */
export function lastPages({ paper, built, when }: Context, fingerprint: string): void {
  paper.page();
  paper.heading(2, 'What stands behind it');
  const { project, calibrations, closures, cables, records } = built;
  const { limits } = project;
  paper.heading(3, 'Limits', { bookmark: false });
  paper.text(
    `Single splice ${lossText(limits.singleMax)} dB, fiber of a ribbon ${lossText(limits.ribbonFiberMax)} dB, mean of a tray ${lossText(limits.trayMean)} dB, of a closure ${lossText(limits.closureMean)} dB; cleave angle ${limits.cleaveAngleMax}°; ${limits.tries} tries before it is the owner’s call.`,
  );
  const measured = closures.reduce((sum, { sums }) => sum + (sums.measured?.fibers ?? 0), 0);
  paper.heading(3, 'What is estimated, and what is measured', { bookmark: false });
  paper.text(
    `${measured === 0 ? 'All losses are estimates that the splicing machine makes from pictures of the joint; none is measured.' : `Losses are estimates that the splicing machine makes from pictures of the joint, but for what is written as measured: ${plural(measured, 'fiber', 'fibers')}. The two are in no mean together.${limits.measured ? ' Where a fiber was measured, its verdict follows from that.' : ''}`} The actual loss of a splice is the mean of readings with a reflectometer from both ends.${records.simulated > 0 ? ` ${plural(records.simulated, 'reading is', 'readings are')} simulated: no glass was involved.` : ''}${records.unread > 0 ? ` ${plural(records.unread, 'record', 'records')} of a newer Cordel count for nothing here.` : ''}`,
  );
  paper.heading(3, 'Gear and calibrations', { bookmark: false });
  const machines = [...new Set(closures.flatMap((one) => one.machines))].sort();
  const cleavers = [...new Set(closures.flatMap((one) => one.cleavers))].sort();
  paper.text(
    `Machines: ${machines.join(', ') || 'not on record'}. Cleavers: ${cleavers.join(', ') || 'not on record'}.`,
  );
  if (calibrations.length > 0)
    paper.table(
      [
        { title: 'Machine', share: 30 },
        { title: 'When, by', share: 34 },
        { title: 'Arc calibration', share: 16 },
        { title: 'Note', share: 24 },
      ],
      calibrations.map(({ gear, at, by, passed, note }): TableCell[] => [
        gear,
        [when(at), by].filter(Boolean).join(', '),
        { text: passed ? 'passed' : 'failed', color: passed ? ink : accent },
        note,
      ]),
    );
  else paper.text('No arc calibration of these nights is on record.', 'small', soft);
  paper.heading(3, 'Cables', { bookmark: false });
  paper.table(
    [
      { title: 'Cable', share: 26 },
      { title: 'Fibers', share: 10, align: 'right' },
      { title: 'Construction', share: 24 },
      { title: 'Fiber', share: 22 },
    ],
    cables.map(({ label, fibers, construction, fiberType }): TableCell[] => [
      label,
      String(fibers),
      construction.replace('-', ' '),
      fiberType,
    ]),
  );
  paper.heading(3, 'How to check this record', { bookmark: false });
  paper.text(
    'The record as JSON, written in the one form of RFC 8785, has the SHA-256 below. Whoever has the file checks it with npm run verify -- FILE, or on the page “Check a record” of Cordel; the words on page one are its first 96 bits (proquints).',
  );
  paper.text(fingerprint, 'strong');
}
