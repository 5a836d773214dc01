import type { SpliceState, TrayState } from '@cordel/core';
import { adviceAt, type SpliceAdvice } from '@cordel/core/advice';
import { usualPace } from '@cordel/core/prepare';
import { useMemo } from 'react';
import { correctedNow } from '../../../data/clock';
import type { JudgedNow } from '../../../data/judge/useJudged';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { usePreferences } from '../../../data/preferences';

/** What to do with the splice one stands on; null where nothing has to be decided, or not enough is known yet. */
export function useAdvice(
  { definition, ledger }: ClosureAtHand,
  tray: TrayState,
  here: SpliceState,
  judged: JudgedNow | null,
  redosLeft: number | null,
): SpliceAdvice | null {
  const { pace } = usePreferences();
  const { window } = definition.project;
  return useMemo(() => {
    if (!judged || here.verdict.tries === 0) return null;
    const now = correctedNow();
    const within = window && now >= Date.parse(window.opens) && now < Date.parse(window.closes);
    return adviceAt({
      ledger,
      tray,
      state: here,
      cables: cablesOf(definition),
      record: judged.record,
      redosLeft,
      minutes: { ...usualPace, ...pace }[here.splice.kind] / 60,
      minutesLeft: within ? (Date.parse(window.closes) - now) / 60_000 : null,
    });
  }, [definition, ledger, tray, here, judged, redosLeft, pace, window]);
}
