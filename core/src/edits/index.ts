export * from './documentEdit';
export * from './merge';
