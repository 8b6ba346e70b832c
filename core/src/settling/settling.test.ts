import { describe, expect, test } from 'vitest';
import { beliefFurther, fitApproach, foreseen, leftAfter, slopeNow } from './approach.ts';
import { Bins } from './bins.ts';
import { mixtureQuantile, normalCdf } from '../quantity/normal.ts';
import { isAtRest, neededRestS, PROOF_S } from './rest.ts';
import { hasStopped, SettlingWatch, type Settling } from './settlingWatch.ts';
import { poweredStretches, warmUpOf, workWarmUp } from './warmUp.ts';

const SPAN = 1800;

/** A standard normal number for each place, the same each time: twelve scattered fractions, less six (central limit). */
const wobble = (at: number) => {
  let sum = -6;
  for (let of = 0; of < 12; of += 1) {
    const scattered = Math.sin((at * 12 + of + 1) * 12.9898) * 43_758.5453;
    sum += scattered - Math.floor(scattered);
  }
  return sum;
};

const watchOf = (value: (atS: number) => number, everyS: number, forS: number, noise = 4) => {
  const watch = new SettlingWatch({ spanCounts: SPAN });
  const said: { atS: number; settling: Settling }[] = [];
  for (let at = 0; at * everyS <= forS; at += 1) {
    watch.push(at * everyS, value(at * everyS) + noise * wobble(at));
    said.push({ atS: at * everyS, settling: watch.settling() });
  }
  return said;
};
const firstStopped = (said: ReturnType<typeof watchOf>) =>
  said.find((one) => hasStopped(one.settling.verdict))?.atS ?? Infinity;
const verdicts = (said: ReturnType<typeof watchOf>) => new Set(said.map((one) => one.settling.verdict));

describe('bins', () => {
  test('hold every reading, however many come, in few bins', () => {
    const bins = new Bins();
    for (let at = 0; at < 10_000; at += 1) bins.push(at, at % 2);
    expect(bins.readings).toBe(10_000);
    expect(bins.all.length).toBeLessThanOrEqual(96);
    expect(bins.all.reduce((sum, bin) => sum + bin.readings * bin.mean, 0)).toBeCloseTo(5000, 6);
    expect(bins.all[0]?.fromS).toBe(0);
    expect(bins.all.at(-1)?.toS).toBe(9999);
    // Neighbours only are joined: each bin holds all the seconds between its ends.
    for (const [at, bin] of bins.all.entries()) {
      expect(bin.readings).toBe(bin.toS - bin.fromS + 1);
      if (at > 0) expect(bin.fromS).toBe((bins.all[at - 1]?.toS ?? NaN) + 1);
    }
  });
  test('forget what lies wholly before a time', () => {
    const bins = new Bins();
    for (const at of [0, 10, 20]) bins.push(at, 1);
    bins.dropBefore(10);
    expect(bins.all.map((bin) => bin.fromS)).toEqual([10, 20]);
    expect(bins.readings).toBe(2);
  });
});

describe('normal distribution', () => {
  // Published tables of Φ.
  test.each([
    [0, 0.5],
    [1, 0.8413447],
    [-1.959964, 0.025],
    [3, 0.9986501],
  ])('Φ(%d) = %d', (z, share) => expect(normalCdf(z)).toBeCloseTo(share, 6));
  test('a quantile of one member is its own, of two it lies where both together reach it', () => {
    expect(mixtureQuantile([{ share: 1, mean: 10, sigma: 2 }], 0.975)).toBeCloseTo(13.92, 1);
    const two = [
      { share: 0.5, mean: 0, sigma: 1 },
      { share: 0.5, mean: 100, sigma: 1 },
    ];
    // A quarter of the whole is half of the first member.
    expect(mixtureQuantile(two, 0.25)).toBeCloseTo(0, 1);
  });
});

