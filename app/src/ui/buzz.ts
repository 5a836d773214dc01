/**
 * Gloves and a dark van: a buzz says it too, where the device can. On a page that nobody has touched yet browsers refuse it and complain, so
 * there it is left out.
 * @param pattern ms of buzz, or of buzz and rest in turns
 */
export function buzz(pattern: number | number[]): void {
  if ('vibrate' in navigator && navigator.userActivation?.hasBeenActive !== false) navigator.vibrate(pattern);
}
