/**
 * The ruler: one bar for one probe in one plot. Raw counts along the lower edge, as the board sees them; percent with its kind along the
 * upper; pegs for the references, flags for the limits, patterned stretches for the bands, a plumb line for the reading with its noise
 * as a width.
 */
import { BAND_NAMES, type BandEdges, type WordSchool } from '@plain-trowel/core/quantity/bands';
import type { Curve } from '@plain-trowel/core/calibration/curve';
import { countsAtPercent } from '@plain-trowel/core/calibration/curve';
import type { LimitName, LimitRange, Limits } from '@plain-trowel/core/control/limits';
import { formatCounts, formatPercent } from '@plain-trowel/core/quantity/format';
import { useElementWidth } from '../ui/useElementWidth.ts';
import { BandBar } from './BandBar.tsx';
import { EdgeGrip } from './EdgeGrip.tsx';
import { BAR_HEIGHT, FLAG_Y, LEFT, levelsOf } from './levels.ts';
import { LimitFlag } from './LimitFlag.tsx';
import { isCrowded, Pegs, Plumb, type RulerNow, type RulerPeg } from './Marks.tsx';
import { rulerScale, type RulerScale } from './rulerScale.ts';
import { PercentScale, RawScale } from './Scales.tsx';
import { isShownRaw } from '@plain-trowel/core/quantity/percentKind';

export type RulerProps = {
  readonly label: string;
  readonly fullScaleCounts: number;
  readonly fit: Curve | null;
  readonly edges: BandEdges | null;
  readonly words: WordSchool;
  /** Where limits can lie; what lies beyond is hatched. */
  readonly range?: LimitRange | null;
  /** How far a reading at each limit may be off, percent: a width round its flag. */
  readonly doubt?: Readonly<Record<LimitName, number | null>> | null;
  /** “Right” goes with the limits: its edges have no grips of their own. */
  readonly wordsGoAlong?: boolean;
  readonly pegs: readonly RulerPeg[];
  readonly limits: Limits | null;
  readonly now: RulerNow | null;
  /** What the lower edge counts in; raw counts where nothing is said. */
  readonly rawUnit?: string;
  /** Given, the flags can be moved. */
  readonly onMoveLimit?: (which: LimitName, tenths: number) => void;
  readonly onLimitMoved?: () => void;
  /** Given, the edges between the bands can be moved. */
  readonly onMoveEdge?: (at: number, tenths: number) => void;
  readonly onEdgeMoved?: () => void;
  /** Given, the pegs can be pressed. */
  readonly onInspectPeg?: (id: string) => void;
};

export function Ruler(props: RulerProps) {
  const { fit, limits } = props;
  const [ref, width] = useElementWidth<HTMLDivElement>(712);
  const scale = rulerScale(fit, props.fullScaleCounts, LEFT, width - 2 * LEFT);
  const right = width - LEFT;
  const movable = props.onMoveLimit !== undefined;
  const levels = levelsOf(
    limits !== null,
    props.pegs.some((_, at) => isCrowded(props.pegs, scale, at)),
  );
  return (
    <div ref={ref} className="w-full select-none">
      <svg
        width={width}
        height={levels.height}
        role={movable || props.onInspectPeg ? 'group' : 'img'}
        aria-label={describe(props)}
        className="block overflow-visible"
      >
        <g aria-hidden>
          <BandBar
            fit={fit}
            edges={props.edges}
            words={props.words}
            scale={scale}
            right={right}
            barY={levels.barY}
          />
          <Beyond {...props} scale={scale} right={right} barY={levels.barY} />
          <Doubt {...props} scale={scale} right={right} barY={levels.barY} />
          {!(fit && isShownRaw(fit.percentKind)) && (
            <PercentScale fit={fit} scale={scale} right={right} levels={levels} />
          )}
          <RawScale scale={scale} right={right} levels={levels} unit={props.rawUnit ?? 'raw counts'} />
        </g>
        <g aria-hidden={props.onInspectPeg === undefined}>
          <Pegs
            pegs={props.pegs}
            scale={scale}
            width={width}
            levels={levels}
            onInspect={props.onInspectPeg}
          />
        </g>
        <EdgeGrips {...props} scale={scale} barY={levels.barY} />
        {fit &&
          limits &&
          (['start', 'stop'] as const).map((which) => (
            <LimitFlag
              key={which}
              which={which}
              fit={fit}
              limits={limits}
              scale={scale}
              y={FLAG_Y}
              barY={levels.barY}
              barEnd={levels.barEnd}
              onMove={props.onMoveLimit}
              onMoved={props.onLimitMoved}
            />
          ))}
        {props.now && <Plumb now={props.now} scale={scale} right={right} levels={levels} />}
      </svg>
    </div>
  );
}