describe('what no curve of the family shows', () => {
  /** Noise of which each takes over a share of the one before; standard deviation of one. */
  const carrying = (share: number, count: number) => {
    const noise = [wobble(0)];
    for (let at = 1; at < count; at += 1)
      noise.push(share * (noise[at - 1] ?? 0) + Math.sqrt(1 - share ** 2) * wobble(at));
    return noise;
  };
  const binsOf = (values: readonly number[]) =>
    values.map((mean, at) => ({ fromS: at, toS: at, readings: 1, mean }));

  test('readings that carry over six tenths are worth a quarter of as many independent ones', () => {
    // (1 + 0.6) ÷ (1 − 0.6) = 4: ten counts of noise tell as little as twenty would. Their second differences show √(6 − 4.8 + 0.72) ÷ √6 of ten.
    const values = carrying(0.6, 90).map((one) => 1500 + 10 * one);
    const { sigma } = fitApproach(binsOf(values), SPAN, 5.7);
    expect(sigma).toBeGreaterThan(12);
    expect(sigma).toBeLessThan(35);
  });
  test('independent ones are worth what they are', () => {
    const values = carrying(0, 90).map((one) => 1500 + 10 * one);
    const { sigma } = fitApproach(binsOf(values), SPAN, 10);
    expect(sigma).toBeLessThan(12);
  });
  test('a probe at rest in noise that carries over is not forever said to have been disturbed', () => {
    const noise = carrying(0.6, 600);
    const said = watchOf((atS) => 1500 + 10 * (noise[atS] ?? 0), 1, 590, 0);
    const begins = said.filter(
      ({ settling }, at) => settling.watchedS < (said[at - 1]?.settling.watchedS ?? 0),
    );
    expect(begins.length).toBeLessThan(2);
  });
  test('beside a fast part a slow one was seen: slower ones may follow, and the end lies rather in their direction', () => {
    const two = (atS: number) => 1500 + 300 * Math.exp(-atS / 20) + 300 * Math.exp(-atS / 200);
    const one = (atS: number) => 1500 + 600 * Math.exp(-atS / 40);
    const unseen = (curve: (atS: number) => number) => {
      const { curves } = fitApproach(
        binsOf(Array.from({ length: 95 }, (_, at) => curve(at) + wobble(at))),
        SPAN,
        1,
      );
      return curves.reduce((sum, each) => sum + each.share * each.unseen, 0);
    };
    expect(unseen(two)).toBeLessThan(-20);
    expect(Math.abs(unseen(one))).toBeLessThan(10);
  });
  test('of e^(−√(t/τ)) the interval holds the end where one of the fit alone is too sure', () => {
    const end = 1200;
    const said = watchOf((atS) => end + 1500 * Math.exp(-Math.sqrt(atS / 20)), 1, 600);
    const looks = said.filter(({ settling }, at) => at > 60 && at % 20 === 0 && settling.end !== null);
    const held = looks.filter(
      ({ settling }) => settling.end && settling.end.low <= end && end <= settling.end.high,
    );
    expect(looks.length).toBeGreaterThan(10);
    expect(held.length / looks.length).toBeGreaterThan(0.8);
  });
});

