import type { Expected } from '../words';
import type { RowProblem } from './orderText';

/** `A 1, 3, 5-8 > B 1-6`: key, list, arrow, key, list, and the words behind. */
const listed =
  /^(\s*[a-z]{1,3}[+\-−]?\s+)([^>→:]+?)\s*(?:[-=–—−]?>|→)\s*([a-z]{1,3}[+\-−]?\s+)([^>→:]+?)((?:\s+(?:single|ribbonized|ribbon|straight|reversed))*)\s*(:.*)?$/i;
/** `C 1, 3 > fused connector`: the same with a connector behind the arrow. */
const listedEnds =
  /^(\s*[a-z]{1,3}[+\-−]?\s+)([^>→:]+?)\s*(?:[-=–—−]?>|→)\s*((?:(?:mechanical|fused|fusion|own)(?:\s+connectors?)?|connectors?)\s*(?::.*)?)$/i;
const item =
  /^(tubes?|ribbons?|[tr])?\s*(\d{1,5})(?:\s*(?:-|–|—|−|\.\.)\s*(?:tubes?|ribbons?|[tr])?\s*(\d{1,5}))?$/i;
/** The most fibers that a cable has. */
const mostListed = 13_824;

/** The rows that a row with lists stands for: one for each run that both sides have; the row itself where there is no list in it. */
export function listedRows(row: string): readonly string[] | RowProblem {
  const [head = ''] = row.split(':');
  if (!head.includes(',')) return [row];
  const ends = listedEnds.exec(row);
  if (ends) {
    const [, key, list, behind] = ends;
    const read = numbersOf(list!);
    return read ? spansOf(read).map((span) => `${key}${span} > ${behind}`) : [row];
  }
  const match = listed.exec(row);
  if (!match) return [row];
  const [, leftKey, leftList, rightKey, rightList, words = '', circuit = ''] = match;
  const [left, right] = [numbersOf(leftList!), numbersOf(rightList!)];
  if (!left || !right) return [row];
  const wrong = (expected: Expected): RowProblem => ({ column: 1, expected, found: row.trim() });
  if (/ribbonized|reversed/i.test(words)) return wrong({ code: 'no-list', params: {} });
  if (left.numbers.length !== right.numbers.length)
    return wrong({
      code: 'list-lengths',
      params: { left: left.numbers.length, right: right.numbers.length },
    });
  const rows: string[] = [];
  for (let at = 0, from = 0; at < left.numbers.length; at += 1) {
    const goesOn = [left, right].every(({ numbers }) => numbers[at + 1] === numbers[at]! + 1);
    if (goesOn) continue;
    const span = ({ letter, numbers }: Listed) =>
      from === at ? `${letter}${numbers[at]}` : `${letter}${numbers[from]}-${letter}${numbers[at]}`;
    rows.push(`${leftKey}${span(left)} > ${rightKey}${span(right)}${words} ${circuit}`);
    from = at + 1;
  }
  return rows;
}

/** Runs of a list, as they are written. */
function spansOf({ letter, numbers }: Listed): string[] {
  const spans: string[] = [];
  for (let at = 0, from = 0; at < numbers.length; at += 1) {
    if (numbers[at + 1] === numbers[at]! + 1) continue;
    spans.push(from === at ? `${letter}${numbers[at]}` : `${letter}${numbers[from]}-${letter}${numbers[at]}`);
    from = at + 1;
  }
  return spans;
}

interface Listed {
  readonly letter: '' | 'T' | 'R';
  readonly numbers: readonly number[];
}

/** All numbers of a list of one kind; null where it is none. */
function numbersOf(list: string): Listed | null {
  const numbers: number[] = [];
  const letters = new Set<string>();
  for (const text of list.split(',')) {
    const read = item.exec(text.trim());
    if (!read) return null;
    // "T1, 3" goes on with tubes.
    if (read[1] || letters.size === 0) letters.add((read[1]?.[0] ?? '').toUpperCase());
    const [from, to] = [Number(read[2]), Number(read[3] ?? read[2])];
    if (to < from || to - from > mostListed) return null;
    for (let number = from; number <= to; number += 1) numbers.push(number);
  }
  return letters.size === 1 ? { letter: [...letters][0] as Listed['letter'], numbers } : null;
}
