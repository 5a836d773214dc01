/**
 * Goes on when a change was stored, also where storing it took away the part of the screen that asked for it: a mutation calls its own
 * handlers only while that part is there. What went wrong stands on the mutation, for the screen to show.
 */
export function afterwards<T>(stored: Promise<T>, then: (result: T) => void): void {
  void stored.then(then, () => undefined);
}
