import { mostPressure, type PhotoOf, type SealName, type WholePoint } from '../facts';
import type { Units } from '../line/project';
import { formatMillimeters } from '../units/length';
import { formatPressure } from '../units/pressure';
import {
  fewTrays,
  tightestCoil,
  type SealChapter,
  type SealedAt,
  type SealedThing,
  type SealPointAt,
} from './finalLook';
import { sealKey, type Guest, type HowSealed, type Opening } from './seals';
import { pointKey } from './sealState';
import type { SealBlock, SealStage } from './stage';

/** The English of sealing. Common practice throughout; the maker's instruction comes first. */

export const chapterNames: Readonly<Record<SealChapter, string>> = {
  look: 'Final look',
  tighten: 'Tighten',
  close: 'Close',
  after: 'After the test',
};

/** What holds a seal, one and several, by the way in which the closure is closed. */
const holderNames: Readonly<Record<HowSealed['opens'], readonly [one: string, several: string]>> = {
  caps: ['cap', 'caps'],
  glands: ['gland nut', 'gland nuts'],
  screws: ['compression screw', 'compression screws'],
  gel: ['shell', 'shells'],
};
export const holderName = (how: HowSealed): string => holderNames[how.opens][0];

const bodyNames: Readonly<Record<SealedThing['closure']['kind'], string>> = {
  dome: 'The collar',
  inline: 'The cover',
  terminal: 'The lid',
  drop: 'The shell',
  rack: 'The module',
};

/** "A Feeder 96", "A Feeder 96, in", "C Drop 1 and D Drop 2": what lies in an opening. */
export function guestsWords(guests: readonly Guest[]): string {
  return guests
    .map(
      ({ seat, face }) =>
        `${seat.key} ${seat.cable.label}${face === 'only' ? '' : face === 'in' ? ', in' : ', out'}`,
    )
    .join(' and ');
}

/** "Oval 2 · A Feeder 96", "plug Round 1", "the collar". A seal that the closure has no more is named as far as it says itself. */
export function sealWords(
  seal: SealName,
  { openings }: Pick<SealStage, 'openings'>,
  { closure, cables }: Pick<SealedThing, 'closure' | 'cables'>,
): string {
  if (seal.of === 'body') return bodyNames[closure.kind];
  if (seal.of === 'valve') return 'The valve';
  const opening = openings.find((one) => sealKey(one.seal) === sealKey(seal));
  if (opening) return openingWords(opening);
  return seal.of === 'plug'
    ? `Plug ${seal.port} ${seal.number}`
    : `${cables.get(seal.cableId)?.label ?? 'A cable that is gone'}${seal.face === 'only' ? '' : `, ${seal.face}`}`;
}

/** "Opening 2, Oval: A Feeder 96". */
export function openingWords({ number, port, guests }: Opening): string {
  const where = number === null ? 'No port known' : `Opening ${number}, ${port}`;
  return `${where}: ${guests.length > 0 ? guestsWords(guests) : 'plug'}`;
}

/** What a point asks: its title, what is seen where it is right, and what to do where it is not. */
export interface PointWords {
  readonly title: string;
  readonly right: string;
  readonly wrong: string;
}

const labels = (ids: readonly string[] | undefined, { cables }: Pick<SealedThing, 'cables'>): string => {
  const names = (ids ?? []).map((id) => cables.get(id)?.label ?? 'a cable that is gone');
  return names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');
};