describe('fit of an approach', () => {
  const binsOf = (value: (atS: number) => number, everyS: number, count: number) =>
    Array.from({ length: count }, (_, at) => {
      const atS = at * everyS;
      return { fromS: atS, toS: atS, readings: 1, mean: value(atS) };
    });
  test('finds the end of an exponential whose time constant stands on no grid', () => {
    const fit = fitApproach(
      binsOf((t) => 1200 + 1500 * Math.exp(-t / 37), 2, 60),
      SPAN,
      4,
    );
    const end = mixtureQuantile(
      fit.curves.map((one) => ({ share: one.share, mean: one.end, sigma: one.endSigma })),
      0.5,
    );
    expect(Math.abs(end - 1200)).toBeLessThan(0.01 * SPAN);
    // Half a time constant on: 1200 + 1500·e^(−(118 + 18.5)/37) = 1237.5.
    expect(foreseen(fit, 18.5).mean).toBeCloseTo(1237.5, -1);
  });
  test('finds the slow part behind a fast one', () => {
    const fit = fitApproach(
      binsOf((t) => 1200 + 1200 * Math.exp(-t / 10) + 300 * Math.exp(-t / 200), 4, 60),
      SPAN,
      4,
    );
    // 300·e^(−236/200) = 92 counts are left, 5 % of the span; what slower parts may still bring widens that to either side.
    expect(beliefFurther(fit, 0.02 * SPAN)).toBeGreaterThan(0.85);
    const left = fit.curves.reduce((sum, one) => sum + one.share * one.left, 0);
    expect(Math.abs(left - 92)).toBeLessThan(25);
  });
  test('what it calls its uncertainty is what ends of other noise scatter by', () => {
    const sigma = 12;
    const drawn = Array.from({ length: 60 }, (_, turn) => {
      const fit = fitApproach(
        binsOf((t) => 1200 + 1500 * Math.exp(-t / 20) + sigma * wobble(turn * 400 + t), 1, 70),
        SPAN,
        sigma,
      );
      const ends = fit.curves.map((one) => ({ share: one.share, mean: one.end, sigma: one.endSigma }));
      return {
        middle: mixtureQuantile(ends, 0.5),
        // From the sixteenth to the eighty-fourth of a hundred: twice the standard deviation.
        said: (mixtureQuantile(ends, 0.84) - mixtureQuantile(ends, 0.16)) / 2,
        now: fit.curves.reduce((sum, one) => sum + one.share * one.nowSigma, 0),
        nowAt: fit.curves.reduce((sum, one) => sum + one.share * one.now, 0),
      };
    });
    const scatterOf = (values: readonly number[]) => {
      const mean = values.reduce((sum, one) => sum + one, 0) / values.length;
      return Math.sqrt(values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (values.length - 1));
    };
    const meanOf = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;
    const end = scatterOf(drawn.map((one) => one.middle)) / meanOf(drawn.map((one) => one.said));
    const now = scatterOf(drawn.map((one) => one.nowAt)) / meanOf(drawn.map((one) => one.now));
    expect(end).toBeGreaterThan(0.4);
    expect(end).toBeLessThan(1.3);
    expect(now).toBeGreaterThan(0.5);
    expect(now).toBeLessThan(1.4);
  });
  test('its slope is that of the curve, and what is left after a while is less by what it moved', () => {
    const fit = fitApproach(
      binsOf((t) => 1200 + 1500 * Math.exp(-t / 40), 2, 40),
      SPAN,
      4,
    );
    const mean = (of: (curve: (typeof fit.curves)[number]) => number) =>
      fit.curves.reduce((sum, one) => sum + one.share * of(one), 0);
    // At 78 s: 1500/40·e^(−78/40) = 5.33 counts a second downward, 213 counts above the end; 20 s later 129.
    expect(mean(slopeNow)).toBeGreaterThan(-5.33 * 1.15);
    expect(mean(slopeNow)).toBeLessThan(-5.33 / 1.15);
    expect(mean((one) => leftAfter(one, 0))).toBeGreaterThan(190);
    expect(mean((one) => leftAfter(one, 0))).toBeLessThan(235);
    expect(mean((one) => leftAfter(one, 20)) / mean((one) => leftAfter(one, 0))).toBeCloseTo(
      Math.exp(-0.5),
      1,
    );
  });
  test('a curve that misses its readings all one way for a while is less sure of its end', () => {
    // Slow swings, and no noise that would explain them.
    const swing = (counts: number) =>
      fitApproach(
        binsOf((t) => 1200 + 1500 * Math.exp(-t / 20) + counts * Math.sin(t / 12), 1, 150),
        SPAN,
        2,
      ).curves.reduce((sum, one) => sum + one.share * one.endSigma, 0);
    expect(swing(20)).toBeGreaterThan(3 * swing(0));
  });
  test('a bin of many readings weighs as much as they do', () => {
    const flat = (readings: number) =>
      fitApproach(
        Array.from({ length: 40 }, (_, at) => ({
          fromS: at * 10,
          toS: at * 10 + 9,
          readings,
          mean: 1500 + 6 * wobble(at),
        })),
        SPAN,
        20,
      );
    const sigmaOf = (readings: number) =>
      flat(readings).curves.reduce((sum, one) => sum + one.share * one.nowSigma, 0);
    // Ten times the readings in each bin: three times as sure, at least by half of that.
    expect(sigmaOf(10)).toBeLessThan(sigmaOf(1) / 1.6);
  });
  test('believes a long flat line to be at rest, and a short one not', () => {
    expect(
      beliefFurther(
        fitApproach(
          binsOf(() => 1500, 10, 90),
          SPAN,
          6,
        ),
        0.02 * SPAN,
      ),
    ).toBeLessThan(0.03);
    expect(
      beliefFurther(
        fitApproach(
          binsOf(() => 1500, 0.5, 12),
          SPAN,
          6,
        ),
        0.02 * SPAN,
      ),
    ).toBeGreaterThan(0.3);
  });
});

