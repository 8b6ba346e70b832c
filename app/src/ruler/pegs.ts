import { meanOf } from '@plain-trowel/core/calibration/runPoint';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { PointOf, Run } from '@plain-trowel/core/garden/document/schema';
import type { RulerPeg } from './Marks.tsx';

const MOST = 10;
const SHORT: Readonly<Partial<Record<PointOf['condition'], string>>> = {
  'mixed soil': 'mixed',
  'pot on the scale': 'pot',
  'beside the meter': 'meter',
  'felt by hand': 'felt',
  'drained a day': 'drained',
  'plant hangs its leaves': 'leaves hang',
  'time to water': 'water',
  'watered enough': 'enough',
};

/** Pegs of a ruler: the references of the run under way, else of the calibration in use. What is left out stands hollow. */
export function rulerPegs(parts: PlotParts, run: Run | null): readonly RulerPeg[] {
  const points = run && run.points.length > 0 ? run.points : (parts.calibration?.points ?? []);
  return points
    .filter((point) => point.captures.length > 0)
    .slice(-MOST)
    .map((point) => ({
      id: point.id,
      counts: meanOf(point),
      label: point.felt ?? SHORT[point.condition] ?? point.condition,
      isOut: !point.used,
    }))
    .sort((a, b) => b.counts - a.counts);
}
