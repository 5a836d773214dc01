import type { StepContext } from './chaptersOpen';
import type { Cable } from '../../line/cable';
import { fiberCount, fiberName } from '../../line/fiberNumber';
import { marksOf, type CutSheet } from '../cut/cutSheet';
import { outsideSteps, sealFirst } from './fitting';
import { liveStep } from './live';
import type { Chapter, Step } from './step';

/** Two schools of gluing loose fibers into a ribbon: pads that are pressed, or an applicator block that is slid. */
export type RibbonizingSchool = 'pads' | 'block';

/** Loose fibers into ribbons. Lengths and drying times: common practice. */
export function ribbonizingChapter(
  { tape }: Pick<StepContext, 'tape'>,
  school: RibbonizingSchool,
  /** How many fibers the ribbons are made of, each size once. */
  sizes: readonly number[],
): Chapter {
  const order = sizes.map((fibers): Step => ({
    id: `ribbonize-order.${fibers}`,
    title: sizes.length === 1 ? 'Fibers in color order' : `Ribbons of ${fibers}: fibers in color order`,
    what: 'Cleaned, in color order top to bottom, ends even. Count and colors are checked now.',
    good: 'The colors read like the code from the first to the last.',
    mistake: 'Two neighbors swapped, mostly slate and white in bad light.',
    check: {
      ask: `Count the fibers that lie ready for a ribbon of ${fibers}.`,
      expects: 'count',
      answer: String(fibers),
      wrong: `A ribbon takes ${fibers}. After the adhesive a swap costs the whole ribbon.`,
    },
  }));
  const glue: Step[] =
    school === 'pads'
      ? [
          {
            id: 'ribbonize-length',
            title: 'Lay them in the guide',
            what: `Prepared over ${tape(914.4)}; the ribbon will be ${tape(101.6)}, and ${tape(76.2)} of free ends stand out past the guide.`,
            good: 'Flat in the guide, none on top of another.',
            mistake: 'Too short free ends: nothing to hold when the pad slides.',
          },
          {
            id: 'ribbonize-glue',
            title: 'Adhesive, press, slide',
            what: `A thin bead of ${tape(4.7625)} × ${tape(38.1)} on the hard lower pad; soft pad on top, press, slide to the free end and back at once.`,
            good: 'A thin even film, no beads.',
            mistake: 'Too much adhesive: the ribbon does not fit the holder.',
            caution: 'Adhesive sticks skin and eyes: glasses, and open the window of the van.',
          },
          {
            id: 'ribbonize-dry',
            title: 'Dry untouched',
            what: 'One minute without touching it.',
            good: 'The shine is gone, and nobody touched it.',
            mistake: 'Lifting it early: the ribbon curls.',
            timer: { label: 'Adhesive dries', seconds: 60 },
          },
          {
            id: 'ribbonize-trim',
            title: 'Cut the end',
            what: `${tape(3.175)} inside the clamp.`,
            good: 'All fibers end in one line.',
            mistake: 'Cutting outside the clamp: the end fans open.',
            caution: 'Glass shards into the container, never into a bin.',
          },
        ]
      : [
          {
            id: 'ribbonize-glue',
            title: 'One slow stroke with the block',
            what: 'Adhesive into the applicator block. One slow stroke from the tube to the ends, no second one.',
            good: 'An even film on both sides.',
            mistake: 'Going back over it: the first film tears.',
            caution: 'Adhesive sticks skin and eyes: glasses, and open the window of the van.',
          },
          {
            id: 'ribbonize-dry',
            title: 'Dry',
            what: 'At least 30 seconds.',
            good: 'The shine is gone, and nobody touched it.',
            mistake: 'Clipping it while it is wet.',
            timer: { label: 'Adhesive dries', seconds: 30 },
          },
          {
            id: 'ribbonize-trim',
            title: 'Clip and trim',
            what: 'Clip on, trim close to the block. Clean the block with swab and alcohol before the next.',
            good: 'The block is clean.',
            mistake: 'A dirty block scratches the next ribbon.',
            caution: 'Glass shards into the container, never into a bin. Alcohol away from heater and arc.',
          },
        ];
  return { id: 'ribbonize', title: 'Loose fibers into ribbons', steps: [...order, ...glue] };
}