describe('verdict', () => {
  test.each([2, 8, 30])(
    'a probe with a time constant of %d s has stopped moving once it is within 1 %% of the span, and soon after',
    (tauS) => {
      const said = watchOf((t) => 1200 + 1500 * Math.exp(-t / tauS), 0.5, 30 * tauS);
      // Within 2 % of the span after τ·ln(1500/36) = 3.7 τ, within 1 % after 4.4 τ.
      expect(firstStopped(said)).toBeGreaterThan(3.7 * tauS);
      expect(firstStopped(said)).toBeLessThan(2.5 * 4.4 * tauS);
    },
  );
  test('steady is proved by twenty minutes of rest, not by a look', () => {
    const said = watchOf((t) => 1200 + 1500 * Math.exp(-t / 20), 2, 1800);
    const first = said.find((one) => one.settling.verdict === 'steady')?.atS ?? Infinity;
    expect(first).toBeGreaterThan(PROOF_S);
    expect(first).toBeLessThan(1.4 * PROOF_S);
  });
  test.each([
    ['a wave of 4 % of the span in 40 minutes', (t: number) => 72 * Math.sin((2 * Math.PI * t) / 2400 + 1.3)],
    ['a drift of 6 % an hour', (t: number) => (108 * t) / 3600],
    ['a creep that slows down and never ends', (t: number) => 500 / Math.sqrt(1 + t / 60)],
  ])('under %s it is never called steady', (_, moves) =>
    expect(verdicts(watchOf((t) => 1500 + moves(t), 2, 4800))).not.toContain('steady'),
  );
  test('the first moments of a slow drift are never called steady', () => {
    const said = watchOf((t) => 1200 + 1500 * Math.exp(-t / 1200), 0.2, 240, 12);
    expect(said.map((one) => one.settling.verdict)).not.toContain('steady');
  });
  test('half way, the end is named with an interval that holds it, and the wait', () => {
    const said = watchOf((t) => 1200 + 1500 * Math.exp(-t / 60), 1, 120);
    const { end, left } = said.at(-1)?.settling ?? {};
    expect(end?.low).toBeLessThan(1200);
    expect(end?.high).toBeGreaterThan(1200);
    // From 1500·e^(−2) = 203 counts away to 1½ % of the span, 27: 60·ln(203/27) = 121 s.
    expect(left?.likelyS).toBeGreaterThan(121 * 0.6);
    expect(left?.likelyS).toBeLessThan(121 * 1.6);
    expect(left?.atMostS).toBeGreaterThanOrEqual(left?.likelyS ?? Infinity);
  });
  test.each([
    ['lower', 1500],
    ['higher', 2500],
  ])('water poured on a steady probe is noticed at once, and a new end found: %s', (_, endCounts) => {
    const pouredS = 300;
    const said = watchOf(
      (t) => (t < pouredS ? 2000 : endCounts + (2000 - endCounts) * Math.exp(-(t - pouredS) / 30)),
      1,
      600,
    );
    const at = (atS: number) => said.find((one) => one.atS === atS)?.settling;
    expect(at(299)?.verdict).toBe('stopped');
    expect(hasStopped(at(304)?.verdict)).toBe(false);
    expect(at(600)?.verdict).toBe('stopped');
    expect(Math.abs((at(600)?.end?.counts ?? 0) - endCounts)).toBeLessThan(0.01 * SPAN);
    expect(at(600)?.watchedS).toBeLessThanOrEqual(301);
  });
  test('one wild reading changes nothing and is counted', () => {
    const said = watchOf((t) => (t === 400 ? 3900 : 2000), 1, 500);
    expect(said.at(-1)?.settling).toMatchObject({ verdict: 'stopped', spikes: 1 });
    expect(Math.abs((said.at(-1)?.settling.end?.counts ?? 0) - 2000)).toBeLessThan(6);
  });
  test('on a slow stream a wild reading is a disturbance until the next one has told', () => {
    const said = watchOf((t) => (t === 3000 ? 3900 : 2000), 30, 3090);
    expect(said.map((one) => one.settling.verdict).slice(-5, -1)).toEqual([
      'steady',
      'disturbed',
      'steady',
      'steady',
    ]);
  });
  test('after a wild reading on a slow stream it is not called steady again while surprises add up', () => {
    // At rest for ten minutes; then something begins to move it slowly, and a wild reading falls into the first moments of it.
    const moving = (atS: number) =>
      atS < 600 ? 1000 : atS === 620 ? 1400 : 1000 + 60 * (1 - Math.exp(-(atS - 600) / 90));
    const said = watchOf(moving, 5, 660);
    expect(said.find((one) => one.atS === 595)?.settling.verdict).toBe('stopped');
    const after = said.filter((one) => one.atS >= 620 && one.atS <= 650);
    expect(after.filter((one) => hasStopped(one.settling.verdict))).toEqual([]);
  });
  test('a line without an end is a drift, with its rate', () => {
    const said = watchOf((t) => 2000 - 0.2 * t, 5, 3000);
    const last = said.at(-1)?.settling;
    expect(last?.verdict).toBe('drifting');
    // 0.2 counts a second are 12 a minute.
    expect(last?.driftCountsPerMin).toBeCloseTo(-12, 0);
  });
  test('noise is that of single readings, not of the way they go', () => {
    const last = watchOf((t) => 1200 + 1500 * Math.exp(-t / 60), 1, 200, 9).at(-1)?.settling;
    expect(last?.noiseCounts).toBeGreaterThan(5);
    expect(last?.noiseCounts).toBeLessThan(14);
  });
  test('nothing is said of less than four readings; what is no number or late is left out', () => {
    const watch = new SettlingWatch({ spanCounts: SPAN });
    expect(watch.settling()).toMatchObject({ verdict: 'watching', end: null, now: null });
    watch.push(0, 1500);
    watch.push(1, Number.NaN);
    watch.push(-5, 1500);
    watch.push(Number.POSITIVE_INFINITY, 1500);
    expect(watch.settling().readings).toBe(1);
  });
  test('rubbish between the readings leaves no trace, however much of it there is', () => {
    const sayOf = (withRubbish: boolean) => {
      const watch = new SettlingWatch({ spanCounts: SPAN });
      for (let atS = 0; atS <= 300; atS += 1) {
        watch.push(atS, 2000 + 4 * wobble(atS));
        if (!withRubbish || atS < 100) continue;
        watch.push(atS + 0.1, Number.NaN);
        watch.push(Number.NaN, 3000);
        watch.push(atS - 20, 3000);
        watch.push(atS + 0.2, Number.NEGATIVE_INFINITY);
      }
      return watch.settling();
    };
    expect(sayOf(true)).toEqual(sayOf(false));
  });
  test('two readings of one moment both count', () => {
    const watch = new SettlingWatch({ spanCounts: SPAN });
    for (let atS = 0; atS < 20; atS += 1) {
      watch.push(atS, 2000 + wobble(atS));
      watch.push(atS, 2001 + wobble(atS + 50));
    }
    expect(watch.settling().readings).toBe(40);
  });
  test('the noise is that of the last readings, not of long ago', () => {
    const watch = new SettlingWatch({ spanCounts: SPAN });
    for (let atS = 0; atS <= 600; atS += 1) watch.push(atS, 2000 + (atS < 300 ? 12 : 2) * wobble(atS));
    expect(watch.settling().noiseCounts).toBeLessThan(4);
  });
  test('a watch that has just begun has not been disturbed', () => {
    const said = watchOf(() => 2000, 1, 5);
    expect(verdicts(said).has('disturbed')).toBe(false);
  });
  test('wild readings to either side are spikes, not a new beginning', () => {
    const wild = (atS: number) => (atS < 400 || atS > 405 ? 2000 : atS % 2 === 0 ? 3900 : 100);
    const last = watchOf(wild, 1, 500).at(-1)?.settling;
    expect(last).toMatchObject({ verdict: 'stopped', spikes: 6 });
    expect(last?.watchedS).toBe(500);
    expect(last?.readings).toBe(501 - 6);
  });
  test('a reading that is older than the last of a leap comes too late', () => {
    const watch = new SettlingWatch({ spanCounts: SPAN });
    for (let atS = 0; atS <= 302; atS += 1) watch.push(atS, (atS < 300 ? 3000 : 1500) + 4 * wobble(atS));
    expect(watch.settling()).toMatchObject({ readings: 3, verdict: 'disturbed' });
    watch.push(301.5, 1500);
    expect(watch.settling().readings).toBe(3);
    watch.push(303, 1500);
    expect(watch.settling().readings).toBe(4);
  });
  test('after a leap the noise is that of what came since', () => {
    // Three readings that leap begin anew; they count among the readings of the new approach, each once.
    const said = watchOf((atS) => (atS < 300 ? 3000 : 1500), 1, 400);
    const last = said.at(-1)?.settling;
    expect(last?.readings).toBe(101);
    expect(last?.noiseCounts).toBeGreaterThan(2.5);
    expect(last?.noiseCounts).toBeLessThan(6);
  });
});

