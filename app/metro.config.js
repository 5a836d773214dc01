const { mkdirSync, readFileSync, writeFileSync } = require('node:fs');
const { join } = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// Zod's messages in fifty languages are 41 KB of the first load, and Cordel says its own; JSON Schema and compiled schemas, 21 KB, are used nowhere in the app.
const unused =
  /[\\/](locales[\\/]index|compile|from-json-schema|json-schema-processors|json-schema-generator)(\.c?js)?$/;
const methods = /[\\/]to-json-schema(\.c?js)?$/;
const ours = (name) => ({ type: 'sourceFile', filePath: join(__dirname, name) });
/**
 * The icons that are used, by themselves: to read 7 000 to leave out all but these took a third of an export. Tree shaking would leave the same.
 */
function usedIcons() {
  const used = new Set(readFileSync(join(__dirname, 'src/ui/Icon.tsx'), 'utf8').match(/\bmdi[A-Z]\w+/g));
  const lines = readFileSync(require.resolve('@mdi/js/mdi.js'), 'utf8').split('\n');
  const kept = lines.filter((line) => used.has(/^export var (\w+) =/.exec(line)?.[1]));
  if (kept.length !== used.size) throw new Error('Icon.tsx names an icon that @mdi/js does not have.');
  const folder = join(__dirname, '.expo');
  mkdirSync(folder, { recursive: true });
  const file = join(folder, 'usedIcons.js');
  writeFileSync(file, `${kept.join('\n')}\n`);
  return file;
}
const icons = usedIcons();

config.resolver.resolveRequest = (context, name, platform) => {
  const from = context.originModulePath;
  if (name === '@mdi/js') return { type: 'sourceFile', filePath: icons };
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
