import type {
  Calibration,
  Conditions,
  DueAbout,
  Fact,
  GearEvent,
  GearRef,
  Recleave,
  Weather,
  WentOn,
} from '@cordel/core';
import { factStart } from '../../../data/factStart';

/** Facts about gear, made at a closure. */
function base<K extends Fact['kind']>(kind: K, closureId: string, { id, label }: GearRef) {
  return { ...factStart(kind, []), subject: { on: 'gear' as const, closureId, gearId: id, label } };
}

export function newCalibration(
  closureId: string,
  gear: GearRef,
  passed: boolean,
  conditions: Conditions,
): Calibration {
  return { ...base('calibration', closureId, gear), body: { passed, conditions, note: '' } };
}

export function newWeather(closureId: string, gear: GearRef, conditions: Conditions): Weather {
  return { ...base('weather', closureId, gear), body: { conditions, note: '' } };
}

export function newGearEvent(
  closureId: string,
  gear: GearRef,
  event: GearEvent['body']['event'],
  value?: number,
): GearEvent {
  return {
    ...base('gear-event', closureId, gear),
    body: { event, ...(value === undefined ? {} : { value }), note: '' },
  };
}

export function newRecleave(closureId: string, cleaver: GearRef, ends: number): Recleave {
  return { ...base('recleave', closureId, cleaver), body: { ends, note: '' } };
}

export function newWentOn(
  closureId: string,
  gear: GearRef,
  about: DueAbout,
  rules: readonly string[],
): WentOn {
  return {
    ...base('went-on', closureId, gear),
    body: { about, rules: [...new Set(rules)], note: '' },
  };
}
