import { shownNumber } from './decimals';

/**
 * Lengths as they are read off a tape: whole millimeters, or inches and sixteenths. Stored in mm, never rounded: what a person gave in
 * inches is shown in the very same inches again.
 */

/** 1 in = 25.4 mm exactly (NIST SP 811). */
const millimetersPerInch = 25.4;
const sixteenths = 16;

/** "1 626 mm", "64 in", "2-1/4 in"; a negative length with a minus sign. Not a finite number gives "–". */
export function formatTape(millimeters: number, units: 'mm' | 'in'): string {
  const shown = tapeFigure(millimeters, units);
  return shown === '–' ? shown : `${shown}\u00a0${units}`;
}

/** The same without its unit, as it stands in a field or beside a tape. */
export function tapeFigure(millimeters: number, units: 'mm' | 'in'): string {
  if (!Number.isFinite(millimeters)) return '–';
  const sign = millimeters < 0 ? '−' : '';
  const length = Math.abs(millimeters);
  if (units === 'mm') {
    const whole = Math.round(length);
    return `${whole === 0 ? '' : sign}${String(whole).replace(/\B(?=(\d{3})+$)/g, '\u00a0')}`;
  }
  const parts = Math.round((length / millimetersPerInch) * sixteenths);
  const whole = Math.floor(parts / sixteenths);
  const [over, under] = lowest(parts % sixteenths, sixteenths);
  const figure = over === 0 ? String(whole) : whole === 0 ? `${over}/${under}` : `${whole}-${over}/${under}`;
  return `${parts === 0 ? '' : sign}${figure}`;
}

/**
 * A length as it stands in a field that can be edited: the fraction where it is one, decimals where it is not, so that reading the field again
 * gives the same length to a hundredth of a millimeter.
 */
export function tapeInput(millimeters: number, units: 'mm' | 'in'): string {
  if (units === 'mm') return shownNumber(Math.round(millimeters * 100) / 100);
  const parts = (millimeters / millimetersPerInch) * sixteenths;
  if (Math.abs(parts - Math.round(parts)) < 0.005) return tapeFigure(millimeters, 'in');
  return String(Math.round((millimeters / millimetersPerInch) * 1000) / 1000);
}

function lowest(over: number, under: number): [number, number] {
  while (over > 0 && over % 2 === 0) [over, under] = [over / 2, under / 2];
  return [over, under];
}

/**
 * A length that a person typed: "640", "1 626", "12,5", and in inches also "2-1/4", "2 1/4", "2¼", "1/2", "3.5", "5' 4\"". The unit may stand behind it and
 * wins over the one that is expected. In inches "1,626" is one thousand six hundred: nobody writes thousandths of an inch so. In mm, not rounded; null when it
 * cannot be read.
 */
export function parseTape(text: string, units: 'mm' | 'in'): number | null {
  const plain = text
    .trim()
    .replace(/[\u00bc-\u00be\u2150-\u215e]/g, (one) => ` ${one.normalize('NFKC').replace('\u2044', '/')}`)
    .replace(/[\u201c\u201d\u2033\u2036]|''/g, '"')
    .replace(/[\u2018\u2019\u2032\u2035]/g, "'")
    .trim();
  const both = /^(\d+)\s*(?:'|ft|feet|foot)\s*[-,]?\s*(\S.*)$/i.exec(plain);
  if (both) {
    const inches = parseTape(/["a-z]\s*$/i.test(both[2]!) ? both[2]! : `${both[2]!} in`, 'in');
    return inches === null ? null : Number(both[1]) * millimetersIn('ft') + inches;
  }
  const match = /^(.*?)\s*(mm|cm|m|inch(?:es)?|in\.?|"|feet|foot|ft\.?|')?$/i.exec(plain);
  const unit = match?.[2]?.toLowerCase().replace('.', '') ?? units;
  const figure = readFigure(match?.[1] ?? '', /^(in|"|f|')/.test(unit));
  return figure === null ? null : figure * millimetersIn(unit);
}

function millimetersIn(unit: string): number {
  switch (unit) {
    case 'in':
    case 'inch':
    case 'inches':
    case '"':
      return millimetersPerInch;
    case 'ft':
    case 'feet':
    case 'foot':
    case "'":
      return 12 * millimetersPerInch;
    case 'cm':
      return 10;
    case 'm':
      return 1000;
    default:
      return 1;
  }
}

function readFigure(text: string, inches: boolean): number | null {
  const fraction = /^(?:(\d+)[-\s]+)?(\d+)\/(\d+)$/.exec(text);
  if (fraction) {
    const under = Number(fraction[3]);
    return under === 0 ? null : Number(fraction[1] ?? 0) + Number(fraction[2]) / under;
  }
  // Thin groups of three, as they are shown.
  const grouped = inches && /^\d{1,3}(,\d{3})+$/.test(text) ? text.replaceAll(',', '') : text;
  const plain = grouped.replace(/(?<=\d)[\s\u00a0](?=\d{3}\b)/g, '').replace(',', '.');
  return /^\d+(\.\d*)?$|^\.\d+$/.test(plain) ? Number(plain) : null;
}

/** Meant as the one, given as the other. */
export type MixedUnit = 'inches as mm' | 'mm as inches';

/**
 * What a length looks like that was given in the wrong unit: whether one that is out of range would be in it if it had been meant in inches
 * (or in mm). `null` when neither explains it.
 */
export function mixedUnit(millimeters: number, fits: (millimeters: number) => boolean): MixedUnit | null {
  if (fits(millimeters)) return null;
  if (fits(millimeters * millimetersPerInch)) return 'inches as mm';
  if (fits(millimeters / millimetersPerInch)) return 'mm as inches';
  return null;
}
