import { metalOf } from '../../line/cable';
import type { Seat } from '../../plan/models/ports';
import type { StepContext } from './chaptersOpen';
import type { Chapter, Step } from './step';
import { marksOf } from '../cut/cutSheet';

/** Port and parts that a cable has at the closure. */
export type FitSeat = Pick<Seat, 'port' | 'parts' | 'openings'>;

/** Strength member: left long and cut where the bracket marks it, or cut to length, clamped, and trimmed after. */
export type RodSchool = 'marked' | 'trimmed';

const sealOf = (seat: FitSeat | null) =>
  seat?.parts.find(({ kind }) => kind === 'seal' || kind === 'grommet') ?? null;

const withThem = (seat: FitSeat | null) =>
  (seat?.parts ?? [])
    .filter((part) => part !== sealOf(seat))
    .map(({ part, count }) => (count > 1 ? `${count} × ${part}` : part));

/**
 * The seal of a cut cable is threaded before the sheath is opened; a slit one goes round at any time, and a gland of the assembled kind slides on after. null where nothing
 * has to be on first. Common practice.
 */
export function sealFirst({ sheet, seat, closureKind }: StepContext): Step | null {
  const through = sheet.reference === 'center';
  if (through || closureKind === 'rack' || closureKind === 'drop') return null;
  if (seat?.port?.goesOn === 'after' || sealOf(seat)?.slit) return null;
  const seal = sealOf(seat);
  const others = withThem(seat);
  return {
    id: 'seal-first',
    title: 'Seal on first',
    what: `${seal ? `“${seal.part}”` : 'The seal of its port'}${others.length > 0 ? ` with ${others.join(', ')}` : ''} over the clean sheath, the right way round, and far enough back to be out of the way.`,
    good: 'It hangs behind the place where the sheath is opened.',
    mistake: 'Opening the cable first: it cannot be threaded over tubes and rod any more.',
  };
}

/** What of the outside has to be off before anything else: the sheath is round where the seal sits. */
export function outsideSteps({ cable, sheet }: Pick<StepContext, 'cable' | 'sheet'>): Step[] {
  const metal = metalOf(cable.construction);
  const steps: Step[] = [];
  if (metal.messenger)
    steps.push({
      id: 'messenger',
      title: 'Messenger off',
      what: 'Slit the web and take the steel off past the seal; anchor it outside.',
      good: 'Round sheath where the seal sits.',
      mistake: 'Cutting into the sheath with the web.',
      caution:
        'It springs, and it is metal: bond it as the owner’s rules and local code say, away from power lines.',
      marks: marksOf(sheet, 'messenger'),
    });
  if (metal.toningWire)
    steps.push({
      id: 'toning-wire',
      title: 'Toning wire off',
      what: 'Shave the ridge with the wire off the edge before anything else, past the seal.',
      good: 'The edge is flat and the wire is not in the seal.',
      mistake: 'Opening the edges first: the ridge takes the knife along.',
      caution: 'Cut away from the hand, glove on.',
      marks: marksOf(sheet, 'toning-wire'),
    });
  return steps;
}

/** Under the sheath, where the cable has one. */
export function armorStep(through: boolean): Step {
  return {
    id: 'armor',
    title: 'Armor',
    what: `Cut the armor back${through ? ' on both sides' : ''}, and leave as much of it bare past the sheath edge as the shield connector asks for.`,
    good: 'A clean edge all round, turned outward, away from the tubes.',
    mistake: 'A burr inside: it works into the tubes for years.',
    caution: 'Its edge is a blade: gloves. It is metal: bond it as the owner’s rules and local code say.',
  };
}

