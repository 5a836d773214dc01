/** Splicing machines: how one is linked, and one that is simulated. An entrance of its own. */
export * from './command';
export * from './draws';
export * from './faults';
export * from './joints';
export * from './link';
export * from './linkConformance';
export * from './log/cells';
export * from './log/encoding';
export * from './log/mapping';
export * from './log/propose';
export * from './log/rows';
export * from './log/times';
export * from './loss';
export * from './ownStandIns';
export * from './running';
export * from './standIn';
export * from './wear';
