import { byId } from '@plain-trowel/core/quantity/byId';
import type { Evenness } from '@plain-trowel/core/dosing/outlets';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { useElementWidth } from '../../../../ui/useElementWidth.ts';

const LEAST_CELL = 82;
const MOST_CELL = 150;
const TUBE_Y = 14;
const CUP_TOP = 52;
const CUP_HIGH = 64;
const CUP_WIDE = 46;
const NARROWER = 5;

/** The line's tube with a cup under each outlet, filled by what it gave; the dashed line is what each would hold if all were equal. */
export function OutletPicture({ line, even }: { line: WaterLine; even: Evenness | null }) {
  const { garden } = useGarden();
  const [ref, width] = useElementWidth<HTMLDivElement>(700);
  const { outlets } = line;
  if (outlets.length === 0) return null;
  const cell = Math.min(MOST_CELL, Math.max(LEAST_CELL, (width - 30) / outlets.length));
  const full = 1.15 * Math.max(...outlets.map((one) => one.cupMl ?? 0), 1e-9);
  const measured = outlets.filter((one) => one.cupMl !== null);
  const shareOf = (outlet: (typeof outlets)[number]) => even?.sharesPercent[measured.indexOf(outlet)];
  const yOf = (ml: number) => CUP_TOP + CUP_HIGH * (1 - ml / full);
  const total = 24 + cell * outlets.length;
  return (
    <div ref={ref} className="mt-3">
      <Scroll label="Tube and cups">
        <svg
          width={total}
          height={CUP_TOP + CUP_HIGH + 58}
          role="img"
          aria-label={`Tube of ${line.name}. ${outlets
            .map((one) =>
              one.cupMl === null
                ? `${one.name}: not measured`
                : `${one.name}: ${formatVolume(one.cupMl)}, ${formatNumber(shareOf(one) ?? 0, 0)} % of all`,
            )
            .join('; ')}.`}
          className="block text-[12.5px]"
        >
          <path
            d={`M2 ${TUBE_Y}H${24 + cell * (outlets.length - 0.5)}`}
            strokeWidth={7}
            className="fill-none stroke-steel"
          />
          {outlets.map((outlet, at) => {
            const x = 24 + cell * (at + 0.5);
            const half = CUP_WIDE / 2;
            const share = shareOf(outlet);
            const ml = outlet.cupMl;
            const surface = ml === null ? null : yOf(ml);
            // A cup is narrower at its foot.
            const inset = surface === null ? 0 : (NARROWER * (surface - CUP_TOP)) / CUP_HIGH;
            return (
              <g key={outlet.id}>
                <path
                  d={`M${x} ${TUBE_Y}V${CUP_TOP - 14}`}
                  strokeWidth={4}
                  className="fill-none stroke-steel"
                />
                {surface !== null && ml !== null && ml > 0 && (
                  <>
                    <circle cx={x} cy={CUP_TOP - 6} r={2.5} className="fill-rill" />
                    <path
                      d={`M${x - half + inset} ${surface}L${x - half + NARROWER} ${CUP_TOP + CUP_HIGH}H${x + half - NARROWER}L${x + half - inset} ${surface}Z`}
                      className="fill-rill"
                    />
                  </>
                )}
                <path
                  d={`M${x - half} ${CUP_TOP}L${x - half + NARROWER} ${CUP_TOP + CUP_HIGH}H${x + half - NARROWER}L${x + half} ${CUP_TOP}`}
                  strokeWidth={1.75}
                  strokeDasharray={ml === null ? '4 4' : undefined}
                  className="fill-none stroke-ink"
                />
                {even && ml !== null && (
                  <path
                    d={`M${x - half - 7} ${yOf(even.meanMl)}H${x + half + 7}`}
                    strokeDasharray="4 3"
                    strokeWidth={1.5}
                    className="fill-none stroke-handle"
                  />
                )}
                <text x={x} y={CUP_TOP + CUP_HIGH + 17} textAnchor="middle" className="num fill-ink">
                  {ml === null
                    ? 'not measured'
                    : `${formatVolume(ml)}${share === undefined ? '' : `, ${formatNumber(share, 0)} %`}`}
                </text>
                <text x={x} y={CUP_TOP + CUP_HIGH + 33} textAnchor="middle" className="fill-ink">
                  {short(outlet.name)}
                </text>
                <text x={x} y={CUP_TOP + CUP_HIGH + 49} textAnchor="middle" className="fill-soft">
                  {short(byId(garden.plots, outlet.plotId)?.name ?? 'no plot')}
                </text>
              </g>
            );
          })}
        </svg>
      </Scroll>
      {even && (
        <p className="text-[13.5px] text-soft">
          Dashed: what each cup would hold if all outlets were equal, {formatVolume(even.meanMl)}. Percent are
          shares of all that came.
        </p>
      )}
    </div>
  );
}

/** As much of a name as fits under a cup. */
const short = (name: string): string => (name.length > 13 ? `${name.slice(0, 12)}…` : name);
