/** The nights by what one sees of them before they are worked. A file of its own, since a page lists them without working any. */

export const nightIds = ['night-1', 'night-2', 'night-3', 'night-4', 'night-5', 'random'] as const;
export type NightId = (typeof nightIds)[number];

export const nightNames: Readonly<Record<NightId, { readonly title: string; readonly tells: string }>> = {
  'night-1': { title: 'Night 1', tells: 'Twelve ribbons. After the first few something is not as it was.' },
  'night-2': { title: 'Night 2', tells: 'Eighteen single fibers. Look at the cleaves before the arc.' },
  'night-3': { title: 'Night 3', tells: 'Ten ribbons on a cold night. Glass that was hurt breaks later.' },
  'night-4': {
    title: 'Night 4',
    tells:
      'Twenty-four single fibers by the river. Nothing may be over its limit, and it is not well all the same.',
  },
  'night-5': {
    title: 'Night 5',
    tells:
      'Twenty-four single fibers. From the middle on another cable is spliced. Not everything gets better by doing it again.',
  },
  random: {
    title: 'A night of its own',
    tells: 'Another each time: ribbons or single fibers, with any fault, from the beginning or later.',
  },
};
