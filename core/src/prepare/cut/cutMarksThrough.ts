import { metalOf } from '../../line/cable';
import { liveWords } from '../../plan/words';
import { blade, type CutMarks } from './cutMark';
import type { EndCut } from './cutMarksEnd';
import { groupStep, throughSeal, tubeInTray } from './lengths';
import { cutIn, holdersNamed, liveIn, type OpenedUnit } from '../../plan/opened/openedUnits';
import { trayWords, tubeTool } from './tubeTool';

const sides = [
  { name: 'low', sign: -1 },
  { name: 'high', sign: 1 },
] as const;

export interface ThroughCut extends EndCut {
  /** The length of the closure's table that the opening follows from, mm. */
  readonly table: number;
  /** Where the two sides lead. */
  readonly toward: { readonly low: string; readonly high: string };
}

/** Marks on a cable that goes through the closure, measured from the center of its slack, in the order of work (common practice). */
export function throughMarks(marks: CutMarks, cut: ThroughCut): void {
  const { opening, lengths, cable, toward, table } = cut;
  const longer =
    opening > table + 0.01
      ? ` The closure’s table has ${marks.tape(table)}; so far every stub is as long as at a cable’s end.`
      : '';
  const edge = opening / 2;
  const both = (
    inset: number,
    make: (side: (typeof sides)[number], at: number) => Omit<Parameters<CutMarks['add']>[0], 'at'>,
  ) => {
    for (const side of sides)
      marks.add({ ...make(side, side.sign * (edge - inset)), at: side.sign * (edge - inset) });
  };

  marks.add({
    id: 'center',
    kind: 'center',
    at: 0,
    title: 'Center of the slack',
    tool: 'Tape flag',
    why: 'Everything is measured from here. Find the middle of the slack loop and flag it.',
    caution:
      'This cable may carry traffic. Ask which circuits are live, and keep every tube that goes through out of the cutters’ way.',
  });
  const { construction } = cable;
  const metal = metalOf(construction);
  for (const what of ['messenger', 'toning-wire'] as const)
    if (what === 'messenger' ? metal.messenger : metal.toningWire)
      marks.add({
        id: what,
        kind: 'outside',
        at: -edge - throughSeal,
        to: edge + throughSeal,
        title: what === 'messenger' ? 'Take the messenger off' : 'Shave the toning wire off',
        tool: 'Slitting knife',
        depth: 'outside the sheath only',
        why: `It has to be off before the seals: ${marks.tape(throughSeal)} beyond both sheath edges.`,
        caution: blade,
      });
  if (lengths.clampMark > 0)
    both(-lengths.clampMark, ({ name }) => ({
      id: `clamp.${name}`,
      kind: 'clamp',
      title: 'Gland or clamp mark',
      tool: 'Tape and marker',
      why: `${marks.tape(lengths.clampMark)} below the sheath edge, toward ${toward[name]}.`,
    }));
  marks.add({
    id: 'test-cut',
    kind: 'test-cut',
    at: -edge + Math.min(lengths.testCut, edge),
    title: 'Test cut',
    tool: 'Ring cutter',
    depth: 'turn the blade in until the sheath parts and nothing under it is scratched',
    why: 'Inside the opening, on sheath that comes off. Under it lie tubes that go through: set the blade here, not at the ring cuts.',
    caution: blade,
  });
  both(0, ({ name }) => ({
    id: `ring-cut.${name}`,
    kind: 'ring-cut',
    title: 'Ring cut',
    tool: 'Ring cutter, blade as on the test cut',
    depth: 'sheath only',
    why: `The sheath edge toward ${toward[name]}. The two ring cuts are ${marks.tape(opening)} apart.${longer}`,
    caution: blade,
  }));
  marks.add({
    id: 'slit',
    kind: 'slit',
    at: -edge,
    to: edge,
    title: 'Open the sheath along its length',
    tool: 'Mid-span slitter, or both ripcords',
    depth: 'sheath only; the ripcord is pulled along the cable',
    why: 'From ring cut to ring cut; the sheath comes off in two halves and no tube is bent.',
    caution: blade,
  });
  both(lengths.aramid, ({ name }) => ({
    id: `aramid.${name}`,
    kind: 'aramid',
    title: 'Cut aramid and binder tape',
    tool: 'Aramid snips',
    depth: 'yarn only',
    why:
      lengths.aramid > 0
        ? `${marks.tape(lengths.aramid)} of yarn stay toward ${toward[name]}.`
        : `All of it, toward ${toward[name]}.`,
  }));
  const fillers =
    'strands' in construction ? construction.strands.filter((strand) => strand.kind === 'filler').length : 0;
  if (fillers > 0)
    both(0, ({ name }) => ({
      id: `filler.${name}`,
      kind: 'filler',
      title: fillers === 1 ? 'Cut the filler away' : `Cut the ${fillers} fillers away`,
      tool: 'Side cutter',
      depth: 'at the sheath edge',
      why: 'A filler is solid and carries no fiber. Nick it first and look: a tube is hollow.',
    }));
  both(lengths.strengthMember, ({ name }) => ({
    id: `strength-member.${name}`,
    kind: 'strength-member',
    title: 'Cut the strength member',
    tool: 'Rod cutter',
    depth:
      'strands' in construction
        ? 'the rod only, when the tubes are unwound from it'
        : 'the rod only: lift what goes through away from it',
    why:
      lengths.strengthMember > 0
        ? `${marks.tape(lengths.strengthMember)} stay for the bracket toward ${toward[name]}.`
        : `Flush, toward ${toward[name]}: none of it stays.`,
    caution: 'Rod ends fly and splinter: safety glasses and gloves on.',
  }));
  if (construction.kind === 'central-ribbon') {
    both(lengths.tube, ({ name }) => ({
      id: `central-tube.${name}`,
      kind: 'central-tube',
      title: 'Score the central tube',
      tool: 'Tube scorer',
      depth: 'scored, never through: the ribbons lie right under it',
      why: `${marks.tape(lengths.tube)} of it stay past the sheath edge.`,
    }));
    marks.add({
      id: 'central-tube.slit',
      kind: 'slit',
      at: -edge + lengths.tube,
      to: edge - lengths.tube,
      title: 'Open the central tube along its length',
      tool: 'Mid-span tube slitter',
      depth: 'the wall of the tube only',
      why: 'Ribbons that go through stay whole, so the tube is shaved open and taken off sideways.',
      caution: blade,
    });
  }
  openedMarks(marks, cut);
}

