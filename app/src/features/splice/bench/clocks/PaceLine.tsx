import type { TrayState } from '@cordel/core';
import type { Machine } from '@cordel/core/gear';
import { benchPace, heatingOf, minutes, usualPace } from '@cordel/core/prepare';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { correctedNow } from '../../../../data/clock';
import type { ClosureAtHand } from '../../../../data/ledger';
import { usePreferences } from '../../../../data/preferences';
import { Type } from '../../../../ui/Type';

const minute = 60_000;

const timeNow = () => new Date(correctedNow()).toISOString();

/** How fast it goes, and what is left: this tray, this closure, and against the window's end. */
export function PaceLine({
  atHand,
  tray,
  kind,
  machine,
}: {
  atHand: ClosureAtHand;
  tray: TrayState;
  kind: 'single' | 'ribbon';
  /** That of the night, where one was picked. */
  machine: Machine | null;
}) {
  const { pace } = usePreferences();
  const [now, setNow] = useState(() => timeNow());
  useEffect(() => {
    const clock = setInterval(() => setNow(timeNow()), minute);
    return () => clearInterval(clock);
  }, []);
  // A reading is painted before anybody reckons with it.
  const facts = useDeferredValue(atHand.facts);
  const ledger = useDeferredValue(atHand.ledger);
  const { window } = atHand.definition.project;
  const { sleeveLength } = atHand.closure;
  const words = useMemo(() => {
    const usual = { ...usualPace, ...pace };
    const at = benchPace(
      ledger,
      facts,
      { tray: tray.tray, kind },
      usual,
      now > (facts.at(-1)?.madeAt ?? '') ? now : timeNow(),
      window,
      { heating: heatingOf(usual, machine), sleeveLength },
    );
    if (at.closure === 0) return null;
    return [
      at.anHour === null
        ? 'usual pace'
        : `${Math.round(at.anHour)} ${kind === 'ribbon' ? 'ribbons' : 'splices'} an hour${at.people > 1 ? `, ${at.people} people` : ''}`,
      at.tray > 0 ? `tray ${minutes(at.tray)}` : null,
      `closure ${minutes(at.closure)}`,
      at.spare === null
        ? null
        : at.spare >= 0
          ? `${minutes(at.spare)} spare in the window`
          : `${minutes(-at.spare)} too long for the window`,
    ]
      .filter(Boolean)
      .join(' · ');
  }, [ledger, facts, tray.tray, kind, pace, now, window, machine, sleeveLength]);
  return words === null ? null : (
    <Type look="small" tone="soft">
      {words}
    </Type>
  );
}