function wholeWords(
  point: WholePoint,
  { cableIds }: SealPointAt,
  thing: SealedAt,
  { how }: Pick<SealStage, 'how'>,
  units: Units,
): PointWords {
  const { closure, site } = thing;
  const of = labels(cableIds, thing);
  switch (point) {
    case 'straps':
      return {
        title: 'Trays lowered and strapped',
        right:
          closure.trays.length < fewTrays
            ? `The side straps first, since there are fewer than ${fewTrays} trays; then the one across. Nothing is under a strap but trays.`
            : 'All trays down, the strap across them, nothing under it but trays.',
        wrong: 'Open the strap, lower the trays one by one and look what lies between them.',
      };
    case 'tubes':
      return {
        title: `Tubes and ribbons of ${of} lie free`,
        right: 'No kink, nothing crushed or pinched, wrapped where a tie goes round them.',
        wrong:
          'Cut the tie, lay the tube anew. A kinked tube is looked at with light before it is closed in.',
      };
    case 'transport-tubes':
      return {
        title: `Transport tubes of ${of} tied at both ends`,
        right: 'Tied at the transition tray and at the splice tray; no ribbon stands out of one.',
        wrong: 'Tie it at both ends, with room for the ribbons to move.',
      };
    case 'strength-members':
      return {
        title: `Strength members of ${of} tight`,
        right: 'The rod cannot be turned or pulled, its clamp bites the rod and nothing else.',
        wrong:
          'Loosen, set the rod to its mark at the bracket, tighten anew. A cable that can move works on its seal.',
      };
    case 'ground':
      return {
        title: `Shield and ground of ${of}`,
        right: 'Connector tight on bare metal; bonded or isolated as the owner’s rules and local code say.',
        wrong:
          'Clean the metal, set the connector anew. Who may bond is said by local code and licensed practice.',
      };
    case 'bobbin':
      return {
        title: 'Drops at the bobbin',
        right: `The rod ends of ${of} are aligned and held.`,
        wrong: 'Open the bobbin, align the rod ends, close it.',
      };
    case 'gasket':
      return {
        title: closure.kind === 'drop' ? 'Gel and its edges clean' : 'Gasket and its seat clean',
        right:
          closure.kind === 'drop'
            ? 'No grit, no yarn and no fiber in the gel or across an edge.'
            : `No grit, no hair, no old grease, not twisted${how?.grease === true ? '; a thin film of silicone grease' : how?.grease === false ? '; no grease on this one' : '; greased where the maker says so'}.`,
        wrong:
          closure.kind === 'drop'
            ? 'Wipe the edges; gel that is torn or dirty is replaced.'
            : 'Take it out, wipe it and its seat, look at it all round. One that is nicked is replaced.',
      };
    case 'bolts':
      return {
        title: 'Bolts of the base once more',
        right: 'Each is tight, by hand, before the dome goes on.',
        wrong: 'Tighten it in turn with the one opposite.',
      };
    case 'dome':
      return {
        title: 'Dome turned to its tab',
        right: 'Tab and notch meet; the dome sits flat all round.',
        wrong: 'Lift it, turn it until the tab falls in.',
      };
    case 'lip':
      return {
        title: 'Lip of the dome captured all round',
        right: 'The collar holds the lip everywhere, before its latch is closed.',
        wrong: 'Open the collar and begin opposite the latch.',
      };
    case 'latch':
      return {
        title: 'Latch clear of the mount',
        right: 'The latch can be opened when the closure hangs in its place.',
        wrong: 'Turn the collar until the latch is free.',
      };
    case 'cover':
      return closure.kind === 'drop'
        ? {
            title: 'Shell closed',
            right: 'Closed on all sides until it clicks, nothing in the joint, gel shows all round.',
            wrong: 'Open it, lay the drops anew, close it evenly.',
          }
        : closure.kind === 'rack'
          ? {
              title: 'Lid on and module home',
              right: 'Nothing pinched by the lid, the module slides in to its stop.',
              wrong: 'Take it out and look what is in its way.',
            }
          : {
              title: `${bodyNames[closure.kind].replace('The ', '').replace(/^./, (one) => one.toUpperCase())} closed evenly`,
              right: 'Its bolts or clips by turns across, by hand, until the gap is the same all round.',
              wrong: 'Open it, look what lies in the joint, and begin anew, by turns across.',
            };
    case 'collar':
      return {
        title: 'Collar locked',
        right: 'Latch closed and its lock or tie through it, with no pressure in the closure.',
        wrong: 'See that there is no pressure in it, then close the latch and lock it.',
      };
    case 'mounted':
      return { ...mountedWords[site.placement ?? 'unknown'], title: 'Mounted' };
    case 'slack-stored':
      return {
        title: 'Slack of the cables stored',
        right: `Coiled no tighter than it bears, tied where it lies${coilWords(thing, units)}.`,
        wrong: 'Open the ties, lay wider coils.',
      };
    case 'tag':
      return {
        title: 'Tag written and on',
        right: `${site.name}, ${labels(
          closure.entries.map(({ cableId }) => cableId),
          thing,
        )}: readable from where one stands.`,
        wrong: 'Write it anew and fix it where nobody has to touch the closure to read it.',
      };
  }
}

