import {
  estimateClosure,
  heatingOf,
  type EstimateLine,
  type Heating,
  type Pace,
} from '../prepare/time/estimate';
import { together, type Work } from './chance';
import type { ClosureToDo } from './closureToDo';

/** Hands and machines of a crew at one closure. */
export interface CrewTools {
  /** Two at one closure at most: a third hand saves nothing. */
  readonly people: number;
  /** Heaters by what the machines splice; null: none does. */
  readonly single: Heating | null;
  readonly ribbon: Heating | null;
  /** Machines that splice single fibers, and those that splice ribbons. */
  readonly singleMachines: number;
  readonly ribbonMachines: number;
  /** One machine does both, and never at the same time. */
  readonly sameMachine: boolean;
}

/** One step of a closure's work, by one crew. */
export interface WorkStep extends Work {
  readonly id: EstimateLine['id'];
  readonly what: string;
}

/** All that a crew does at a closure. */
export interface CrewWork {
  readonly setUp: Work;
  /** After setting up, until it is sealed and tested. */
  readonly steps: readonly WorkStep[];
  /** By part, where the work is split: see `partsOf`. One part for a whole closure. */
  readonly parts: readonly Work[];
  /** s that one pair of hands would take longer; 0 for one. */
  readonly secondHandSaves: number;
}

/** How much single steps vary: standard deviation over mean. From memory, to be replaced by what was measured. */
const variations: Readonly<Record<EstimateLine['id'], number>> = {
  'set-up': 0.3,
  cable: 0.25,
  // From one splice to the next, redos included.
  single: 0.4,
  ribbon: 0.4,
  connector: 0.3,
  ribbonize: 0.3,
  seal: 0.25,
  test: 0.2,
};

/** A whole closure's time varies by no less than this: what goes wrong once goes wrong for all of it. Of the mean. */
const leastVariation = 0.1;

/** The share of a splice in which the machine is occupied (laying in, arc, proof test, taking out): no second hand shortens it. From memory. */
const machineShare = { single: 1 / 3, ribbon: 1 / 4 } as const;

/** What a crew lacks for the work that is left; null: nothing. */
export function lacks({ left }: Pick<ClosureToDo, 'left'>, tools: CrewTools): 'single' | 'ribbon' | null {
  if (left.ribbons > 0 && !tools.ribbon) return 'ribbon';
  if (left.singles > 0 && !tools.single) return 'single';
  return null;
}

/**
 * How long a crew takes for what is left of a closure. By one pair of hands it is the estimate of the time page. A second pair prepares other cables at the same time (the longest
 * first to whoever is free: Graham 1969), and halves what hands do at splices, as far as the machines and their heaters keep up. Setting up, sealing and the flash test it does not shorten.
 * @param parts bounds of the parts in `chunksOf`; empty: one part
 * @returns null where the crew lacks a machine
 */
export function crewWork(
  todo: ClosureToDo,
  pace: Pace,
  tools: CrewTools,
  parts: readonly number[] = [],
): CrewWork | null {
  if (lacks(todo, tools)) return null;
  const { left } = todo;
  const lines = (heating: Heating | null) => linesOf(todo, pace, heating);
  const all = lines(tools.single ?? tools.ribbon);
  const ribbon = lines(tools.ribbon).find(({ id }) => id === 'ribbon');
  const own = all.map((line) => (line.id === 'ribbon' && ribbon ? ribbon : line));
  const hands = Math.min(2, tools.people);
  const seconds = new Map<EstimateLine['id'], number>();
  for (const { id, seconds: more } of own) seconds.set(id, (seconds.get(id) ?? 0) + more);
  const of = (id: EstimateLine['id']) => seconds.get(id) ?? 0;
  const cableTimes = own.filter(({ id }) => id === 'cable').map((line) => line.seconds);
  const splices = of('single') + of('ribbon');
  const spliced = hands === 1 ? splices : Math.max(splices / 2, machineBound(todo, tools, of));
  const faster: Partial<Record<EstimateLine['id'], number>> =
    hands === 1
      ? {}
      : {
          cable: of('cable') > 0 ? longestFirst(cableTimes, 2) / of('cable') : 1,
          connector: 1 / 2,
          ribbonize: 1 / 2,
          single: splices > 0 ? spliced / splices : 1,
          ribbon: splices > 0 ? spliced / splices : 1,
        };
  const counts = { single: left.singles, ribbon: left.ribbons };
  const steps = own.map(({ id, what, seconds: time }): WorkStep => {
    const mean = time * (faster[id] ?? 1);
    const variation = ((id === 'single' || id === 'ribbon') && todo.variation) || variations[id];
    // Many alike vary less together than one does.
    const times = id === 'single' || id === 'ribbon' ? Math.max(1, counts[id]) : 1;
    return { id, what, mean, variance: (variation * mean) ** 2 / times };
  });
  const setUp = together(...steps.filter(({ id }) => id === 'set-up'));
  const rest = steps.filter(({ id }) => id !== 'set-up');
  const whole = together(...rest);
  const shares = partShares(todo, rest, parts);
  // What goes wrong once goes wrong for all of it.
  const variance = Math.max(whole.variance, (leastVariation * whole.mean) ** 2);
  return {
    setUp: { mean: setUp.mean, variance: Math.max(setUp.variance, (leastVariation * setUp.mean) ** 2) },
    steps: rest,
    parts: shares.map((share) => ({
      mean: whole.mean * share,
      variance: Math.max(variance * share, (leastVariation * whole.mean * share) ** 2),
    })),
    secondHandSaves: own.reduce((sum, line) => sum + line.seconds, 0) - setUp.mean - whole.mean,
  };
}

