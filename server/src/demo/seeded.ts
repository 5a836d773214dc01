/** Random numbers with a fixed seed, so that the demo is the same every time. */
export interface Seeded {
  /** Uniform in [0, 1). */
  next(): number;
  /** An identifier of the UUIDv7 form for this time. */
  id(madeAt: Date): string;
}

/** mulberry32, a small public-domain generator: enough to invent readings with, nothing more. */
export function seeded(seed: number): Seeded {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = state;
    mixed = Math.imul(mixed ^ (mixed >>> 15), mixed | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
  const hex = (digits: number) =>
    Array.from({ length: digits }, () => Math.floor(next() * 16).toString(16)).join('');
  return {
    next,
    id(madeAt) {
      const time = madeAt.getTime().toString(16).padStart(12, '0');
      const variant = '89ab'[Math.floor(next() * 4)]!;
      return `${time.slice(0, 8)}-${time.slice(8)}-7${hex(3)}-${variant}${hex(3)}-${hex(12)}`;
    },
  };
}
