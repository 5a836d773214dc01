import 'fake-indexeddb/auto';

// What jsdom lacks. Facts are JSON.
globalThis.structuredClone = (value) => JSON.parse(JSON.stringify(value));