type Lines = readonly Pick<EstimateLine, 'id' | 'what' | 'seconds'>[];

/** A closure is looked at once for each way of heating, however many crews there are. */
const known = new WeakMap<ClosureToDo, { readonly pace: Pace; readonly byHeating: Map<string, Lines> }>();

/** The estimate of one pair of hands. @param heating null: by the usual times */
function linesOf(todo: ClosureToDo, pace: Pace, heating: Heating | null): Lines {
  let own = known.get(todo);
  if (own?.pace !== pace) known.set(todo, (own = { pace, byHeating: new Map() }));
  const used = heating ?? heatingOf(pace);
  const key = JSON.stringify([used.heaters, Object.entries(used.seconds).sort()]);
  let lines = own.byHeating.get(key);
  if (!lines) own.byHeating.set(key, (lines = estimated(todo, pace, used)));
  return lines;
}

function estimated(
  { closure, plan, cables, left, measured, gluing = 0 }: ClosureToDo,
  pace: Pace,
  heating: Heating,
): Lines {
  const alone = { ...measured, atWork: [] };
  const { lines } = estimateClosure(closure, plan, cables, left, pace, heating, alone);
  if (gluing === 0) return lines;
  return [
    ...lines,
    { id: 'ribbonize', what: 'Make ribbons of loose fibers', seconds: gluing * pace.ribbonize },
  ];
}

/** s that the machines take for what is left, whoever lays in; with two machines for two kinds they work at the same time. */
function machineBound(
  { left, measured }: ClosureToDo,
  tools: CrewTools,
  of: (id: 'single' | 'ribbon') => number,
): number {
  const kind = (id: 'single' | 'ribbon', count: number, machines: number) => {
    if (count === 0) return 0;
    const heating = tools[id]!;
    const heater = heating.seconds[id === 'ribbon' ? 'ribbon' : 'single-60'] / heating.heaters;
    // A pace that was measured has the heater in it.
    const hands = measured[id] ?? of(id) / count;
    return (count * Math.max(hands * machineShare[id], heater)) / Math.max(1, machines);
  };
  const single = kind('single', left.singles, tools.singleMachines);
  const ribbon = kind('ribbon', left.ribbons, tools.ribbonMachines);
  return tools.sameMachine ? single + ribbon : Math.max(single, ribbon);
}

/**
 * How long several take for these times when whoever is free takes the longest that is left: at most (4/3 − 1/(3m)) × the best (R. L. Graham, "Bounds on multiprocessing timing
 * anomalies", SIAM Journal on Applied Mathematics 17, 1969).
 */
export function longestFirst(times: readonly number[], hands: number): number {
  const busy = Array.from({ length: hands }, () => 0);
  for (const time of [...times].sort((a, b) => b - a)) {
    const free = busy.indexOf(Math.min(...busy));
    busy[free]! += time;
  }
  return Math.max(0, ...busy);
}

/** A piece of a closure's work after which it may be covered and left: a cable that is prepared, a tray that is spliced. The last is sealing it. */
export interface Chunk {
  readonly what: 'prepare' | 'tray' | 'seal';
  /** Label of the cable, number of the tray. */
  readonly name: string | null;
  /** s by one pair of hands at the usual pace: what parts are made equal by. */
  readonly seconds: number;
}

