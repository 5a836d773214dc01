import type { ReactNode } from 'react';
import { View } from 'react-native';

/** What stands on paper and not on the screen, where a tap shows it. See the print rules in public/index.html. */
export function PrintOnly({ children }: { children: ReactNode }) {
  // A data attribute is the web's, and not in React Native's own types.
  const onPaper = { dataSet: { print: 'only' } };
  return <View {...onPaper}>{children}</View>;
}

/** What stands on the screen and not on paper. */
export function ScreenOnly({ children }: { children: ReactNode }) {
  const onScreen = { dataSet: { print: 'never' } };
  return <View {...onScreen}>{children}</View>;
}

/** For a button that says something of its own, and not only what it does: on paper it stands as well. */
export const alsoOnPaper = { dataSet: { print: 'always' } };
