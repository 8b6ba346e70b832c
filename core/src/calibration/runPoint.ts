/** What a run of calibrating has gathered so far. */
import type { BandName } from '../quantity/bands.ts';
import type { Condition, MethodId } from './conditions.ts';
import type { SoilFacts } from './convertPercent.ts';
import type { PercentKind } from '../quantity/percentKind.ts';
import type { Inputs } from './methods.ts';
import { widthOf, type Capture } from './points.ts';

/** One condition of a run, captured once or again and again. */
export type RunPoint = {
  readonly id: string;
  readonly condition: Condition;
  /** What was typed with it: a weight, what a meter shows, a known content. */
  readonly typed: number | null;
  readonly felt: BandName | null;
  readonly temperatureC: number | null;
  /** Left out of the fit by hand; it stays in the record. */
  readonly used: boolean;
  readonly captures: readonly (Capture & {
    readonly takenAt: string;
    readonly supplyV: number;
    readonly boardId: string;
    /** Seconds of readings that it is the middle of. */
    readonly windowS?: number;
  })[];
};

export type Run = {
  readonly method: MethodId;
  readonly inputs: Inputs;
  readonly points: readonly RunPoint[];
  /** Another kind of percent than the method gives, and what it takes to get there. */
  readonly convert: { readonly to: PercentKind; readonly soil: SoilFacts } | null;
};

/** Conditions whose raw value may be typed in place of what the probe reads. */
const TYPED_COUNTS: readonly Condition[] = ['time to water', 'watered enough'];
type Read = Pick<RunPoint, 'captures' | 'condition' | 'typed'>;

/** The raw value that a person typed for a condition; null where the captures stand for it. */
export const typedCounts = ({ condition, typed }: Pick<RunPoint, 'condition' | 'typed'>): number | null =>
  TYPED_COUNTS.includes(condition) ? typed : null;

/** Raw value of a condition: what was typed for it, else the mean of its captures, counts. @param point with one capture at least */
export const meanOf = (point: Read): number =>
  typedCounts(point) ?? point.captures.reduce((sum, one) => sum + one.rawCounts, 0) / point.captures.length;

/** How far the conditions lie apart, counts. Repeats of one condition are no span. */
export const spanOfMeans = (points: readonly Read[]): number => widthOf(points.map(meanOf));
