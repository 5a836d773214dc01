import type { Closure } from '../../plan/closure';
import { metalOf, type Cable } from '../../line/cable';
import { blade, type CutMarks } from './cutMark';
import { groupStep, ringStart, throughSeal, tubeInTray, tubePiece, type PreparationLengths } from './lengths';
import { holdersNamed, type Holder, type OpenedUnit } from '../../plan/opened/openedUnits';
import { trayWords, tubeTool, type TubeSchool } from './tubeTool';

export interface EndCut {
  readonly cable: Cable;
  readonly opening: number;
  readonly lengths: PreparationLengths;
  readonly opened: readonly OpenedUnit[];
  readonly whole: readonly Holder[];
  readonly school: TubeSchool;
  /** What a knife opens at the end to reach the ripcord, and is cut off, mm; 0 where a second ring starts the ripcord. */
  readonly knife: number;
  readonly closure: Pick<Closure, 'kind'>;
}

/** Marks on a cable that ends in the closure, measured from its end, in the order of work (common practice). */
export function endMarks(marks: CutMarks, cut: EndCut): void {
  const { cable, opening, lengths } = cut;
  const { construction } = cable;
  if (construction.kind === 'pigtails') {
    pigtailMarks(marks, cut);
    return;
  }
  outsideMarks(marks, cut);
  if (lengths.clampMark > 0)
    marks.add({
      id: 'clamp',
      kind: 'clamp',
      at: opening + lengths.clampMark,
      title: 'Gland or clamp mark',
      tool: 'Tape and marker',
      why: `The closure places gland or clamp ${marks.tape(lengths.clampMark)} below the sheath edge. Marked now, while the whole sheath is there to measure on.`,
    });
  if (construction.kind === 'drop') dropMarks(marks, cut);
  else {
    sheathMarks(marks, cut);
    insideMarks(marks, cut);
  }
  trayMarks(marks, cut);
}

function outsideMarks(marks: CutMarks, { cable, opening }: EndCut): void {
  const metal = metalOf(cable.construction);
  const to = opening + throughSeal;
  if (metal.messenger)
    marks.add({
      id: 'messenger',
      kind: 'outside',
      at: 0,
      to,
      title: 'Take the messenger off',
      tool: 'Slitting knife, side cutter',
      depth: 'the web only, the sheath stays whole',
      why: `It has to be off before the cable goes through the seal: ${marks.tape(throughSeal)} beyond the sheath edge.`,
      caution: `${blade} The messenger is under tension and springs; bond it as the owner’s rules and local code say.`,
    });
  if (metal.toningWire)
    marks.add({
      id: 'toning-wire',
      kind: 'outside',
      at: 0,
      to,
      title: 'Shave the toning wire off',
      tool: 'Slitting knife',
      depth: 'the ridge only',
      why: `Its ridge keeps the seal from closing: off first, ${marks.tape(throughSeal)} beyond the sheath edge.`,
      caution: blade,
    });
}

function dropMarks(marks: CutMarks, { cable, opening, lengths }: EndCut): void {
  const flat = cable.construction.kind === 'drop' && cable.construction.shape === 'flat';
  marks.add({
    id: 'ring-cut',
    kind: 'ring-cut',
    at: opening,
    title: flat ? 'Sheath edge: open both edges to here' : 'Ring cut',
    tool: flat ? 'Drop slitter or knife' : 'Ring cutter',
    depth: flat ? 'until the rods show' : 'sheath only',
    why: `The drop is opened by ${marks.tape(opening)}. Peel the halves back to here.`,
    caution: blade,
  });
  marks.add({
    id: 'strength-member',
    kind: 'strength-member',
    at: opening - lengths.strengthMember,
    title: flat ? 'Cut the two rods' : 'Cut the strength member',
    tool: 'Rod cutter',
    depth: 'through',
    why: stays(marks, lengths.strengthMember, 'for the bracket'),
    caution: 'Rod ends fly: safety glasses on.',
  });
  marks.add({
    id: 'aramid',
    kind: 'aramid',
    at: opening - Math.min(lengths.aramid, opening),
    title: 'Cut the yarn',
    tool: 'Aramid snips, with a twist',
    depth: 'through',
    why: stays(marks, lengths.aramid, 'where it anchors the drop'),
  });
  marks.add({
    id: 'central-tube',
    kind: 'central-tube',
    at: opening - lengths.tube,
    title: 'Strip the small tube to here',
    tool: 'Small tube stripper',
    depth: 'scored, not cut through',
    why: `${marks.tape(lengths.tube)} of tube stay to guard the fibers at the edge.`,
  });
}