/** A drop: toning wire or messenger first, then edges, rods, small tube, yarn. */
export function dropChapter(context: StepContext): Chapter {
  const { cable, sheet, tape, closureKind } = context;
  const { construction } = cable;
  if (construction.kind !== 'drop') throw new Error('Not a drop');
  const { lengths, opened } = sheet;
  const first = sealFirst(context);
  const steps: Step[] = [...outsideSteps(context), ...(first ? [first] : [])];
  const flat = construction.shape === 'flat';
  const live = liveStep(sheet, tape);
  steps.push(
    {
      id: 'drop-open',
      title: flat ? 'Open both edges' : 'Ring cut and slit',
      what: flat
        ? `Shave both edges until the rods show, then peel the halves back ${tape(opened.to - opened.from)}.`
        : `Ring cut at ${tape(opened.to - opened.from)}, slit the sheath and take it off.`,
      good: 'The small tube lies free, its wall whole.',
      mistake: 'Bending the drop hard at the ring cut: the fiber is the first thing that breaks.',
      marks: marksOf(sheet, 'center', 'clamp', 'test-cut', 'ring-cut', 'slit'),
    },
    {
      id: 'drop-rods',
      title: flat ? 'Cut the rods' : 'Cut the strength member',
      what:
        lengths.strengthMember > 0
          ? `Leave ${tape(lengths.strengthMember)} for ${closureKind === 'drop' ? 'the channel of the shell' : 'the bobbin'}.`
          : 'Cut them at the sheath.',
      good: lengths.strengthMember > 0 ? 'All of one length.' : 'No rod stands past the sheath.',
      mistake: 'Cutting the tube along with the rod.',
      caution: 'Rod ends fly: safety glasses on.',
      marks: marksOf(sheet, 'strength-member'),
    },
    ...(live ? [live] : []),
    {
      id: 'drop-tube',
      title: 'Strip the small tube',
      what: `Score it so that ${tape(lengths.tube)} stay, snap and pull. Cut the yarn with a twist.`,
      good: `${construction.fibers === 1 ? 'One fiber' : `${construction.fibers} fibers`}, clean and whole.`,
      mistake: 'Pulling the tube off in one long piece.',
      check: {
        ask: 'How many fibers come out of the drop?',
        expects: 'count',
        answer: String(construction.fibers),
        wrong: `The plan has a drop of ${construction.fibers}. A fiber broke inside, or this is another drop.`,
      },
      ...(live ? { after: live.id } : {}),
      marks: marksOf(sheet, 'central-tube', 'aramid', 'tray', 'tube-cut', 'tube-end', 'window', 'whole'),
    },
    {
      id: 'drop-fiber',
      title: 'Take the right fiber',
      what: fibersOfDrop(cable, sheet),
      good: 'The fiber in hand is the one of the order.',
      mistake: 'Taking the spare because it lay nearer.',
    },
  );
  return { id: 'drop', title: 'Open the drop', steps };
}

/** Which fiber of a drop it is, by the order; where that says nothing, the first of the code and the second as the spare (common practice). */
function fibersOfDrop(cable: Cable, sheet: CutSheet): string {
  const count = fiberCount(cable.construction);
  if (count === 1) return 'There is one.';
  const named = (fiber: number) => `${fiber} ${fiberName(cable, fiber).fiberColor.code}`;
  const taken = sheet.taken.flatMap(({ from, to }) =>
    Array.from({ length: to - from + 1 }, (_, index) => from + index),
  );
  if (taken.length === 0)
    return `Fiber ${named(1)} is in use first; ${named(2)} is the spare (common practice).`;
  return `The order takes ${taken.length === 1 ? 'fiber' : 'fibers'} ${taken.map(named).join(', ')}.`;
}

/** A 900 μm pigtail before it is spliced. */
export function pigtailChapter({ sheet, tape }: StepContext): Chapter {
  const { lengths } = sheet;
  return {
    id: 'pigtail',
    title: 'Pigtail',
    steps: [
      {
        id: 'pigtail-length',
        title: 'Lead in and mark',
        what: `${tape(lengths.trayFiber)} from the tray’s entry to the end, connector capped.`,
        good: 'The connector sits in its place and the pigtail is not pulled.',
        mistake: 'Cutting the pigtails to length before they are led in.',
        marks: marksOf(
          sheet,
          'center',
          'clamp',
          'test-cut',
          'ring-cut',
          'slit',
          'aramid',
          'strength-member',
          'tray',
        ),
      },
      {
        id: 'pigtail-strip',
        title: 'Strip in small steps',
        what: `Sleeve on first. Then the buffer in steps of about ${tape(6.35)}, straight.`,
        good: 'Bare glass without a scratch.',
        mistake:
          'One long pull: the fiber breaks inside the buffer. Cold jaws do the same: warm the stripper.',
        caution: 'Shards into the container. Safety glasses on.',
        marks: marksOf(sheet, 'tube-end', 'tube-cut', 'window', 'whole'),
      },
    ],
  };
}

