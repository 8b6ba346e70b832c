/** A ripple of one period in a stream: mains hum beating with the sampling, a pump, a radio that sends at intervals. */
import { noiseOf } from '../signal/noise.ts';

const WINDOW = 160;
const LEAST_READINGS = 48;
/** Share of the variance that one frequency must carry, and its least height. */
const LEAST_SHARE = 0.55;
const LEAST_SPAN_FRAC = 0.006;

/**
 * Strongest single frequency of the newest readings, drift removed; null when no frequency stands out.
 * A ripple faster than half the sampling shows at its beat; the period given is that of the readings.
 * Source: least-squares spectrum (Lomb 1976), so that uneven times do no harm.
 */
export function findHum(
  timesMs: Float64Array,
  values: Float64Array,
  spanCounts: number,
): { readonly periodS: number; readonly amplitudeCounts: number } | null {
  const from = Math.max(0, values.length - WINDOW);
  const count = values.length - from;
  if (count < LEAST_READINGS) return null;
  const startMs = timesMs[from] ?? 0;
  const times = Array.from(timesMs.slice(from), (ms) => (ms - startMs) / 1000);
  const lengthS = times[count - 1] ?? 0;
  if (lengthS <= 0) return null;
  const residual = withoutDrift(times, [...values.slice(from)]);
  const variance = residual.reduce((sum, value) => sum + value * value, 0);
  if (variance === 0) return null;
  const everyS = lengthS / (count - 1);
  let best = { share: 0, hz: 0, amplitude: 0 };
  // From four waves in the window, below which it may be a settling, to half the sampling.
  for (let waves = 4; waves <= (lengthS / everyS) * 0.49; waves += 0.25) {
    const hz = waves / lengthS;
    const fitted = fitWave(times, residual, hz);
    const share = fitted.explained / variance;
    if (share > best.share) best = { share, hz, amplitude: fitted.amplitude };
  }
  const isTall = best.amplitude > Math.max(LEAST_SPAN_FRAC * spanCounts, 1.5);
  return best.share > LEAST_SHARE && isTall && noiseOf(residual) > 0
    ? { periodS: 1 / best.hz, amplitudeCounts: best.amplitude }
    : null;
}

/** Residuals from a parabola: a slow settling must not look like a wave. */
function withoutDrift(times: readonly number[], values: readonly number[]): number[] {
  const scale = times.at(-1) ?? 1;
  const columns = times.map((time) => [1, time / scale, (time / scale) ** 2]);
  return residualsOf(columns, values);
}

/** Residuals of a least-squares fit, the columns made orthogonal one after the other (modified Gram–Schmidt). */
export function residualsOf(rows: readonly (readonly number[])[], values: readonly number[]): number[] {
  const width = rows[0]?.length ?? 0;
  const basis: number[][] = [];
  const dot = (a: readonly number[], b: readonly number[]) =>
    a.reduce((sum, one, at) => sum + one * (b[at] ?? 0), 0);
  const take = (from: readonly number[], by: readonly number[], much: number) =>
    from.map((one, at) => one - much * (by[at] ?? 0));
  for (let column = 0; column < width; column += 1) {
    let vector = rows.map((row) => row[column] ?? 0);
    for (const earlier of basis) vector = take(vector, earlier, dot(vector, earlier));
    const length = Math.sqrt(dot(vector, vector));
    if (length > 1e-9) basis.push(vector.map((one) => one / length));
  }
  return basis.reduce<number[]>((left, vector) => take(left, vector, dot(left, vector)), [...values]);
}

/** Best sine and cosine of one frequency. */
function fitWave(
  times: readonly number[],
  values: readonly number[],
  hz: number,
): { readonly amplitude: number; readonly explained: number } {
  let ss = 0;
  let cc = 0;
  let sc = 0;
  let ys = 0;
  let yc = 0;
  for (const [at, time] of times.entries()) {
    const angle = 2 * Math.PI * hz * time;
    const [sine, cosine, value] = [Math.sin(angle), Math.cos(angle), values[at] ?? 0];
    ss += sine * sine;
    cc += cosine * cosine;
    sc += sine * cosine;
    ys += value * sine;
    yc += value * cosine;
  }
  const det = ss * cc - sc * sc;
  if (det < 1e-9) return { amplitude: 0, explained: 0 };
  const a = (ys * cc - yc * sc) / det;
  const b = (yc * ss - ys * sc) / det;
  return { amplitude: Math.hypot(a, b), explained: a * ys + b * yc };
}
