const { join } = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// Zod's messages in fifty languages are 41 KB of the first load, and Cordel says its own; JSON Schema and compiled schemas, 21 KB, are used nowhere in the app.
const unused =
  /[\\/](locales[\\/]index|compile|from-json-schema|json-schema-processors|json-schema-generator)(\.c?js)?$/;
const methods = /[\\/]to-json-schema(\.c?js)?$/;
const ours = (name) => ({ type: 'sourceFile', filePath: join(__dirname, name) });
config.resolver.resolveRequest = (context, name, platform) => {
  const from = context.originModulePath;
  if (/[\\/]zod[\\/]/.test(from)) {
    if (unused.test(name)) return { type: 'empty' };
    if (methods.test(name)) return ours('withoutJsonSchema.js');
  }
  if (
    /[\\/]themes[\\/]v2[\\/]colors$/.test(name) ||
    (name === './colors' && /[\\/]themes[\\/]v2[\\/]/.test(from))
  )
    return ours('colorsOfPaper.js');
  if (name === 'react-native-paper') return ours('usedOfPaper.js');
  if (/[\\/]expo-router[\\/]build[\\/](exports|views[\\/]\w+)\.js$/.test(from)) {
    if (name.endsWith('/layouts/Tabs')) return { type: 'empty' };
    if (name.endsWith('/react-navigation/bottom-tabs')) return ours('withoutTabs.js');
  }
  return context.resolveRequest(context, name, platform);
};

module.exports = config;
