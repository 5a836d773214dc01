import { holdersNamed, type OpenedUnit } from '../../plan/opened/openedUnits';

/** Two schools of taking a buffer tube off: scored all round and snapped, or with a stripper of fixed depth. */
export type TubeSchool = 'scorer' | 'fixed-depth';

/** Two motions of a round scorer: it goes once round the tube, or is swung to and fro on it. */
export type ScorerMotion = 'round' | 'swing';

export function tubeTool(
  school: TubeSchool,
  motion: ScorerMotion = 'round',
): { readonly tool: string; readonly depth: string } {
  return school === 'scorer'
    ? {
        tool: 'Round tube scorer',
        depth: `${motion === 'round' ? 'once round' : 'swung to and fro a quarter turn, then from the other side'}: scored, not through; bend both ways until it snaps`,
      }
    : { tool: 'Fixed-depth tube stripper', depth: 'at its own depth, in the hole for this tube' };
}

/** "Tubes 1 BL, 2 OR into tray 1; tube 3 GR into tray 2." */
export function trayWords(opened: readonly OpenedUnit[]): string {
  const byTray = new Map<string, OpenedUnit['holder'][]>();
  for (const { holder, trays, used, inConnectors } of opened) {
    const where =
      inConnectors === used
        ? 'a fan-out, for its connectors'
        : trays.length === 0
          ? 'no tray yet'
          : `tray${trays.length === 1 ? '' : 's'} ${trays.join(' and ')}`;
    byTray.set(where, [...(byTray.get(where) ?? []), holder]);
  }
  const words = [...byTray].map(([where, holders]) => `${holdersNamed(holders)} into ${where}`);
  return words.length === 0 ? '' : `${words.join('; ')}.`;
}