describe('proof of rest', () => {
  /** A reading a second for twenty minutes and one, whose newest quarter stands apart. */
  const quarterOff = (counts: number) =>
    Array.from({ length: 1202 }, (_, at) => ({
      fromS: at,
      toS: at,
      readings: 1,
      mean: at > 901 ? 500 + counts : 500,
    }));
  test('takes twenty minutes, or half of a longer approach', () => {
    expect(neededRestS(1000)).toBe(1200);
    expect(neededRestS(10_000)).toBe(5000);
  });
  test('needs readings, and time', () => {
    expect(isAtRest([], 4000, 1)).toBe(false);
    expect(isAtRest(quarterOff(0).slice(0, 1000), 4000, 1)).toBe(false);
    expect(isAtRest(quarterOff(0), 4000, 1)).toBe(true);
  });
  test('holds while no quarter lies further off than a quarter of a percent of the span: 10 counts of 4000', () => {
    expect(isAtRest(quarterOff(10), 4000, 1)).toBe(true);
    expect(isAtRest(quarterOff(10.5), 4000, 1)).toBe(false);
    expect(isAtRest(quarterOff(-10.5), 4000, 1)).toBe(false);
  });
  test('fails where the noise leaves the quarters less sure than that', () => {
    // Two standard deviations of the mean of 300 readings: 2 · 90 ÷ √300 = 10.4.
    expect(isAtRest(quarterOff(0), 4000, 90)).toBe(false);
    expect(isAtRest(quarterOff(0), 4000, 80)).toBe(true);
  });
});

