/**
 * How finely a stream can tell two values apart: the step its numbers come in, and with the noise the ± of a middle value.
 *
 * A converter gives whole counts, a board that averages or rounds gives coarser or finer steps; so the step is taken from the readings themselves.
 */

/** Numbers that boards print carry at most so many decimals; what differs by less is rounding of the machine. */
const FINEST = 1e-6;

/** Readings beyond this are no counts; their differences have no step that could be told. */
const LARGEST = 1e9;

/** Greatest common divisor (Euclid). The remainders at least halve every second turn, so it ends within some hundred. */
function divisor(a: number, b: number): number {
  let [large, small] = [a, b];
  while (small >= FINEST) [large, small] = [small, large % small];
  return large;
}

/**
 * Step in which the values come: the largest number that divides every difference between them. Null while all are equal, for then no step has been
 * seen. In the unit of the readings, > 0. Values beyond ±1e9 and what is no number are left out.
 */
export function stepOf(values: readonly number[]): number | null {
  const sorted = [...new Set(values)].filter((value) => Math.abs(value) <= LARGEST).sort((a, b) => a - b);
  let step = 0;
  for (const [at, value] of sorted.entries()) {
    const before = sorted[at - 1];
    if (before === undefined) continue;
    // Rounded to the finest printed digit, so that 0.3 − 0.2 is a tenth.
    step = divisor(
      Math.max(step, round(value - before)),
      step === 0 ? round(value - before) : Math.min(step, round(value - before)),
    );
    step = round(step);
  }
  return step === 0 ? null : step;
}

const round = (value: number) => Math.round(value / FINEST) * FINEST;

/** Standard deviation that rounding to whole steps adds: step ÷ √12. Source: Widrow & Kollár 2008, Quantization Noise. */
export const quantisationSigma = (step: number): number => step / Math.sqrt(12);

/** Standard deviation of a median beside that of a mean, for normal noise: √(π/2). */
export const MEDIAN_TO_MEAN = Math.sqrt(Math.PI / 2);
