import { usualPace, type Pace } from '@cordel/core/prepare';
import { useMemo } from 'react';
import { usePreferences } from './preferences';

/** The times that this device reckons with: the usual ones, and those that somebody set. */
export function usePace(): Pace {
  const { pace } = usePreferences();
  return useMemo(() => ({ ...usualPace, ...pace }), [pace]);
}
