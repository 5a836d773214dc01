import 'fake-indexeddb/auto';

// What jsdom lacks. Facts are JSON, pictures are bytes.
globalThis.structuredClone = clone;

function clone<T>(value: T): T {
  if (Object.prototype.toString.call(value) === '[object ArrayBuffer]')
    return (value as ArrayBuffer).slice(0) as T;
  if (Array.isArray(value)) return value.map(clone) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, clone(inner)])) as T;
}