/** The tightest coil of the thickest cable that was measured or is known, at rest (common rule, stated in TIA-568: 10 times its diameter). */
function coilWords({ closure, cables, diameters }: SealedThing, units: Units): string {
  const widest = Math.max(
    0,
    ...closure.entries.map(({ cableId }) => diameters.get(cableId) ?? cables.get(cableId)?.diameter ?? 0),
  );
  return widest === 0
    ? ''
    : `: coils at least ${formatMillimeters(Math.ceil(widest * 20), units)} across for the thickest`;
}

const mountedWords: Readonly<
  Record<NonNullable<SealedAt['site']['placement']> | 'unknown', Pick<PointWords, 'right' | 'wrong'>>
> = {
  aerial: {
    right: 'Hung on the strand by all its hangers, level, with a drip loop in each cable.',
    wrong:
      'Take the weight off first; at height and near power lines local code and licensed practice come first.',
  },
  pole: {
    right: 'Bracket tight on the pole, ports downward, a drip loop in each cable.',
    wrong:
      'Take the weight off, set the bracket anew; at height local code and licensed practice come first.',
  },
  handhole: {
    right:
      'Off the ground, on its bracket, cables tied, nothing leans on its ports; it can be lifted out to work on.',
    wrong: 'Set the bracket anew; the coil carries no closure.',
  },
  manhole: {
    right: 'On the rack above the water line, cables tied to the rack, the way in and out left free.',
    wrong: 'Lift it to a higher rack. Test the air again before anybody goes back in.',
  },
  indoors: {
    right: 'Fixed to wall or rack, cables led with their radius, nothing hangs on a port.',
    wrong: 'Fix it anew; cables carry no weight.',
  },
  unknown: {
    right: 'Fixed as the place wants it: strand, pole, wall, handhole or manhole. Nothing hangs on a port.',
    wrong: 'Fix it anew; cables carry no weight.',
  },
};

/** What a point asks. */
export function pointWords(
  at: SealPointAt,
  thing: SealedAt,
  stage: Pick<SealStage, 'how' | 'openings'>,
  units: Units,
): PointWords {
  const { point } = at;
  switch (point.what) {
    case 'whole':
      return wholeWords(point.point, at, thing, stage, units);
    case 'tray': {
      const { singles, ribbons } = at.sleeves!;
      const sleeves = [
        singles > 0 ? `${singles} ${singles === 1 ? 'sleeve' : 'sleeves'}` : null,
        ribbons > 0 ? `${ribbons} ribbon ${ribbons === 1 ? 'sleeve' : 'sleeves'}` : null,
      ].filter(Boolean);
      return {
        title: `Tray ${point.tray}`,
        right: `All fibers kept inside, ${sleeves.join(' and ')} seated, no bend too tight, lid on.`,
        wrong: 'Say what it is, take the lid off, lay it anew. A fiber that was pinched is measured again.',
      };
    }
    case 'coil': {
      const cable = thing.cables.get(point.cableId);
      return {
        title: `Coil of ${cable?.label ?? 'a cable that is gone'}`,
        right: cable
          ? `What goes through lies in its basket, no turn tighter than ${formatMillimeters(tightestCoil(cable), units)} across.`
          : 'What goes through lies in its basket.',
        wrong: 'Take it out turn by turn and lay it wider.',
      };
    }
    case 'seal': {
      const guests = stage.openings.flatMap((opening) =>
        opening.guests.filter(({ seat }) => seat.cable.id === point.cableId),
      );
      const seat = guests[0]?.seat;
      const parts = (seat?.parts ?? []).map(
        ({ part, count, peel }) =>
          `${count * (seat?.openings ?? 1)} × ${part}${peel ? `, ${peel} peeled out` : ''}`,
      );
      const numbers = stage.openings
        .filter((one) => one.guests.some((guest) => guest.seat.cable.id === point.cableId))
        .flatMap(({ number }) => (number === null ? [] : [number]));
      return {
        title: `Seal of ${seat?.key ?? ''} ${thing.cables.get(point.cableId)?.label ?? ''}`.trim(),
        right: [
          numbers.length > 0
            ? `In ${seat!.port!.name}, ${numbers.length === 1 ? 'opening' : 'openings'} ${numbers.join(' and ')}`
            : 'Its port is not known: measure the cable, or choose one in the plan',
          parts.length > 0
            ? `: ${parts.join(', ')}`
            : numbers.length > 0
              ? ', in the seal or bushing that its size asks for'
              : '',
          '. All of it in its seat, the sheath clean and round, screws fully home by hand.',
        ].join(''),
        wrong:
          'Loosen, set the parts anew, tighten until the sealing material begins to bulge. A cable outside the range of its seal is not forced in.',
      };
    }
    case 'plugs':
      return {
        title: `${point.count} ${point.count === 1 ? 'plug' : 'plugs'}, port ${point.port}`,
        right: 'One in every unused opening, home and tight.',
        wrong: 'Put in what is missing; a plug that can be turned by its pin is not home.',
      };
    case 'tightened': {
      const how = stage.how!;
      return {
        title: at.opening ? openingWords(at.opening) : 'An opening',
        right: `Its ${holderName(how)} by hand, a can wrench or spanner at most, no power tool; home when the sealing material begins to bulge.`,
        wrong: 'Loosen it fully, look at the seal, begin anew.',
      };
    }
  }
}