type OnBar = { readonly scale: RulerScale; readonly right: number; readonly barY: number };

/** Hatched: where the calibration says nothing, or no soil like this can be. */
function Beyond({ fit, range, scale, right, barY }: Pick<RulerProps, 'fit' | 'range'> & OnBar) {
  if (!fit || !range) return null;
  const ends = [
    [LEFT, scale.x(countsAtPercent(fit, range.leastTenths / 10))],
    [scale.x(countsAtPercent(fit, range.mostTenths / 10)), right],
  ] as const;
  return ends.map(([from, to], at) => (
    <rect
      key={at === 0 ? 'dry' : 'wet'}
      x={from}
      y={barY}
      width={Math.max(0, to - from)}
      height={BAR_HEIGHT}
      fill="url(#beyond)"
    />
  ));
}

/** The ± as a width round both flags. */
function Doubt({
  fit,
  limits,
  doubt,
  scale,
  right,
  barY,
}: Pick<RulerProps, 'fit' | 'limits' | 'doubt'> & OnBar) {
  if (!fit || !limits || !doubt) return null;
  return (['start', 'stop'] as const).map((which) => {
    const plusMinus = doubt[which];
    if (plusMinus === null) return null;
    const percent = (which === 'start' ? limits.startTenths : limits.stopTenths) / 10;
    const [from, to] = [percent - plusMinus, percent + plusMinus].map((one) =>
      Math.min(right, Math.max(LEFT, scale.x(countsAtPercent(fit, one)))),
    );
    return (
      <rect
        key={which}
        x={from}
        y={barY - 7}
        width={Math.max(0, (to ?? 0) - (from ?? 0))}
        height={6}
        fillOpacity="0.45"
        className="fill-steel"
      />
    );
  });
}

/** The edges that lie within what the curve can say, as grips. */
function EdgeGrips({
  fit,
  edges,
  words,
  wordsGoAlong = false,
  onMoveEdge,
  onEdgeMoved,
  scale,
  barY,
}: Pick<RulerProps, 'fit' | 'edges' | 'words' | 'wordsGoAlong' | 'onMoveEdge' | 'onEdgeMoved'> & {
  scale: RulerScale;
  barY: number;
}) {
  if (!fit || !edges || !onMoveEdge) return null;
  const hasGrip = (at: number) => (at === 1 || at === 2 ? !wordsGoAlong : words === 'five');
  return edges.map((tenths, at) =>
    hasGrip(at) && tenths > 10 * fit.dryPercent && tenths < 10 * fit.wetPercent ? (
      <EdgeGrip
        key={BAND_NAMES[at]}
        at={at}
        edges={edges}
        fit={fit}
        scale={scale}
        barY={barY}
        onMove={onMoveEdge}
        onMoved={onEdgeMoved}
      />
    ) : null,
  );
}

function describe({ label, now, limits, fit }: RulerProps): string {
  const means = now?.means ? `, ${now.means}` : '';
  const end = now?.end ? ` Settling towards ${formatCounts(Math.round(now.end.counts))} counts.` : '';
  const reading = now ? `Now ${formatCounts(now.counts)} counts${means}.${end}` : 'No reading.';
  const flags =
    limits && fit
      ? ` Start at ${formatPercent(limits.startTenths / 10, fit)}, stop at ${formatPercent(limits.stopTenths / 10, fit)}.`
      : '';
  return `${label}. ${reading}${flags}`;
}