/** The cable into its closure, in the order in which its parts hold it. Common practice; the maker's instruction comes first. */
export function fitChapter(context: StepContext): Chapter {
  const { cable, sheet, tape, closureKind, seat, schools } = context;
  const { lengths } = sheet;
  const { construction } = cable;
  const through = sheet.reference === 'center';
  const both = through ? ' on both sides' : '';
  const metal = metalOf(construction);
  const drop = construction.kind === 'drop';
  const seal = sealOf(seat);
  const port = seat?.port?.name;
  const steps: Step[] = [];

  if (closureKind === 'drop')
    steps.push({
      id: 'fit-shell',
      title: 'Into the gel shell',
      what: `Lay the drop into ${seal ? `“${seal.part}”` : 'the half shell'} with the sheath edge at its stop${lengths.strengthMember > 0 ? `, the ${tape(lengths.strengthMember)} of rod in the channel` : ''}.`,
      good: 'The gel closes round the sheath, and the rod cannot slide.',
      mistake: 'Sheath edge in the gel: water follows the rods inside.',
    });
  else if (closureKind === 'rack')
    steps.push({
      id: 'fit-clamp',
      title: 'Into the clamp',
      what: `Lay the cable in so that the sheath ends ${tape(lengths.clampMark)} past the clamp, tape under it, and close the clamp.`,
      good: 'It cannot be pulled, and the sheath is round.',
      mistake: 'Clamping until the sheath deforms: that costs dB.',
    });
  else {
    steps.push(
      {
        id: 'fit-seal',
        title: through ? 'Seals round the cable' : `Into ${port ? `port “${port}”` : 'its port'}`,
        what: through
          ? `${seal ? `“${seal.part}”` : 'A seal that is slit'} round the sheath at both openings${port ? ` (${port})` : ''}. A slit does not lie on a seam of the end plate.`
          : seat?.port?.goesOn === 'after'
            ? `Slide the gland${seal ? ` with “${seal.part}”` : ''} over the ${drop ? 'small tube' : 'tubes'} onto the sheath, without kinking ${drop ? 'it' : 'one'}, and lead ${drop ? 'it' : 'them'} through the port.`
            : `Lead the ${drop ? 'small tube' : 'tubes'} through the port, then draw the ${drop ? 'drop' : 'cable'} in with ${seal ? `“${seal.part}”` : 'its seal'} on it.${seal?.slit ? ' A slit does not lie on a seam of the end plate.' : ''}`,
        good: 'The seal sits on clean round sheath, all of it in its seat.',
        mistake: through ? 'Twisting the cable while the seal goes round it.' : 'Pulling at the tubes.',
      },
      {
        id: 'fit-align',
        title: 'Bring it to its mark',
        what:
          lengths.clampMark > 0
            ? `The mark ${tape(lengths.clampMark)} below the sheath edge meets the ${closureKind === 'inline' ? 'gland' : 'clamp'}${both}.`
            : `The sheath edge meets the ${drop ? 'bobbin' : 'bracket'}${both}, as the closure shows it.`,
        good: 'Read once more when everything else is tight.',
        mistake: 'Sheath too far in: the tubes have no room to bend.',
      },
    );
    if (drop)
      steps.push({
        id: 'fit-bobbin',
        title: lengths.strengthMember > 0 ? 'Rods at the bobbin' : 'Sheath at the bobbin',
        what:
          lengths.strengthMember > 0
            ? 'One bobbin holds several drops: lay their rod ends side by side against it, aligned, and tie or clamp them there.'
            : 'One bobbin holds several drops: lay them side by side against it, and tie or clamp them by the sheath, since the rods end at its edge.',
        good:
          lengths.strengthMember > 0 ? 'No rod stands past the others.' : 'The drop cannot be pulled out.',
        mistake: 'Anchoring a drop by its small tube.',
      });
    else
      steps.push({
        id: 'fit-clamp',
        title: 'Clamp the sheath',
        what: `Hose clamp or bracket round the sheath${both}, tight enough that the cable neither turns nor slides.`,
        good: 'The sheath is still round under the clamp.',
        mistake: 'Clamping until the sheath deforms: that costs dB, sometimes only in winter.',
        caution: 'Use a nut driver; a flat screwdriver slips.',
      });
    if (lengths.strengthMember > 0 && !drop)
      steps.push({
        id: 'fit-rod',
        title: 'Strength member into its bracket',
        what:
          schools.rod === 'marked'
            ? `Lay it in the bracket${both}, mark it there, cut it at the mark, and clamp it. If it has a jacket of its own, that comes off the part that is clamped.`
            : `Clamp it in the bracket${both}; what stands past the bracket is trimmed now. If it has a jacket of its own, that comes off the part that is clamped.`,
        good: 'It cannot be pulled or turned, and presses on no tube.',
        mistake: 'Clamped on its jacket: it creeps out over the years.',
        caution: 'Rod ends fly and splinter: safety glasses and gloves.',
      });
    if (lengths.aramid > 0)
      steps.push({
        id: 'fit-aramid',
        title: 'Aramid on the stud',
        what: `Wind the ${tape(lengths.aramid)} of aramid round the bracket’s stud${both}, and tighten it down.`,
        good: 'The pull of the cable goes into the stud.',
        mistake: 'Winding it against the turn of the nut: it comes off as the nut goes on.',
      });
  }
  if (metal.armor)
    steps.push({
      id: 'fit-shield',
      title: 'Shield, bond and ground',
      what: `Shield connector on the bare armor${both}, bond wire to the closure’s stud, and from there to ground or on to the next shield, as the owner has it.`,
      good: 'The connector bites, and a meter shows it.',
      mistake: 'A shield that ends in nothing: it is dangerous near power lines.',
      caution:
        'Foreign voltage may stand on a shield: test it first. Bond and ground by local code and the owner’s rules.',
    });
  if (metal.messenger)
    steps.push({
      id: 'fit-messenger',
      title: 'Messenger outside',
      what: 'Anchor the messenger outside the closure, and bond it.',
      good: 'No pull of the strand comes on the sheath.',
      mistake: 'Leaving it loose: the seal carries the cable.',
      caution:
        'It is under tension and springs. Bond it by local code and the owner’s rules, away from power lines.',
    });
  if (closureKind !== 'rack' && closureKind !== 'drop' && !drop)
    steps.push({
      id: 'fit-tie',
      title: 'Wrap, then tie',
      what: 'Wherever a tie holds tubes or ribbons, wrap them with felt first, and draw the tie only until it holds.',
      good: 'They slide a little when the tie is touched.',
      mistake: 'A tie on the bare tube: the loss shows only on the trace.',
    });
  return { id: 'fit', title: 'Into the closure', steps };
}
