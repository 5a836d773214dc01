/**
 * Round values from 0 up to `top`, about so many, in steps of 1, 2 or 5 times a power of ten; the last one is at or above `top`. For the small charts of the bench, which is loaded
 * first: the pages that are charts use d3-scale.
 */
export function ticksTo(top: number, count: number): readonly number[] {
  if (!(top > 0)) return [0];
  const rough = top / count;
  // The power of ten at or below it.
  let power = 1;
  while (power > rough) power /= 10;
  while (power * 10 <= rough) power *= 10;
  const times = [1, 2, 5, 10].find((one) => one * power >= rough * (1 - 1e-9))!;
  const step = times * power;
  const steps = Math.ceil(top / step - 1e-9);
  return Array.from({ length: steps + 1 }, (_, at) => Number((at * step).toPrecision(12)));
}
