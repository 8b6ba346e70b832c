/** Judges the settling verdict on made-up streams whose true curve is known. */
import { performance } from 'node:perf_hooks';
import { SettlingWatch } from '../core/src/settling/settlingWatch.ts';
import { makeStream, type MadeStream } from '../standins/src/settling/approachStream.ts';

const STREAMS = 500;
/** Further than this share of the span from its end, a value called steady is called so falsely. */
const FALSE_FRAC = 0.02;
const WITHIN_FRAC = 0.01;

type First = {
  readonly awayFrac: number;
  /** The true value has moved by less than three times the noise since water was poured: nobody could have seen it. */
  readonly unseen: boolean;
  readonly ratio: number | null;
};

type Judged = {
  /** First "steady" in each approach: how far away it was, as a share of the span. */
  readonly firsts: readonly First[];
  /** Approaches that came to rest in the stream and never were called steady; and those whose beginning was never noticed. */
  readonly missed: number;
  readonly unnoticed: number;
  readonly late: number;
  readonly intervals: number;
  readonly held: number;
};

function judgeStream(stream: MadeStream): Judged {
  const watch = new SettlingWatch({ spanCounts: stream.spanCounts });
  const firsts: First[] = [];
  let missed = 0;
  let unnoticed = 0;
  let late = 0;
  let intervals = 0;
  let held = 0;
  let at = 0;
  for (const [index, approach] of stream.approaches.entries()) {
    const toS = stream.approaches[index + 1]?.fromS ?? stream.lastsS;
    let said = false;
    // What was said before a change and still stands is not new; it has to be withdrawn first.
    let fresh = watch.settling().verdict !== 'steady';
    let looked = 0;
    const restS = withinS(approach.away, WITHIN_FRAC * stream.spanCounts, toS - approach.fromS);
    for (; at < stream.samples.length; at += 1) {
      const sample = stream.samples[at];
      if (!sample || sample.atS >= toS) break;
      watch.push(sample.atS, sample.value);
      const { verdict, end } = watch.settling();
      const aheadS = sample.atS - approach.fromS;
      if (end && fresh && (looked += 1) % 5 === 0) {
        intervals += 1;
        if (approach.end >= end.low && approach.end <= end.high) held += 1;
      }
      if (verdict !== 'steady') fresh = true;
      else if (fresh && !said) {
        said = true;
        firsts.push({
          awayFrac: Math.abs(approach.away(aheadS)) / stream.spanCounts,
          unseen:
            index > 0 &&
            Math.abs(approach.away(0) - approach.away(aheadS)) < 3 * stream.noiseFrac * stream.spanCounts,
          ratio: restS === null ? null : aheadS / Math.max(restS, 1e-9),
        });
      }
    }
    const isLong = restS !== null && toS - approach.fromS > 2 * restS;
    if (isLong && !fresh) unnoticed += 1;
    else if (isLong && !said) missed += 1;
    // Not said within one and a half times is later than that, however late: it counts in the median.
    if (fresh && !said && restS !== null && toS - approach.fromS > 1.5 * restS) late += 1;
  }
  return { firsts, missed, unnoticed, late, intervals, held };
}

function withinS(away: (aheadS: number) => number, tolerance: number, lastsS: number): number | null {
  if (Math.abs(away(lastsS)) > tolerance) return null;
  let low = 0;
  let high = lastsS;
  for (let turn = 0; turn < 60; turn += 1) {
    const middle = (low + high) / 2;
    if (Math.abs(away(middle)) > tolerance) low = middle;
    else high = middle;
  }
  return high;
}

const quantile = (sorted: readonly number[], frac: number) =>
  sorted[Math.floor(frac * (sorted.length - 1))] ?? NaN;

export function benchSettling(): void {
  const began = performance.now();
  const streams = Array.from({ length: STREAMS }, (_, seed) => makeStream(7919 * (seed + 1)));
  const judged = streams.map((stream) => ({ stream, ...judgeStream(stream) }));
  const readings = streams.reduce((sum, stream) => sum + stream.samples.length, 0);
  const rows: [string, (stream: MadeStream) => boolean][] = [
    ['all', () => true],
    ['noise below 0.5 % of span', (one) => one.noiseFrac < 0.005],
    ['noise from 0.5 to 1.5 %', (one) => one.noiseFrac >= 0.005 && one.noiseFrac < 0.015],
    ['noise above 1.5 %', (one) => one.noiseFrac >= 0.015],
    ['a reading within 2 s', (one) => one.everyS < 2],
    ['a reading each 2 to 15 s', (one) => one.everyS >= 2 && one.everyS < 15],
    ['a reading each 15 to 60 s', (one) => one.everyS >= 15],
  ];
  console.log(
    `\nSettling, ${STREAMS} seeded streams, ${readings} readings, ${(((performance.now() - began) * 1000) / readings).toFixed(0)} µs a reading`,
  );
  console.log(
    '  false "steady": streams in which it was newly said more than 2 % of span from the end (wanted: at most 2 %)',
  );
  console.log(
    '  unseen: the same, within the first moments after a pour, before the true value has moved by three times the noise',
  );
  console.log(
    '  wait: time of "steady" ÷ time at which the true curve is within 1 % of span (wanted: median at most 1.5)',
  );
  console.log(
    `  ${'streams'.padEnd(28)}   n  false  unseen  median  9 in 10  never  unnoticed  interval holds`,
  );
  for (const [name, belongs] of rows) {
    const some = judged.filter((one) => belongs(one.stream));
    const isWrong = (first: First) => first.awayFrac > FALSE_FRAC;
    const wrong = some.filter((one) => one.firsts.some((first) => isWrong(first) && !first.unseen)).length;
    const unseen = some.filter((one) => one.firsts.some((first) => isWrong(first) && first.unseen)).length;
    const unnoticed = some.reduce((sum, one) => sum + one.unnoticed, 0);
    const ratios = some
      .flatMap((one) => [
        ...one.firsts.flatMap((first) => (first.ratio === null ? [] : [first.ratio])),
        ...new Array<number>(one.late).fill(Infinity),
      ])
      .sort((a, b) => a - b);
    const missed = some.reduce((sum, one) => sum + one.missed, 0);
    const [held, intervals] = some.reduce(([h, n], one) => [h + one.held, n + one.intervals], [0, 0]);
    const share = (count: number, of: number) => `${((100 * count) / Math.max(1, of)).toFixed(1)} %`;
    console.log(
      `  ${name.padEnd(28)} ${String(some.length).padStart(3)} ${share(wrong, some.length).padStart(6)} ${share(unseen, some.length).padStart(7)} ${quantile(ratios, 0.5).toFixed(2).padStart(7)} ${quantile(ratios, 0.9).toFixed(1).padStart(8)} ${String(missed).padStart(6)} ${String(unnoticed).padStart(10)} ${share(held, intervals).padStart(15)}`,
    );
  }
}
