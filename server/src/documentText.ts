import type { DocumentProblem } from '@cordel/core';
import {
  findNodeAtLocation,
  getNodeValue,
  parseTree,
  printParseErrorCode,
  type Node,
  type ParseError,
} from 'jsonc-parser';
import type { ZodType } from 'zod';
import type { Problem } from './problem';

export interface TextProblem {
  /** 1 … in the file. */
  readonly line: number;
  /** Like `project.limits.singleMax`; empty where the text cannot be read at all. */
  readonly path: string;
  readonly message: string;
}

export type ReadResult<T> =
  | { readonly file: T; readonly problems?: undefined }
  | { readonly file?: undefined; readonly problems: readonly TextProblem[] };

/**
 * Reads a JSON document and says, for each problem, the line and the field it stands in.
 * @param more what no single field shows: things named twice, or named and not there
 */
export function readDocument<T>(
  text: string,
  schema: ZodType<T>,
  more: (file: T) => readonly DocumentProblem[],
): ReadResult<T> {
  const lineAt = lineFinder(text);
  const errors: ParseError[] = [];
  const root = parseTree(text.replace(/^\uFEFF/, ' '), errors, {
    allowTrailingComma: false,
    disallowComments: true,
  });
  const [error] = errors;
  if (error || !root)
    return {
      problems: [
        {
          line: lineAt(error?.offset ?? 0),
          path: '',
          message: `This is not readable JSON (${error ? spaced(printParseErrorCode(error.error)) : 'value expected'}). Export it again, or mend the file at this place.`,
        },
      ],
    };

  const at = (path: readonly PropertyKey[], message: string): TextProblem => ({
    line: lineAt(nearest(root, path).offset),
    path: path.map(String).join('.'),
    message,
  });
  const parsed = schema.safeParse(getNodeValue(root));
  if (!parsed.success) return { problems: parsed.error.issues.map((issue) => at(issue.path, issue.message)) };

  const problems = more(parsed.data);
  if (problems.length > 0) return { problems: problems.map((problem) => at(problem.path, problem.message)) };
  return { file: parsed.data };
}

/** The answer to a document that was not valid: the first problem in words, and a list of them. */
export function documentProblem(problems: readonly TextProblem[]): Problem {
  const [first] = problems;
  const more = problems.length - 1;
  return {
    title: 'The file is not valid',
    status: 400,
    detail: `Line ${first!.line}${first!.path ? `, ${first!.path}` : ''}: ${first!.message}${more > 0 ? ` And ${more} more.` : ''} Nothing was changed.`,
    errors: problems.slice(0, 100).map(({ line, path, message }) => ({
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

function lineFinder(text: string): (offset: number) => number {
  return (offset) => text.slice(0, offset).split('\n').length;
}

function spaced(code: string): string {
  return code.replace(/(?<=[a-z])(?=[A-Z])/g, ' ').toLowerCase();
}
