/**
 * Watches one stream and says whether its reading can be trusted yet: settling (with the end value and the wait), stopped moving, proved steady,
 * drifting, disturbed.
 *
 * Two words for two uses. *Stopped* (good enough for air and water): as far as can be seen the way is over to 1 % of the span; a slow wave or creep is not
 * ruled out. *Steady*: beside that, rest was watched long enough to rule them out (`rest`).
 *
 * The fit itself is in `approach`. Here is what surrounds it: single wild readings are kept out, the noise is estimated from second differences (so
 * that neither a drift nor a settling counts as noise), and a change is noticed, by two or three readings in a row far from what was foreseen or by a small
 * lasting one (a cumulative sum of the surprises, Page 1954). After a change a new approach begins.
 *
 * Mutable on purpose, like the stream's ring: fifty lines a second must cost little.
 */
import { spreadOf } from '../signal/noise.ts';
import { quantisationSigma, stepOf } from '../signal/resolution.ts';
import {
  beliefFurther,
  DRIFT_FROM_S,
  endOf,
  fitApproach,
  foreseen,
  leftAfter,
  slopeNow,
  type Approach,
  type Curve,
} from './approach.ts';
import { Bins } from './bins.ts';
import { mixtureQuantile } from '../quantity/normal.ts';
import { isAtRest, neededRestS } from './rest.ts';

export const SETTLING_VERDICTS = [
  'watching',
  'settling',
  'stopped',
  'steady',
  'drifting',
  'disturbed',
] as const;
export type SettlingVerdict = (typeof SETTLING_VERDICTS)[number];

/** Whether a reading has come to its end, as far as can be seen: proved or not. */
export const hasStopped = (verdict: SettlingVerdict | undefined): boolean =>
  verdict === 'stopped' || verdict === 'steady';

export type Settling = {
  readonly verdict: SettlingVerdict;
  /** End value with the interval that holds it nine times in ten, counts; null while nothing can be said. */
  readonly end: { readonly counts: number; readonly low: number; readonly high: number } | null;
  /** Time until the true value is within 1 % of the span of its end: as likely as not, and nine times in ten, s. */
  readonly left: { readonly likelyS: number; readonly atMostS: number } | null;
  /** True value now, noise smoothed out, and its standard deviation, counts. */
  readonly now: { readonly counts: number; readonly sigma: number } | null;
  /** Drift of the true value now, counts per minute. */
  readonly driftCountsPerMin: number;
  /** Noise of one reading, counts. */
  readonly noiseCounts: number;
  /** Distance from the end value at which the reading counts as settled, counts. */
  readonly toleranceCounts: number;
  /** Belief that it is still further away than the tolerance, 0..1. */
  readonly beliefFurther: number;
  /** How long the present approach has been watched, s, and readings in it. */
  readonly watchedS: number;
  readonly readings: number;
  /** Wild readings left out since the watch began. */
  readonly spikes: number;
};

export type SettlingOptions = {
  /** The reading's way from dry to wet, counts, > 0. */
  readonly spanCounts: number;
  /** How near to the end value is near enough, as a share of the span. */
  readonly toleranceFrac?: number;
  /** Least time between two fits, s, and how long the first one waits; for many streams at once, so that they take turns. */
  readonly pace?: { readonly everyS: number; readonly phaseS: number };
};

/** Nearness at which a reading has stopped moving. */
export const STOPPED_FRAC = 0.01;
/** "Stopped" is said below this doubt, and withdrawn above the other. */
const STOPPED_DOUBT = 0.2;
const STOPPED_DOUBT_BACK = 0.6;
/** Nearness of what is steady: 1½ % of the span, about what a second look at the same soil differs by. */
export const TOLERANCE_FRAC = 0.015;
/** "Steady" is said below this doubt, and withdrawn above the other. */
const DOUBT = 0.035;
const DOUBT_BACK = 0.3;
/** A reading this many standard deviations from what was foreseen is wild, or the first of a change. */
const WILD = 4.5;
/** Slack and threshold of the cumulative sum, in standard deviations. */
const SLACK = 0.7;
const ALARM = 11;
/** Below this the sum says nothing. */
const CALM = 3;
/** Noise believed before there is any, as a share of the span, and how many readings that belief is worth. */
const NOISE_BEFORE = 0.008;
const NOISE_BEFORE_WORTH = 4;
/** Least noise: no converter and no probe is better than this share of the span. */
const LEAST_NOISE = 0.0003;
const NOISE_READINGS = 64;
/** From this distance of readings on, a wild one is called a disturbance until the next has told; a faster stream tells soon enough. */
const SLOW_S = 2;
/** A change is believed after three wild readings in a row, on a stream as slow as this after two: a third would come too late. */
const VERY_SLOW_S = 15;
const LEAST_READINGS = 4;
/** So many readings of an approach are fitted one by one, where the pace lets them. */
const EARLY = 12;
/** Readings from which on an approach that is left is believed. */
const WELL_KNOWN = 30;
/** The fit is made again after a second, on a long approach after this share of its time: what was foreseen still holds between. */
const REFIT_S = 1;
const REFIT_FRAC = 0.025;
const SECOND_LOOK_FRAC = 0.01;
const RECENT = 240;
/** Older readings of a long approach are let go. */
const LONGEST_S = 7200;
/** No end value is named while its interval is wider than this share of the span. */
const WIDEST = 0.3;

