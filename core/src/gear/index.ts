/**
 * Gear and what it does at the bench before and after the arc. An entrance of its own, since only parts that are fetched later need it; what stands on
 * facts is in the main one.
 */
export * from './conditions';
export * from './due';
export * from './gear';
export * from './passedOver';
export * from './programs';
export * from './rules';
export * from './use';
export * from './words';
export * from '../units/weather';
export * from '../splice/bench/beforeArc';
export * from '../splice/bench/heaterLane';
