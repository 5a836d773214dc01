const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// Zod's messages in fifty languages are 41 KB of the first load, and Cordel says its own.
config.resolver.resolveRequest = (context, name, platform) =>
  /[\\/]locales[\\/]index(\.c?js)?$/.test(name) && /[\\/]zod[\\/]/.test(context.originModulePath)
    ? { type: 'empty' }
    : context.resolveRequest(context, name, platform);

module.exports = config;
