import { projectFileSchema, referenceProblems, type ProjectFile } from '@cordel/core';
import {
  findNodeAtLocation,
  getNodeValue,
  parseTree,
  printParseErrorCode,
  type Node,
  type ParseError,
} from 'jsonc-parser';

export interface TextProblem {
  /** 1 … in the file. */
  readonly line: number;
  /** Like `project.limits.singleMax`; empty where the text cannot be read at all. */
  readonly path: string;
  readonly message: string;
}

export type ReadResult =
  | { readonly file: ProjectFile; readonly problems?: undefined }
  | { readonly file?: undefined; readonly problems: readonly TextProblem[] };

/** Reads a project document and says, for each problem, the line and the field it stands in. */
export function readProjectText(text: string): ReadResult {
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
          message: `This is not readable JSON (${error ? spaced(printParseErrorCode(error.error)) : 'value expected'}). Export the project again, or mend the file at this place.`,
        },
      ],
    };

  const at = (path: readonly PropertyKey[], message: string): TextProblem => ({
    line: lineAt(nearest(root, path).offset),
    path: path.map(String).join('.'),
    message,
  });
  const parsed = projectFileSchema.safeParse(getNodeValue(root));
  if (!parsed.success) return { problems: parsed.error.issues.map((issue) => at(issue.path, issue.message)) };

  const problems = referenceProblems(parsed.data, parsed.data.facts);
  if (problems.length > 0) return { problems: problems.map((problem) => at(problem.path, problem.message)) };
  return { file: parsed.data };
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