/** What a photo shows. A point that the plan asks for no more is named as that. */
export function photoWords(
  of: PhotoOf,
  thing: SealedAt,
  stage: Pick<SealStage, 'how' | 'openings' | 'points'>,
  units: Units,
): string {
  switch (of.what) {
    case 'closure':
      return 'The closure';
    case 'test':
      return `Under test: ${sealWords(of.seal, stage, thing)}`;
    case 'point': {
      const key = pointKey(of.point);
      const at = stage.points.find((one) => one.key === key);
      return at ? pointWords(at, thing, stage, units).title : 'A point that the plan has no more';
    }
  }
}

/** Why a seal bubbles: the likeliest first. */
export interface BubbleCause {
  readonly title: string;
  readonly check: string;
}

/** What a bubbling seal is to be looked at for, the likeliest first, with this cable's own numbers. Common practice. */
export function bubbleCauses(
  seal: SealName,
  { openings, how }: Pick<SealStage, 'openings' | 'how'>,
  units: Units,
): BubbleCause[] {
  const holder = how ? holderName(how) : 'cap';
  if (seal.of === 'body')
    return [
      { title: 'Gasket dirty or twisted', check: 'Take it out, wipe it and its seat, look for a nick.' },
      {
        title: 'Not closed all round',
        check: 'Look whether the lip is captured everywhere, and nothing lies in the joint.',
      },
      {
        title: 'Gasket dry or damaged',
        check: 'Grease it where the maker says so; replace one that is nicked.',
      },
    ];
  if (seal.of === 'valve')
    return [
      { title: 'Valve core loose', check: 'Tighten the core with its key, with no pressure in the closure.' },
      { title: 'Pump not seated', check: 'Take the pump off: where it still bubbles it is the core.' },
      { title: 'Valve’s own seal', check: 'Look at the seal under the valve body.' },
    ];
  const opening = openings.find((one) => sealKey(one.seal) === sealKey(seal));
  const home: BubbleCause = {
    title: `${holder[0]!.toUpperCase()}${holder.slice(1)} not home`,
    check: 'Tighten it by hand until the sealing material begins to bulge.',
  };
  if (seal.of === 'plug')
    return [
      { ...home, title: 'Plug not home' },
      { title: 'Seat of the plug dirty', check: 'Take the plug out, wipe it and the opening.' },
      {
        title: 'Plug of another size',
        check: `Compare it with the plugs of the same port${opening?.port ? ` (${opening.port})` : ''}.`,
      },
    ];
  const causes = [home];
  for (const { seat } of opening?.guests ?? []) causes.push(wrongSize(seat, units));
  const slit = (opening?.guests ?? []).some(({ seat }) => seat.parts.some((part) => part.slit));
  if (slit)
    causes.push({
      title: 'Slit on a seam',
      check: 'Turn the seal so that its slit lies on no seam of the end plate.',
    });
  causes.push(
    {
      title: 'Dirt or scratches under the seal',
      check: 'Wipe the sheath with alcohol; run a nail along it for a scratch or a ridge.',
    },
    {
      title: 'Sheath not round',
      check: 'A ridge, a messenger or toning wire left on, a sheath deformed by a clamp.',
    },
  );
  return causes;
}

