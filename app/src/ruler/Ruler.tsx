/**
 * The ruler: one bar for one probe in one plot. Raw counts along the lower edge, as the board sees them; percent with its kind along the
 * upper; pegs for the references, flags for the limits, patterned stretches for the bands, a plumb line for the reading with its noise
 * as a width.
 */
import type { BandEdges } from '@plain-trowel/core/control/bands';
import { bandsOf } from '@plain-trowel/core/control/bands';
import { countsAtPercent, type TwoPoint } from '@plain-trowel/core/calibration/twoPoint';
import type { LimitName, Limits } from '@plain-trowel/core/control/limits';
import { formatCounts, formatPercent } from '@plain-trowel/core/quantity/format';
import { useElementWidth } from '../ui/useElementWidth.ts';
import { LimitFlag } from './LimitFlag.tsx';
import { bandFill } from './patterns.tsx';
import { rulerScale, type RulerScale } from './rulerScale.ts';

export type RulerPeg = { readonly counts: number; readonly label: string };
export type RulerNow = {
  readonly counts: number;
  readonly noiseCounts: number;
  readonly percent: number | null;
};

export type RulerProps = {
  readonly label: string;
  readonly fullScaleCounts: number;
  readonly fit: TwoPoint | null;
  readonly edges: BandEdges | null;
  readonly pegs?: readonly RulerPeg[];
  readonly limits?: Limits | null;
  readonly now: RulerNow | null;
  /** Given, the flags can be moved. */
  readonly onMoveLimit?: (which: LimitName, tenths: number) => void;
  readonly onLimitMoved?: () => void;
};

const LEFT = 12;
const NOW_Y = 14;
const FLAG_Y = 32;
const PERCENT_Y = 66;
const BAR_Y = 84;
const BAR_HEIGHT = 62;
const BAR_END = BAR_Y + BAR_HEIGHT;
const HEIGHT = 208;

export function Ruler(props: RulerProps) {
  const [ref, width] = useElementWidth<HTMLDivElement>(712);
  const scale = rulerScale(props.fit, props.fullScaleCounts, LEFT, width - 2 * LEFT);
  const right = width - LEFT;
  const movable = props.onMoveLimit !== undefined;
  return (
    <div ref={ref} className="w-full select-none">
      <svg
        width={width}
        height={HEIGHT}
        role={movable ? 'group' : 'img'}
        aria-label={describe(props)}
        className="block overflow-visible"
      >
        <g aria-hidden>
          <Bands {...props} scale={scale} right={right} />
          <PercentScale fit={props.fit} scale={scale} right={right} />
          <RawScale scale={scale} right={right} />
          {props.pegs?.map((peg, at) => (
            <Peg
              key={peg.label}
              peg={peg}
              x={scale.x(peg.counts)}
              crowded={isCrowded(props.pegs, at, scale)}
              width={width}
            />
          ))}
        </g>
        {props.fit && props.limits && (
          <>
            {(['start', 'stop'] as const).map((which) => (
              <LimitFlag
                key={which}
                which={which}
                fit={props.fit as TwoPoint}
                limits={props.limits as Limits}
                scale={scale}
                y={FLAG_Y}
                barY={BAR_Y}
                barEnd={BAR_END}
                onMove={props.onMoveLimit}
                onMoved={props.onLimitMoved}
              />
            ))}
          </>
        )}
        {props.now && <Plumb now={props.now} scale={scale} right={right} />}
      </svg>
    </div>
  );
}

function describe({ label, now, limits }: RulerProps): string {
  const reading = now
    ? `Now ${formatCounts(now.counts)} counts${now.percent === null ? '' : `, ${formatPercent(now.percent, 'span')}`}.`
    : 'No reading.';
  const flags = limits
    ? ` Start at ${formatPercent(limits.startTenths / 10, 'span')}, stop at ${formatPercent(limits.stopTenths / 10, 'span')}.`
    : '';
  return `${label}. ${reading}${flags}`;
}

function Bands({ fit, edges, scale, right }: RulerProps & { scale: RulerScale; right: number }) {
  const bands = fit && edges ? bandsOf(edges) : [];
  return (
    <>
      <rect x={LEFT} y={BAR_Y} width={right - LEFT} height={BAR_HEIGHT} className="fill-label" />
      {bands.map((band, at) => {
        // The outermost bands reach to the ends of the bar: what is clamped still is dry, or flooded.
        const x1 = at === 0 ? LEFT : scale.x(countsAtPercent(fit as TwoPoint, band.fromTenths / 10));
        const x2 =
          at === bands.length - 1 ? right : scale.x(countsAtPercent(fit as TwoPoint, band.toTenths / 10));
        const room = x2 - x1 > band.name.length * 8 + 14;
        return (
          <g key={band.name}>
            <rect x={x1} y={BAR_Y} width={x2 - x1} height={BAR_HEIGHT} fill={bandFill(band.name)} />
            {room && (
              <>
                <rect
                  x={(x1 + x2) / 2 - band.name.length * 4.1 - 5}
                  y={BAR_Y + 21}
                  width={band.name.length * 8.2 + 10}
                  height={20}
                  className="fill-label"
                />
                <text
                  x={(x1 + x2) / 2}
                  y={BAR_Y + 36}
                  textAnchor="middle"
                  className="fill-ink text-[14px] font-semibold"
                >
                  {band.name}
                </text>
              </>
            )}
          </g>
        );
      })}
      <rect
        x={LEFT}
        y={BAR_Y}
        width={right - LEFT}
        height={BAR_HEIGHT}
        fill="none"
        strokeWidth={1.5}
        className="stroke-ink"
      />
    </>
  );
}

