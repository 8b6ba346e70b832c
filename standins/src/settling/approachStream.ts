/**
 * Made-up streams of a probe that settles, with everything that makes judging hard: one or two time constants, noise, converter steps, slow sampling,
 * wild readings, missing lines, and water poured at any time. The true curve is known, so that a judgement can be judged.
 */
import { dice, type Seed } from '../random.ts';

export type Approaching = {
  /** When it began, s. */
  readonly fromS: number;
  /** Value it ends at, counts. */
  readonly end: number;
  /** How far the true value is from its end at most, `aheadS` after the beginning, counts. */
  readonly away: (aheadS: number) => number;
};

export type MadeStream = {
  readonly spanCounts: number;
  readonly everyS: number;
  readonly noiseFrac: number;
  readonly samples: readonly { readonly atS: number; readonly value: number }[];
  readonly approaches: readonly Approaching[];
  readonly lastsS: number;
};

const SPAN = 1800;
const AIR = 3000;

/**
 * One stream: time constants 5 s to 20 min, noise 0.1 to 3 % of span, a reading each 0.2 to 60 s, 1 % wild readings, 3 % of the lines missing, none to two
 * pours. Four in ten are a fast and a slow part.
 */
export function makeStream(seed: Seed): MadeStream {
  const chance = dice(seed);
  const everyS = chance.across(0.2, 60);
  const noiseFrac = chance.across(0.001, 0.03);
  const fastS = chance.across(5, 1200);
  const isDouble = chance.flat() < 0.4;
  const slowS = isDouble ? chance.across(fastS, 1200) : fastS;
  const slowShare = isDouble ? chance.between(0.05, 0.35) : 0;
  const shape = (aheadS: number) =>
    (1 - slowShare) * Math.exp(-aheadS / fastS) + slowShare * Math.exp(-aheadS / slowS);
  const within = (moved: number) => {
    let low = 0;
    let high = 20 * slowS;
    for (let turn = 0; turn < 60; turn += 1) {
      const middle = (low + high) / 2;
      if (Math.abs(moved) * shape(middle) > 0.01 * SPAN) low = middle;
      else high = middle;
    }
    return high;
  };
  const approaches: Approaching[] = [];
  const pours = Math.floor(chance.between(0, 3));
  let fromS = 0;
  let value = AIR;
  for (let at = 0; at <= pours; at += 1) {
    const moved =
      (at === 0 ? -chance.between(0.2, 1) : -chance.between(0.08, 0.5) * (chance.flat() < 0.85 ? 1 : -1)) *
      SPAN;
    const end = value + moved;
    const restS = within(moved);
    approaches.push({ fromS, end, away: (aheadS) => -moved * shape(aheadS) });
    const isLast = at === pours;
    const lastsS =
      (isLast ? 3 : chance.between(0.4, 3)) * restS + (isLast ? 40 : chance.between(5, 40)) * everyS;
    value = end - moved * shape(lastsS);
    fromS += lastsS;
  }
  const lastsS = fromS;
  const samples: { atS: number; value: number }[] = [];
  for (let atS = everyS * chance.flat(); atS < lastsS; atS += everyS) {
    if (chance.flat() < 0.03) continue;
    const wild = chance.flat() < 0.01 ? chance.between(-1, 1) * SPAN : 0;
    samples.push({
      atS,
      value: Math.round(trueValue(approaches, atS) + noiseFrac * SPAN * chance.bell() + wild),
    });
  }
  return { spanCounts: SPAN, everyS, noiseFrac, samples, approaches, lastsS };
}

/** The approach that a time belongs to. */
export const approachAt = (approaches: readonly Approaching[], atS: number): Approaching | undefined =>
  approaches.findLast((one) => one.fromS <= atS);

function trueValue(approaches: readonly Approaching[], atS: number): number {
  const one = approachAt(approaches, atS);
  return one ? one.end + one.away(atS - one.fromS) : AIR;
}
