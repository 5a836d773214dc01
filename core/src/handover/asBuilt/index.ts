/** What was built, as one document, and the ways to show it. An entrance of its own: only the server makes them. */
export * from './build';
export * from './geoJson';
export * from './schema';
export * from './tables';
export * from '../fingerprint';
