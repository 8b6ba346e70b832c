/**
 * Whether the interval of the end value holds what it says, and how wide it is beside that of an estimator that knows the curve: its shape, its noise and their correlation, what
 * waves beneath it, and has only to find the end, the way and the time constant (Cramér–Rao, Fisher information of the three).
 */
import { performance } from 'node:perf_hooks';
import { SettlingWatch } from '../core/src/settling/settlingWatch.ts';
import { dice } from '../standins/src/random.ts';
import {
  HARD_FAMILIES,
  SPAN_COUNTS,
  hardStream,
  type HardFamily,
  type HardStream,
} from '../standins/src/settling/hardStreams.ts';

/** Looks at each approach, at random times. */
const LOOKS = 6;
const Z_90 = 1.645;
/** No end is named by the watch while its interval is wider than this share of the span. */
const WIDEST = 0.3;
/** From this share of the span on the one who knows has still something to wait for. */
const OPEN = 0.01;

type Look = {
  readonly holds: boolean;
  /** Its width ÷ that of the one who knows. */
  readonly ratio: number;
  readonly widthCounts: number;
  readonly knownCounts: number;
  /** Whether it was said to be settled at that time. */
  readonly isSettled: boolean;
};

/** Width of the interval of one who knows the curve, from the readings of an approach so far, counts. */
function knownWidth(stream: HardStream, fromS: number, atS: number): number {
  const { noise, shape, samples, truth, spanCounts } = stream;
  const { correlation: carried } = noise;
  const way = Math.abs(truth(fromS) - stream.endAt(fromS)) || spanCounts;
  const information = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 1], // the time constant within a factor of e: no better known before than by a person
  ];
  const fresh = Math.sqrt(1 - carried ** 2);
  const variance = noise.counts ** 2 + noise.stepCounts ** 2 / 12;
  let before: readonly number[] | null = null;
  for (const sample of samples) {
    if (sample.atS < fromS || sample.atS > atS) continue;
    const aheadS = sample.atS - fromS;
    const stretched = (way * (shape(aheadS, 1.01) - shape(aheadS, 1 / 1.01))) / (2 * Math.log(1.01));
    const row = [1, shape(aheadS, 1), stretched];
    const last: readonly number[] | null = before;
    const white: readonly number[] = last
      ? row.map((one, at) => (one - carried * (last[at] ?? 0)) / fresh)
      : row;
    for (const [i, one] of white.entries())
      for (const [j, two] of white.entries()) {
        const line = information[i];
        if (line) line[j] = (line[j] ?? 0) + (one * two) / variance;
      }
    before = row;
  }
  return 2 * Z_90 * Math.sqrt(firstOfInverse(information));
}

/** First element of the inverse of a symmetric 3 × 3 matrix. */
function firstOfInverse(m: readonly (readonly number[])[]): number {
  const [a = 0, b = 0, c = 0] = m[0] ?? [];
  const [, d = 0, e = 0] = m[1] ?? [];
  const f = m[2]?.[2] ?? 0;
  const minor = d * f - e * e;
  const determinant = a * minor - b * (b * f - c * e) + c * (b * e - c * d);
  return determinant > 0 ? minor / determinant : Infinity;
}

function looksAt(stream: HardStream, seed: number): Look[] {
  const watch = new SettlingWatch({ spanCounts: stream.spanCounts, pace: { everyS: 2, phaseS: 0 } });
  const chance = dice(seed);
  const times = stream.changesS.flatMap((fromS, at) => {
    const toS = stream.changesS[at + 1] ?? stream.lastsS;
    return Array.from({ length: LOOKS }, () => ({ fromS, atS: chance.between(fromS, toS) }));
  });
  times.sort((a, b) => a.atS - b.atS);
  const looks: Look[] = [];
  let next = 0;
  for (const sample of stream.samples) {
    for (let due = times[next]; due && due.atS < sample.atS; due = times[next]) {
      next += 1;
      const { end, verdict, watchedS } = watch.settling();
      // Before the change has been noticed it speaks of the approach before.
      if (!end || watchedS > due.atS - due.fromS + 1.5 * stream.everyS) continue;
      const truth = stream.endAt(due.atS);
      const widthCounts = end.high - end.low;
      const knownCounts = Math.min(WIDEST * stream.spanCounts, knownWidth(stream, due.fromS, due.atS));
      looks.push({
        holds: truth >= end.low && truth <= end.high,
        ratio: widthCounts / knownCounts,
        widthCounts,
        knownCounts,
        isSettled: verdict === 'steady' || verdict === 'stopped',
      });
    }
    watch.push(sample.atS, sample.value);
  }
  return looks;
}

export type EndRow = {
  readonly name: HardFamily;
  readonly looks: number;
  readonly holds: number;
  readonly ratio: number;
  /** The same while the end is still open: the one who knows is no surer than a hundredth of the span. */
  readonly openRatio: number;
  readonly openLooks: number;
  readonly width: number;
};

const median = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) / 2)] ?? Number.NaN;

/** @param streams of each family */
export function endRows(streams: number, families: readonly HardFamily[] = HARD_FAMILIES): EndRow[] {
  return families.map((name) => {
    const looks = Array.from({ length: streams }, (_, at) => 7919 * (at + 1)).flatMap((seed) =>
      looksAt(hardStream(name, seed), seed),
    );
    const open = looks.filter((one) => one.knownCounts > OPEN * SPAN_COUNTS);
    return {
      name,
      looks: looks.length,
      holds: looks.filter((one) => one.holds).length / looks.length,
      ratio: median(looks.map((one) => one.ratio)),
      openRatio: median(open.map((one) => one.ratio)),
      openLooks: open.length,
      width: median(looks.map((one) => one.widthCounts)),
    };
  });
}

export function benchEnds(): void {
  const began = performance.now();
  const rows = endRows(24);
  console.log(
    `\nEnd value of an approach, interval of nine in ten, at random times, ${((performance.now() - began) / 1000).toFixed(0)} s`,
  );
  console.log(
    '  holds: the true end lies in it (wanted: at least 85 of 100). Width: median ÷ that of one who knows the curve, always and while that one is no surer than 1 % of the span',
  );
  console.log(`  ${'streams'.padEnd(14)}  looks    holds  width  while open  width, counts of 1800`);
  for (const row of rows)
    console.log(
      `  ${row.name.padEnd(14)} ${String(row.looks).padStart(6)} ${(100 * row.holds).toFixed(1).padStart(6)} % ${row.ratio.toFixed(1).padStart(6)} ${row.openRatio.toFixed(1).padStart(6)} (${row.openLooks}) ${row.width.toFixed(0).padStart(16)}`,
    );
}
