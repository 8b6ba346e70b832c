/**
 * Share of a standard normal distribution below `z`. Error below 7.5e-8.
 * Source: Abramowitz & Stegun 1964, 26.2.17.
 */
export function normalCdf(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? 1 - tail : tail;
}

/** Value below which a share `frac` of a mixture of normal distributions lies, found by halving; `frac` 0..1 exclusive. */
export function mixtureQuantile(
  members: readonly { readonly share: number; readonly mean: number; readonly sigma: number }[],
  frac: number,
): number {
  let low = Math.min(...members.map((one) => one.mean - 8 * one.sigma));
  let high = Math.max(...members.map((one) => one.mean + 8 * one.sigma));
  const below = (value: number) =>
    members.reduce(
      (sum, { share, mean, sigma }) =>
        sum + share * (sigma > 0 ? normalCdf((value - mean) / sigma) : Number(mean <= value)),
      0,
    );
  const widest = Math.max(...members.map((one) => one.sigma));
  for (let turn = 0; turn < 40 && high - low > 0.01 * widest; turn += 1) {
    const middle = (low + high) / 2;
    if (below(middle) < frac) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
