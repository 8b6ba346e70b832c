/** Judges the settling watch on made-up streams whose true curve is known: those it was built for, and those it was not. */
import { performance } from 'node:perf_hooks';
import { hasStopped, SettlingWatch, STOPPED_FRAC } from '../core/src/settling/settlingWatch.ts';
import { approachAt, makeStream } from '../standins/src/settling/approachStream.ts';
import { HARD_FAMILIES, hardStream, type HardStream } from '../standins/src/settling/hardStreams.ts';

/** What a judgement needs to know of a stream. */
type Known = Pick<HardStream, 'spanCounts' | 'truth' | 'changesS' | 'lastsS' | 'samples'>;

/** Steady: it stays within this share of the span for so long. Stopped: within another share for the next minute. */
const STEADY = { frac: 0.02, forS: 900 } as const;
const STOPPED = { frac: STOPPED_FRAC, forS: 60 } as const;
/** A wait is counted where the true curve rests for this share of the time before the next change. */
const REST_SHARE = 0.4;
const LOOKS = 600;

type Judged = {
  readonly saidSteady: boolean;
  readonly falseSteady: boolean;
  /** The same, held against everything up to the next change. */
  readonly falseToTheEnd: boolean;
  readonly falseStopped: boolean;
  /** Time of "stopped moving" ÷ time from which the true curve stays within 1 % of the span of its end; infinite where it was never said. */
  readonly waits: readonly number[];
};

export function judge(stream: Known, paceS = 1): Judged {
  const { spanCounts, truth } = stream;
  const watch = new SettlingWatch({ spanCounts, pace: { everyS: paceS, phaseS: 0 } });
  const waits: number[] = [];
  let [saidSteady, falseSteady, falseToTheEnd, falseStopped] = [false, false, false, false];
  let at = 0;
  for (const [index, fromS] of stream.changesS.entries()) {
    const toS = (stream.changesS[index + 1] ?? stream.lastsS) - 1e-6;
    const lookAt = (look: number) => truth(fromS + ((toS - fromS) * look) / LOOKS);
    let last = LOOKS;
    while (last > 0 && Math.abs(lookAt(last) - lookAt(LOOKS)) <= STOPPED_FRAC * spanCounts) last -= 1;
    const restS = ((toS - fromS) * (last + 1)) / LOOKS;
    const rests = restS < (1 - REST_SHARE) * (toS - fromS);
    const leaves = (atS: number, { frac, forS }: { frac: number; forS: number }) =>
      Array.from({ length: 200 }, (_, look) => atS + (Math.min(forS, toS - atS) * (look + 1)) / 200).some(
        (laterS) => Math.abs(truth(laterS) - truth(atS)) > frac * spanCounts,
      );
    // What was said before a change and still stands is not new; it has to be withdrawn first.
    let [freshSteady, freshStopped] = [
      watch.settling().verdict !== 'steady',
      !hasStopped(watch.settling().verdict),
    ];
    let steadyS: number | null = null;
    let stoppedS: number | null = null;
    for (; at < stream.samples.length; at += 1) {
      const sample = stream.samples[at];
      if (!sample || sample.atS >= toS) break;
      watch.push(sample.atS, sample.value);
      const { verdict } = watch.settling();
      if (verdict !== 'steady') freshSteady = true;
      else if (freshSteady) steadyS ??= sample.atS;
      if (!hasStopped(verdict)) freshStopped = true;
      else if (freshStopped) stoppedS ??= sample.atS;
    }
    if (steadyS !== null) {
      saidSteady = true;
      falseSteady ||= leaves(steadyS, STEADY);
      falseToTheEnd ||= leaves(steadyS, { ...STEADY, forS: Infinity });
    }
    if (stoppedS !== null) falseStopped ||= leaves(stoppedS, STOPPED);
    if (rests && freshStopped) waits.push(stoppedS === null ? Infinity : (stoppedS - fromS) / restS);
  }
  return { saidSteady, falseSteady, falseToTheEnd, falseStopped, waits };
}

/** The streams that the watch was built for, in the shape of the others. */
function modelled(seed: number): Known {
  const { spanCounts, samples, approaches, lastsS } = makeStream(seed);
  return {
    spanCounts,
    samples,
    lastsS,
    changesS: approaches.map((one) => one.fromS),
    truth: (atS) => {
      const one = approachAt(approaches, atS);
      return one ? one.end + one.away(atS - one.fromS) : 0;
    },
  };
}

const quantile = (sorted: readonly number[], frac: number) =>
  sorted[Math.floor(frac * (sorted.length - 1))] ?? NaN;

export type Row = {
  readonly name: string;
  readonly streams: number;
  readonly saidSteady: number;
  readonly falseSteady: number;
  readonly falseToTheEnd: number;
  readonly falseStopped: number;
  readonly medianWait: number;
  readonly nineInTenWait: number;
};

function rowOf(name: string, judged: readonly Judged[]): Row {
  const share = (of: (one: Judged) => boolean) => judged.filter(of).length / judged.length;
  const waits = judged.flatMap((one) => one.waits).sort((a, b) => a - b);
  return {
    name,
    streams: judged.length,
    saidSteady: share((one) => one.saidSteady),
    falseSteady: share((one) => one.falseSteady),
    falseToTheEnd: share((one) => one.falseToTheEnd),
    falseStopped: share((one) => one.falseStopped),
    medianWait: quantile(waits, 0.5),
    nineInTenWait: quantile(waits, 0.9),
  };
}

/** Every family of streams, all of its streams counted. @param streams of each family */
export function settlingRows(streams: number): Row[] {
  const seeds = Array.from({ length: streams }, (_, at) => 7919 * (at + 1));
  return [
    rowOf(
      'as modelled',
      seeds.map((seed) => judge(modelled(seed))),
    ),
    ...HARD_FAMILIES.map((family) =>
      rowOf(
        family,
        seeds.map((seed) => judge(hardStream(family, seed))),
      ),
    ),
  ];
}

export function benchSettling(): void {
  const began = performance.now();
  const rows = settlingRows(100);
  console.log(
    `\nSettling, 100 seeded streams a family, none set aside, ${((performance.now() - began) / 1000).toFixed(0)} s`,
  );
  console.log(
    '  steady false: it left ±2 % of the span within the next quarter of an hour (wanted: at most 2 %); to the end: before the next change, however far off',
  );
  console.log('  stopped false: it moved by more than 1 % of the span within the next minute');
  console.log(
    '  wait: time of "stopped moving" ÷ time from which the true curve stays within 1 % of the span of its end (wanted: median at most 2.5)',
  );
  console.log(
    `  ${'streams'.padEnd(14)} steady said  false  to the end  stopped false  wait, median  9 in 10`,
  );
  const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
  for (const row of rows)
    console.log(
      `  ${row.name.padEnd(14)} ${percent(row.saidSteady).padStart(11)} ${percent(row.falseSteady).padStart(6)} ${percent(row.falseToTheEnd).padStart(11)} ${percent(row.falseStopped).padStart(14)} ${row.medianWait.toFixed(2).padStart(13)} ${row.nineInTenWait.toFixed(1).padStart(8)}`,
    );
}
