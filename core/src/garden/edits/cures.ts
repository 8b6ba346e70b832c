/** What can be done at once about something that stands against a run. */
import type { Finding } from '../../calibration/checks.ts';
import type { Condition } from '../../calibration/conditions.ts';
import { methodOf } from '../../calibration/methods.ts';
import { meanOf, typedCounts } from '../../calibration/runPoint.ts';
import { byId } from '../../quantity/byId.ts';
import type { Garden, PointOf, Run } from '../document/schema.ts';
import { exchangePoints, takeBackCapture } from './calibrations.ts';

export type Cure =
  | {
      readonly kind: 'take-back';
      readonly pointId: string;
      readonly at: number;
      readonly condition: Condition;
      readonly rawCounts: number;
    }
  | {
      readonly kind: 'exchange';
      readonly pointIds: readonly [string, string];
      readonly conditions: readonly [Condition, Condition];
    };

/** Of this many repeats the one that is off cannot be told: each is offered. */
const CANNOT_TELL = 2;

const takeBack = (point: PointOf, at: number): Cure => ({
  kind: 'take-back',
  pointId: point.id,
  at,
  condition: point.condition,
  rawCounts: typedCounts(point) ?? point.captures[at]?.rawCounts ?? 0,
});

/** The repeat furthest from the middle of all; of two, both. */
function furthest(point: PointOf): Cure[] {
  const { captures } = point;
  if (captures.length <= CANNOT_TELL) return captures.map((_, at) => takeBack(point, at));
  const sorted = captures.map((one) => one.rawCounts).sort((a, b) => a - b);
  const middle = sorted[Math.floor(sorted.length / 2)] ?? 0;
  const off = captures.map((one) => Math.abs(one.rawCounts - middle));
  return [takeBack(point, off.indexOf(Math.max(...off)))];
}

const newest = (points: readonly PointOf[]): Cure[] => {
  const [last] = points
    .flatMap((point) => point.captures.map((capture, at) => ({ point, at, takenAt: capture.takenAt })))
    .sort((a, b) => b.takenAt.localeCompare(a.takenAt));
  return last ? [takeBack(last.point, last.at)] : [];
};

/** What would cure a finding, best first; nothing where only a person can tell. */
export function curesOf(run: Run, finding: Finding): readonly Cure[] {
  const points = finding.pointIds.flatMap((id) => byId(run.points, id) ?? []);
  switch (finding.kind) {
    case 'repeats-apart':
      return points.flatMap(furthest);
    case 'used-twice':
    case 'same-readings':
    case 'span-too-small':
      return newest(points);
    case 'at-the-rail':
      return points.flatMap((point) =>
        point.captures.flatMap((one, at) => (one.rawCounts === finding.counts ? [takeBack(point, at)] : [])),
      );
    case 'runs-the-other-way': {
      // Only where a point stands for what it is by its name: what was weighed or typed says by itself how wet it is.
      if (methodOf(run.method).openEnded || methodOf(run.method).typed) return [];
      const sorted = [...points].sort((a, b) => meanOf(a) - meanOf(b));
      const [low, high] = [sorted[0], sorted.at(-1)];
      return low && high && low !== high
        ? [
            {
              kind: 'exchange',
              pointIds: [low.id, high.id],
              conditions: [low.condition, high.condition],
            },
          ]
        : [];
    }
    default:
      return [];
  }
}

export const applyCure = (garden: Garden, channelId: string, cure: Cure): Garden =>
  cure.kind === 'take-back'
    ? takeBackCapture(garden, channelId, cure.pointId, cure.at)
    : exchangePoints(garden, channelId, ...cure.pointIds);
