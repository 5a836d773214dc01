import type {
  FiberEnd,
  LightCheck,
  Measurement,
  MeasureTarget,
  Tick,
  TickAnswer,
  TickTarget,
} from '@cordel/core';
import { factStart } from './factStart';

/** What goes with a tick. */
export interface TickMore {
  readonly answer?: TickAnswer | null;
  /** Where a mark was made, mm from the sheet's zero. */
  readonly mm?: number | null;
  readonly note?: string;
}

/** A tick of something at a closure. `before`: the last tick of the same thing. */
export function newTick(
  closureId: string,
  target: TickTarget,
  state: Tick['body']['state'],
  before: Tick | null,
  { answer = null, mm = null, note = '' }: TickMore = {},
): Tick {
  const { what } = target.what;
  const asks = what === 'step' || what === 'ribbonized' || what === 'polarity';
  return {
    ...factStart('tick', before ? [before] : []),
    subject: { ...target.place, closureId } as Tick['subject'],
    body: {
      ...target.what,
      ...(asks ? { answer } : what === 'mark' ? { mm } : {}),
      state,
      note,
    } as Tick['body'],
  };
}

/** What was seen of the light that went into a connector; "open" takes an earlier check back. */
export function newLightCheck(
  closureId: string,
  { cableId, fiber, side }: FiberEnd,
  seen: LightCheck['body']['seen'],
  before: LightCheck | null,
): LightCheck {
  return {
    ...factStart('light-check', before ? [before] : []),
    subject: { on: 'end', closureId, cableId, fiber, side },
    body: { seen, note: '' },
  };
}

/** A measured length, in the unit of its target; null takes an earlier one back. */
export function newMeasurement(
  closureId: string,
  { cableId, of }: MeasureTarget,
  value: number | null,
  before: Measurement | null,
): Measurement {
  return {
    ...factStart('measurement', before ? [before] : []),
    subject: { on: 'cable', closureId, cableId },
    body: of === 'diameter' ? { of, mm: value } : { of, m: value },
  };
}
