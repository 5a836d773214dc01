/** What stands between a number's whole part and its decimals. */
export type DecimalSign = '.' | ',';

let sign: DecimalSign = '.';

/** Sets the sign with which this device writes numbers for the person at it. Files, and everything that a machine reads, keep the point. */
export function writeDecimalsWith(next: DecimalSign): void {
  sign = next;
}

/** A number, or one that is written with a point, as the person at this device reads it: "0.03" or "0,03". */
export function shownNumber(number: number | string): string {
  const text = String(number);
  return sign === '.' ? text : text.replace('.', sign);
}
