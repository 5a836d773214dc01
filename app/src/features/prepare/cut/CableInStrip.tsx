import { colorAt, schemeOf, type Cable, type Holder, tubeInTray } from '@cordel/core';
import { type CutSheet, type UnitSlack } from '@cordel/core/prepare';
import { G, Line, Rect } from 'react-native-svg';
import { useCordelTheme } from '../../../ui/theme';
import { glass, stroke } from '../../../ui/tokens';

/** More tubes than this cannot be told apart in the strip; the words name them all. */
const mostDrawn = 12;

interface Stretch {
  readonly from: number;
  readonly to: number;
  /** Thick where tube or ribbon stands, thin where only fiber is left. */
  readonly thick: boolean;
}

/** The cable along the strip: sheath where it stays, tubes as they are cut, fiber where the tube comes off. */
export function CableInStrip({
  sheet,
  cable,
  x,
  width,
  y,
}: {
  sheet: CutSheet;
  cable: Cable;
  x: number;
  width: number;
  y: (at: number) => number;
}) {
  const { palette } = useCordelTheme();
  const { opened, drawn, lengths, units, whole, reference } = sheet;
  const scheme = schemeOf(cable);
  const middle = x + width / 2;
  const lines = [
    ...units.map((one) => ({ holder: one.unit.holder, stretches: cutStretches(one, sheet) })),
    ...whole.map((holder) => ({ holder, stretches: wholeStretch(sheet) })),
  ]
    .sort((a, b) => a.holder.number - b.holder.number)
    .slice(0, mostDrawn);
  const gap = Math.min(8, (width - 6) / Math.max(1, lines.length));
  const lineX = (index: number) => middle + (index - (lines.length - 1) / 2) * gap;
  const thick = Math.max(2, Math.min(6, gap - 1.5));
  const rods =
    cable.construction.kind === 'pigtails'
      ? []
      : reference === 'end'
        ? [[opened.to - lengths.strengthMember, opened.to]]
        : [
            [opened.from, opened.from + lengths.strengthMember],
            [opened.to - lengths.strengthMember, opened.to],
          ];
  return (
    <G>
      {rods.map(([from, to]) => (
        <Line
          key={from}
          x1={x + 1}
          x2={x + 1}
          y1={y(Math.max(opened.from, from!))}
          y2={y(Math.min(opened.to, to!))}
          stroke={palette.soft}
          strokeWidth={stroke.heavy}
        />
      ))}
      {lines.map(({ holder, stretches }, index) =>
        stretches.map(({ from, to, thick: tube }) => (
          <G key={`${holder.number}.${from}`}>
            <Line
              x1={lineX(index)}
              x2={lineX(index)}
              y1={y(from)}
              y2={y(to)}
              stroke={palette.ink}
              strokeWidth={tube ? thick + 1.6 : 1}
            />
            {tube ? (
              <Line
                x1={lineX(index)}
                x2={lineX(index)}
                y1={y(from)}
                y2={y(to)}
                stroke={glass[colorOf(holder)]}
                strokeWidth={thick}
              />
            ) : null}
          </G>
        )),
      )}
      {[
        [drawn.from, opened.from],
        [opened.to, drawn.to],
      ].map(([from, to]) =>
        to! > from! ? (
          <Rect key={from} x={x} y={y(from!)} width={width} height={y(to!) - y(from!)} fill={palette.ink} />
        ) : null,
      )}
    </G>
  );

  function colorOf(holder: Holder) {
    return holder.kind === 'bundle' ? 'slate' : colorAt(scheme, holder.number).base;
  }
}

function wholeStretch({ opened }: CutSheet): Stretch[] {
  return [{ from: opened.from, to: opened.to, thick: true }];
}

/** What stands of an opened tube: tube up to its tray, fiber to the cut, and the dead end behind the cut. */
function cutStretches({ unit }: UnitSlack, { opened, lengths }: CutSheet): Stretch[] {
  const { from, to } = opened;
  // A tube comes off at its tray; a ribbon stays a ribbon; a drop's small tube guards only the edge.
  const kept = {
    tube: lengths.tubeToTray + tubeInTray,
    ribbon: to - from,
    bundle: lengths.tube,
  }[unit.holder.kind];
  /** From the sheath edge to where it is cut, in whichever direction. */
  const standing = (edge: number, cut: number): Stretch[] => {
    const tube = edge + Math.sign(cut - edge) * Math.min(kept, Math.abs(cut - edge));
    return [
      { from: Math.min(edge, tube), to: Math.max(edge, tube), thick: true },
      { from: Math.min(tube, cut), to: Math.max(tube, cut), thick: false },
    ];
  };
  // A gap that can be seen at the scale of the strip.
  const gap = (to - from) * 0.008;
  switch (unit.how) {
    case 'end':
      return standing(to, from);
    case 'low':
      return [
        ...standing(from, to - lengths.exitStub - gap),
        { from: to - lengths.exitStub, to, thick: true },
      ];
    case 'high':
      return [
        ...standing(to, from + lengths.exitStub + gap),
        { from, to: from + lengths.exitStub, thick: true },
      ];
    case 'both':
      return [...standing(from, -gap), ...standing(to, gap)];
    case 'window': {
      const inset = Math.min(lengths.windowInset, (to - from) / 2);
      return [
        { from, to: from + inset, thick: true },
        { from: from + inset, to: to - inset, thick: false },
        { from: to - inset, to, thick: true },
      ];
    }
  }
}
