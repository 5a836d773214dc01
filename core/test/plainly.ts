/** A text with plain spaces and hyphens, to be compared with one that was typed. */
export const plainly = (text: string | undefined): string | undefined =>
  text?.replace(/[\u00a0\u202f]/g, ' ').replace(/\u2011/g, '-');
