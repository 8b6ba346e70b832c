import { scaleLinear } from 'd3-scale';
import { volumeOf, type DoseFit } from '@plain-trowel/core/dosing/doseFit';
import type { TrialOf } from '@plain-trowel/core/garden/edits/trials';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { Foot, LinesAcross } from '../../../charts/Axes.tsx';
import { useElementWidth } from '../../../ui/useElementWidth.ts';

const TOP = 24;
const HEIGHT = 180;
const LEFT = 52;
const RIGHT = 14;
const BAND = 41;

/** Run time against volume: the trials, the line through them, and where a further run falls 95 times in 100. */
export function DoseChart({ trials, fit }: { trials: readonly TrialOf[]; fit: DoseFit }) {
  const [ref, width] = useElementWidth<HTMLDivElement>(640);
  const longest = 1.1 * Math.max(fit.longestS, ...trials.map((trial) => trial.runS));
  const band = Array.from({ length: BAND }, (_, at) => {
    const runS = (at / (BAND - 1)) * longest;
    return { runS, ...volumeOf(fit, runS) };
  });
  const most = Math.max(
    ...trials.map((trial) => trial.volumeMl),
    ...band.map((one) => one.volumeMl + one.plusMinusMl),
  );
  const x = scaleLinear([0, longest], [LEFT, width - RIGHT]);
  const y = scaleLinear([0, most], [TOP + HEIGHT, TOP]);
  const path = (of: readonly { runS: number; ml: number }[]) =>
    of
      .map(
        (one, at) => `${at === 0 ? 'M' : 'L'}${x(one.runS).toFixed(1)} ${y(Math.max(0, one.ml)).toFixed(1)}`,
      )
      .join('');
  const upper = band.map((one) => ({ runS: one.runS, ml: one.volumeMl + one.plusMinusMl }));
  const lower = band.map((one) => ({ runS: one.runS, ml: one.volumeMl - one.plusMinusMl })).reverse();
  return (
    <div ref={ref} className="mt-3 w-full">
      <svg
        width={width}
        height={TOP + HEIGHT + 38}
        role="img"
        aria-label={`Volume against run time: ${trials.length} trials, ${formatNumber(1 / fit.secondsPerMl, 1)} ml a second after ${formatNumber(fit.tubeS, 1)} s. The trials are in the table.`}
        className="block text-[12.5px]"
      >
        <text x={LEFT} y={14} className="fill-soft">
          ml
        </text>
        <LinesAcross scale={y} ticks={4} left={LEFT} right={width - RIGHT} />
        <path d={`${path([...upper, ...lower])}Z`} className="fill-steel" opacity={0.16} />
        <path
          d={path(band.map((one) => ({ runS: one.runS, ml: one.volumeMl })))}
          fill="none"
          className="stroke-steel"
          strokeWidth={2}
        />
        {trials.map((trial) => (
          <circle
            key={trial.id}
            cx={x(trial.runS)}
            cy={y(trial.volumeMl)}
            r={5}
            className={trial.used ? 'fill-label stroke-ink' : 'fill-paper stroke-rule'}
            strokeWidth={1.5}
          />
        ))}
        <Foot
          scale={x}
          ticks={Math.max(3, Math.round(width / 110))}
          left={LEFT}
          right={width - RIGHT}
          y={TOP + HEIGHT}
        />
        <text x={width - RIGHT} y={TOP + HEIGHT + 33} textAnchor="end" className="fill-soft">
          run time, s
        </text>
      </svg>
    </div>
  );
}
