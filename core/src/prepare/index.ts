/**
 * Preparing cables. An entrance of its own, so that the app's first load does not carry what only its pages need; what other pages share with
 * them (facts, names, lengths) is in the main one.
 */
export * from './chaptersMore';
export * from './chaptersOpen';
export * from './cutMark';
export * from './cutSheet';
export * from './estimate';
export * from './openedUnits';
export * from './pace';
export * from './progress';
export * from './readiness';
export * from './redosLeft';
export * from './ribbonizeChecks';
export * from './sealParts';
export * from './sheathLength';
export * from './slack';
export * from './step';
export * from './steps';
export * from './tubeTool';
export * from './words';
