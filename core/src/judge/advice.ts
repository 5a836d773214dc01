/** What a page needs to say what the judge found: odds, advice and words, without the rules and the simulated nights. An entrance of its own. */
export * from './odds/adviceAt';
export * from './odds/advice';
export * from './odds/effect';
export * from './said';
export * from './words';
export type { Cause } from './watch/causes';
export type { RuleName, Strength } from './watch/rule';
export type { Saw } from './watch/saw';