/** How a drop or pigtail ends where it is not spliced to another fiber. */
export type Ending = 'splice' | 'mechanical' | 'fusion-connector';

/** Visible light through a connector. */
export const lightWords = {
  what: 'Visible light into the connector, toward the far end: it shows there, and the joint in the connector stays dark.',
  good: 'No glow at the joint.',
  mistake: 'Leaving a connector that glows.',
  caution: 'Never look into a fiber end. Be sure that the fiber is not live before a source is connected.',
} as const;

/** A mechanical or a fusion splice-on connector. */
export function connectorChapter(
  { tape }: Pick<StepContext, 'tape'>,
  ending: Exclude<Ending, 'splice'>,
): Chapter {
  if (ending === 'mechanical')
    return {
      id: 'mechanical',
      title: 'Mechanical splice-on connector',
      steps: [
        {
          id: 'mechanical-strip',
          title: 'Coating back',
          what: `Boot on first. Take the coating back about ${tape(38.1)}, clean with alcohol.`,
          good: 'Bare glass that squeaks.',
          mistake: 'The boot is still on the table.',
          caution: 'Shards into the container. Safety glasses on.',
        },
        {
          id: 'mechanical-cleave',
          title: 'Cleave',
          what: 'Coating at the 16 mm mark of the cleaver, or at the connector’s own.',
          good: 'A straight end, length as the connector asks.',
          mistake: 'Touching the end after the cleave.',
          caution: 'The cut-off piece is a splinter: into the container.',
        },
        {
          id: 'mechanical-seat',
          title: 'Push in until it seats',
          what: 'Firmly, until the fiber bows a little; release the lock, boot on.',
          good: 'It does not come out when pulled lightly.',
          mistake: 'Not fully seated: a gap that drifts with temperature.',
        },
        {
          id: 'mechanical-light',
          title: 'Visible light',
          ...lightWords,
        },
      ],
    };
  return {
    id: 'fusion-connector',
    title: 'Fusion splice-on connector',
    steps: [
      {
        id: 'fusion-parts',
        title: 'What goes on first',
        what: 'In this order: boot, spring where the kit has one, then the sleeve of about 27 mm.',
        good: 'All of them are on the fiber before it is stripped.',
        mistake: 'The most told one: a good splice, and the sleeve on the table.',
        check: {
          ask: 'How many parts that go on first are still on the table?',
          expects: 'count',
          field: 'On the table',
          answer: '0',
          wrong: 'Put them on now; afterwards it means cutting.',
        },
      },
      {
        id: 'fusion-splice',
        title: 'Program, holder, splice',
        what: 'Program of this fiber type; holder for the stub; strip, clean, cleave, fuse.',
        good: 'Estimated loss as for any single splice.',
        mistake: 'The program of the last job.',
        caution: 'High voltage at the electrodes. Keep alcohol away from the arc.',
      },
      {
        id: 'fusion-heat',
        title: 'Heat',
        what: 'Sleeve over the joint, about 20 seconds.',
        good: 'Shrunk evenly, no bubble.',
        mistake: 'A 60 mm program on a short sleeve.',
        caution: 'Metal parts are hot when it comes out.',
        timer: { label: 'Heater', seconds: 20 },
      },
      {
        id: 'fusion-cool',
        title: 'Cool',
        what: 'On the cooling tray, 30 seconds, before anybody touches it.',
        good: 'It can be held in the bare hand.',
        mistake: 'Snapping the housing on while the sleeve is soft: it bends inside.',
        timer: { label: 'Cooling', seconds: 30 },
      },
      {
        id: 'fusion-housing',
        title: 'Align and snap',
        what: 'Align the marks, snap the housing, push the boot on, trim the dust cap.',
        good: 'A click, and the key on the right side.',
        mistake: 'Turned by 180 degrees.',
      },
    ],
  };
}