type Sample = { readonly atS: number; readonly value: number };

export class SettlingWatch {
  private readonly spanCounts: number;
  private readonly toleranceCounts: number;
  private readonly pace: { readonly everyS: number; readonly phaseS: number };
  private bins = new Bins();
  private recent: Sample[] = [];
  private approach: Approach | null = null;
  private suspects: Sample[] = [];
  private sumUp = 0;
  private sumDown = 0;
  private upSinceS = 0;
  private downSinceS = 0;
  /** A wild reading came, and those after it have not yet shown that it stood alone. */
  private shaken = false;
  private spikes = 0;
  private startS = 0;
  private notBeforeS = -Infinity;
  /** Usual distance of readings, s. */
  private everyS = 0;
  private changed = false;
  private noise = 0;
  /** Step in which the readings come, counts; 0 while none was seen. */
  private stepCounts = 0;
  private doubt = 1;
  private isSteady = false;
  private wasSure = false;
  private isStopped = false;
  private wasNear = false;
  private cached: { of: Approach | null; disturbed: boolean; settling: Settling } | null = null;

  constructor(options: SettlingOptions) {
    this.spanCounts = options.spanCounts;
    this.pace = options.pace ?? { everyS: REFIT_S, phaseS: 0 };
    this.toleranceCounts = (options.toleranceFrac ?? TOLERANCE_FRAC) * options.spanCounts;
  }

  /** @param atS time on any clock that rises, s. A reading that is no number, or older than the last, is left out. */
  push(atS: number, value: number): void {
    const last = this.suspects.at(-1) ?? this.recent.at(-1);
    if (!Number.isFinite(value) || !Number.isFinite(atS) || (last && atS < last.atS)) return;
    const sample = { atS, value };
    if (last) this.everyS += 0.1 * (Math.min(atS - last.atS, 3 * this.everyS || Infinity) - this.everyS);
    const z = this.surprise(sample);
    if (Math.abs(z) < WILD) {
      this.spikes += this.suspects.length;
      this.suspects = [];
      this.admit(sample, z);
      if (Math.max(this.sumUp, this.sumDown) < CALM) this.shaken = false;
      return;
    }
    this.shaken = true;
    const [first] = this.suspects;
    if (first && Math.sign(this.surprise(first)) !== Math.sign(z)) {
      this.spikes += this.suspects.length;
      this.suspects = [];
    }
    this.suspects.push(sample);
    if (this.suspects.length >= (this.everyS > VERY_SLOW_S ? 2 : 3)) this.begin(this.suspects);
  }

  /** What can be said now. */
  settling(): Settling {
    const key = this.approach;
    const disturbed = this.isDisturbed();
    if (this.cached?.of !== key || this.cached.disturbed !== disturbed)
      this.cached = { of: key, disturbed, settling: this.judge() };
    const last = this.suspects.at(-1) ?? this.recent.at(-1);
    return {
      ...this.cached.settling,
      watchedS: last ? last.atS - this.startS : 0,
      readings: this.bins.readings,
      spikes: this.spikes,
    };
  }

  /** Time until the true value is within a share of the span of its end; null while no end can be named. */
  within(toleranceFrac: number): Settling['left'] {
    const { end } = this.settling();
    return end && this.approach && timeLeft(this.approach.curves, toleranceFrac * this.spanCounts);
  }

  /** Standard deviations between a reading and what was foreseen for it; 0 while nothing can be foreseen. */
  private surprise(sample: Sample): number {
    if (!this.approach || this.bins.readings < LEAST_READINGS) return 0;
    const { mean, sigma } = foreseen(this.approach, sample.atS - this.approach.atS);
    return (sample.value - mean) / Math.hypot(sigma, this.lastingNoise());
  }

  /** Noise of a reading as if each were independent: more than what differs from one to the next where they carry over what the one before had. */
  private lastingNoise(): number {
    return Math.max(this.noise, this.approach?.sigma ?? 0);
  }

