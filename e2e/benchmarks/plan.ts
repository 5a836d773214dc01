import { equalTubes, planClosure, type Cable, type Closure, type Site } from '@cordel/core';
import { followFiber, type Route } from '@cordel/core/follow';
import { readOrder } from '@cordel/core/order';
import { at, report, timed } from './figures';

const uuid = (number: number) => `0190aaaa-0000-7000-8000-${String(number).padStart(12, '0')}`;

/** Planning a closure of 6 912 fibers, checking an order of 200 lines, and following a fiber through 24 closures of 864. */
export function benchPlan(): void {
  const straight = job(uuid(1), uuid(2), 576, 'A 1-6912 > B 1-6912');
  const keys = Array.from({ length: 6912 }, (_, index) => `${uuid(1)}.${index}.end~${uuid(2)}.${index}.end`);
  const plain = at(
    0.5,
    timed(50, () => new Map(keys.map((key, index) => [`${key}`, { index }]))),
  );
  const planned = timed(60, () => planClosure(straight.closure, straight.cables));
  report(
    `Lay out and check 6 912 splices (plain map of as many: ${plain.toFixed(1)} ms)`,
    `${at(0.5, planned).toFixed(1)} ms, 95 % ${at(0.95, planned).toFixed(1)} ms, ${(at(0.5, planned) / plain).toFixed(1)} × plain`,
    'under 50 ms',
  );

  const text = Array.from({ length: 200 }, (_, index) => {
    const range = `${index * 34 + 1}-${index * 34 + 34}`;
    return `A ${range} > B ${range} : circuit ${index}`;
  }).join('\n');
  const typed = timed(40, () => {
    const { lines } = readOrder(text, straight.closure.entries);
    const order = lines.map((line, index) => ({ ...line, id: uuid(1000 + index) }));
    return planClosure({ ...straight.closure, order }, straight.cables);
  });
  report(
    'Read and check an order of 200 lines for 6 800 fibers, one keystroke',
    `${at(0.5, typed).toFixed(1)} ms, 95 % ${at(0.95, typed).toFixed(1)} ms`,
    '- (runs in a worker)',
  );

  const route = chain(24);
  const followed = timed(200, () => followFiber(route, uuid(100), 500));
  // Plans that nobody has looked into yet: what the first question costs.
  const first = Array.from({ length: 10 }, () => {
    const fresh = chain(24);
    const began = performance.now();
    followFiber(fresh, uuid(100), 500);
    return performance.now() - began;
  });
  report(
    `Follow a fiber through 24 closures of 864 (${followFiber(route, uuid(100), 500).filter((step) => step.kind === 'splice').length} splices)`,
    `${at(0.5, followed).toFixed(2)} ms, the first time ${at(0.5, first).toFixed(1)} ms`,
    'under 5 ms',
  );
}

function job(left: string, right: string, tubes: number, order: string, site = uuid(50), next = uuid(51)) {
  const cable = (id: string, label: string, siteIds: string[]): Cable => ({
    id,
    label,
    schemeId: 'tia-598-d',
    construction: equalTubes(tubes, 12),
    siteIds,
  });
  const cables = new Map(
    [cable(left, 'A', [uuid(49), site]), cable(right, 'B', [site, next])].map((one) => [one.id, one]),
  );
  const entries: Closure['entries'] = [
    { cableId: left, manner: 'cut' },
    { cableId: right, manner: 'cut' },
  ];
  const closure: Closure = {
    id: uuid(60),
    siteId: site,
    kind: 'dome',
    entries,
    trays: Array.from({ length: Math.ceil(tubes / 2) }, () => ({ singleSlots: 24 })),
    order: readOrder(order, entries).lines.map((line, index) => ({ ...line, id: uuid(70 + index) })),
    version: 1,
  };
  return { closure, cables };
}

/** Cables end to end, a closure of 864 splices between each two. */
function chain(closures: number): Route {
  const sites: Site[] = Array.from({ length: closures + 2 }, (_, index) => ({
    id: uuid(200 + index),
    name: `Site ${index}`,
    kind: 'closure',
    chainage: index * 1000,
    placement: null,
  }));
  const cables = new Map<string, Cable>();
  const planned = Array.from({ length: closures }, (_, index) => {
    const [a, b] = [uuid(100 + index), uuid(101 + index)];
    const one = job(a, b, 72, 'A 1-864 > B 1-864', sites[index + 1]!.id, sites[index + 2]!.id);
    for (const cable of one.cables.values())
      cables.set(cable.id, {
        ...cable,
        siteIds: [sites[Number(cable.id.slice(-3)) - 100]!.id, sites[Number(cable.id.slice(-3)) - 99]!.id],
      });
    const closure = { ...one.closure, id: uuid(300 + index) };
    return { closure, plan: planClosure(closure, cables) };
  });
  return { sites, cables, closures: planned };
}
