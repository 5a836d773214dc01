/** A bench that listens to a machine. An entrance of its own. */
export * from './hear';
export * from './words';
