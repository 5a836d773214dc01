/** How often tests try what hangs on the moment or on chance: `few` in `npm test`, `many` in `npm run soak`. */
export const times = (few: number, many: number): number =>
  (globalThis as { cordelSoak?: boolean }).cordelSoak === true ? many : few;
