/** Seeded chance: the whole state is one whole number, so a stand-in can be saved, restored and replayed to the last digit. */
export type Seed = number;

/** A number in [0, 1) and the next seed (a 32-bit mixing generator with full period). */
export function uniform(seed: Seed): { value: number; seed: Seed } {
  const next = (seed + 0x6d2b79f5) | 0;
  let mixed = Math.imul(next ^ (next >>> 15), 1 | next);
  mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
  return { value: ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296, seed: next };
}

/** A standard normal number and the next seed. Source: Box & Muller 1958. */
export function normal(seed: Seed): { value: number; seed: Seed } {
  const first = uniform(seed);
  const second = uniform(first.seed);
  const radius = Math.sqrt(-2 * Math.log(1 - first.value));
  return { value: radius * Math.cos(2 * Math.PI * second.value), seed: second.seed };
}

/** A seed from a text, the same each time (32-bit FNV-1a). */
export function seedOf(text: string): Seed {
  let hash = 0x811c9dc5;
  for (const letter of text) hash = Math.imul(hash ^ (letter.codePointAt(0) ?? 0), 0x01000193);
  return hash | 0;
}

export type Dice = {
  /** Even in [0, 1), even between two numbers, even in the logarithm, standard normal. */
  readonly flat: () => number;
  readonly between: (low: number, high: number) => number;
  readonly across: (low: number, high: number) => number;
  readonly bell: () => number;
};

/** A source of chance over a seed, for drawing many numbers in a row. */
export function dice(start: Seed): Dice {
  let seed = start;
  const flat = () => {
    const drawn = uniform(seed);
    ({ seed } = drawn);
    return drawn.value;
  };
  return {
    flat,
    between: (low: number, high: number) => low + (high - low) * flat(),
    /** Even in the logarithm. */
    across: (low: number, high: number) => low * (high / low) ** flat(),
    bell: () => {
      const drawn = normal(seed);
      ({ seed } = drawn);
      return drawn.value;
    },
  };
}
