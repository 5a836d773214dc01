/** Something that whoever runs the server can mend: its message says what, where, and how. Everything else is a bug. */
export class OperatorError extends Error {
  constructor(message: string, cause?: unknown) {
    super(message, { cause });
  }
}

/** What a failed file operation means to whoever runs the server, or null where it is nothing of the disk. */
export function diskTrouble(error: unknown, folder: string): string | null {
  // PGlite's file system gives numbers without words; Node gives codes.
  const { code, errno } = (error ?? {}) as { code?: unknown; errno?: unknown };
  const text = error instanceof Error ? error.message : String(error);
  const is = (name: string, number: number, words: RegExp) =>
    code === name || errno === number || errno === -number || words.test(text);
  if (is('ENOSPC', 28, /no space left/i))
    return `The disk of ${folder} is full. Make room, and start again; nothing that was answered is lost.`;
  if (is('EROFS', 30, /read-only file system/i))
    return `The disk of ${folder} is mounted read-only. Mount it so that it can be written to, or set CORDEL_DATA to another folder.`;
  if (is('EACCES', 13, /permission denied/i) || is('EPERM', 1, /operation not permitted/i))
    return `Cordel may not write to ${folder}. Give the folder to the user who runs it, or set CORDEL_DATA to another one.`;
  if (is('ENOTDIR', 20, /not a directory/i)) return `${folder} is no folder. Set CORDEL_DATA to a folder.`;
  if (is('EMFILE', 24, /too many open files/i))
    return 'This machine allows too few open files. Raise the limit (ulimit -n), and start again.';
  return null;
}
