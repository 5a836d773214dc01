const { join } = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// Zod's messages in fifty languages are 41 KB of the first load, and Cordel says its own; JSON Schema and compiled schemas, 21 KB, are used nowhere in the app.
const unused =
  /[\\/](locales[\\/]index|compile|from-json-schema|json-schema-processors|json-schema-generator)(\.c?js)?$/;
const methods = /[\\/]to-json-schema(\.c?js)?$/;
config.resolver.resolveRequest = (context, name, platform) => {
  const inZod = /[\\/]zod[\\/]/.test(context.originModulePath);
  if (inZod && unused.test(name)) return { type: 'empty' };
  if (inZod && methods.test(name))
    return { type: 'sourceFile', filePath: join(__dirname, 'withoutJsonSchema.js') };
  return context.resolveRequest(context, name, platform);
};

module.exports = config;
