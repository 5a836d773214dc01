import { newGear, type Machine } from '@cordel/core/gear';
import { StandIn, usualFaults, type StandInOptions } from '@cordel/core/machine';

/** A night at a simulated machine with everything wrong at once: its memory, and the truth of each splice to the last digit. */
export function night(seed: number, aligns: StandInOptions['aligns'], splices: number): string {
  const gear = newGear('machine', '01900000-0000-7000-8000-000000000001', 'Simulated') as Machine;
  const machine = new StandIn({ seed, gear, aligns, faults: usualFaults, pausesBeforeArc: false });
  let now = Date.UTC(2026, 3, 15, 1);
  const truths: number[][] = [];
  for (let splice = 0; splice < splices; splice += 1) {
    machine.setWeather({ temperature: 24 - splice / 20, humidity: 60, pressure: 95 });
    const fibers = Array.from({ length: aligns === 'cores' ? 1 : 12 }, (_, fiber) => ({
      left: { key: `a ${splice} ${fiber}`, modeField: 9.2 },
      right: { key: `b ${splice} ${fiber}`, modeField: 8.8 },
    }));
    machine.command({ do: 'load', splice: `s ${splice}`, fibers }, now);
    now += 60_000;
    machine.advance(now);
    truths.push([...machine.lastTruth]);
    machine.command({ do: 'take-out' }, now);
    if (splice % 40 === 39) machine.command({ do: 'calibrate' }, now);
    now += 60_000;
    machine.advance(now);
  }
  return JSON.stringify({ truths, log: machine.log(0), status: machine.status() });
}
