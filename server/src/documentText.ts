import { schemaProblems, type DocumentProblem } from '@cordel/core';
import { findNodeAtLocation, parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser';
import type { ZodType } from 'zod';
import { refuse, type Problem } from './problem';

export interface TextProblem {
  /** 1 … in the file. */
  readonly line: number;
  /** Like `project.limits.singleMax`; empty where the text cannot be read at all. */
  readonly path: string;
  readonly message: string;
}

export type ReadResult<T> =
  | { readonly file: T; readonly problems?: undefined }
  /** The first of them, and how many there are. */
  | { readonly file?: undefined; readonly problems: readonly TextProblem[]; readonly count: number };

/** More problems than that are counted and not told. */
const mostProblems = 100;

/** The text of a document that was sent. Ends the request where its bytes are not UTF-8: letters would be destroyed without a word. */
export async function textOf(request: Request): Promise<string> {
  const text = decoded(new Uint8Array(await request.arrayBuffer()));
  return (
    text ??
    refuse({
      title: 'The file is not valid',
      status: 400,
      detail: `${notUtf8} Nothing was changed.`,
    })
  );
}

export const notUtf8 =
  'This file is not in UTF-8, so its letters cannot be told. Export it again, or save it as UTF-8 in an editor.';

/** null where the bytes are not UTF-8. */
export function decoded(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

/**
 * Reads a JSON document and says, for each problem, the line and the field it stands in.
 * @param more what no single field shows: things named twice, or named and not there
 */
export function readDocument<T>(
  text: string,
  schema: ZodType<T>,
  more: (file: T) => readonly DocumentProblem[],
): ReadResult<T> {
  return readText<T>(text, (raw) => {
    const parsed = schema.safeParse(raw);
    if (!parsed.success) return schemaProblems(parsed.error);
    const problems = more(parsed.data);
    return problems.length > 0 ? { problems, count: problems.length } : { file: parsed.data };
  });
}

/** The same with any way of reading the values. Where the text is sound nothing is looked up in it. */
export function readText<T>(
  text: string,
  read: (raw: unknown) =>
    | { readonly file: T; readonly problems?: undefined }
    | {
        readonly file?: undefined;
        readonly problems: readonly DocumentProblem[];
        readonly count: number;
      },
): ReadResult<T> {
  const plain = text.replace(/^\uFEFF/, ' ');
  let raw: unknown;
  try {
    raw = JSON.parse(plain);
  } catch {
    const errors: ParseError[] = [];
    parseTree(plain, errors, { allowTrailingComma: false, disallowComments: true });
    const [error] = errors;
    return {
      problems: [
        {
          line: linesOf(plain)(error?.offset ?? 0),
          path: '',
          message: `This is not readable JSON (${error ? spaced(printParseErrorCode(error.error)) : 'value expected'}). Export it again, or mend the file at this place.`,
        },
      ],
      count: 1,
    };
  }
  const result = read(raw);
  if (!result.problems) return { file: result.file as T };
  const root = treeOf(plain);
  const lineAt = linesOf(plain);
  return {
    count: result.count,
    problems: result.problems.slice(0, mostProblems).map(({ path, message }) => ({
      line: root ? lineAt(nearest(root, path).offset) : 1,
      path: path.map(String).join('.'),
      message,
    })),
  };
}

/** Where everything stands; null for levels without end, which no document has. */
function treeOf(text: string): Node | null {
  try {
    return parseTree(text, [], { allowTrailingComma: false, disallowComments: true }) ?? null;
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** The answer to a document that was not valid: the first problem in words, and a list of the first. */
export function documentProblem(problems: readonly TextProblem[], count: number): Problem {
  const [first] = problems;
  const more = count - 1;
  return {
    title: 'The file is not valid',
    status: 400,
    detail: `Line ${first!.line}${first!.path ? `, ${first!.path}` : ''}: ${first!.message}${more > 0 ? ` And ${more} more.` : ''} Nothing was changed.`,
    errors: problems.map(({ line, path, message }) => ({
      path: `line ${line}${path ? `, ${path}` : ''}`,
      message,
    })),
  };
}

/** The node of a path, or of as much of the path as there is: a missing field is told at the object that lacks it. */
function nearest(root: Node, path: readonly PropertyKey[]): Node {
  for (let length = path.length; length > 0; length -= 1) {
    const node = findNodeAtLocation(root, path.slice(0, length) as (string | number)[]);
    if (node) return node;
  }
  return root;
}

/** Line of an offset, 1 …: the starts of all lines once, and then by halving. */
function linesOf(text: string): (offset: number) => number {
  const starts = [0];
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
  return (offset) => {
    let low = 0;
    let high = starts.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (starts[middle]! <= offset) low = middle + 1;
      else high = middle;
    }
    return low;
  };
}

function spaced(code: string): string {
  return code.replace(/(?<=[a-z])(?=[A-Z])/g, ' ').toLowerCase();
}