  private admit(sample: Sample, z: number): void {
    if (this.recent.length === 0) this.startS = sample.atS;
    this.recent.push(sample);
    if (this.recent.length > RECENT) this.recent = this.recent.slice(-RECENT / 2);
    this.bins.push(sample.atS, sample.value);
    this.bins.dropBefore(sample.atS - LONGEST_S);
    if (this.bins.readings > 8 && this.lastingChange(sample, z)) return;
    const sinceFitS = this.approach ? sample.atS - this.approach.atS : Infinity;
    if (!this.approach && sample.atS - this.startS < this.pace.phaseS) return;
    const sinceS = sample.atS - this.startS;
    const awaitsSecond =
      (this.wasNear && !this.isStopped) || (this.wasSure && !this.isSteady && sinceS >= neededRestS(sinceS));
    const share = awaitsSecond ? SECOND_LOOK_FRAC : REFIT_FRAC;
    const dueS = Math.max(this.pace.everyS, share * sinceS);
    const early = this.bins.readings <= EARLY && sinceFitS >= this.pace.everyS - REFIT_S;
    if (sinceFitS >= dueS || early) this.refit();
  }

  /** Adds a surprise to the cumulative sums; a lasting one begins a new approach where the sum began to grow. */
  private lastingChange(sample: Sample, z: number): boolean {
    if (this.sumUp === 0) this.upSinceS = sample.atS;
    if (this.sumDown === 0) this.downSinceS = sample.atS;
    this.sumUp = Math.max(0, this.sumUp + z - SLACK);
    this.sumDown = Math.max(0, this.sumDown - z - SLACK);
    if (this.sumUp < ALARM && this.sumDown < ALARM) return false;
    const sinceS = this.sumUp >= ALARM ? this.upSinceS : this.downSinceS;
    this.begin(this.recent.filter((one) => one.atS >= sinceS));
    return true;
  }

  private begin(samples: readonly Sample[]): void {
    this.notBeforeS = this.restOfOld(samples[0]?.atS ?? 0);
    this.bins = new Bins();
    for (const one of samples) this.bins.push(one.atS, one.value);
    const known = this.recent.at(-1)?.atS ?? -Infinity;
    this.recent.push(...samples.filter((one) => one.atS > known));
    this.startS = samples[0]?.atS ?? this.startS;
    this.suspects = [];
    this.shaken = false;
    this.sumUp = 0;
    this.sumDown = 0;
    this.changed = true;
    this.isSteady = false;
    this.wasSure = false;
    this.isStopped = false;
    this.wasNear = false;
    this.refit();
  }

  /** A slow way that was still going on when the new approach began goes on beneath it: nothing is steady before its likely end. */
  private restOfOld(atS: number): number {
    const { approach } = this;
    if (!approach || this.isSteady || this.bins.readings < WELL_KNOWN) return this.notBeforeS;
    const { likelyS } = timeLeft(approach.curves, this.toleranceCounts);
    return Number.isFinite(likelyS)
      ? Math.max(this.notBeforeS, atS + Math.min(likelyS, LONGEST_S))
      : this.notBeforeS;
  }

  private refit(): void {
    this.noise = this.estimateNoise();
    this.approach =
      this.bins.all.length < 2
        ? null
        : fitApproach(this.bins.all, this.spanCounts, this.noise, quantisationSigma(this.stepCounts));
    this.doubt = this.approach ? beliefFurther(this.approach, this.toleranceCounts) : 1;
    const further = this.approach ? beliefFurther(this.approach, STOPPED_FRAC * this.spanCounts) : 1;
    const atS = this.approach?.atS ?? 0;
    // Granted only after a second look, and not while surprises add up.
    const calm = Math.max(this.sumUp, this.sumDown) < CALM && this.bins.readings >= LEAST_READINGS;
    const isNear = further < STOPPED_DOUBT;
    this.isStopped = this.isStopped ? further < STOPPED_DOUBT_BACK : calm && isNear && this.wasNear;
    this.wasNear = isNear;
    const isSure = this.doubt < DOUBT;
    this.isSteady = this.isSteady
      ? this.doubt < DOUBT_BACK
      : calm &&
        isSure &&
        this.wasSure &&
        atS >= this.notBeforeS &&
        isAtRest(this.bins.all, this.spanCounts, this.lastingNoise());
    this.wasSure = isSure;
  }

  /** Noise of one reading from second differences, counts; a belief stands in while there are few. */
  private estimateNoise(): number {
    const values = this.recent.slice(-NOISE_READINGS).map((one) => one.value);
    this.stepCounts = stepOf(values) ?? this.stepCounts;
    const second = values.slice(2).map((value, at) => value - 2 * (values[at + 1] ?? 0) + (values[at] ?? 0));
    const measured = second.length < 2 ? 0 : spreadOf(second) / Math.sqrt(6);
    const before = NOISE_BEFORE * this.spanCounts;
    const worth = NOISE_BEFORE_WORTH;
    const mixed = Math.sqrt((second.length * measured ** 2 + worth * before ** 2) / (second.length + worth));
    const settledIn = second.length >= NOISE_READINGS / 2 ? measured : mixed;
    // What comes in coarse steps is known no better than a step, however calm it is.
    return Math.max(settledIn, LEAST_NOISE * this.spanCounts, quantisationSigma(this.stepCounts));
  }