/** What is left standing, and what for; flush where nothing is. */
function stays(marks: CutMarks, length: number, what: string): string {
  return length > 0 ? `${marks.tape(length)} stay ${what}.` : 'Flush: none of it stays.';
}

function sheathMarks(marks: CutMarks, { closure, opening, lengths, knife }: EndCut): void {
  marks.add({
    id: 'test-cut',
    kind: 'test-cut',
    at: Math.min(lengths.testCut, opening),
    title: 'Test cut',
    tool: 'Ring cutter',
    depth: 'turn the blade in until the sheath parts and nothing under it is scratched',
    why: 'Sets the blade on sheath that comes off anyway. The ring cut is made with this very setting.',
    caution: blade,
  });
  if (knife === 0)
    marks.add({
      // In whatever way the ripcord is started, that is one mark of the same name; a rack's has its own from before.
      id: closure.kind === 'rack' ? 'ring-cut.start' : 'ripcord',
      kind: 'ring-cut',
      at: Math.min(ringStart, opening),
      title: 'Second ring cut, to start the ripcord',
      tool: 'Ring cutter, blade as on the test cut',
      depth: 'sheath only',
      why: `${marks.tape(ringStart)} from the end: this piece comes off, and the ripcords stand free to be gripped.`,
      caution: blade,
    });
  else
    marks.add({
      id: 'ripcord',
      kind: 'ripcord',
      at: 0,
      to: knife,
      title: 'Lay the ripcord open',
      tool: 'Knife',
      depth: 'sheath only, flat along the cable',
      why: `The first ${marks.tape(knife)} by knife; from there the ripcord opens it, pulled along the cable. What the knife opened is cut off.`,
      caution: blade,
    });
  marks.add({
    id: 'ring-cut',
    kind: 'ring-cut',
    at: opening,
    title: 'Ring cut',
    tool: 'Ring cutter, blade as on the test cut',
    depth: 'sheath only',
    why: `The closure’s table asks for ${marks.tape(opening)} of opened cable. This is the sheath edge that everything after is measured from.`,
    caution: blade,
  });
  marks.add({
    id: 'aramid',
    kind: 'aramid',
    at: opening - lengths.aramid,
    title: 'Cut aramid and binder tape',
    tool: 'Aramid snips',
    depth: 'yarn only',
    why: stays(marks, lengths.aramid, 'where it anchors the cable'),
  });
  marks.add({
    id: 'ripcord-end',
    kind: 'ripcord',
    at: opening - lengths.ripcord,
    title: 'Cut the ripcord',
    tool: 'Snips',
    why:
      lengths.ripcord > 0
        ? `${marks.tape(lengths.ripcord)} stay: whoever opens the sheath further needs something to pull.`
        : 'Flush: none of it stays.',
  });
}

function insideMarks(marks: CutMarks, { cable, opening, lengths }: EndCut): void {
  const { construction } = cable;
  const fillers =
    'strands' in construction ? construction.strands.filter((strand) => strand.kind === 'filler').length : 0;
  if (fillers > 0)
    marks.add({
      id: 'filler',
      kind: 'filler',
      at: opening,
      title: fillers === 1 ? 'Cut the filler away' : `Cut the ${fillers} fillers away`,
      tool: 'Side cutter',
      depth: 'at the sheath edge',
      why: 'A filler is solid and carries no fiber. Look at its end before you cut: a tube is hollow.',
    });
  marks.add({
    id: 'strength-member',
    kind: 'strength-member',
    at: opening - lengths.strengthMember,
    title: construction.kind === 'central-ribbon' ? 'Cut the strength members' : 'Cut the strength member',
    tool: 'Rod cutter',
    depth: 'strands' in construction ? 'through, when the tubes are unwound from it' : 'through',
    why: stays(marks, lengths.strengthMember, 'for the bracket'),
    caution: 'Rod ends fly and splinter: safety glasses and gloves on.',
  });
  if (construction.kind === 'central-ribbon')
    marks.add({
      id: 'central-tube',
      kind: 'central-tube',
      at: opening - lengths.tube,
      title: 'Score and snap the central tube',
      tool: 'Tube scorer',
      depth: 'scored, never through: the ribbons lie right under it',
      why: `${marks.tape(lengths.tube)} of it stay past the sheath edge to guard the ribbons.`,
    });
}