/** Tubes that are opened alike are marked together. */
function openedMarks(
  marks: CutMarks,
  { cable, opening, lengths, opened, whole, school, toward }: ThroughCut,
): void {
  const edge = opening / 2;
  const alike = new Map<string, OpenedUnit[]>();
  for (const unit of opened) {
    const way = `${unit.how === 'window' ? `window.${unit.sides.join('-')}` : unit.how}${liveIn(cable, cutIn(unit)).length > 0 ? '.live' : ''}`;
    alike.set(way, [...(alike.get(way) ?? []), unit]);
  }
  for (const [way, units] of alike) {
    const { how, sides: used } = units[0]!;
    if (how === 'end') continue;
    const named = holdersNamed(units.map(({ holder }) => holder));
    const numbers = units.map(({ holder }) => holder.number);
    const live = liveIn(cable, units.flatMap(cutIn));
    const stop =
      live.length > 0
        ? { stop: `${liveWords(live)} in what is cut here. Not before the circuit is down.` }
        : {};
    const stubs = how === 'both' ? sides : sides.filter(({ name }) => used.includes(name));
    for (const { name, sign } of stubs)
      marks.add({
        id: `tray.${way}.${name}`,
        kind: 'tray',
        at: sign * (edge - lengths.tubeToTray),
        title: `${named}: mark the tray’s entry`,
        tool: 'Marker; felt wrap and two ties',
        units: numbers,
        why: `${marks.tape(lengths.tubeToTray)} from the sheath edge toward ${toward[name]}. ${trayWords(units)}`,
      });
    if (how === 'window') {
      const sign = used.includes('low') || used.length === 2 ? 1 : -1;
      marks.add({
        id: way,
        kind: 'window',
        at: sign * (-edge + lengths.windowInset),
        to: sign * (edge - lengths.windowInset),
        title: `${named}: open a window`,
        tool: units[0]!.holder.kind === 'tube' ? 'Window cutter for tubes' : 'Ribbon splitter',
        depth: 'the upper wall of the tube only',
        units: numbers,
        why: `From ${marks.tape(lengths.windowInset)} inside the edge, where the tube lies in its tray. Take out only the ${units.reduce((sum, unit) => sum + unit.used, 0)} fibers of the order and cut them ${used.length === 2 ? 'in the middle' : 'where the window ends'}; the others stay in the tube.`,
        caution:
          'Fibers in this tube go through and may be live. Count and check the colors before you cut one.',
        ...stop,
      });
      continue;
    }
    const at = how === 'both' ? 0 : how === 'low' ? edge - lengths.exitStub : -edge + lengths.exitStub;
    marks.add({
      id: `tube-cut.${way}`,
      kind: 'tube-cut',
      at,
      title: `Cut ${named[0]!.toLowerCase()}${named.slice(1)}`,
      tool: units[0]!.holder.kind === 'ribbon' ? 'Ribbon shears' : 'Tube cutter',
      depth: 'through, these and no others',
      units: numbers,
      why:
        how === 'both'
          ? 'Both sides are spliced, so it is cut in the middle and both stubs are alike.'
          : `Its fibers are spliced from ${toward[how]}, so it is cut at the far edge, toward ${toward[how === 'low' ? 'high' : 'low']}: the stub is as long as it can be.`,
      caution: 'Cannot be taken back. Count the tubes again and read the color aloud before you cut.',
      ...stop,
    });
    const pulled = stubs.map(({ name, sign }) => ({
      name,
      at: sign * (edge - lengths.tubeToTray - tubeInTray),
    }));
    if (units[0]!.holder.kind === 'tube')
      for (const { name, at: end } of pulled)
        marks.add({
          id: `tube-end.${way}.${name}`,
          kind: 'tube-end',
          at: end,
          title: 'Take the tubes off from here',
          tool: tubeTool(school).tool,
          depth: tubeTool(school).depth,
          units: numbers,
          why: `${marks.tape(tubeInTray)} reach into the tray; the rest of the stub toward the cut comes off.`,
        });
    if (units.some(({ holder }) => holder.groupSize !== null))
      marks.add({
        id: `groups.${way}`,
        kind: 'groups',
        at: at + (at > 0 ? -groupStep : groupStep),
        title: 'Cut the second group here',
        tool: 'Snips',
        units: numbers,
        why: `Six half hitches of the binder round the first group, and the second one ${marks.tape(groupStep)} shorter.`,
      });
  }
  if (whole.length > 0)
    marks.add({
      id: 'whole',
      kind: 'fiber-end',
      at: 0,
      place: 'along the whole opening',
      title: `${holdersNamed(whole)}: stay whole`,
      tool: 'Ties, slack storage',
      units: whole.map(({ number }) => number),
      why: 'They go through. Tie them together and store them out of the way before a tube is cut.',
      caution: 'Live fiber cannot be seen. Never look into an end.',
    });
}