describe('what is watched beside the fit', () => {
  test.each([
    [6, 4],
    [32, 30],
    // With 32 second differences the belief has had its time.
    [34, null],
  ])(
    'noise of %d readings is mixed with what is believed before, as if it were four readings of 0.8 %% of the span',
    (readings, differences) => {
      const watch = new SettlingWatch({ spanCounts: SPAN });
      for (let at = 0; at < readings; at += 1) watch.push(at, at % 2 === 0 ? 100 : 160);
      // Second differences are 120 to either side; their spread is 1.4826 · 120, √6 times the noise of a single reading.
      const measured = (1.4826 * 120) / Math.sqrt(6);
      const before = 0.008 * SPAN;
      const asked =
        differences === null
          ? measured
          : Math.sqrt((differences * measured ** 2 + 4 * before ** 2) / (differences + 4));
      expect(watch.settling().noiseCounts).toBeCloseTo(asked, 3);
    },
  );

  test('how long it takes to within another share of the span is asked of the same curves', () => {
    const watch = new SettlingWatch({ spanCounts: SPAN });
    expect(watch.within(0.01)).toBeNull();
    for (let atS = 0; atS <= 60; atS += 0.5)
      watch.push(atS, 1500 + 1500 * Math.exp(-atS / 20) + 2 * wobble(2 * atS));
    // 1500·e^−3 = 74.7 counts are left: to 18 counts 20·ln(74.7 ÷ 18) = 28.5 s, to 36 counts 14.6 s.
    expect(Math.abs((watch.within(0.01)?.likelyS ?? NaN) - 28.5)).toBeLessThan(6);
    expect(Math.abs((watch.within(0.02)?.likelyS ?? NaN) - 14.6)).toBeLessThan(5);
    expect(watch.within(0.5)).toEqual({ likelyS: 0, atMostS: 0 });
  });

  test.each([
    ['up', 10],
    ['down', -10],
  ])(
    'a small lasting change, %s by less than three standard deviations, begins anew where it began',
    (_, by) => {
      const watch = new SettlingWatch({ spanCounts: SPAN });
      for (let atS = 0; atS <= 1040; atS += 1)
        watch.push(atS, 2000 + (atS < 1000 ? 0 : by) + 4 * wobble(atS));
      const { watchedS, spikes } = watch.settling();
      expect(spikes).toBe(0);
      // It is noticed some readings later; the approach counts from where it began all the same.
      expect(watchedS).toBeGreaterThan(34);
      expect(watchedS).toBeLessThan(50);
    },
  );

  test('hours of readings take no more room than minutes', () => {
    const roomAfter = (readings: number) => {
      const watch = new SettlingWatch({ spanCounts: SPAN, pace: { everyS: 60, phaseS: 0 } });
      for (let atS = 0; atS < readings; atS += 1) watch.push(atS, 2000 + 4 * wobble(atS));
      return JSON.stringify(watch).length;
    };
    expect(roomAfter(6000)).toBeLessThan(1.5 * roomAfter(600));
  });

  test('a part slower than anything that settles is a drift, a quick one and one of which little is left are not', () => {
    const verdictOf = (tauS: number, counts: number, forS: number) => {
      const watch = new SettlingWatch({ spanCounts: SPAN });
      for (let atS = 0; atS <= forS; atS += 2)
        watch.push(atS, 2000 + counts * Math.exp(-atS / tauS) + wobble(atS));
      return watch.settling().verdict;
    };
    expect(verdictOf(4000, 900, 2400)).toBe('drifting');
    expect(verdictOf(200, 900, 400)).toBe('settling');
    expect(hasStopped(verdictOf(4000, 8, 2400))).toBe(true);
  });
});