function trayMarks(marks: CutMarks, { cable, opening, lengths, opened, whole, school, knife }: EndCut): void {
  const central = cable.construction.kind === 'central-ribbon' || cable.construction.kind === 'drop';
  // What wears connectors alone lies on no tray; a drop's fiber goes into its connector as it is.
  const onTrays = opened.filter(({ used, inConnectors }) => inConnectors < used);
  const fannedOut =
    cable.construction.kind === 'drop' ? [] : opened.filter((unit) => !onTrays.includes(unit));
  const numbers = (units: readonly OpenedUnit[]) => units.map(({ holder }) => holder.number);
  const named = (units: readonly OpenedUnit[]) => holdersNamed(units.map(({ holder }) => holder));
  if (onTrays.length > 0)
    marks.add({
      id: 'tray',
      kind: 'tray',
      at: opening - lengths.tubeToTray,
      title: `${named(onTrays)}: mark the tray’s entry`,
      tool: 'Marker; felt wrap and two ties',
      units: numbers(onTrays),
      why: `${marks.tape(lengths.tubeToTray)} from the sheath edge it goes in. ${trayWords(onTrays)}`,
    });
  if (fannedOut.length > 0)
    marks.add({
      id: 'tray.fan-out',
      kind: 'tray',
      at: opening - lengths.tubeToTray,
      title: `${named(fannedOut)}: mark the fan-out’s entry`,
      tool: 'Marker; fan-out kit',
      units: numbers(fannedOut),
      why: `${marks.tape(lengths.tubeToTray)} from the sheath edge it goes in. Every fiber gets a tube of its own there before it wears a connector.`,
    });
  const end = opening - lengths.tubeToTray - tubeInTray;
  const pulled = Math.max(0, end - knife);
  for (const [units, id, where] of [
    [onTrays, 'tube-end', 'the tray'],
    [fannedOut, 'tube-end.fan-out', 'the fan-out'],
  ] as const)
    if (units.length > 0 && !central)
      marks.add({
        id,
        kind: 'tube-end',
        at: end,
        title: 'Take the tubes off to here',
        tool: tubeTool(school).tool,
        depth: tubeTool(school).depth,
        units: numbers(units),
        why: `${marks.tape(tubeInTray)} reach into ${where}. Pull ${marks.tape(pulled)} off in ${Math.max(1, Math.ceil(pulled / tubePiece))} pieces of at most ${marks.tape(tubePiece)}.`,
      });
  const grouped = opened.filter(({ holder }) => holder.groupSize !== null);
  if (grouped.length > 0)
    marks.add({
      id: 'groups',
      kind: 'groups',
      // From the end as it is when the knife's part is off.
      at: knife + groupStep,
      title: 'Cut the second group here',
      tool: 'Snips',
      units: grouped.map(({ holder }) => holder.number),
      why: `Both ways at once keep the groups apart once the binders are off: six half hitches of the binder round the first group, and the second one ${marks.tape(groupStep)} shorter.`,
    });
  if (whole.length > 0 && whole[0]!.kind !== 'bundle')
    marks.add({
      id: 'whole',
      kind: 'fiber-end',
      at: 0,
      place: 'along the whole opening',
      title: `${holdersNamed(whole)}: stay whole`,
      tool: 'Caps and ties',
      units: whole.map(({ number }) => number),
      why: 'No line of the order takes them. Cap them, coil them in the slack storage, and do not score them.',
    });
}

function pigtailMarks(marks: CutMarks, { lengths, cable }: EndCut): void {
  const tight = cable.construction.kind === 'pigtails' && cable.construction.bufferMicrometers === 900;
  marks.add({
    id: 'tray',
    kind: 'tray',
    at: lengths.trayFiber,
    title: 'Mark the tray’s entry',
    tool: 'Marker',
    why: `${marks.tape(lengths.trayFiber)} reach from the tray to the machine.`,
  });
  marks.add({
    id: 'tube-end',
    kind: 'tube-end',
    at: lengths.redo,
    title: tight ? 'Strip the 900 μm buffer to here' : 'Strip the coating to here',
    tool: 'Fiber stripper',
    depth: tight ? 'in steps of about 6 mm (1/4 in)' : 'coating only',
    why: 'Sleeve on first. Longer steps break the fiber inside the buffer.',
  });
}
