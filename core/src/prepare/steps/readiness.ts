import type { Cable } from '../../line/cable';
import { fiberUnits } from '../../line/fiberNumber';
import type { Site } from '../../line/project';
import { kitList } from '../../kit/kitList';
import { goesThrough, type Closure } from '../../plan/closure';
import type { ClosurePlan } from '../../plan/trays/closurePlan';
import { isOpened } from '../../plan/opened/openedUnits';
import { ribbonizedSizes, type Schools } from './steps';
import { isDone, tickOf, tickTargets, type PrepareState } from './tickTargets';

/** Something to have at hand before a blade comes out. */
export interface Item {
  readonly id: string;
  readonly kind: 'part' | 'tool';
  readonly name: string;
  readonly count: number;
  /** Why it is on the list. */
  readonly how: string;
  /** What cannot be done without it. */
  readonly stops: string;
}

/** A caution of the work place, ticked before the work begins. */
export interface Caution {
  readonly id: string;
  readonly title: string;
  readonly text: string;
}

const stopsByItem: Readonly<Record<string, string>> = {
  mesh: 'leading ribbons to the tray',
  'ribbon-sleeve': 'protecting ribbon splices',
  'transport-tube': 'leading ribbons to the tray',
  breakout: 'leading ribbons into the module',
  'upper-pad': 'making ribbons of loose fibers',
  'sponge-pad': 'making ribbons of loose fibers',
  'ribbon-clip': 'making ribbons of loose fibers',
  'lower-pad': 'making ribbons of loose fibers',
  adhesive: 'making ribbons of loose fibers',
  swab: 'making ribbons of loose fibers',
  felt: 'leading tubes to the tray',
  tie: 'tying tubes and ribbons',
  'gel-wipe': 'cleaning tubes',
  wipe: 'cleaning fibers',
  'moist-wipe': 'cleaning fibers',
  alcohol: 'cleaning fibers',
  grease: 'seating the seals',
  soap: 'the flash test',
  'fusion-connector': 'putting connectors on',
  'mechanical-connector': 'putting connectors on',
};

function stopsOf(item: string): string {
  if (item.startsWith('single-sleeve')) return 'protecting single splices';
  if (item.startsWith('seal') || item.startsWith('part-')) return 'sealing the cables';
  if (item.startsWith('plug')) return 'sealing unused ports';
  return stopsByItem[item] ?? 'the work';
}

/** Parts by the closure's model and its plan, and tools by the constructions of its cables and the schools. Tools: common practice. */
export function itemsFor(
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
  schools: Schools,
  /** mm, by cable, where somebody measured. */
  diameters: ReadonlyMap<string, number> = new Map(),
): Item[] {
  const own = new Map(
    (closure.parts ?? []).map((part) => [`model-${part.name}`, part.stops || 'closing the closure']),
  );
  const parts: Item[] = kitList(closure, plan, cables, { sparePercent: 0, schools, diameters }).map(
    (line) => ({
      id: line.item,
      kind: 'part',
      name: line.name,
      count: line.count,
      how: line.how,
      stops: own.get(line.item) ?? stopsOf(line.item),
    }),
  );

  const tools: Item[] = [];
  const add = (id: string, name: string, how: string, stops: string) => {
    if (!tools.some((tool) => tool.id === id)) tools.push({ id, kind: 'tool', name, count: 1, how, stops });
  };
  const everywhere = 'every cable';
  add('glove', 'Cut-resistant glove', everywhere, 'any cut');
  add('glasses', 'Safety glasses', everywhere, 'any cut, and work with bare fiber');
  add('tape-measure', 'Tape and marker', everywhere, 'marking');
  add('shards', 'Container for shards', everywhere, 'cleaving');
  for (const entry of closure.entries) {
    const cable = cables.get(entry.cableId);
    if (!cable || !isOpened(plan, closure, cable)) continue;
    const how = cable.label;
    add('caliper', 'Caliper, or tape for the circumference', how, 'choosing the seal');
    const { kind } = cable.construction;
    if (kind !== 'pigtails') {
      add('snips', 'Aramid snips', how, 'opening the cable');
      add('rod-cutter', 'Rod cutter', how, 'cutting the strength member');
      add('knife', 'Knife', how, 'opening the cable');
    }
    if (kind !== 'pigtails' && kind !== 'drop') add('ring-cutter', 'Ring cutter', how, 'the ring cut');
    if (kind === 'drop') add('drop-slitter', 'Drop slitter', how, 'opening the drop');
    if (goesThrough(entry.manner)) add('mid-span', 'Mid-span slitter', how, 'opening between the ring cuts');
    if (entry.manner === 'window') add('window-cutter', 'Window cutter for tubes', how, 'opening a window');
    if (kind === 'stranded-tubes' || kind === 'stranded-ribbon')
      add(
        schools.tube,
        schools.tube === 'scorer' ? 'Round tube scorer' : 'Fixed-depth tube stripper',
        how,
        'taking tubes off',
      );
    if (kind === 'central-ribbon')
      add('tube-scorer', 'Scorer for the central tube', how, 'opening the central tube');
    if (kind === 'drop') add('small-tube', 'Small tube stripper', how, 'stripping the small tube');
    if (fiberUnits(cable.construction)[0]!.kind === 'ribbon') {
      add('thermal-stripper', 'Thermal stripper, holders', how, 'stripping ribbons');
    } else add('fiber-stripper', 'Fiber stripper', how, 'stripping fibers');
    if (ribbonizedSizes(plan, cable).length > 0) {
      add(
        'guide',
        schools.ribbonizing === 'pads' ? 'Ribbonizing guide' : 'Applicator block',
        how,
        'making ribbons of loose fibers',
      );
      add('thermal-stripper', 'Thermal stripper, holders', how, 'stripping ribbons');
    }
  }
  if (plan.splices.length + plan.unplaced.length > 0) {
    add('machine', 'Splicing machine, charged', 'the splices', 'splicing');
    add('cleaver', 'Cleaver', 'the splices', 'splicing');
  }
  const connectors = plan.ends.map(({ connector }) => connector);
  if (connectors.includes('fusion-connector'))
    add('machine', 'Splicing machine, charged', 'the fused connectors', 'splicing connectors on');
  if (connectors.some((connector) => connector !== 'own'))
    add('cleaver', 'Cleaver', 'the connectors', 'putting connectors on');
  if (connectors.length > 0) add('light', 'Visible light source', 'the connectors', 'the light check');
  if ((closure.testPressure ?? 0) > 0)
    add('pump', 'Pump with gauge', 'the closure is tested with pressure', 'the flash test');
  return [...tools, ...parts];
}

