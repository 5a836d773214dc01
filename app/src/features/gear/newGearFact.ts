import type { Calibration, Conditions, DueAbout, GearEvent, GearRef, Weather, WentOn } from '@cordel/core';
import { factStart } from '../../data/factStart';

/** Facts about gear, made at a closure. */
function base(closureId: string, { id, label }: GearRef) {
  return { ...factStart(closureId, []), gear: { id, label }, note: '' };
}

export function newCalibration(
  closureId: string,
  gear: GearRef,
  passed: boolean,
  conditions: Conditions,
): Calibration {
  return { ...base(closureId, gear), kind: 'calibration', passed, conditions };
}

export function newWeather(closureId: string, gear: GearRef, conditions: Conditions): Weather {
  return { ...base(closureId, gear), kind: 'weather', conditions };
}

export function newGearEvent(
  closureId: string,
  gear: GearRef,
  event: GearEvent['event'],
  value?: number,
): GearEvent {
  return { ...base(closureId, gear), kind: 'gear-event', event, ...(value === undefined ? {} : { value }) };
}

export function newWentOn(
  closureId: string,
  gear: GearRef,
  about: DueAbout,
  rules: readonly string[],
): WentOn {
  return { ...base(closureId, gear), kind: 'went-on', about, rules: [...new Set(rules)] };
}
