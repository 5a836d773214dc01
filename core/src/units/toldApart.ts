import { shownNumber } from './decimals';

/**
 * Two numbers as they are usually written, or with as many decimals as it takes to tell them apart: what is over a limit is never shown as the limit.
 * @param write how such numbers are usually written
 */
export function toldApart(
  one: number,
  other: number,
  write: (value: number) => string,
): readonly [string, string] {
  const usual = [write(one), write(other)] as const;
  if (one === other || usual[0] !== usual[1]) return usual;
  const decimals = (/[.,](\d+)/.exec(usual[0])?.[1] ?? '').length;
  for (let digits = decimals + 1; digits <= 9; digits += 1) {
    const [a, b] = [one.toFixed(digits), other.toFixed(digits)];
    if (a !== b) return [shownNumber(a), shownNumber(b)];
  }
  return usual;
}
