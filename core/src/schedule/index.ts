/** Planning the nights: what fits, who does it, and when to stop. An entrance of its own; the settings of it are in the main one. */
export type { Bound } from './bound';
export * from './chance';
export * from './changes';
export * from './clock';
export * from './closureToDo';
export * from './helps';
export * from './inputOf';
export * from './live';
export * from './problem';
export * from './problemOf';
export * from './solve';
export * from './told';
export * from './why';
export * from './work';
