/** What Expo Router's messages of errors ask of its bars of tabs, which are used nowhere in the app (9 KB of the first load): whether they stand in one. They do not. */
const { createContext } = require('react');
exports.BottomTabBarHeightContext = createContext(undefined);
