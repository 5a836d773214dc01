/** What the tests use of a library that brings no types. */
declare module 'jstat' {
  export const jStat: {
    readonly ibeta: (x: number, a: number, b: number) => number;
    readonly lowRegGamma: (a: number, x: number) => number;
  };
}
