import { draws } from '../../machine/draws';
import { usualFaults, type Faults } from '../../machine/faults';
import { holds, RecordBuilder } from '../odds/record';
import { redoOdds } from '../odds/redoOdds';
import type { Tried } from '../series/tried';
import { workedNight } from './workedNight';

/** A redo of a simulated job: what was said of it before, and what came of it. */
export interface ToldRedo {
  readonly said: number;
  readonly held: boolean;
}

/** What of a fault's usual strength is on. */
function atStrength(name: keyof Faults, strength: number): Faults {
  const usually = usualFaults[name];
  if (typeof usually === 'number') {
    // What is counted has to be above what it lasts; another fiber is another fiber.
    if (name === 'wornBlade' || name === 'oldElectrodes')
      return { [name]: Math.round(usually * (0.6 + 0.6 * strength)) };
    return { [name]: name === 'mixedFiber' ? usually : usually * strength };
  }
  if ('offset' in usually) return { dirtyGroove: { ...usually, offset: usually.offset * strength } };
  return { badHolder: { ...usually, angle: usually.angle * strength } };
}

/**
 * The redos of a job of one night: single fibers or ribbons, limits tight enough that there are some, and in six of ten jobs a fault of any kind and strength that comes at some
 * moment and is mended at another.
 */
export function redosOfJob(seed: number): readonly ToldRedo[] {
  const own = draws(seed, 'job');
  const kind = own.chance(0.5) ? 'single' : 'ribbon';
  const splices = kind === 'single' ? 150 : 40;
  const names = Object.keys(usualFaults) as (keyof Faults)[];
  const fault = own.chance(0.4) ? null : names[Math.floor(own.uniform() * names.length)]!;
  const from = Math.floor(own.uniform() * splices * 0.7);
  const until = from + Math.floor(((0.2 + own.uniform()) * splices) / 2);
  const faults = fault ? atStrength(fault, 0.3 + 0.9 * own.uniform()) : {};
  const tight = own.chance(0.5);
  const lossMax = kind === 'single' ? (tight ? 0.05 : 0.08) : tight ? 0.07 : 0.1;
  const cleaveMax = 1;
  const { told } = workedNight({
    seed,
    kind,
    fibers: kind === 'single' ? 1 : 12,
    splices,
    pairs: own.chance(0.5)
      ? [
          [9.2, 9.2],
          [9.2, 8.6],
        ]
      : [[9.2, 9.2]],
    people: ['One'],
    faultsAt: (splice) => (splice >= from && splice < until ? faults : {}),
    lossMax,
    cleaveMax,
    tries: 4,
  });
  const record = new RecordBuilder(() => lossMax, cleaveMax);
  const redos: ToldRedo[] = [];
  let before: Tried | null = null;
  let failed = 0;
  for (const one of told) {
    if (!('tried' in one)) continue;
    const { tried } = one;
    const held = holds(tried, cleaveMax);
    if (tried.nth > 1 && before) {
      const worst = before.broke ? null : Math.max(...before.losses.map((loss) => loss ?? 0));
      const { kind: mode, pair, pairTerm, machine } = tried;
      const asked = {
        kind: mode,
        pair,
        pairTerm,
        machine,
        fibers: tried.losses.length,
        worst,
        failed,
        lossMax,
      };
      redos.push({ said: redoOdds(asked, record).holds, held });
    }
    failed = (tried.nth === 1 ? 0 : failed) + (held ? 0 : 1);
    record.add(tried);
    before = tried;
  }
  return redos;
}
