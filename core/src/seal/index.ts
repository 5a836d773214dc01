/** Sealing a closure. An entrance of its own: what other pages share with it (its facts, whether a closure is sealed, the pressure in it) is in the main one. */
export * from './finalLook';
export * from './holding';
export * from './photos';
export * from './seals';
export * from './stage';
export * from './words';
export * from '../units/weather';
export { pressureAt } from '../gear/conditions';