function wrongSize(seat: Guest['seat'], units: Units): BubbleCause {
  const part = seat.parts.find(({ kind }) => kind === 'seal' || kind === 'grommet');
  const takes = part
    ? `“${part.part}” takes ${formatMillimeters(part.from, units)} to ${formatMillimeters(part.to, units)}`
    : seat.port
      ? `the port takes ${formatMillimeters(seat.port.from, units)} to ${formatMillimeters(seat.port.to, units)}`
      : 'its seal is not known';
  const is =
    seat.diameter === null
      ? 'nobody measured the cable'
      : `${seat.cable.label} is ${formatMillimeters(seat.diameter, units)}, ${seat.measured ? 'measured' : 'by its data: measure it'}`;
  return { title: 'Wrong seal for this diameter', check: `${is}; ${takes}.` };
}

/** What to do at a seal that leaked, by the closure's way of opening. The pressure is out of it first. */
export function reseatSteps(seal: SealName, { how }: Pick<SealStage, 'how'>): string[] {
  const again = 'Put it together, and test again from the beginning.';
  if (seal.of === 'body')
    return [
      'Open latch or bolts by turns.',
      'Lift it straight, wipe gasket and seat.',
      'Close it evenly, captured all round.',
      again,
    ];
  if (seal.of === 'valve') return ['Tighten or change the core.', 'Look at the seal under the body.', again];
  switch (how?.opens) {
    case 'glands':
      return [
        'Loosen the gland nut fully and slide it back.',
        'Look at the grommet: its layers, its slit, grit.',
        'Look whether the sheath sits at its mark.',
        'Tighten by hand, then a spanner to the stop.',
        again,
      ];
    case 'screws':
      return [
        'Loosen the screw fully.',
        'Look at clamp and clamp tail, at the anchor, at the cable in its channel, at the ground.',
        'Look at the gel: even, whole, clean.',
        'Tighten until the gel begins to bulge.',
        again,
      ];
    case 'gel':
      return [
        'Open the shell.',
        'Wipe the edges, look at the gel; change it where it is torn.',
        'Lay the drop anew, close evenly.',
        again,
      ];
    default:
      return [
        'Turn the cap off and slide it back.',
        'Look at the seal, its spacers and clip; wipe sheath and seat.',
        'Set the seal square, turn the cap on by hand.',
        'A can wrench at most, until the sealing material begins to bulge.',
        again,
      ];
  }
}

/** "Tray 3: lid does not close": why a closure is not sealed yet, and what to do. */
export function blockWords(block: SealBlock, thing: SealedAt, stage: SealStage, units: Units): string {
  switch (block.code) {
    case 'pressure':
      return `There are ${formatPressure(block.kPa, units)} in the closure. Let the pressure out.`;
    case 'cap-off':
      return 'Nobody said that the cap is back on the valve.';
    case 'wrong': {
      const { title, wrong } = pointWords(block.point, thing, stage, units);
      const note = block.point.check?.body.note;
      return `${title}: not right${note ? ` (${note})` : ''}. ${wrong}`;
    }
    case 'stale':
      return `Spliced since it was looked at: ${block.points.map((point) => pointWords(point, thing, stage, units).title).join(', ')}. Look again.`;
    case 'open':
      return `${chapterNames[block.chapter]}: ${block.count} not looked at yet.`;
    case 'no-test-pressure':
      return 'The closure’s table gives no test pressure. Take it from the maker’s instruction: 0 where none is made.';
    case 'test':
      return {
        none: 'The flash test is not made yet.',
        bubbles: 'The last flash test showed bubbles. Set the seal anew and test again.',
        reseated: 'A seal was set anew after the last test. Test again.',
        open: 'The flash test is not finished: not every seal was looked at, or the pressure is not out.',
        'too-low': 'There was too little pressure in the last test for it to count. Test again.',
        tight: '',
      }[block.result];
  }
}

/** The stop, in the project's unit. */
export const stopWords = (units: Units) =>
  `Never above ${formatPressure(mostPressure, units)}: a closure that bursts throws its dome.`;