function PercentScale({ fit, scale, right }: { fit: TwoPoint | null; scale: RulerScale; right: number }) {
  if (!fit)
    return (
      <text x={right} y={PERCENT_Y} textAnchor="end" className="fill-soft text-[12.5px]">
        no percent yet: two references are needed
      </text>
    );
  const percents = Array.from({ length: 51 }, (_, at) => at * 2);
  // A number every 10 %, or every 20 % where 10 would run into each other.
  const every = scale.x(countsAtPercent(fit, 10)) - scale.x(countsAtPercent(fit, 0)) > 34 ? 10 : 20;
  return (
    <>
      {percents.map((percent) => {
        const x = scale.x(countsAtPercent(fit, percent));
        const length = percent % every === 0 ? 12 : percent % 10 === 0 ? 9 : 5;
        return (
          <g key={percent}>
            <line x1={x} x2={x} y1={BAR_Y} y2={BAR_Y - length} className="stroke-ink" />
            {percent % every === 0 && percent < 100 && (
              <text x={x} y={PERCENT_Y} textAnchor="middle" className="fill-ink font-mono text-[12.5px]">
                {percent}
              </text>
            )}
          </g>
        );
      })}
      <text x={right} y={PERCENT_Y} textAnchor="end" className="fill-soft text-[12.5px]">
        <tspan className="fill-ink font-mono">100</tspan> % span
      </text>
    </>
  );
}

function RawScale({ scale, right }: { scale: RulerScale; right: number }) {
  return (
    <>
      {scale.ticks.map((tick) => {
        const x = scale.x(tick.counts);
        const length = tick.level === 'major' ? 12 : tick.level === 'middle' ? 9 : 5;
        // The last number would run into the words at the right end.
        const numbered = tick.level === 'major' && x < right - 92;
        return (
          <g key={tick.counts}>
            <line x1={x} x2={x} y1={BAR_END} y2={BAR_END + length} className="stroke-ink" />
            {numbered && (
              <text
                x={Math.max(x, LEFT + 8)}
                y={BAR_END + 26}
                textAnchor="middle"
                className="fill-ink font-mono text-[12.5px]"
              >
                {formatCounts(tick.counts)}
              </text>
            )}
          </g>
        );
      })}
      <text x={right} y={BAR_END + 26} textAnchor="end" className="fill-soft text-[12.5px]">
        raw counts
      </text>
    </>
  );
}

/** Two pegs whose names would run into each other: the later one then hangs a line lower. */
function isCrowded(pegs: readonly RulerPeg[] | undefined, at: number, scale: RulerScale): boolean {
  const before = pegs?.[at - 1];
  const here = pegs?.[at];
  return (
    before !== undefined &&
    here !== undefined &&
    Math.abs(scale.x(before.counts) - scale.x(here.counts)) < 110
  );
}

function Peg({ peg, x, crowded, width }: { peg: RulerPeg; x: number; crowded: boolean; width: number }) {
  const y = BAR_END + 32;
  const half = peg.label.length * 3.4;
  const labelX = Math.min(Math.max(x, half), width - half);
  return (
    <g>
      <line x1={x} x2={x} y1={BAR_Y} y2={BAR_END} strokeWidth={1.5} className="stroke-steel" />
      <path d={`M${x - 6} ${y + 9}h12l-6-9z`} className="fill-steel" />
      <text x={labelX} y={y + (crowded ? 36 : 22)} textAnchor="middle" className="fill-steel text-[12.5px]">
        {peg.label}
      </text>
    </g>
  );
}

/** The reading: a plumb line with its noise as a width; off the ruler, an arrow at the end says how far off. */
function Plumb({ now, scale, right }: { now: RulerNow; scale: RulerScale; right: number }) {
  const at = scale.x(now.counts);
  const x = Math.min(Math.max(at, LEFT), right);
  const isOff = at < LEFT - 0.5 || at > right + 0.5;
  const half = Math.abs(scale.x(now.counts + now.noiseCounts) - at);
  const wordsLeft = x > (LEFT + right) / 2;
  const words = `now ${formatCounts(now.counts)}${now.percent === null ? ' counts' : ` = ${formatPercent(now.percent, 'span')}`}`;
  return (
    <g aria-hidden className="text-handle">
      {!isOff && (
        <rect
          x={x - half}
          y={BAR_Y}
          width={2 * half}
          height={BAR_HEIGHT}
          fill="currentColor"
          opacity={0.25}
        />
      )}
      <line x1={x} x2={x} y1={NOW_Y + 8} y2={BAR_END} stroke="currentColor" strokeWidth={2.5} />
      {isOff ? (
        <path
          d={at < LEFT ? `M${x + 14} ${NOW_Y - 8}v18l-14-9z` : `M${x - 14} ${NOW_Y - 8}v18l14-9z`}
          fill="currentColor"
        />
      ) : (
        <path d={`M${x - 7} ${NOW_Y - 9}h14v9l-7 8-7-8z`} fill="currentColor" />
      )}
      <text
        x={wordsLeft ? x - 16 : x + 16}
        y={NOW_Y + 1}
        textAnchor={wordsLeft ? 'end' : 'start'}
        fill="currentColor"
        className="font-mono text-[13px] font-semibold"
      >
        {isOff ? `${words}, off the ruler` : words}
      </text>
    </g>
  );
}
