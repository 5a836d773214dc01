/** The losses of a project as one looks at them. An entrance of its own. */
export { usualAtMost } from '../odds/goodJoint';
export * from './distribution';
export * from './heatMap';
export * from './inTime';
export * from './places';
export * from './rows';
export * from './tomorrow';
export * from './worthMeasuring';
