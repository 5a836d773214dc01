import { fiberOf } from '../line/fiberType';
import { shownNumber } from '../units/decimals';
import { sleeveWords } from '../splice/bench/joint';
import type { Due } from './due';
import type { ProgramWarning } from './programs';

/** What the core says of gear, in English, in one place. */

/** By which rule something is due, with its number: "312 splices since the last one (rule: 300)." */
export function dueWords(due: Due): string {
  switch (due.rule) {
    case 'session':
      return due.params.calibrated
        ? `A new session: no splice for ${figure(due.params.limit)} h or more before it, and not calibrated since.`
        : 'No calibration is on record for this machine.';
    case 'temperature':
    case 'humidity':
    case 'pressure': {
      const { then, now, limit } = due.params;
      const unit = { temperature: '°C', humidity: '%', pressure: 'kPa' }[due.rule];
      const of = due.rule === 'humidity' ? ' humidity' : '';
      return `From ${figure(then)} ${unit} to ${figure(now)} ${unit}${of} since the last one (rule: ${figure(limit)}).`;
    }
    case 'disuse':
      return `Not used for ${Math.floor(due.params.days)} days (rule: ${figure(due.params.limit)}).`;
    case 'electrodes':
      return 'The electrodes were cleaned or replaced after the last one.';
    case 'badRun':
      return `The last ${figure(due.params.limit)} splices in a row failed or are over their limit.`;
    case 'splices125':
    case 'splices400': {
      const [most, other] = due.rule === 'splices400' ? ([400, 125] as const) : ([125, 400] as const);
      const { counts, limits } = due.params;
      const and =
        counts[other] > 0 && limits[other] !== null
          ? `, and ${grouped(counts[other])} of ${other} μm fiber (rule: ${grouped(limits[other])})`
          : '';
      return `${grouped(counts[most])} splices${most === 400 ? ' of 400 μm fiber' : ''} since the last one (rule: ${grouped(limits[most] ?? 0)})${and}.`;
    }
    case 'electrodeLife':
      return `${grouped(due.params.arcs)} arcs on these electrodes (rule: ${grouped(due.params.limit)}).`;
    case 'cleaves': {
      const { cleaves, position, positions, limit } = due.params;
      const last = position >= positions ? ' It is the last one: the blade is used up.' : '';
      return `${grouped(cleaves)} fibers cleaved on position ${position} of ${positions} (rule: ${grouped(limit)}).${last}`;
    }
  }
}

/** What is set wrongly, and what to switch to. */
export function programWarningWords(warning: ProgramWarning): string {
  const what =
    warning.what === 'program'
      ? `The program “${warning.on}” is on, and this fiber is ${fiberOf(warning).type.name}.`
      : `The heater is on “${warning.on}”, and this splice wears a ${sleeveWords[warning.sleeve]}.`;
  return `${what} ${warning.fitting ? `Switch to “${warning.fitting}”.` : 'The machine has no program for it on its list.'}`;
}

function figure(value: number): string {
  return shownNumber(Math.round(value * 10) / 10).replace('-', '−');
}

/** "3 000" */
export function grouped(count: number): string {
  return String(count).replace(/\B(?=(\d{3})+$)/g, '\u00a0');
}

/** "1 splice", "1 204 splices" */
export function counted(count: number, what: 'splice' | 'arc' | 'fiber'): string {
  return `${grouped(count)} ${what}${count === 1 ? '' : 's'}`;
}
