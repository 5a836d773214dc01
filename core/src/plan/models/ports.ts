import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { entryKey, goesThrough, type Closure } from '../closure';
import type { Port } from './closureModel';
import type { PlanFinding } from '../words';

/**
 * Cables for which the closure has no port of their diameter left. A cable whose diameter or a closure whose ports are not known is
 * not judged. Thick cables choose first and take the narrowest range that fits, so that a wide port is not spent on a thin cable.
 */
export function portFindings(closure: Closure, cables: ReadonlyMap<string, Cable>): PlanFinding[] {
  return assignPorts(closure, cables)?.findings ?? [];
}

/** How many openings of each port are used; a cable for which none was found uses none. null when the closure's ports are not known. */
export function portsTaken(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
): { port: Port; used: number }[] | null {
  const assigned = assignPorts(closure, cables);
  if (!assigned) return null;
  return closure.ports!.map((port, index) => ({ port, used: port.count - assigned.left[index]! }));
}

function assignPorts(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
): { findings: PlanFinding[]; left: number[] } | null {
  const { ports } = closure;
  if (!ports) return null;
  const findings: PlanFinding[] = [];
  const left = ports.map((port) => port.count);
  const wanting = closure.entries
    .map((entry, index) => ({ entry, key: entryKey(entry, index), cable: cables.get(entry.cableId) }))
    .filter(({ cable }) => cable?.diameter !== undefined)
    .sort(
      (a, b) =>
        Number(b.entry.port !== undefined) - Number(a.entry.port !== undefined) ||
        b.cable!.diameter! - a.cable!.diameter!,
    );
  for (const { entry, key, cable } of wanting) {
    const diameter = cable!.diameter!;
    const through = goesThrough(entry.manner);
    const fits = ports
      .map((port, index) => ({ port, index }))
      .filter(({ port }) => port.from <= diameter && diameter <= port.to && (port.express || !through));
    const { label } = cable!;
    const say = sayAt(findings, { kind: 'cable', key });
    if (entry.port !== undefined) {
      const wanted = fits.find(({ port, index }) => port.name === entry.port && left[index]! > 0);
      if (wanted) left[wanted.index]! -= 1;
      else
        say('no-port', {
          label,
          diameter,
          because: 'chosen',
          port: { name: entry.port, from: diameter, to: diameter },
          through,
        });
      continue;
    }
    const [free] = fits
      .filter(({ index }) => left[index]! > 0)
      .sort(
        (a, b) =>
          Number(a.port.express) - Number(b.port.express) ||
          a.port.to - a.port.from - (b.port.to - b.port.from),
      );
    if (free) left[free.index]! -= 1;
    else
      say('no-port', {
        label,
        diameter,
        because: fits.length > 0 ? 'taken' : 'none-fits',
        port: nearest(ports, diameter),
        through,
      });
  }
  // A cable whose diameter nobody measured takes an opening all the same, so that parts are counted right.
  for (const entry of closure.entries) {
    if (cables.get(entry.cableId)?.diameter !== undefined) continue;
    const free = ports.findIndex(
      (port, index) => left[index]! > 0 && (entry.port === undefined || port.name === entry.port),
    );
    if (free >= 0) left[free]! -= 1;
  }
  return { findings, left };
}

function nearest(ports: readonly Port[], diameter: number): Port | null {
  const [port] = [...ports].sort((a, b) => distance(a, diameter) - distance(b, diameter));
  return port ?? null;
}

function distance(port: { from: number; to: number }, diameter: number): number {
  return Math.max(port.from - diameter, diameter - port.to, 0);
}