/**
 * What the work place calls for. Local code, the owner's rules and licensed practice come first; these are reminders and nothing more.
 */
export function cautionsFor(
  site: Site,
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
): Caution[] {
  const cautions: Caution[] = [];
  const add = (id: string, title: string, text: string) => void cautions.push({ id, title, text });
  const { placement } = site;
  const outside = placement !== 'indoors';
  if (placement === 'manhole') {
    add(
      'air',
      'Test the air',
      'Gas and lack of air cannot be smelled. Test before anybody enters, keep testing and ventilate; test again before any arc, heater or flame.',
    );
    add(
      'entry',
      'Nobody enters alone',
      'A manhole is a confined space: permit, attendant above and means to bring somebody up, as local code says. Look for water and live cables first.',
    );
  }
  if (placement === 'handhole')
    add(
      'air',
      'Test the air',
      'Gas collects in a handhole too and cannot be smelled: air it, and test before any arc, heater or flame.',
    );
  if (placement === 'manhole' || placement === 'handhole')
    add(
      'traffic',
      'Traffic',
      'Cones, signs and lights as the road’s owner asks. Somebody watches while a head is below the road.',
    );
  if (placement === 'aerial' || placement === 'pole') {
    add('height', 'Height', 'Ladder tied or lift checked, harness on. Nobody stands below.');
    add(
      'power',
      'Power lines',
      'Look up: keep the distance that local code gives. Take a strand for live until it was tested.',
    );
    if (placement === 'pole') add('traffic', 'Traffic', 'Cones, signs and lights as the road’s owner asks.');
  }
  if (placement === null)
    add(
      'place',
      'Look at the place',
      'Air, traffic, height, power lines: what is there calls for its own rules. Enter at the site what kind of place it is.',
    );
  const here = closure.entries.flatMap((entry) => {
    const cable = cables.get(entry.cableId);
    return cable ? [{ entry, cable }] : [];
  });
  const live = here.flatMap(({ cable }) =>
    (cable.live ?? []).map(({ circuit, from, to }) => `${cable.label} ${from}–${to} (${circuit})`),
  );
  const passing = here.some(
    ({ entry, cable }) => goesThrough(entry.manner) && isOpened(plan, closure, cable),
  );
  if (live.length > 0 || passing)
    add(
      'live',
      'Live fiber',
      live.length > 0
        ? `${live.join(', ')} ${live.length === 1 ? 'carries' : 'carry'} traffic. Its light cannot be seen: never look into an end or a scope.`
        : 'A cable that goes through is opened here. Ask which of its circuits are live; never look into an end or a scope.',
    );
  if (outside)
    add(
      'bonding',
      'Bonding',
      'Armor, messenger and toning wire are metal: bond or isolate them as the owner’s rules and local code say, before they are cut.',
    );
  return cautions;
}

export interface Readiness {
  readonly missing: readonly Item[];
  /** Not looked at yet. */
  readonly open: readonly Item[];
  readonly cautions: readonly Caution[];
  /** Cautions that nobody ticked. */
  readonly openCautions: readonly Caution[];
}

/** What of the lists is there, missing, or not looked at. */
export function readiness(
  items: readonly Item[],
  cautions: readonly Caution[],
  state: PrepareState,
): Readiness {
  const stateOf = (item: Item) => tickOf(state, tickTargets.item(item.id))?.body.state ?? 'open';
  return {
    missing: items.filter((item) => stateOf(item) === 'missing'),
    open: items.filter((item) => stateOf(item) === 'open'),
    cautions,
    openCautions: cautions.filter((caution) => !isDone(state, tickTargets.caution(caution.id))),
  };
}
