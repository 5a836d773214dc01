import { z, type ZodType } from 'zod';

/** Both decimal signs are taken; anything that is not a number stays not a number, so that the schema behind it can say so. */
export function toNumber(text: string): number {
  const plain = text.trim().replace(',', '.');
  return plain === '' ? Number.NaN : Number(plain);
}

/** A text field that holds a number checked by `schema`. */
export function decimalField<S extends ZodType<number>>(schema: S) {
  return z
    .string()
    .transform(toNumber)
    .pipe(schema as unknown as ZodType<number, number>);
}

/** The same, where an empty field means that there is no value. */
export function optionalDecimalField<S extends ZodType<number>>(schema: S) {
  return z
    .string()
    .transform((text) => (text.trim() === '' ? null : toNumber(text)))
    .pipe((schema as unknown as ZodType<number, number>).nullable());
}
