import { daysLeft } from '@plain-trowel/core/dosing/reservoir';
import type { Reservoir } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { litresText } from '../../../../words/unitText.ts';

const WIDE = 96;
const HIGH = 150;
const TOP = 10;
const LEFT = 4;
/** More ticks than these would run together. */
const MOST_DAYS = 14;

/** A tank with its water, the minimum at which its lines stop, and a tick for each day that is left. */
export function TankPicture({
  tank,
  volumeMl,
  fullMl,
  usedMlPerDay,
}: {
  readonly tank: Reservoir;
  readonly volumeMl: number;
  readonly fullMl: number;
  readonly usedMlPerDay: number;
}) {
  const yOf = (ml: number) => TOP + HIGH * (1 - Math.min(1, Math.max(0, ml / fullMl)));
  const surface = yOf(volumeMl);
  const minimum = yOf(tank.minimumMl);
  const isLow = volumeMl <= tank.minimumMl;
  const left = Math.floor(daysLeft(volumeMl, tank.minimumMl, usedMlPerDay) ?? 0);
  const gap = ((HIGH * usedMlPerDay) / fullMl) * Math.max(1, left);
  // Ticks nearer than three pixels say nothing.
  const days = left > 0 && gap / left >= 3 ? Math.min(MOST_DAYS, left) : 0;
  return (
    <svg
      width={250}
      height={HIGH + TOP + 8}
      role="img"
      aria-label={`${tank.name}: ${litresText(volumeMl)} of ${litresText(fullMl)}; its lines stop at ${litresText(tank.minimumMl)}.`}
      className="block shrink-0 text-[12.5px] max-sm:order-last"
    >
      <rect
        x={LEFT}
        y={surface}
        width={WIDE}
        height={TOP + HIGH - surface}
        className={isLow ? 'fill-handle' : 'fill-rill'}
      />
      {minimum < TOP + HIGH && (
        <rect
          x={LEFT}
          y={Math.max(surface, minimum)}
          width={WIDE}
          height={TOP + HIGH - Math.max(surface, minimum)}
          fill="url(#band-low)"
        />
      )}
      <path
        d={`M${LEFT} ${TOP - 6}V${TOP + HIGH}H${LEFT + WIDE}V${TOP - 6}`}
        strokeWidth={2}
        className="fill-none stroke-ink"
      />
      <path
        d={`M${LEFT - 4} ${minimum}H${LEFT + WIDE + 12}`}
        strokeDasharray="5 4"
        strokeWidth={1.75}
        className="fill-none stroke-handle"
      />
      {Array.from({ length: days }, (_, at) => yOf(volumeMl - at * usedMlPerDay)).map((y) => (
        <path key={y} d={`M${LEFT + WIDE + 2} ${y}h9`} strokeWidth={1.25} className="fill-none stroke-ink" />
      ))}
      <text x={LEFT + WIDE + 18} y={Math.min(surface + 4, minimum - 12)} className="fill-ink font-semibold">
        {litresText(volumeMl)}
        {left > 0 && `, ${formatNumber(left)} ${left === 1 ? 'day' : 'days'}`}
      </text>
      <text x={LEFT + WIDE + 18} y={Math.min(TOP + HIGH, minimum + 4)} className="fill-handle">
        stops at {litresText(tank.minimumMl)}
      </text>
    </svg>
  );
}
