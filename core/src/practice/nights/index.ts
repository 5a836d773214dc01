/** Nights at the simulated machine with something wrong in them, to practise on. An entrance of its own. */
export * from './names';
export * from './plans';
export * from './play';
export * from './score';
export * from './words';
export { causes, type Cause } from '../../judge/watch/causes';