/** The work of a closure in the order in which it is done. */
export function chunksOf(todo: ClosureToDo, pace: Pace): Chunk[] {
  const { left, trays } = todo;
  const lines = linesOf(todo, pace, null);
  const of = (id: EstimateLine['id']) =>
    lines.filter((line) => line.id === id).reduce((sum, line) => sum + line.seconds, 0);
  const [perSingle, perRibbon] = [
    of('single') / Math.max(1, left.singles),
    of('ribbon') / Math.max(1, left.ribbons),
  ];
  const ribbonizing = of('ribbonize') / Math.max(1, left.ribbons);
  const chunks: Chunk[] = [
    ...lines
      .filter(({ id }) => id === 'cable')
      .map(({ what, seconds }): Chunk => ({ what: 'prepare', name: what, seconds })),
    ...trays.map(({ tray, singles, ribbons }): Chunk => ({
      what: 'tray',
      name: tray === null ? null : String(tray),
      seconds: singles * perSingle + ribbons * (perRibbon + ribbonizing),
    })),
  ];
  const last = of('connector') + of('seal') + of('test');
  return last > 0 ? [...chunks, { what: 'seal', name: null, seconds: last }] : chunks;
}

/** A part that is shorter is not worth a second time of setting up, s. */
const shortestPart = 45 * 60;
const mostParts = 6;

/**
 * Where the work of a closure that may stay open is split: at a cable or a tray, into parts of about the same length.
 * @param window s of the shortest night: a part is well below half of it, so that it finds room beside something else
 * @returns of each part the number of the chunk after its last; empty: it is not split
 */
export function partsOf(chunks: readonly Chunk[], window: number): number[] {
  const all = chunks.reduce((sum, { seconds }) => sum + seconds, 0);
  const wanted = Math.ceil(all / Math.max(shortestPart, 0.4 * window));
  const count = Math.min(mostParts, chunks.length, Math.floor(all / shortestPart), wanted);
  if (count < 2) return [];
  const bounds: number[] = [];
  let sum = 0;
  for (const [index, { seconds }] of chunks.entries()) {
    // Behind this chunk, if that is nearer to the share than before it.
    const goal = (all * (bounds.length + 1)) / count;
    if (bounds.length < count - 1 && index > (bounds.at(-1) ?? 0) && sum + seconds / 2 > goal)
      bounds.push(index);
    sum += seconds;
  }
  bounds.push(chunks.length);
  return bounds.length < 2 ? [] : bounds;
}

/** "Prepare 96 Moinho, tray 1 to 3", "tray 4, seal". */
export function partWords(chunks: readonly Chunk[], parts: readonly number[], number: number): string {
  const own = chunks.slice(parts[number - 2] ?? 0, parts[number - 1]);
  const cables = own.filter(({ what }) => what === 'prepare');
  const trays = own.filter(({ what }) => what === 'tray').flatMap(({ name }) => name ?? []);
  return [
    cables.length > 2
      ? `prepare ${cables.length} cables`
      : cables.map(({ name }) => name!.replace(/^P/, 'p')).join(', '),
    trays.length === 0
      ? ''
      : trays.length === 1
        ? `tray ${trays[0]}`
        : `trays ${trays[0]} to ${trays.at(-1)}`,
    own.some(({ what }) => what === 'seal') ? 'seal' : 'cover',
  ]
    .filter(Boolean)
    .join(', ');
}

/** The share of each part in what a crew does. */
function partShares(todo: ClosureToDo, steps: readonly WorkStep[], parts: readonly number[]): number[] {
  if (parts.length === 0) return [1];
  const all = steps.reduce((sum, { mean }) => sum + mean, 0);
  const of = (...ids: EstimateLine['id'][]) =>
    steps.filter(({ id }) => ids.includes(id)).reduce((sum, { mean }) => sum + mean, 0);
  const cables = steps.filter(({ id }) => id === 'cable');
  const { left, trays } = todo;
  const perRibbon = of('ribbon', 'ribbonize') / Math.max(1, left.ribbons);
  const perSingle = of('single') / Math.max(1, left.singles);
  const chunks = [
    ...cables.map(({ mean }) => mean),
    ...trays.map(({ singles, ribbons }) => singles * perSingle + ribbons * perRibbon),
  ];
  const last = all - chunks.reduce((sum, one) => sum + one, 0);
  if (of('connector', 'seal', 'test') > 0) chunks.push(last);
  return parts.map(
    (end, index) => chunks.slice(parts[index - 1] ?? 0, end).reduce((sum, one) => sum + one, 0) / (all || 1),
  );
}
