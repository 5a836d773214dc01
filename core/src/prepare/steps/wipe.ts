/** Two schools of cleaning: dry wipe and 99 % alcohol, or wipes that come moistened. */
export type WipeSchool = 'dry' | 'moist';

export const wipeWords: Readonly<Record<WipeSchool, string>> = {
  dry: 'a lint-free dry wipe with 99 % alcohol',
  moist: 'a pre-moistened wipe, then a dry one',
};
