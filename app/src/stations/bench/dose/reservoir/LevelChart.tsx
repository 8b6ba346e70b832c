import { scaleLinear } from 'd3-scale';
import { reservoirOf, volumeIn } from '@plain-trowel/core/dosing/reservoir';
import type { Reservoir } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { Foot, LinesAcross } from '../../../../charts/Axes.tsx';
import { useLive } from '../../../../links/liveContext.ts';
import { litresText } from '../../../../words/unitText.ts';

const [WIDTH, HEIGHT, LEFT, TOP, RIGHT] = [300, 150, 46, 10, 10];
const POINTS = 60;

/** Water over what the sensor reads: the known levels, the curve between them, the minimum, and now. */
export function LevelChart({ tank }: { tank: Reservoir }) {
  const live = useLive();
  const curve = reservoirOf(tank.levels);
  if (!curve.ok) return null;
  const { knots, fullMl } = curve.value;
  const [low, high] = [knots[0]?.counts ?? 0, knots.at(-1)?.counts ?? 1];
  const x = scaleLinear([low, high], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([0, fullMl], [TOP + HEIGHT, TOP]);
  const path = Array.from({ length: POINTS + 1 }, (_, at) => low + ((high - low) * at) / POINTS)
    .map(
      (raw, at) => `${at === 0 ? 'M' : 'L'}${x(raw).toFixed(1)} ${y(volumeIn(curve.value, raw)).toFixed(1)}`,
    )
    .join('');
  const present = tank.channelId === null ? undefined : live.present.get(tank.channelId);
  const now = present && Math.min(high, Math.max(low, present.rawCounts));
  return (
    <svg
      width={WIDTH}
      height={TOP + HEIGHT + 36}
      role="img"
      aria-label={`Water in ${tank.name} over what its sensor reads, ${knots.length} known levels, full at ${litresText(fullMl)}`}
      className="block text-[12.5px]"
    >
      <LinesAcross
        scale={y}
        ticks={4}
        left={LEFT}
        right={WIDTH - RIGHT}
        text={(volumeMl) => formatNumber(volumeMl / 1000)}
      />
      <text x={LEFT - 6} y={TOP + HEIGHT + 18} textAnchor="end" className="fill-soft">
        litres
      </text>
      {tank.minimumMl > 0 && (
        <>
          <line
            x1={LEFT}
            x2={WIDTH - RIGHT}
            y1={y(tank.minimumMl)}
            y2={y(tank.minimumMl)}
            strokeDasharray="5 4"
            className="stroke-steel"
          />
          <text x={WIDTH - RIGHT} y={y(tank.minimumMl) - 4} textAnchor="end" className="fill-steel">
            minimum
          </text>
        </>
      )}
      <path d={path} fill="none" strokeWidth={2} className="stroke-rill" />
      {knots.map((knot) => (
        <rect
          key={knot.counts}
          x={x(knot.counts) - 3.5}
          y={y(knot.percent) - 3.5}
          width={7}
          height={7}
          className="fill-paper stroke-ink"
          strokeWidth={1.5}
        />
      ))}
      {now !== undefined && (
        <line x1={x(now)} x2={x(now)} y1={TOP} y2={TOP + HEIGHT} strokeWidth={2} className="stroke-handle" />
      )}
      <Foot scale={x} ticks={4} left={LEFT} right={WIDTH - RIGHT} y={TOP + HEIGHT} />
      <text x={WIDTH - RIGHT} y={TOP + HEIGHT + 33} textAnchor="end" className="fill-soft">
        sensor reads, raw
      </text>
    </svg>
  );
}
