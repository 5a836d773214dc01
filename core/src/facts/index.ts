export * from './envelope';
export * from './registry';
export * from './subject';
export { tickAnswerSchema, type TickAnswer } from './tick';
export { usedGearSchema, type UsedGear } from './attempt';
export { conditionsSchema, gearRefSchema, type Conditions, type DueAbout, type GearRef } from './gearRef';
export { sealNameSchema, type SealName, type SealPoint, type WholePoint } from './sealCheck';
export { mostPressure } from './flashTest';
export { reopeningReasons } from './reopening';
