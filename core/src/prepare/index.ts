/**
 * Preparing cables. An entrance of its own, so that the app's first load does not carry what only its pages need; what other pages share with
 * them (facts, names, lengths) is in the main one.
 */
export * from './steps/chaptersMore';
export * from './steps/chaptersOpen';
export * from './cut/basket';
export * from './cut/cutMark';
export * from './cut/cutSheet';
export * from './time/estimate';
export * from './time/measured';
export * from './time/pace';
export * from './steps/connectors';
export * from './steps/fitting';
export * from './steps/handSteps';
export * from './steps/hingeCheck';
export * from './steps/live';
export * from './steps/progress';
export * from './steps/readiness';
export * from './cut/redosLeft';
export * from './steps/ribbonizeChecks';
export * from './seals/sealParts';
export * from './seals/sheathLength';
export * from './seals/sheathMarks';
export * from './cut/slack';
export * from './steps/step';
export * from './steps/steps';
export * from './cut/tubeTool';
export { seatCables } from '../plan/models/ports';
export * from './words';
