import { fiberOf, type Cable, type Joint, type SleeveKind } from '@cordel/core';
import { heaterProgramFor, programFor, type Gear, type GearKind } from '@cordel/core/gear';
import { pickGear, useTonight, type Tonight } from '../../../data/gearTonight';
import { Choice } from '../../../ui/Field';

const parts = [
  ['machine', 'machine', 'Splicing machine'],
  ['cleaver', 'cleaver', 'Cleaver'],
  ['stripper', 'stripper', 'Thermal stripper'],
] as const;

type Picked = Pick<Tonight, 'machine' | 'cleaver' | 'stripper'>;

const refOf = ({ id, label }: Gear) => ({ id, label });
const of = (gear: readonly Gear[], kind: GearKind) => gear.filter((one) => one.kind === kind);

/** How far down a machine's list the heater program for a sleeve is: what a machine is mostly used for comes first. */
const rank = (item: Gear, sleeve: SleeveKind | null) => {
  const at = item.kind === 'machine' ? item.heaterPrograms.findIndex((one) => one.sleeve === sleeve) : 0;
  return at < 0 ? Infinity : at;
};

/**
 * What the last night had, where it is still there; else the first of its kind, a machine that is made for such a sleeve before others. A stripper only
 * where one was used.
 */
export function usualPick(gear: readonly Gear[], before: Picked, sleeve: SleeveKind | null): Picked {
  const fitting = (part: GearKind) =>
    of(gear, part).reduce<Gear | undefined>(
      (best, one) => (best && rank(best, sleeve) <= rank(one, sleeve) ? best : one),
      undefined,
    );
  const pick = (part: 'machine' | 'cleaver' | 'stripper', orFirst: boolean) => {
    const known = gear.find((one) => one.id === before[part]?.id) ?? (orFirst ? fitting(part) : undefined);
    return known ? refOf(known) : null;
  };
  return {
    machine: pick('machine', true),
    cleaver: pick('cleaver', true),
    stripper: pick('stripper', false),
  };
}

/** The programs that a machine is set to for a splice. */
export function programsFor(
  gear: readonly Gear[],
  machine: Picked['machine'],
  joint: Joint,
  cables: readonly Cable[],
): Pick<Tonight, 'program' | 'heater' | 'cladding'> {
  const item = gear.find((one) => one.id === machine?.id);
  if (item?.kind !== 'machine') return { program: null, heater: null, cladding: 125 };
  const program = cables[0] ? programFor(item, fiberOf(cables[0]).type.id as never) : null;
  return {
    program: program?.name ?? null,
    cladding: program?.cladding ?? 125,
    heater: joint.sleeve ? (heaterProgramFor(item, joint.sleeve)?.name ?? null) : null,
  };
}

/** One key for each piece of gear, by kind. */
export function GearChoices({
  gear,
  picked,
  onChange,
}: {
  gear: readonly Gear[];
  picked: Picked;
  onChange: (picked: Partial<Picked>) => void;
}) {
  return parts.map(([part, kind, label]) => {
    const own = of(gear, kind);
    if (own.length === 0) return null;
    return (
      <Choice
        key={part}
        bench
        label={label}
        value={picked[part]?.id ?? ''}
        options={[
          ...own.map((item) => ({ value: item.id, label: item.label })),
          { value: '', label: part === 'stripper' ? 'By hand' : 'None' },
        ]}
        onChange={(id) => {
          const item = own.find((one) => one.id === id);
          onChange({ [part]: item ? refOf(item) : null });
        }}
      />
    );
  });
}

/** The programs of the machine that is picked, as the person says that they are on. */
export function ProgramChoices({ gear }: { gear: readonly Gear[] }) {
  const tonight = useTonight();
  const machine = gear.find((one) => one.id === tonight.machine?.id);
  if (machine?.kind !== 'machine') return null;
  return (
    <>
      <Choice
        bench
        label="Splice program that is on"
        value={tonight.program ?? ''}
        options={machine.programs.map(({ name }) => ({ value: name, label: name }))}
        onChange={(name) =>
          pickGear({
            program: name,
            cladding: machine.programs.find((one) => one.name === name)?.cladding ?? 125,
          })
        }
      />
      <Choice
        bench
        label="Heater program that is on"
        value={tonight.heater ?? ''}
        options={machine.heaterPrograms.map(({ name, seconds }) => ({
          value: name,
          label: `${name}, ${seconds} s`,
        }))}
        onChange={(heater) => pickGear({ heater })}
      />
    </>
  );
}
