/** Orders as people write them. An entrance of its own: only the page of a plan needs it. */
export * from './draft';
export * from './orderCsv';
export * from './orderCompletion';
export * from './orderText';