  private isDisturbed(): boolean {
    return this.everyS > SLOW_S && (this.suspects.length > 0 || this.shaken);
  }

  private judge(): Settling {
    const { approach, toleranceCounts } = this;
    const last = this.suspects.at(-1) ?? this.recent.at(-1);
    const readings = this.bins.readings;
    const common = {
      noiseCounts: this.noise,
      toleranceCounts,
      watchedS: last ? last.atS - this.startS : 0,
      readings,
      spikes: this.spikes,
    };
    if (!approach || readings < LEAST_READINGS)
      return {
        ...common,
        verdict: this.changed ? 'disturbed' : 'watching',
        end: null,
        left: null,
        now: null,
        driftCountsPerMin: 0,
        beliefFurther: 1,
      };
    const { curves } = approach;
    // Readings in coarse steps: no averaging takes that away.
    const rounding = this.stepCounts > this.noise ? quantisationSigma(this.stepCounts) : 0;
    const ends = curves.map((one) => {
      const { mean, sigma } = endOf(one);
      return { share: one.share, mean, sigma: Math.hypot(sigma, rounding) };
    });
    const end = {
      counts: mixtureQuantile(ends, 0.5),
      low: mixtureQuantile(ends, 0.05),
      high: mixtureQuantile(ends, 0.95),
    };
    const isKnown = end.high - end.low < WIDEST * this.spanCounts;
    const drift = 60 * meanOver(curves, slopeNow);
    const drifts = meanOver(curves, (one) => Number(isDrift(one, toleranceCounts)));
    const now = foreseen(approach, 0);
    const verdict = this.isDisturbed()
      ? 'disturbed'
      : this.isSteady
        ? 'steady'
        : drifts > 0.5
          ? 'drifting'
          : this.isStopped
            ? 'stopped'
            : 'settling';
    const hasEnd = isKnown && verdict !== 'drifting';
    return {
      ...common,
      verdict,
      end: hasEnd ? end : null,
      left: hasEnd ? timeLeft(curves, STOPPED_FRAC * this.spanCounts) : null,
      now: { counts: now.mean, sigma: now.sigma },
      driftCountsPerMin: drift,
      beliefFurther: this.doubt,
    };
  }
}

const meanOver = (curves: readonly Curve[], of: (curve: Curve) => number): number =>
  curves.reduce((sum, curve) => sum + curve.share * of(curve), 0);

/** A curve that goes on without an end in sight: a straight line, or a part slower than anything that settles; and its way is sure. */
function isDrift(curve: Curve, toleranceCounts: number): boolean {
  const slow = curve.parts
    .filter((part) => part.timeConstantS >= DRIFT_FROM_S)
    .reduce((sum, part) => sum + Math.abs(part.amplitude), 0);
  const isEndless = curve.lineCountsPerS !== 0 || slow > toleranceCounts;
  return isEndless && Math.abs(curve.left) > Math.max(toleranceCounts, 2 * curve.leftSigma);
}

/** Weighted quantiles of the time that each curve takes to come within the tolerance. */
function timeLeft(curves: readonly Curve[], toleranceCounts: number): { likelyS: number; atMostS: number } {
  const times = curves
    .map((curve) => ({ share: curve.share, timeS: timeWithin(curve, toleranceCounts) }))
    .sort((a, b) => a.timeS - b.timeS);
  const quantile = (frac: number) => {
    let sum = 0;
    for (const one of times) {
      sum += one.share;
      if (sum >= frac) return one.timeS;
    }
    return times.at(-1)?.timeS ?? 0;
  };
  return { likelyS: quantile(0.5), atMostS: quantile(0.9) };
}

/** First time after which the way still to go stays within the tolerance, s; found by halving. */
function timeWithin(curve: Curve, toleranceCounts: number): number {
  const leftAt = (aheadS: number) => Math.abs(leftAfter({ ...curve, lineCountsPerS: 0 }, aheadS));
  const slowest = Math.max(0, ...curve.parts.map((part) => part.timeConstantS));
  if (Math.abs(curve.left) > toleranceCounts && curve.lineCountsPerS !== 0) return Infinity;
  if (leftAt(0) <= toleranceCounts) return 0;
  let low = 0;
  let high = 12 * slowest;
  for (let turn = 0; turn < 40 && high - low > 0.5; turn += 1) {
    const middle = (low + high) / 2;
    if (leftAt(middle) > toleranceCounts) low = middle;
    else high = middle;
  }
  return high;
}
