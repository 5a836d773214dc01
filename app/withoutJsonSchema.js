/**
 * What Zod's schemas take of its JSON Schema, which is used nowhere in the app (3 KB of the first load): functions that say so, since every schema offers them.
 */
const unused = () => () => {
  throw new Error('JSON Schema is left out of the app: see metro.config.js.');
};
exports.createToJSONSchemaMethod = unused;
exports.createStandardJSONSchemaMethod = unused;
