const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// Zod's messages in fifty languages are 41 KB of the first load, and Cordel says its own; JSON Schema and compiled schemas, 18 KB, are used nowhere in the app.
const unused =
  /[\\/](locales[\\/]index|compile|from-json-schema|json-schema-processors|json-schema-generator)(\.c?js)?$/;
config.resolver.resolveRequest = (context, name, platform) =>
  unused.test(name) && /[\\/]zod[\\/]/.test(context.originModulePath)
    ? { type: 'empty' }
    : context.resolveRequest(context, name, platform);

module.exports = config;
