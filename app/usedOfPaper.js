/** What Cordel takes of Paper. Its index also names whole families of parts (lists, drawers, avatars) that tree shaking cannot leave out: 10 KB of the first load. */
export { default as PaperProvider } from 'react-native-paper/lib/module/core/PaperProvider';
export { useTheme } from 'react-native-paper/lib/module/core/theming';
export { default as configureFonts } from 'react-native-paper/lib/module/styles/fonts';
export { MD3DarkTheme, MD3LightTheme } from 'react-native-paper/lib/module/styles/themes';
export { default as TextInput } from 'react-native-paper/lib/module/components/TextInput/TextInput';
