import { formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';
import type { NeedBeside } from '@plain-trowel/core/dosing/needBeside';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useElementWidth } from '../../../../ui/useElementWidth.ts';

const TOP = 24;
const HIGH = 26;
/** More marks than these would run together. */
const MOST_DOSES = 40;

/** One bar: what the line may give in a day, in its doses, and on it what the plot drinks, as far as that is known. */
export function NeedBar({
  needMl,
  beside,
  line,
  share,
}: {
  readonly needMl: number;
  readonly beside: NeedBeside;
  readonly line: WaterLine;
  /** Of the line's water that reaches the plot, 0..1. */
  readonly share: number;
}) {
  const [ref, width] = useElementWidth<HTMLDivElement>(640);
  const { allowedMl, leastMl, mostMl: highMl, doseMl: ownDose, dosesAllowed, isShort } = beside;
  const doses = dosesAllowed ?? 0;
  const mostMl = 1.08 * Math.max(allowedMl, highMl);
  const x = (ml: number) => 1 + ((width - 2) * ml) / mostMl;
  const anchor = (ml: number) => (x(ml) > width - 130 ? 'end' : x(ml) < 60 ? 'start' : 'middle');
  return (
    <figure ref={ref} className="mt-3 max-w-[680px]">
      <svg
        width={width}
        height={TOP + HIGH + 22}
        role="img"
        aria-label={`A day drinks about ${formatVolume(needMl)}, somewhere from ${formatVolume(leastMl)} to ${formatVolume(highMl)}; the line may give ${formatVolume(allowedMl)}.`}
        className="block text-[12.5px]"
      >
        <rect
          x={1}
          y={TOP}
          width={Math.max(1, x(allowedMl) - 1)}
          height={HIGH}
          className={`stroke-ink ${isShort ? 'fill-label' : 'fill-rill/25'}`}
        />
        {ownDose !== null &&
          doses > 1 &&
          doses <= MOST_DOSES &&
          Array.from({ length: doses }, (_, at) => x((at + 1) * ownDose)).map((at) => (
            <path
              key={at}
              d={`M${at} ${TOP + HIGH}v-9`}
              strokeWidth={1.25}
              className="fill-none stroke-ink"
            />
          ))}
        <path
          d={`M${x(leastMl)} ${TOP + 9}H${x(highMl)}m0 -5v10M${x(leastMl)} ${TOP + 4}v10`}
          strokeWidth={1.75}
          className="fill-none stroke-handle"
        />
        <path
          d={`M${x(needMl)} ${TOP - 5}V${TOP + HIGH}`}
          strokeWidth={3}
          className="fill-none stroke-handle"
        />
        <text x={x(needMl)} y={TOP - 10} textAnchor={anchor(needMl)} className="fill-handle font-semibold">
          drinks about {formatVolume(Number(needMl.toPrecision(2)))}
        </text>
        <text x={x(allowedMl)} y={TOP + HIGH + 17} textAnchor={anchor(allowedMl)} className="fill-ink">
          may get {formatVolume(allowedMl)} a day
        </text>
      </svg>
      <figcaption className="text-[13.5px] text-soft">
        The bar is what {line.name} may give this plot in a day
        {doses > 1 && ownDose !== null ? `, with a mark for each dose of ${formatVolume(ownDose)}` : ''}
        {share < 1 ? ` (${formatNumber(100 * share, 0)} % of its water, by the cups)` : ''}. The red stroke is
        what it drinks, its ends half and twice of that: the estimate is no better.
      </figcaption>
    </figure>
  );
}
