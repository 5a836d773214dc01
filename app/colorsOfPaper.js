/** What the used parts of Paper ask of the colors of its older looks, as they stand there. All three hundred of them are 2 KB of the first load. */
export { black, pinkA100, pinkA400, white } from 'react-native-paper/lib/module/styles/themes/v2/colors.js';
