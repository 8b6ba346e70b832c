/**
 * A thermometer that the sun shines on reads the sun. Two signs that no air can give: it rises faster than air does, or it stands above the soil by more
 * than open ground allows at a time when the soil below has not begun to follow.
 */
import type { Stretch } from '../signal/streamBuffer.ts';

export type SunSign =
  | { readonly kind: 'too-fast'; readonly ratePerHour: number; readonly atMs: number }
  | { readonly kind: 'too-far-above'; readonly aboveC: number; readonly atMs: number };

/** Air in the shade warms by a few degrees an hour on the brightest morning; a dark housing by tens. */
const MOST_PER_HOUR = 8;
const MOST_ABOVE_C = 15;
const WINDOW_MS = 20 * 60_000;

/** Signs in a day or more of air temperature, and of soil temperature where there is one, °C. */
export function sunSigns(air: Stretch, soil: Stretch | null): SunSign[] {
  const signs: SunSign[] = [];
  const fastest = fastestRise(air);
  if (fastest && fastest.ratePerHour > MOST_PER_HOUR) signs.push({ kind: 'too-fast', ...fastest });
  let most = { aboveC: -Infinity, atMs: 0 };
  if (soil) {
    let place = 0;
    for (const [at, atMs] of air.timesMs.entries()) {
      while (place + 1 < soil.timesMs.length && (soil.timesMs[place + 1] ?? 0) <= atMs) place += 1;
      if (Math.abs((soil.timesMs[place] ?? -Infinity) - atMs) > WINDOW_MS) continue;
      const aboveC = (air.values[at] ?? 0) - (soil.values[place] ?? 0);
      if (aboveC > most.aboveC) most = { aboveC, atMs };
    }
  }
  if (most.aboveC > MOST_ABOVE_C) signs.push({ kind: 'too-far-above', ...most });
  return signs;
}

/** Steepest rise over a third of an hour, °C per hour. */
function fastestRise({ timesMs, values }: Stretch): { ratePerHour: number; atMs: number } | null {
  let best: { ratePerHour: number; atMs: number } | null = null;
  let from = 0;
  for (let at = 0; at < timesMs.length; at += 1) {
    while (from + 1 < at && (timesMs[at] ?? 0) - (timesMs[from + 1] ?? 0) >= WINDOW_MS) from += 1;
    const hours = ((timesMs[at] ?? 0) - (timesMs[from] ?? 0)) / 3_600_000;
    if (hours * 3_600_000 < WINDOW_MS) continue;
    const ratePerHour = ((values[at] ?? 0) - (values[from] ?? 0)) / hours;
    if (!best || ratePerHour > best.ratePerHour) best = { ratePerHour, atMs: timesMs[at] ?? 0 };
  }
  return best;
}
