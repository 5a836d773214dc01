import './withoutEval';
import { readProjectFile, type DocumentProblem, type ProjectFile } from '@cordel/core';

/** Reads a project file off the main thread. */

export type ProjectFileAnswer =
  | { readonly file: ProjectFile }
  /** The first of what is wrong with it, and how much there is. */
  | { readonly problems: readonly DocumentProblem[]; readonly count: number };

self.onmessage = async ({ data }: MessageEvent<File>) => {
  let raw: unknown;
  try {
    raw = JSON.parse(await data.text());
  } catch (error) {
    const message = `This is not a JSON file, or only a part of one: ${(error as Error).message}`;
    self.postMessage({ problems: [{ path: [], message }], count: 1 } satisfies ProjectFileAnswer);
    return;
  }
  const read = readProjectFile(raw);
  self.postMessage(
    (read.file
      ? { file: read.file }
      : { problems: read.problems, count: read.count }) satisfies ProjectFileAnswer,
  );
};