test('watched at a slower pace, in turn with others, it says the same at about the same time', () => {
  const approach = (atS: number) => 3000 - 1500 * (1 - Math.exp(-atS / 20));
  const firstOf = (pace: { everyS: number; phaseS: number }) => {
    const watch = new SettlingWatch({ spanCounts: SPAN, pace });
    for (let at = 0; at < 4000; at += 1) {
      watch.push(at / 10, approach(at / 10) + 4 * wobble(at));
      if (hasStopped(watch.settling().verdict)) return at / 10;
    }
    return Infinity;
  };
  const [alone, inTurn] = [firstOf({ everyS: 1, phaseS: 0 }), firstOf({ everyS: 4, phaseS: 3 })];
  // Fewer fits may grant it a little sooner or later, and after it has come to rest either way: 1 % of the span after 20 · ln(1500 ÷ 18) = 88 s.
  expect(inTurn).toBeGreaterThan(88);
  expect(Math.abs(inTurn - alone)).toBeLessThan(40);
});

describe('warm-up of a probe that is switched on for each reading', () => {
  const series = (value: (atS: number) => number, forS: number) => ({
    timesMs: Float64Array.from({ length: forS * 10 }, (_, at) => at * 100),
    values: Float64Array.from({ length: forS * 10 }, (_, at) => value(at / 10)),
  });
  const power = series((t) => (t >= 2 && t < 8 ? 1 : t >= 12 && t < 18 ? 1 : 0), 20);
  // From 0 towards 1500 with a time constant of half a second: within 15 counts after 0.5·ln 100 = 2.3 s.
  const rise = (since: number) => 1500 * (1 - Math.exp(-since / 0.5));
  const probe = series((t) => (t >= 12 ? rise(t - 12) : t >= 2 ? rise(t - 2) : 0), 20);
  test('each switching on gives a run; the longest with a quarter more is what a sketch waits', () => {
    const runs = poweredStretches(power, probe).map((one) => warmUpOf(one, 15));
    expect(runs).toHaveLength(2);
    const good = runs.flatMap((run) => (run.ok ? [run.value] : []));
    expect(good.map((run) => run.onMs)).toEqual([2000, 12_000]);
    for (const run of good) expect(Math.abs(run.warmUpS - 2.3)).toBeLessThan(0.25);
    expect(workWarmUp(good).value).toBeCloseTo(1.25 * Math.max(...good.map((run) => run.warmUpS)), 9);
  });
  test('a supply switched off too soon is told', () => {
    const [first] = poweredStretches(
      power,
      series((t) => (t >= 2 ? 100 * (t - 2) : 0), 20),
    );
    expect(first && warmUpOf(first, 15)).toEqual({ ok: false, issue: { kind: 'still-moving' } });
    const [short] = poweredStretches(
      series((t) => (t >= 2 && t < 2.5 ? 1 : 0), 20),
      probe,
    );
    expect(short && warmUpOf(short, 15)).toMatchObject({ ok: false, issue: { kind: 'too-few' } });
  });
  test('nine readings are enough, eight are not', () => {
    const stretch = (readings: number) => ({
      onMs: 0,
      stretch: {
        timesMs: Float64Array.from({ length: readings }, (_, at) => 100 * at),
        values: Float64Array.from({ length: readings }, () => 700),
      },
    });
    expect(warmUpOf(stretch(9), 15)).toMatchObject({ ok: true, value: { warmUpS: 0, readings: 9 } });
    expect(warmUpOf(stretch(8), 15)).toMatchObject({ ok: false, issue: { kind: 'too-few', needed: 9 } });
  });
  test('a supply that was never switched gives no run', () =>
    expect(
      poweredStretches(
        series(() => 1, 20),
        probe,
      ),
    ).toEqual([]));
});
